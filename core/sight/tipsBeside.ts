import type { Pixel } from './camera'
import { barIn, blurOf, mean, outermostStep, range, reading, type Look, type Lookup } from './edges'
import { middleSeen, teethSeen, tipAt, type FromSide, type TeethSeen, type TipsFound } from './fromSide'
import { isBlurred, towards, type Touch } from './touch'

/*
 * Three touched tips of a sprocket seen from the side tell where its other teeth stand. Each is looked for there: a bar
 * that stands across the rim and ends outward. What a chain, a stay or a cage covers is no such bar, and is left out.
 */

/** A tooth is so wide a little way down from its tip; it is looked for so far in and out and to both sides, mm. */
const TOOTH_MM = { wide: 3.8, downFrom: 1, downTo: 2, reach: 1.3, aside: 1.6, tipHalf: 0.5 } as const
/** A touch is off by about so much, so that its neighbour's flank is not taken for a tooth's, mm. `model` */
const SLACK_MM = 0.6
/** Fainter than this a tooth is a smear. `model` */
const PLAIN = 0.035
/** A tooth at the picture's own edge is cut. */
const LEAST_PATCH_PX = 20
/** How far a tip that was found may be off, px, from made pictures (docs/senses.md). */
const SD_PX = 0.5
/** Further than this off the others, outward or round, it is another thing's edge, mm. `model` */
const FURTHEST_OFF_MM = { out: 0.5, aside: 0.7 } as const
/** Fewer than these tell nothing of what is another thing's. */
const ENOUGH = 4

type Tip = { outMm: number; asideMm: number; touch: Touch }

/** How light it is so far outward, over a strip so wide to both sides of its middle. */
function outwardIn(light: Lookup, middle: number, half: number): (outPx: number) => number {
  const columns = range(middle - half, middle + half)
  return t => columns.reduce((s, x) => s + light(x, t), 0) / columns.length
}

/**
 * The tip of the tooth about a place; null where none stands there.
 * @param outward away from the ring's middle, of length 1
 */
export function findTooth(at: Pixel, outward: Pixel, perMm: number, look: Look): Pixel | null {
  // a tooth's further flank lies so far off at most
  const reach = (TOOTH_MM.aside + 0.8 * TOOTH_MM.wide) * perMm
  const patch = look(at, reach + 4)
  if (Math.min(patch.width, patch.height) < LEAST_PATCH_PX) return null
  const light = reading(patch)(at, outward)
  const down = range(-TOOTH_MM.downTo * perMm, -TOOTH_MM.downFrom * perMm)
  const bar = barIn(mean(light, down), 0, reach, TOOTH_MM.wide * perMm, SLACK_MM * perMm)
  if (!bar || bar.contrast < PLAIN || Math.abs(bar.middle) > TOOTH_MM.aside * perMm) return null
  const outPx = outermostStep(
    outwardIn(light, bar.middle, TOOTH_MM.tipHalf * perMm),
    TOOTH_MM.reach * perMm,
    bar.bright,
  )
  if (outPx === null) return null
  return [at[0] + bar.middle * outward[1] + outPx * outward[0], at[1] - bar.middle * outward[0] + outPx * outward[1]]
}

const middleOf = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1]!
/** Tips lie on one round, evenly parted: what lies far off the middle of the others is left out. */
function onOneRound(tips: readonly Tip[]): Tip[] {
  const [out, aside] = [middleOf(tips.map(t => t.outMm)), middleOf(tips.map(t => t.asideMm))]
  const left = tips.filter(
    t => Math.abs(t.outMm - out) <= FURTHEST_OFF_MM.out && Math.abs(t.asideMm - aside) <= FURTHEST_OFF_MM.aside,
  )
  return left.length < ENOUGH ? [] : left
}

/** A tooth that was looked for: where it was thought to be, and where its tip was found. */
type Looked = { at: Pixel; found: Pixel | null }
/** A tooth that is thought to be within so much of where it was looked for is not looked for again, mm. */
const THERE_MM = 0.5

/** Finds a ring's teeth; what it has looked at once it knows. */
function ringFinder(look: Look): (teeth: TeethSeen) => (Pixel | null)[] {
  const looked = new Map<number, Looked[]>()
  return teeth =>
    Array.from({ length: teeth.ring.teeth }, (_, k) => {
      const { at, outward, perMm } = tipAt(teeth, k)
      const before = looked.get(k) ?? []
      const known = before.find(l => Math.hypot(l.at[0] - at[0], l.at[1] - at[1]) < THERE_MM * perMm)
      if (known) return known.found
      const found = findTooth(at, outward, perMm, look)
      looked.set(k, [...before, { at, found }])
      return found
    })
}

function tipsOf(teeth: TeethSeen | null, find: (teeth: TeethSeen) => (Pixel | null)[]): Touch[] {
  if (!teeth) return []
  const tips = find(teeth).flatMap((found, k): Tip[] => {
    if (!found) return []
    const { at, outward, perMm } = tipAt(teeth, k)
    const [du, dv] = [(found[0] - at[0]) / perMm, (found[1] - at[1]) / perMm]
    return [
      {
        outMm: du * outward[0] + dv * outward[1],
        asideMm: du * outward[1] - dv * outward[0],
        touch: { at: found, sdPx: SD_PX },
      },
    ]
  })
  return onOneRound(tips).map(t => t.touch)
}

/** A tip's edge is looked at so far to both sides of it, and stands out by at least so much of 255. `model` */
const EDGE = { fromMm: 1.2, toMm: 2.2, halfMm: 0.3, least: 18 } as const
/**
 * How blurred the edge of a touched tip is, px; null where nothing stands out of what lies behind it. It is not asked
 * whether the tooth was found: a blurred one is a faint one.
 */
function blurAt(at: Pixel, { middle, perMm }: { middle: Pixel; perMm: number }, look: Look): number | null {
  const outward = towards(middle, at)
  const patch = look(at, (EDGE.toMm + 2) * perMm)
  if (!outward || Math.min(patch.width, patch.height) < LEAST_PATCH_PX) return null
  const light = reading(patch)(at, outward)
  const of = outwardIn(light, 0, EDGE.halfMm * perMm)
  const level = (sign: 1 | -1) => middleOf(range(EDGE.fromMm * perMm, EDGE.toMm * perMm).map(t => of(sign * t)))
  const height = level(-1) - level(1)
  return Math.abs(height) < EDGE.least ? null : blurOf(t => -of(t) / height, 0, EDGE.fromMm * perMm)
}
/**
 * How blurred the touched tips of both rings are, px: those that stand out of what lies behind them.
 * @returns none where the touches are of no such ring
 */
export function tipsBlurPx(ask: FromSide, look: Look): number[] {
  const seen = teethSeen(ask)
  if (!seen) return []
  const of = (ring: TeethSeen | null, touches: readonly Touch[]) => {
    if (!ring) return []
    const { perMm } = tipAt(ring, 0)
    return touches.flatMap(t => blurAt(t.at, { middle: middleSeen(ring), perMm }, look) ?? [])
  }
  return [...of(seen.sprocket, ask.tips), ...of(seen.pulley, ask.pulleyTips)]
}

/** Looked for once from the touches, and once from what was found then, which is nearer. */
const ROUNDS = 2

/**
 * Finds the tips of all teeth that stand free in one picture from the side, by its touched tips. Asked again, after
 * another touch or one that was put right, it looks only where a tooth is thought to be elsewhere.
 */
export function teethFinder(look: Look): (ask: FromSide) => TipsFound {
  const [ofSprocket, ofPulley] = [ringFinder(look), ringFinder(look)]
  return ask => {
    let besides: TipsFound = { tips: [], pulleyTips: [] }
    for (let round = 0; round < ROUNDS; round++) {
      const teeth = teethSeen({ ...ask, besides })
      if (!teeth) break
      besides = { tips: tipsOf(teeth.sprocket, ofSprocket), pulleyTips: tipsOf(teeth.pulley, ofPulley) }
    }
    return besides
  }
}

/**
 * What one picture from the side shows besides its touched tips; null where it is blurred.
 * @param find finds its teeth, in the same picture
 */
export const shownBesides = (ask: FromSide, find: (ask: FromSide) => TipsFound, look: Look): TipsFound | null =>
  isBlurred(tipsBlurPx(ask, look)) ? null : find(ask)
