import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'

/** How a run beds in after new cable or housing, and what to tell the rider. `practice`, no source. */

/** After which rides or weeks a new run has bedded in; how far is a target of the standards. */
export const SETTLE = { rides: '1 to 3 rides', weeks: '2 to 3 weeks' } as const
/** Firm full-range shifts before hand-back that take some of it out; only after L is seen. */
export const BEDDING_SHIFTS = 30
/** Share of the settling that thirty firm shifts take out; `model`. */
const BEDDED_SHARE = 0.5

/** What is still to come, turns out; nothing when nothing was renewed. */
export function settleForecast(
  p: { renewed: boolean; beddingShifts: number },
  s: Standards = TABLE_ONLY,
): { fromTurns: number; toTurns: number } | null {
  if (!p.renewed) return null
  const left = 1 - BEDDED_SHARE * Math.min(1, Math.max(0, p.beddingShifts) / BEDDING_SHIFTS)
  const { from, to } = targetIn(s, 'settle')
  return { fromTurns: from * left, toTurns: to * left }
}

export const TELL_RIDER =
  'Lay the bike on its other side, not on the derailleur. First sign is a delay leaving the smallest sprocket: barrel out an eighth, or come by.'
