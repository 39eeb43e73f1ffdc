import type { Pixel } from './camera'

/** A place touched in a picture, and how far that may be off, px. */
export type Touch = { at: Pixel; sdPx: number }

/**
 * A place that was found along a sprocket's edge: the middle of its bar there or, seen well aside, the tip of a tooth,
 * which stands on the rim so far down of its middle and so far forward, as shares of its radius.
 */
export type RimTouch = Touch & { tip?: { down: number; forward: number } }

/** A sprocket's ends in a picture, and its edge nearest to the camera. */
export type RimEnds = { upper: Pixel; lower: Pixel; near: Pixel }

/** How far a touch may be off before an edge is looked for, px of the picture: by a finger, under the magnifier. */
export const REACH_PX = { finger: 8, magnified: 3 } as const
/** How far it may be off after: put on an edge, or by a hand under the magnifier where none stood out. `model` */
export const TOUCH_SD_PX = { found: 0.5, byHand: 1.2 } as const

/** A sprocket and a pulley are so thick at their tips, mm. `practice` */
export const THICK_MM = { sprocket: 1.7, pulley: 2.2 } as const

/** A bar between its ends: its middle, half its length, the way it runs and the one to its right, of length 1. */
export type Run = { middle: Pixel; half: number; down: Pixel; right: Pixel }
export function runOf({ upper, lower }: Pick<RimEnds, 'upper' | 'lower'>): Run {
  const [du, dv] = [lower[0] - upper[0], lower[1] - upper[1]]
  const length = Math.hypot(du, dv)
  const down: Pixel = [du / length, dv / length]
  const middle: Pixel = [(upper[0] + lower[0]) / 2, (upper[1] + lower[1]) / 2]
  return { middle, half: length / 2, down, right: [down[1], -down[0]] }
}
/** How far a place lies to the right of a bar, px. */
export const toTheRight = (of: Pixel, { middle, right }: Run): number =>
  (of[0] - middle[0]) * right[0] + (of[1] - middle[1]) * right[1]

/**
 * The way a sprocket runs in the picture, of length 1, and how wide it and the pulley stand there, from its ends; its
 * near edge is by its radius nearer than they are, and looks so much wider.
 * @param focalPx the lens's focal length, as usual (`usualLens`)
 */
export function barsOf(upper: Pixel, lower: Pixel, radiusMm: number, focalPx: number) {
  const { down, half } = runOf({ upper, lower })
  const perMm = half / radiusMm
  const farMm = focalPx / perMm
  const nearer = farMm / Math.max(radiusMm, farMm - radiusMm)
  const widthPx = {
    sprocket: THICK_MM.sprocket * perMm,
    near: THICK_MM.sprocket * perMm * nearer,
    pulley: THICK_MM.pulley * perMm,
  }
  return { down, perMm, farMm, widthPx }
}

/** The direction from one place to another, of length 1; null where they are one. */
export function towards(from: Pixel, to: Pixel): Pixel | null {
  const [du, dv] = [to[0] - from[0], to[1] - from[1]]
  const length = Math.hypot(du, dv)
  return length < 1 ? null : [du / length, dv / length]
}

/** More blurred than this an edge lies nowhere, px. `model` */
const MOST_BLUR_PX = 2.3
/**
 * One edge can be lost in what lies behind it; a picture is blurred where its middle end is, or where none of three was
 * found.
 * @param endsBlurPx null where an end was looked for and none found
 */
export function isBlurred(endsBlurPx: readonly (number | null)[]): boolean {
  const found = endsBlurPx.filter(b => b !== null).sort((a, b) => a - b)
  if (found.length === 0) return endsBlurPx.length >= 3
  const middle = found.length >> 1
  const blurPx = found.length % 2 ? found[middle]! : (found[middle - 1]! + found[middle]!) / 2
  return blurPx > MOST_BLUR_PX && (found.length > 1 || endsBlurPx.length >= 3)
}
