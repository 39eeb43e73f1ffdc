import type { Pixel } from './camera'
import { findMiddle, type Look } from './edges'
import { tipsAlong } from './tips'
import { barsOf, type RimEnds, type RimTouch } from './touch'

/*
 * A sprocket seen from behind is a bar all along its near edge, and its ends are the hardest of it to see: dark below a
 * lamp, or round. So where its ends and its near edge stand, its middle is found at more places between them, and they
 * tell together how it runs; seen well aside it is a round, and the tips of its teeth tell (`tips.ts`).
 */

/** Where along the bar its middle is looked for besides, from its upper end to its lower. */
const SHARES = [0.12, 0.22, 0.32, 0.42, 0.58, 0.68, 0.78, 0.88] as const
/** Seen further aside the bar bows more than so many of its widths, and its edge is another's too often. `model` */
const MOST_BOW = 1.6
/** A place is looked for so far from where the other three put it, px. */
const REACH_PX = 3
/** Fainter than this nothing is made of it. `model` */
const PLAIN = 0.08
/** How far one such place may be off, px, from made pictures (docs/senses.md). `model` */
const SD_PX = 0.3

/**
 * The bar's middle at places between its ends, where it is plain, or tips where it was taken from well aside.
 * @param sprocket its teeth, and its radius at their tips, mm
 * @param bright is it brighter than what lies beside it
 */
export function alongRim(
  ends: RimEnds,
  sprocket: { teeth: number; radiusMm: number },
  bright: boolean,
  look: Look,
): RimTouch[] {
  const { upper, lower, near } = ends
  const { down, widthPx } = barsOf(upper, lower, sprocket.radiusMm)
  const right: Pixel = [down[1], -down[0]]
  const middle: Pixel = [(upper[0] + lower[0]) / 2, (upper[1] + lower[1]) / 2]
  const half = Math.hypot(lower[0] - upper[0], lower[1] - upper[1]) / 2
  const bow = (near[0] - middle[0]) * right[0] + (near[1] - middle[1]) * right[1]
  if (Math.abs(bow) > MOST_BOW * widthPx.sprocket) return tipsAlong(ends, sprocket, bright, look)
  return SHARES.flatMap(share => {
    // an ellipse, as a circle seen nearly from its edge is
    const s = 2 * share - 1
    const c = Math.sqrt(1 - s * s)
    const at: Pixel = [
      middle[0] + s * half * down[0] + c * bow * right[0],
      middle[1] + s * half * down[1] + c * bow * right[1],
    ]
    const slope = ((-s / c) * bow) / half
    const long = Math.hypot(1, slope)
    const runs: Pixel = [(down[0] + slope * right[0]) / long, (down[1] + slope * right[1]) / long]
    const patch = look(at, 4 * widthPx.sprocket + 2 * REACH_PX)
    const found = findMiddle(patch, at, runs, widthPx.sprocket, REACH_PX, bright)
    return found && found.contrast > PLAIN ? [{ at: found.at, sdPx: SD_PX }] : []
  })
}
