/** Brakes that are diagnosed here: worked by a cable, and the coaster. */
export const BRAKE_KINDS = [
  'linear-pull',
  'dual-pivot',
  'cantilever',
  'cable-disc',
  'drum',
  'roller',
  'coaster',
] as const
export type BrakeKind = (typeof BRAKE_KINDS)[number]
/** Brakes that are proven here like any other, but not diagnosed. */
export const HYDRAULIC_KINDS = ['hydraulic-rim', 'hydraulic-disc'] as const
/** All that can be at one end of a bike, `none` among it. */
export const END_KINDS = [...BRAKE_KINDS, ...HYDRAULIC_KINDS, 'none'] as const
export type EndKind = (typeof END_KINDS)[number]
export const BRAKE_KIND_WORDS: Record<EndKind, string> = {
  'linear-pull': 'Linear-pull arms',
  'dual-pivot': 'Dual-pivot calliper',
  cantilever: 'Cantilever with straddle',
  'cable-disc': 'Cable disc',
  drum: 'Drum',
  roller: 'Roller',
  coaster: 'Coaster, no cable',
  'hydraulic-rim': 'Hydraulic rim',
  'hydraulic-disc': 'Hydraulic disc',
  none: 'No brake at this end',
}
