/**
 * Where a derailleur takes its cable in two places, the place decides the pull ratio: nearer the pivot the same cable
 * swings the arm further. Which of the two a lever asks for the maker says; the other is a known fault.
 */
export const ANCHORS = ['nearer', 'farther'] as const
/** In the place that its ratio is not of: nearer the pivot than that, or farther. */
export type Anchor = (typeof ANCHORS)[number]
export const ANCHOR_WORDS: Record<Anchor, string> = {
  nearer: 'cable nearer the pivot',
  farther: 'cable farther from the pivot',
}

/** What the other place changes the ratio by, or divides it by. `memory`: 10 to 15 %. */
export const OTHER_PLACE_FACTOR = { from: 1.1, to: 1.15 } as const

/**
 * By what the ratio of a derailleur is multiplied where its cable lies in its other place: the middle of what is known.
 * 1 in the usual place, and for a ratio that was measured on this bike: it was measured where the cable lies.
 */
export function anchorFactor({ anchor, known }: { anchor?: Anchor; known?: string }): number {
  if (!anchor || known === 'measured') return 1
  const factor = (OTHER_PLACE_FACTOR.from + OTHER_PLACE_FACTOR.to) / 2
  return anchor === 'nearer' ? factor : 1 / factor
}
