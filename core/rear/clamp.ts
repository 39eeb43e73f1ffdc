import { notNegative, positive } from '../quantity/check'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'

type Span = { from: number; to: number }

/** Where the barrel starts before the inner is clamped, turns out: so that it can go either way. */
export const barrelStartTurns = (s: Standards = TABLE_ONLY): Span => targetIn(s, 'barrel-start')

/**
 * Turns out the barrel is set to before a clamp: as far as the school of starting has it, no further than the middle of
 * its thread.
 * @param start where it is to stand, turns out
 */
export const startTurnsOut = (rangeTurns: number, start: Span = barrelStartTurns()): number =>
  Math.min(start.to, rangeTurns / 2)

/**
 * When the barrel runs out: where to put it, and how much inner to draw (+) or let out (−) at the clamp so that the
 * setting stays what it is.
 * @param p turns out now, turns still wanted (+ out), travel and thread in mm per turn
 * @param start where the barrel is to stand by its school, turns out
 * @throws RangeError naming the argument
 */
export function reclampRecipe(
  p: { turnsOut: number; wantedTurns: number; rangeTurns: number; threadMm: number },
  start: Span = barrelStartTurns(),
): { barrelTurnsOut: number; drawMm: number } {
  notNegative('turnsOut', p.turnsOut)
  positive('rangeTurns', p.rangeTurns)
  positive('threadMm', p.threadMm)
  if (p.turnsOut > p.rangeTurns) throw new RangeError(`turnsOut ${p.turnsOut} is beyond rangeTurns ${p.rangeTurns}`)
  const barrelTurnsOut = startTurnsOut(p.rangeTurns, start)
  return { barrelTurnsOut, drawMm: (p.turnsOut + p.wantedTurns - barrelTurnsOut) * p.threadMm }
}

/** Total barrel after a clamp, turns: up to 1 is a good one, 2 to 2½ a poor one. `practice` */
export const clampJudged = (turnsSinceClamp: number): 'good' | 'fair' | 'poor' =>
  Math.abs(turnsSinceClamp) <= 1 ? 'good' : Math.abs(turnsSinceClamp) < 2 ? 'fair' : 'poor'

export const CLAMP_WORDS: Record<ReturnType<typeof clampJudged>, string> = {
  good: 'a good clamp',
  fair: 'fair',
  poor: 'a poor clamp: draw it again when there is time',
}

/**
 * Shift housing: wires parallel to the run, so that it does not shorten. It may never carry a brake, where it can
 * burst. `practice`
 */
export const HOUSING_KINDS = ['4 mm', '5 mm', 'full-length liner'] as const
export type HousingKind = (typeof HOUSING_KINDS)[number]

/** What ends a piece of housing. */
export const HOUSING_ENDS = ['metal', 'plastic', 'sealed', 'bare'] as const
export type HousingEnds = (typeof HOUSING_ENDS)[number]

/** Last rear loop, mm: usual lengths, and with a straight entry. */
export const lastLoopMm = (s: Standards = TABLE_ONLY): Record<'usual' | 'straight', { from: number; to: number }> => ({
  usual: targetIn(s, 'last-loop'),
  straight: targetIn(s, 'last-loop-straight'),
})
