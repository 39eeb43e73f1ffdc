/**
 * L judged without sighting, the cranks turned by hand: by the thumb that pushes the derailleur onto it, and by the lever's last
 * part before the largest. Each stands for a place of L from its plane, mm, + inboard. `practice`; the places are `model`.
 */
export const L_FELT = ['clicks', 'quiet', 'catches', 'dull'] as const
export type LFelt = (typeof L_FELT)[number]
export const L_FELT_WORDS: Record<LFelt, string> = {
  clicks: 'Clicks: not far enough',
  quiet: 'Quiet: right',
  catches: 'Catches or grinds: too far',
  dull: 'Dull before the largest',
}
export const L_FELT_MM: Record<LFelt, number> = { clicks: -0.8, quiet: 0, catches: 1, dull: -0.8 }
