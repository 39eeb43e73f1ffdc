/** What can be tried on a real bike without touching it; names only, as a page lists them. */
export const WHAT_IFS = ['as-it-is', 'cable', 'bend', 'hanger', 'climbThenL', 'tensionFirst'] as const
export type WhatIf = (typeof WHAT_IFS)[number]
export const WHAT_IF_WORDS: Record<WhatIf, string> = {
  'as-it-is': 'As it is, by the advice',
  cable: 'A new cable first',
  bend: 'A new cable with one bend less',
  hanger: 'A new hanger first',
  climbThenL: 'In the order: climb, then L',
  tensionFirst: 'In the order: tension first',
}

/** What of it can be tried by hand as well: the orders are the advice's own. */
export const BY_HAND = ['as-it-is', 'cable', 'bend', 'hanger'] as const satisfies readonly WhatIf[]
export type ByHand = (typeof BY_HAND)[number]
export const BY_HAND_WORDS: Record<ByHand, string> = {
  'as-it-is': 'As it stands',
  cable: 'With a new cable',
  bend: 'With a new cable and one bend less',
  hanger: 'With a new hanger',
}

/** Means over bikes as the belief holds them to be; `right` a share. */
export type Expected = { of: number; right: number; touches: number; thrown: number; parts: number }
