/** How the inner is drawn before it is clamped. All `practice`, no source. */
export const CLAMP_IDS = ['pliers', 'preload', 'firm-hand', 'one-click-take-up'] as const
export type ClampId = (typeof CLAMP_IDS)[number]
type ClampSchool = {
  id: ClampId
  name: string
  takeUpMm: { from: number; to: number }
}

/**
 * `takeUpMm`: cable pulled beyond snug, as a rule; `model` figures of a hand. How each is done stands in
 * `schoolWhys.ts`.
 */
export const CLAMPS: readonly ClampSchool[] = [
  {
    id: 'pliers',
    name: 'Drawn snug with pliers',
    takeUpMm: { from: -0.3, to: 0.3 },
  },
  {
    id: 'preload',
    name: 'A trace of preload',
    takeUpMm: { from: 0, to: 0.6 },
  },
  {
    id: 'firm-hand',
    name: 'A firm hand pull',
    takeUpMm: { from: -0.6, to: 0.6 },
  },
  {
    id: 'one-click-take-up',
    name: 'One-click take-up',
    takeUpMm: { from: 0, to: 2.5 },
  },
]

/** Cable that this way of drawing leaves against snug, mm; undefined where it is not known which. */
export const takeUpOf = (id: ClampId | undefined): { from: number; to: number } | undefined =>
  CLAMPS.find(c => c.id === id)?.takeUpMm

export const sayClamp = (id: ClampId): string => CLAMPS.find(c => c.id === id)!.name.toLowerCase()
