import { z } from 'zod'
import { HEARD, type Heard } from '../response/heard'
import { LEVELS, PRACTICE_BENCHES, MOST_NUMBER, type PracticeBench } from './levels'

/** What came of a practice run: kept for who ran it. */
export const PracticeResult = z.object({
  id: z.uuid(),
  at: z.iso.datetime(),
  bench: z.enum(PRACTICE_BENCHES),
  level: z.enum(LEVELS),
  bike: z.int().min(1).max(MOST_NUMBER),
  lesson: z.string().max(40).nullable(),
  test: z.int().min(1).max(9_999).nullable(),
  faults: z.array(z.string().max(40)).max(4),
  won: z.boolean(),
  touches: z.int().nonnegative().max(1_000),
  helps: z.int().nonnegative().max(1_000),
  /** What was said of what was heard, beside what it was. */
  said: z.array(z.object({ said: z.enum(HEARD), was: z.enum(HEARD) })).max(400),
})
export type PracticeResult = z.infer<typeof PracticeResult>

/** A person's ear by kind of sound: how often it was there, and how often it was named. */
export function earOf(
  results: readonly PracticeResult[],
): { was: Heard; there: number; named: number; takenFor: Heard | null }[] {
  const all = results.flatMap(r => r.said)
  return HEARD.flatMap(was => {
    const these = all.filter(s => s.was === was)
    if (!these.length) return []
    const wrong = these.filter(s => s.said !== was).map(s => s.said)
    const count = (h: Heard) => wrong.filter(w => w === h).length
    const takenFor = wrong.length ? wrong.reduce((a, b) => (count(b) > count(a) ? b : a)) : null
    return [{ was, there: these.length, named: these.length - wrong.length, takenFor }]
  })
}

/** How often a fault was met on a bench, and found. */
export function faultsMet(
  results: readonly PracticeResult[],
): { bench: PracticeBench; fault: string; met: number; found: number; last: string }[] {
  const out = new Map<string, { bench: PracticeBench; fault: string; met: number; found: number; last: string }>()
  for (const r of [...results].sort((a, b) => a.at.localeCompare(b.at)))
    for (const fault of r.faults) {
      const key = `${r.bench} ${fault}`
      const was = out.get(key) ?? { bench: r.bench, fault, met: 0, found: 0, last: r.at }
      out.set(key, { ...was, met: was.met + 1, found: was.found + (r.won ? 1 : 0), last: r.at })
    }
  return [...out.values()].sort((a, b) => a.found / a.met - b.found / b.met || b.met - a.met)
}
