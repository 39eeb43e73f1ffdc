import type { Cause } from '../response/causes'

/**
 * What is looked at before any screw: "all fine" plus exceptions. `first` must be put right before a screw is turned;
 * nobody rides with what `stopsRiding`, so it keeps the bike; `odds` is how much likelier a cause becomes (`model`).
 * The list is `practice`, no source.
 */
type SenseItem = {
  id: SenseId
  fine: string
  otherwise: string
  does: string
  first: boolean
  stopsRiding?: true
  odds?: Partial<Record<Cause, number>>
}

export const SENSE_IDS = [
  'ferrules',
  'wire',
  'loops',
  'clicks',
  'cranks',
  'stiff-link',
  'worn',
  'match',
  'chain-length',
  'wheel-home',
  'bolts',
  'cage',
  'returns',
  'repeats',
  'spoke-guard',
  'cracked',
  'split',
] as const
export type SenseId = (typeof SENSE_IDS)[number]

const item = (
  id: SenseId,
  fine: string,
  otherwise: string,
  does: string,
  first = false,
  odds?: Partial<Record<Cause, number>>,
): SenseItem => ({ id, fine, otherwise, does, first, odds })

export const SENSE_CHECK: readonly SenseItem[] = [
  item(
    'wheel-home',
    'Wheel fully home',
    'Wheel not home',
    'Seat the wheel and close the axle: every figure taken before is void.',
    true,
  ),
  item(
    'bolts',
    'Derailleur bolt and lock ring tight',
    'Bolt or lock ring loose',
    'Tighten to the sheet before anything is set.',
    true,
  ),
  item('cage', 'Cage straight', 'Cage bent', 'Renew or true the cage: a bent cage looks like a bent hanger.', true, {
    hanger: 3,
  }),
  item(
    'ferrules',
    'Ferrules and housing fully in their stops',
    'A ferrule is not home',
    'Seat it, tug the inner, then listen again.',
    true,
  ),
  item(
    'wire',
    'No kink, crush, rust or fray',
    'Kink, crush, rust or fray',
    'Renew that piece. Frayed ends stab; a fray at a clamp is a stop-riding state.',
    false,
    { friction: 4 },
  ),
  item(
    'loops',
    'Housing free at full lock and full travel',
    'Housing pulls at lock or travel',
    'A longer piece: no screw cures a run that pulls.',
    false,
    { friction: 3 },
  ),
  item('clicks', 'Shifter clicks crisply', 'Clicks are dull or missing', 'Clean and oil the lever first.', false, {
    friction: 2,
  }),
  item('cranks', 'Cranks spin', 'Cranks drag or play', 'Bearings before gears.'),
  item(
    'stiff-link',
    'No stiff link',
    'A stiff link',
    'Free or renew it: it skips once per chain length in any gear, and no screw cures that.',
    true,
  ),
  item(
    'worn',
    'Chain, cassette, rings not worn out',
    'Worn chain, cassette or ring',
    'Name it before a screw is turned: a worn sprocket skips whatever the setting.',
    true,
    { wear: 6 },
  ),
  item(
    'match',
    'Parts match by their numbers',
    'Parts do not match',
    'See the match at intake: which part, and by how much.',
    false,
    { mismatch: 6 },
  ),
  item(
    'chain-length',
    'Chain length right',
    'Chain too short or too long',
    'Big and big must not be taut, small and small must not sag.',
    true,
  ),
  item(
    'returns',
    'Pushed in by thumb, it comes back by itself',
    'It does not come back by itself',
    'Drag in the run, or a weak or dirty spring: friction before tension.',
    false,
    { friction: 3 },
  ),
  item(
    'repeats',
    'The same result each time',
    'Another result each time',
    'Loose or not home, not out of adjustment: find what moves.',
    true,
  ),
  {
    ...item(
      'cracked',
      'No crack in hanger, dropout or frame',
      'A crack in hanger, dropout or frame',
      'Nobody rides it. A hanger is renewed; a frame goes to the maker or a qualified frame builder.',
      true,
    ),
    stopsRiding: true,
  },
  {
    ...item(
      'split',
      'No housing split or burst',
      'A housing is split',
      'Renew that piece before anything else: split housing gives way at the next hard pull.',
      true,
    ),
    stopsRiding: true,
  },
  item('spoke-guard', 'Spoke guard there', 'Spoke guard missing', 'Note it: it is a second line of defence.'),
]

/** Odds of the advice's causes from what was not fine. */
export function oddsOfSense(exceptions: readonly SenseId[]): Partial<Record<Cause, number>> {
  const out: Partial<Record<Cause, number>> = {}
  for (const i of SENSE_CHECK)
    if (exceptions.includes(i.id))
      for (const [c, times] of Object.entries(i.odds ?? {}) as [Cause, number][]) out[c] = (out[c] ?? 1) * times
  return out
}

/** What must be put right before any screw is turned. */
export const beforeAnyScrew = (exceptions: readonly SenseId[]): SenseItem[] =>
  SENSE_CHECK.filter(i => i.first && exceptions.includes(i.id))
