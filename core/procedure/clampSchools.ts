/** How the inner is drawn before it is clamped. All `practice`, no source. */
export const CLAMP_IDS = ['pliers', 'preload', 'firm-hand', 'one-click-take-up'] as const
export type ClampId = (typeof CLAMP_IDS)[number]
type ClampSchool = {
  id: ClampId
  name: string
  why: string
  takeUpMm: { from: number; to: number }
  firstClick: string
  /** How it is done, in order. */
  steps: readonly string[]
}

/** `takeUpMm`: cable pulled beyond snug, as a rule, with what the first click does; `model` figures of a hand. */
export const CLAMPS: readonly ClampSchool[] = [
  {
    id: 'pliers',
    name: 'Drawn snug with pliers',
    why: 'Slack out, no strain in: the pulley must not move while you clamp.',
    takeUpMm: { from: -0.3, to: 0.3 },
    steps: [
      'Draw with pliers until the slack is out and the pulley has not moved.',
      'Clamp to torque while it is held.',
    ],
    firstClick: 'the first click pulls its full length',
  },
  {
    id: 'preload',
    name: 'A trace of preload',
    why: 'Takes the bedding in advance.',
    takeUpMm: { from: 0, to: 0.6 },
    steps: ['Draw until the slack is out, then a trace more.', 'The pulley may only just begin to stir; clamp there.'],
    firstClick: 'the first click comes a little early',
  },
  {
    id: 'firm-hand',
    name: 'A firm hand pull',
    why: 'No tool, the same on every bike by one hand.',
    takeUpMm: { from: -0.6, to: 0.6 },
    steps: ['Pull the inner straight by hand, firmly, as on every bike.', 'Clamp while you hold it.'],
    firstClick: 'the first click may come late or early: listen to it first',
  },
  {
    id: 'one-click-take-up',
    name: 'One-click take-up',
    why: 'Shift one in, ride it there, release the lever with the cranks still, take up what came free. Pulled hard it leaves up to a whole click too much.',
    takeUpMm: { from: 0, to: 2.5 },
    steps: [
      'Clamp roughly; shift one in and turn the cranks until the chain sits there.',
      'Cranks still: release the lever by that click.',
      'Undo the bolt, take up only what came free, and clamp.',
    ],
    firstClick: 'expect to wind the barrel in; if it overshoots by a gear, clamp again',
  },
]

/** Cable that this way of drawing leaves against snug, mm; undefined where it is not known which. */
export const takeUpOf = (id: ClampId | undefined): { from: number; to: number } | undefined =>
  CLAMPS.find(c => c.id === id)?.takeUpMm

export const sayClamp = (id: ClampId): string => CLAMPS.find(c => c.id === id)!.name.toLowerCase()
