import type { Pixel } from './camera'
import { findMiddle, PLAIN, type Look } from './edges'
import { onOneRound, scatterOf } from './onOneRound'
import { tipsAlong } from './tips'
import { barsOf, runOf, toTheRight, type RimEnds, type RimTouch, type Run, type Touch } from './touch'

/*
 * A sprocket seen from behind is a bar all along its near edge, and its ends are the hardest of it to see: dark below a
 * lamp, or round. So where its ends and its near edge stand, its middle is found at more places between them, and they
 * tell together how it runs; seen well aside it is a round, and the tips of its teeth tell (`tips.ts`). The same of the
 * guide pulley, whose free teeth look backward between the plates of its cage.
 */

/** Where along the bar its middle is looked for besides, from its upper end to its lower. */
const SHARES = [0.12, 0.22, 0.32, 0.42, 0.58, 0.68, 0.78, 0.88] as const
/** Seen further aside the bar bows more than so many of its widths, and its edge is another's too often. `model` */
const MOST_BOW = 1.6
/** A place is looked for so far from where the other three put it, px. */
const REACH_PX = 3
/** What lies further from there is another edge, and so is what lies so far beside the others' round, px. `model` */
const MOST_OFF_PX = 1.3 * REACH_PX
const FURTHEST_PX = 1
/** How far one such place may be off, px, from made pictures (docs/senses.md). `model` */
const SD_PX = 0.3

/** A bar, how far its near edge bows to the right, and how much wider it looks there than at its ends. */
type Bar = Run & { bow: number; widthPx: number; nearer: number }

/** The bar's middle at places between its ends, where it is plain; what is another edge's is left out. */
function middlesOf({ middle, half, down, right, bow, ...bar }: Bar, look: Look): Touch[] {
  const found = SHARES.flatMap(share => {
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
    const widthPx = bar.widthPx * (1 + (bar.nearer - 1) * c)
    const of = findMiddle(look(at, 4 * widthPx + 2 * REACH_PX), at, runs, widthPx, REACH_PX, 'either')
    if (!of || of.contrast <= PLAIN) return []
    const outPx = (of.at[0] - at[0]) * runs[1] - (of.at[1] - at[1]) * runs[0]
    return Math.abs(outPx) < MOST_OFF_PX ? [{ at: of.at, phi: Math.asin(s), outPx }] : []
  })
  const left = onOneRound(found, { in: FURTHEST_PX, out: FURTHEST_PX })
  // what scatters tells no more closely than it scatters
  const sdPx = Math.max(SD_PX, scatterOf(left))
  return left.map(({ at }) => ({ at, sdPx }))
}

/** A sprocket's bar, and what tells a pulley's beside it. */
function sprocketBar(ends: RimEnds, radiusMm: number, focalPx: number) {
  const { widthPx, perMm, farMm } = barsOf(ends.upper, ends.lower, radiusMm, focalPx)
  const run = runOf(ends)
  const nearer = widthPx.near / widthPx.sprocket
  const bar: Bar = { ...run, bow: toTheRight(ends.near, run), widthPx: widthPx.sprocket, nearer }
  return { bar, perMm, farMm, pulleyPx: widthPx.pulley, isAside: Math.abs(bar.bow) > MOST_BOW * bar.widthPx }
}

/**
 * The largest sprocket's edge at places between its ends, where it is plain, or its tips where it was taken from well
 * aside.
 * @param sprocket its teeth, and its radius at their tips, mm
 * @param focalPx the lens's focal length, as usual
 */
export function alongRim(
  ends: RimEnds,
  sprocket: { teeth: number; radiusMm: number },
  focalPx: number,
  look: Look,
): RimTouch[] {
  const { bar, isAside } = sprocketBar(ends, sprocket.radiusMm, focalPx)
  return isAside ? tipsAlong(ends, sprocket, focalPx, look) : middlesOf(bar, look)
}

/**
 * The guide pulley's edge at places between its ends, where it is plain. From well aside a plate of its cage stands
 * before it, and nothing is looked for.
 * @param ends of the sprocket, whose near edge tells from which side it is seen
 * @param sprocketMm the sprocket's radius at its tips
 * @param focalPx the lens's focal length, as usual
 */
export function alongPulley(
  ends: RimEnds,
  pulley: Pick<RimEnds, 'upper' | 'lower'>,
  sprocketMm: number,
  focalPx: number,
  look: Look,
): Touch[] {
  const { bar, perMm, farMm, pulleyPx, isAside } = sprocketBar(ends, sprocketMm, focalPx)
  if (isAside) return []
  const run = runOf(pulley)
  const pulleyMm = run.half / perMm
  // a near edge bows as far as its plane lies beside the camera: the sprocket’s tells that, the pulley’s lies beside it
  const besideCamera = (bar.bow * (farMm - sprocketMm)) / bar.half + toTheRight(run.middle, bar) / perMm
  const bow = (run.half * besideCamera) / (farMm - pulleyMm)
  return middlesOf({ ...run, bow, widthPx: pulleyPx, nearer: farMm / (farMm - pulleyMm) }, look)
}
