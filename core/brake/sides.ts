export const SIDES = ['left', 'right'] as const
export type Side = (typeof SIDES)[number]
export const otherSide = (s: Side): Side => (s === 'left' ? 'right' : 'left')
/** Which pad stands nearer the rim once let go; the other arm then moves more. */
export type Nearer = Side | 'even'
