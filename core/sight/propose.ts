import { findFarEnd, findNear, PLAIN, type Found, type Look } from './edges'
import type { Pixel } from './camera'
import { pulleyRadius } from './pulley'
import { barsOf } from './touch'

/*
 * What is found without a touch once three places are: the sprocket's near edge and the pulley's other end. Each is
 * shown for the hand to look at; where one is not plain it is left for a touch.
 */

/** A place that stands, and what was found at it. */
export type Standing = { at: Pixel; found: Found | null }
export type Proposal = { id: 'near' | 'pulleyUpper'; found: Found }

/** From further aside than about 2° an end is so much wider than the bar, and its near edge is not its middle. */
const NARROW = 2.1
/** A pulley lies nearer or farther than the sprocket, so it looks so much larger or smaller. */
const LIKE = 0.1

/**
 * @param sprocketMm its radius at its tips
 * @param focalPx the lens's focal length, as usual
 * @param pulleyTeeth null where they were not counted
 */
export function proposalsOf(
  standing: Partial<Record<string, Standing>>,
  sprocketMm: number,
  focalPx: number,
  pulleyTeeth: number | null,
  look: Look,
): Proposal[] {
  const { upper, lower, near, pulleyUpper, pulleyLower } = standing
  if (!upper || !lower) return []
  const { down, perMm, widthPx } = barsOf(upper.at, lower.at, sprocketMm, focalPx)
  const bright = (upper.found ?? lower.found)?.bright ?? true
  const out: Proposal[] = []
  const ends = [upper.found, lower.found].filter(f => f !== null)
  if (!near && ends.length && ends.every(f => f.widthPx < NARROW * widthPx.sprocket)) {
    const middle: Pixel = [(upper.at[0] + lower.at[0]) / 2, (upper.at[1] + lower.at[1]) / 2]
    const patch = look(middle, 8 * widthPx.sprocket)
    const found = findNear(patch, middle, down, widthPx.near, widthPx.near)
    if (found && found.contrast > PLAIN) out.push({ id: 'near', found })
  }
  if (!pulleyUpper && pulleyLower) {
    const { mean, sd } = pulleyRadius(pulleyTeeth)
    const between = { from: 2 * (mean - sd) * (1 - LIKE) * perMm, to: 2 * (mean + sd) * (1 + LIKE) * perMm }
    const up: Pixel = [-down[0], -down[1]]
    const patch = look(pulleyLower.at, between.to + 8 * widthPx.pulley)
    const found = findFarEnd(patch, pulleyLower.at, up, widthPx.pulley, between, pulleyLower.found?.bright ?? bright)
    if (found && found.contrast > PLAIN) out.push({ id: 'pulleyUpper', found })
  }
  return out
}
