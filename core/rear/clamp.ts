import { notNegative, positive } from '../quantity/check'

/** Where the barrel starts before the inner is clamped, turns out: so that it can go either way. `practice` */
export const BARREL_START_TURNS = { from: 1.5, to: 2 } as const

/**
 * When the barrel runs out: where to put it, and how much inner to draw (+) or let out (−) at the clamp so that the
 * setting stays what it is and the barrel has travel both ways.
 * @param p turns out now, turns still wanted (+ out), travel and thread in mm per turn
 * @throws RangeError naming the argument
 */
export function reclampRecipe(p: { turnsOut: number; wantedTurns: number; rangeTurns: number; threadMm: number }): {
  barrelTurnsOut: number
  drawMm: number
} {
  notNegative('turnsOut', p.turnsOut)
  positive('rangeTurns', p.rangeTurns)
  positive('threadMm', p.threadMm)
  if (p.turnsOut > p.rangeTurns) throw new RangeError(`turnsOut ${p.turnsOut} is beyond rangeTurns ${p.rangeTurns}`)
  const barrelTurnsOut = Math.min(BARREL_START_TURNS.to, p.rangeTurns / 2)
  return { barrelTurnsOut, drawMm: (p.turnsOut + p.wantedTurns - barrelTurnsOut) * p.threadMm }
}

/** Total barrel after a clamp, turns: up to 1 is a good one, 2 to 2½ a poor one. `practice` */
export const clampJudged = (turnsSinceClamp: number): 'good' | 'fair' | 'poor' =>
  Math.abs(turnsSinceClamp) <= 1 ? 'good' : Math.abs(turnsSinceClamp) < 2 ? 'fair' : 'poor'

/** Pieces of housing on a rear run, lever first. */
export const HOUSING_PLACES = ['lever loop', 'along the frame', 'last loop', 'full length'] as const
export type HousingPlace = (typeof HOUSING_PLACES)[number]

/** Shift housing: wires parallel to the run, so that it does not shorten. It may never carry a brake, where it can burst. `practice` */
export const HOUSING_KINDS = ['4 mm', '5 mm', 'full-length liner'] as const
export type HousingKind = (typeof HOUSING_KINDS)[number]

/** Last rear loop, mm: usual lengths, and with a straight entry. `memory` */
export const LAST_LOOP_MM = { usual: { from: 250, to: 320 }, straight: { from: 180, to: 230 } } as const
/** Inner left past the pinch bolt, capped, mm. `practice` */
export const TAIL_MM = { from: 30, to: 50 } as const
