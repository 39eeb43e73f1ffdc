/**
 * L judged without sighting, the cranks turned by hand: by the thumb that pushes the derailleur onto it, and by the
 * lever's last part before the largest. Only once L was seen by hand: a thumb on an L that is too far out puts the
 * chain into the spokes. `practice`
 */
export const L_FELT = ['clicks', 'quiet', 'catches', 'dull'] as const
export type LFelt = (typeof L_FELT)[number]
export const L_FELT_WORDS: Record<LFelt, string> = {
  clicks: 'Clicks: not far enough',
  quiet: 'Quiet: right',
  catches: 'Catches or grinds: too far',
  dull: 'Dull before the largest',
}

/** What each stands for: L's place from its plane, mm, + inboard. `model` */
const PLACE_MM: Record<LFelt, number> = { clicks: -0.8, quiet: 0, catches: 1, dull: -0.8 }
/** How far a thumb or an ear may be off, mm. `model` */
const FELT_SD_MM = 0.7

/** As the advice weighs it: a look with a wide spread, that opens no gate. */
export const feltAsSight = (felt: LFelt) =>
  ({ kind: 'sight', at: 'L', offsetMm: PLACE_MM[felt], sdMm: FELT_SD_MM }) as const

/**
 * Turns of L that this asks for, + in: a quarter away from the spokes where it catches; a quarter out where it clicks
 * or is dull, unless L was last seen in line or inboard: then it is looked at again instead. `practice`
 * @param seenMm as last seen, carried on by the turns since; null when it was not
 */
export function feltTurn(felt: LFelt, seenMm: number | null): number {
  if (felt === 'quiet') return 0
  if (felt === 'catches') return 1 / 4
  return seenMm === null || seenMm >= IN_LINE_MM ? 0 : -1 / 4
}
/** L this far outboard still counts as in line, mm. */
const IN_LINE_MM = -0.05
