import { positive } from '../quantity/check'
import type { Pixel } from './camera'
import type { Figure } from './fromBehind'
import type { Touch } from './touch'

/*
 * What lies flat beside something of a known size: a rod past its axle, marks, a plate over ring teeth, end gaps, pad
 * gaps, a yoke's height, a cable's tail.
 */

/** Something of known size in the picture, and how sure its size is, mm. */
export type Ruler = { id: string; ends: readonly [string, string]; mm: number; sdMm: number }

/** What is at hand beside what is measured there. Sizes: the chain's, two pitches, `std` ISO 9633, else `practice`. */
export const RULERS = {
  axle: { id: 'axle', ends: ['the axle’s thread, one side', 'its other side'], mm: 9.9, sdMm: 0.15 },
  chain: {
    id: 'chain',
    ends: ['the middle of a chain’s pin', 'the middle of the second pin from it'],
    mm: 25.4,
    sdMm: 0.08,
  },
  rim: { id: 'rim', ends: ['the rim, one side', 'its other side'], mm: 20, sdMm: 1.5 },
  pad: { id: 'pad', ends: ['the brake pad’s end', 'its other end'], mm: 60, sdMm: 8 },
} as const satisfies Record<string, Ruler>
export type RulerId = keyof typeof RULERS

/** How far the camera stands from what is measured, mm, where nothing tells; and how square, degrees. `model` */
const AWAY_MM = 350
const SQUARE_SD_DEG = 8
/** A ruler shorter than this in the picture is none, px. `model` */
const LEAST_RULER_PX = 60

/**
 * A length beside a ruler in the same picture.
 * @param deeperMm how far what is measured lies before or behind the ruler, at most about
 */
export function measureBeside(ask: {
  ruler: { from: Touch; to: Touch; mm: number; sdMm: number }
  length: { from: Touch; to: Touch }
  deeperMm: number
}): ({ is: 'told' } & Figure) | { is: 'unusable'; why: 'small' } {
  positive('ruler.mm', ask.ruler.mm)
  positive('ruler.sdMm', ask.ruler.sdMm)
  const apart = (a: Pixel, b: Pixel) => Math.hypot(a[0] - b[0], a[1] - b[1])
  const rulerPx = apart(ask.ruler.from.at, ask.ruler.to.at)
  if (rulerPx < LEAST_RULER_PX) return { is: 'unusable', why: 'small' }
  const lengthPx = apart(ask.length.from.at, ask.length.to.at)
  const mean = (lengthPx * ask.ruler.mm) / rulerPx
  const ends = (t: { from: Touch; to: Touch }) => Math.hypot(t.from.sdPx, t.to.sdPx)
  // a ruler that lies across what it measures is shortened otherwise than that when the camera leans
  const turn = directionBetween(ask.ruler, ask.length)
  const lean = 1 - Math.cos((SQUARE_SD_DEG * Math.PI) / 180)
  const share = Math.hypot(
    ask.ruler.sdMm / ask.ruler.mm,
    ends(ask.ruler) / rulerPx,
    ask.deeperMm / (2 * AWAY_MM),
    lean * Math.sin(turn),
  )
  return { is: 'told', mean, sd: Math.hypot(mean * share, (ends(ask.length) * ask.ruler.mm) / rulerPx) }
}

/** Which pad stands nearer by more than this is seen; less is even, mm. `practice` */
const EVEN_MM = 0.3

/** Both pads let go, beside the rim between them: each side's gap, and which is nearer. */
export function measurePads(ask: {
  leftPad: Touch
  leftRim: Touch
  rightRim: Touch
  rightPad: Touch
}):
  | { is: 'told'; left: Figure; right: Figure; apart: Figure; nearer: 'left' | 'right' | 'even' }
  | { is: 'unusable'; why: 'small' | 'unlike' } {
  const ruler = { ...RULERS.rim, from: ask.leftRim, to: ask.rightRim }
  const side = (pad: Touch, rim: Touch) => measureBeside({ ruler, length: { from: pad, to: rim }, deeperMm: 5 })
  const [left, right] = [side(ask.leftPad, ask.leftRim), side(ask.rightPad, ask.rightRim)]
  if (left.is !== 'told' || right.is !== 'told') return { is: 'unusable', why: 'small' }
  const across = ask.rightRim.at[0] - ask.leftRim.at[0]
  const perPx = RULERS.rim.mm / Math.hypot(across, ask.rightRim.at[1] - ask.leftRim.at[1])
  const mean = left.mean - right.mean
  // one rim is the ruler of both: how wide it is thought to be moves both alike
  const touches = Math.hypot(ask.leftPad.sdPx, ask.leftRim.sdPx, ask.rightRim.sdPx, ask.rightPad.sdPx) * perPx
  const sd = Math.hypot(touches, Math.abs(mean) * (RULERS.rim.sdMm / RULERS.rim.mm))
  if (touches > EVEN_MM) return { is: 'unusable', why: 'unlike' }
  const nearer = Math.abs(mean) <= EVEN_MM ? 'even' : mean < 0 ? 'left' : 'right'
  return { is: 'told', left, right, apart: { mean, sd }, nearer }
}

function directionBetween(a: { from: Touch; to: Touch }, b: { from: Touch; to: Touch }): number {
  const of = (t: { from: Touch; to: Touch }) => Math.atan2(t.to.at[1] - t.from.at[1], t.to.at[0] - t.from.at[0])
  return of(a) - of(b)
}
