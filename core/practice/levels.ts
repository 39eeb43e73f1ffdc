/** Benches one can practise on, and how hard. */
export const PRACTICE_BENCHES = ['rear', 'front', 'brake', 'hub'] as const
export type PracticeBench = (typeof PRACTICE_BENCHES)[number]
export const BENCH_WORDS: Record<PracticeBench, string> = {
  rear: 'Rear derailleur',
  front: 'Front derailleur',
  brake: 'Brake',
  hub: 'Hub gear',
}

export const LEVELS = ['one', 'alike', 'two', 'none'] as const
export type Level = (typeof LEVELS)[number]
export const LEVEL_WORDS: Record<Level, { name: string; says: string }> = {
  one: { name: 'One fault', says: 'One thing is wrong, and it shows.' },
  alike: { name: 'A lookalike', says: 'One thing is wrong that is easily taken for another.' },
  two: { name: 'Two faults', says: 'Two things are wrong; one hides behind the other.' },
  none: { name: 'Perhaps nothing', says: 'It may be right as it stands: then say so.' },
}

/** Numbers of practice bikes: the same number is the same bike on every tablet. */
export const LEAST_NUMBER = 1
export const MOST_NUMBER = 99_999
