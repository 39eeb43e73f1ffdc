import type { Pixel } from './camera'
import { findOutline, reading, type Look, type Reading } from './edges'
import { onOneRound } from './onOneRound'
import { TIP } from './pulley'
import { barsOf, runOf, toTheRight, type RimEnds, type RimTouch } from './touch'

/*
 * Seen well aside the largest sprocket is no bar any more but a round with teeth, whose ends are put by hand three
 * times in four. Its side towards the wheel stands free, with nothing of the cassette behind it, so there the tips of
 * its teeth are found, a tooth at a time: together they tell how it lies better than its ends do.
 */

/** Teeth are looked for so far from the side's middle, radians: up to its ends, whose height they tell. */
const FROM_MIDDLE = 1.57
/** The outline is looked for so far from where the three touches put it: px, and a share of how far the rim bows. */
const REACH = { px: 9, share: 0.1 } as const
/** Tips of fewer of the teeth than this share are as likely smears, and tell nothing. `model` */
const ENOUGH_SHARE = 0.72
/** The outline is looked at every so many pixels. */
const STEP_PX = 1.5
/** A tip is so much of a tooth, to both sides of its middle. `practice` */
const TIP_SHARE = 0.09
/** How far one tip that was found may be off, px, from made pictures (docs/senses.md); its own height comes on top. */
const SD_PX = 0.3
/**
 * A tip further in, or out, than this beside the others' round is no tip, px: under grease or in shadow a tooth is lost
 * and its root, or a smear's edge, is found in its place; beside the lower end it may be the pulley's. `model`
 */
const FURTHEST_PX = { in: 0.8, out: 1.5 } as const
/** So much of a tooth's outline must be plain. */
const PLAIN_SHARE = 0.6

type Place = { at: Pixel; outward: Pixel }
type Tip = { phi: number; outPx: number }

/** The tooth that stands furthest out of a tooth's length of outline; null where too little of it is plain. */
function tipIn(outline: readonly (number | null)[], phis: readonly number[]): Tip | null {
  const plain = (from: number, to: number) => outline.slice(from, to).filter(o => o !== null)
  if (plain(0, outline.length).length < PLAIN_SHARE * outline.length) return null
  const reach = Math.max(1, Math.round(TIP_SHARE * outline.length))
  let best: Tip | null = null
  for (let i = reach; i < outline.length - reach; i++) {
    const of = plain(i - reach, i + reach + 1)
    if (of.length < 2 * reach) continue
    const outPx = of.reduce((a, b) => a + b, 0) / of.length
    if (!best || outPx > best.outPx) best = { phi: phis[i]!, outPx }
  }
  return best
}

/** How much lighter it is below the teeth than beyond them, on the whole. */
function lighterBy(light: Reading, places: readonly Place[], deepPx: number, reachPx: number): number {
  return places.reduce((s, { at, outward }) => {
    const of = light(at, outward)
    return s + of(0, -1.2 * deepPx) - of(0, reachPx)
  }, 0)
}
/** A tooth is so high, mm. `practice` */
const TOOTH_MM = 4.6

/**
 * Tips of the largest sprocket's teeth on its side towards the wheel, where they are plain, of a picture taken from
 * well aside.
 * @param sprocket its teeth, and its radius at their tips, mm
 */
export function tipsAlong(
  { upper, lower, near }: RimEnds,
  { teeth, radiusMm }: { teeth: number; radiusMm: number },
  focalPx: number,
  look: Look,
): RimTouch[] {
  const { widthPx } = barsOf(upper, lower, radiusMm, focalPx)
  const run = runOf({ upper, lower })
  const { middle, half, down, right } = run
  const bow = toTheRight(near, run)
  // from behind the wheel lies to the left: the near half of the rim from outboard, the far one from inboard
  const nearHalf = bow < 0
  // a round is seen as an ellipse, however near it is: as wide to one side of the middle of its ends as to the other
  const wide = Math.abs(bow)
  const reachPx = REACH.px + REACH.share * wide
  /** On the face towards the wheel, as an ellipse: so far from its middle, radians, + down. */
  const place = (phi: number): Place => {
    const [s, c] = [Math.sin(phi), Math.cos(phi)]
    const across = -c * wide - 0.5 * widthPx.sprocket
    const [nd, nr] = [s * wide, -c * half]
    const long = Math.hypot(nd, nr)
    return {
      at: [middle[0] + s * half * down[0] + across * right[0], middle[1] + s * half * down[1] + across * right[1]],
      outward: [(nd * down[0] + nr * right[0]) / long, (nd * down[1] + nr * right[1]) / long],
    }
  }
  const pitch = (2 * Math.PI) / teeth
  const windows = Math.floor((2 * FROM_MIDDLE) / pitch)
  const count = Math.max(20, Math.round((pitch * half) / STEP_PX))
  const seenAt = Array.from({ length: windows }, (_, w) => {
    const from = (w - windows / 2) * pitch
    const phis = Array.from({ length: count }, (_, i) => from + ((i + 0.5) / count) * pitch)
    return { phis, light: reading(look(place(from + pitch / 2).at, 0.6 * pitch * half + reachPx + 4)) }
  })
  // its ends may stand before something else than its side does: a wheel, a light wall
  const deep = (TOOTH_MM * half) / radiusMm
  const lighter = seenAt.reduce((s, { phis, light }) => s + lighterBy(light, phis.map(place), deep, reachPx), 0)
  const bright = lighter > 0
  const tips: Tip[] = []
  for (const { phis, light } of seenAt) {
    const tip = tipIn(findOutline(light, phis.map(place), reachPx, bright), phis)
    if (!tip) continue
    // one tooth on the border of two windows is one
    const before = tips.at(-1)
    if (!before || tip.phi - before.phi > 0.6 * pitch) tips.push(tip)
    else if (tip.outPx > before.outPx) tips[tips.length - 1] = tip
  }
  const kept = onOneRound(tips, FURTHEST_PX)
  if (kept.length < ENOUGH_SHARE * windows) return []
  return kept.map(({ phi, outPx }) => {
    const { at, outward } = place(phi)
    const [s, c] = [Math.sin(phi), Math.cos(phi)]
    // a tooth's height is seen foreshortened where it points at the camera
    const heightPx = (TIP.eachSdMm * half * Math.hypot(s, (c * wide) / half)) / radiusMm
    return {
      at: [at[0] + outPx * outward[0], at[1] + outPx * outward[1]],
      sdPx: Math.hypot(SD_PX, heightPx),
      tip: { down: s, forward: nearHalf ? -c : c },
    }
  })
}
