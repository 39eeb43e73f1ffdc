import { degrees } from '../quantity/angle'
import { positive, positiveList } from '../quantity/check'
import type { FrontParts } from './parts'

/** Where the sprockets stand from the middle plane, mm, + outboard: the smallest is outermost. */
export function sprocketLines(rearLineMm: number, pitchMm: readonly number[]): number[] {
  positiveList('pitchMm', [...pitchMm])
  const whole = pitchMm.reduce((s, p) => s + p, 0)
  let inboard = 0
  return [rearLineMm + whole / 2, ...pitchMm.map(p => rearLineMm + whole / 2 - (inboard += p))]
}

/** Where the rings stand from the middle plane, mm, + outboard, the smallest first. */
export function ringLines(p: Pick<FrontParts, 'chainLineMm' | 'spacingMm'>): number[] {
  const whole = p.spacingMm.reduce((s, x) => s + x, 0)
  let outboard = 0
  return [p.chainLineMm - whole / 2, ...p.spacingMm.map(x => p.chainLineMm - whole / 2 + (outboard += x))]
}

/**
 * Angle of the chain between a ring and a sprocket, degrees; + when the sprocket stands outboard of the ring.
 * Source: plain trigonometry, atan(offset ÷ chainstay).
 * @throws RangeError when the chainstay is not positive
 */
export function chainAngleDeg(ringMm: number, sprocketMm: number, chainstayMm: number): number {
  positive('chainstayMm', chainstayMm)
  return degrees(Math.atan2(sprocketMm - ringMm, chainstayMm))
}

/**
 * Lateral place of the chain where the cage sees it, mm from the middle plane: on the straight line from ring to
 * sprocket.
 */
export const chainAtCageMm = (p: FrontParts, ringMm: number, sprocketMm: number): number =>
  ringMm + (sprocketMm - ringMm) * (p.cageBehindMm / p.chainstayMm)

/** A pair bends the chain noticeably beyond this, degrees; `model`. */
export const CROSSED_DEG = 2.5
