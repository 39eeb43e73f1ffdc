/**
 * A hanger without a gauge: looked at from behind, the cage against the sprockets. It tells bent from straight, not how
 * much. `practice`
 */
export const HANGER_LOOKS = ['straight', 'leans-in', 'leans-out', 'twisted'] as const
export type HangerLook = (typeof HANGER_LOOKS)[number]
export const HANGER_LOOK_WORDS: Record<HangerLook, string> = {
  straight: 'Hangs straight',
  'leans-in': 'Leans in, pulleys to the spokes',
  'leans-out': 'Leans out, pulleys to the frame',
  twisted: 'Twisted, across the chain',
}

/** What an eye's word stands for: camber and toe in degrees, and how far it may be off. `model` */
export const EYE: Record<HangerLook, { camberDeg: number; toeDeg: number; sdDeg: number }> = {
  straight: { camberDeg: 0, toeDeg: 0, sdDeg: 0.7 },
  'leans-in': { camberDeg: 2, toeDeg: 0, sdDeg: 0.7 },
  'leans-out': { camberDeg: -2, toeDeg: 0, sdDeg: 0.7 },
  // a twist says little of the lean
  twisted: { camberDeg: 0, toeDeg: 2, sdDeg: 1.5 },
}
