import { Image } from 'image-js'
import type { Pixel } from './camera'
import { REACH_PX } from './touch'

/*
 * Edges near a touch: where a sprocket seen from behind, a bar of a few pixels' width, ends, and where its middle is.
 */

/** A part of a picture, 0 black to 255 white, and where its upper left corner lies in the whole. */
export type Patch = { width: number; height: number; data: Uint8Array; left: number; top: number }

/** The picture about a place, so many pixels each way. */
export type Look = (about: Pixel, aroundPx: number) => Patch

/** What was found: the place, how well it stands out of what lies beside it (0 to 1), and how blurred its end is. */
export type Found = { at: Pixel; widthPx: number; contrast: number; blurPx: number; bright: boolean }

/** The picture's own grain taken off, as gradients want it, px. */
const SMOOTH_PX = 1.1
/** A bar may be so much narrower or wider than thought. */
const WIDTHS = { from: 0.5, to: 1.7 } as const
/** A touch is usually off by so much of what it may be: the nearer bar is meant, and not its neighbour. `model` */
const REACH_SDS = 0.6
/** Fainter than this an edge is grain, and a bar no bar. `model` */
const LEAST_CONTRAST = 0.025
const LEAST_INSIDE = 0.045

export type Lookup = (across: number, along: number) => number
export type Reading = (at: Pixel, along: Pixel) => Lookup

/** A smoothed patch, read in a frame of its own: across and along from a place in the whole picture. */
export function reading(patch: Patch): Reading {
  const image = new Image(patch.width, patch.height, { colorModel: 'GREY', data: patch.data })
  const { data } = image.gaussianBlur({ sigma: SMOOTH_PX }).getRawImage()
  const { width, height, left, top } = patch
  return ([u, v], [ax, ay]) =>
    (across, along) => {
      const x = Math.max(0, Math.min(width - 1.001, u - left + across * ay + along * ax))
      const y = Math.max(0, Math.min(height - 1.001, v - top - across * ax + along * ay))
      const i = Math.floor(x)
      const k = Math.floor(y)
      const at = k * width + i
      const upper = data[at]! * (1 - (x - i)) + data[at + 1]! * (x - i)
      const lower = data[at + width]! * (1 - (x - i)) + data[at + width + 1]! * (x - i)
      return upper * (1 - (y - k)) + lower * (y - k)
    }
}

type Bar = { middle: number; widthPx: number; contrast: number; bright: boolean }

/** Brighter than what lies beside it, darker, or either, where that changes along it. */
export type Bright = boolean | 'either'

/** The bar nearest to `near` in a row across, of about such a width. */
export function barIn(
  light: (across: number) => number,
  near: number,
  reach: number,
  widthPx: number,
  slack: number,
  only?: Bright,
): Bar | null {
  const step = 0.5
  const n = Math.round((2 * reach) / step) + 1
  const steep = Array.from({ length: n }, (_, i) => {
    const x = near - reach + i * step
    return (light(x + 0.75) - light(x - 0.75)) / 255
  })
  const peaks: { x: number; steep: number }[] = []
  for (let i = 1; i < n - 1; i++) {
    const [a, b, c] = [Math.abs(steep[i - 1]!), Math.abs(steep[i]!), Math.abs(steep[i + 1]!)]
    if (b < LEAST_CONTRAST || b < a || b <= c) continue
    const between = (0.5 * (a - c)) / (a - 2 * b + c || 1)
    peaks.push({ x: near - reach + (i + between) * step, steep: steep[i]! })
  }
  let best: (Bar & { score: number }) | null = null
  const nearest = (middle: number) => Math.exp(-0.5 * ((middle - near) / slack) ** 2)
  // seen a little aside a bar's far rim stands out beside it: its own edge is the sharper, and it is so thick
  if (only !== undefined)
    for (const bright of only === 'either' ? [true, false] : [only])
      for (const { x, steep } of peaks) {
        const left = steep > 0 === bright
        const middle = left ? x + widthPx / 2 : x - widthPx / 2
        const score = Math.abs(steep) * nearest(middle)
        if (!best || score > best.score) best = { middle, widthPx, contrast: Math.abs(steep), bright, score }
      }
  else
    for (const l of peaks)
      for (const r of peaks) {
        const w = r.x - l.x
        if (w < WIDTHS.from * widthPx || w > WIDTHS.to * widthPx || l.steep * r.steep >= 0) continue
        const bright = l.steep > 0
        const contrast = Math.min(Math.abs(l.steep), Math.abs(r.steep))
        const middle = (l.x + r.x) / 2
        const fits = Math.log(w / widthPx) / 0.25
        const score = contrast * nearest(middle) * Math.exp(-0.5 * fits ** 2)
        if (!best || score > best.score) best = { middle, widthPx: w, contrast, bright, score }
      }
  return best
}

export const mean = (light: Lookup, rows: readonly number[]) => (across: number) =>
  rows.reduce((s, t) => s + light(across, t), 0) / rows.length

/** Whole steps from one figure to another. */
export const range = (from: number, to: number, step = 1): number[] =>
  Array.from({ length: Math.max(1, Math.floor((to - from) / step) + 1) }, (_, i) => from + i * step)

/**
 * The middle of a bar where it was touched on its length.
 * @param along the bar's own direction, of length 1
 * @param bright is it brighter than what lies beside it, where its ends told; the gap to its neighbour is a bar too
 */
export function findMiddle(
  patch: Patch,
  touched: Pixel,
  along: Pixel,
  widthPx: number,
  reachPx: number = REACH_PX.finger,
  bright?: Bright,
): Found | null {
  const light = reading(patch)(touched, along)
  const bar = barIn(
    mean(light, range(-1.5 * widthPx, 1.5 * widthPx)),
    0,
    2 * reachPx + 2 * widthPx,
    widthPx,
    REACH_SDS * reachPx,
    bright,
  )
  if (!bar) return null
  const at: Pixel = [touched[0] + bar.middle * along[1], touched[1] - bar.middle * along[0]]
  return { at, widthPx: bar.widthPx, contrast: bar.contrast, blurPx: 0, bright: bar.bright }
}

/** Fainter than this an edge is left for a touch, or for what is found besides. `model` */
export const PLAIN = 0.08
/**
 * A sprocket's near edge, half way up: lighter than the gaps to its neighbours beside it, whatever its ends stand
 * before. (A gap between two is a bar too: which is meant nothing else tells.)
 */
export const findNear = (patch: Patch, touched: Pixel, along: Pixel, widthPx: number, reachPx: number): Found | null =>
  findMiddle(patch, touched, along, widthPx, reachPx, true)

/** One outline is as plain as another while it is at least so much of it: the outermost of them is taken. `model` */
const AS_PLAIN = 0.5
const OUTLINE_STEP_PX = 0.5
/**
 * How far outward a thing ends before what lies behind it, px; null where it does not plainly. The outermost plain step
 * counts: what lies within has edges of its own.
 * @param light by the way outward, px
 * @param bright is the thing brighter than what lies behind it
 */
export function outermostStep(light: (outPx: number) => number, reachPx: number, bright: boolean): number | null {
  const ts = range(-reachPx, reachPx, OUTLINE_STEP_PX)
  const steep = ts.map(t => ((bright ? 1 : -1) * (light(t - 0.75) - light(t + 0.75))) / 255)
  const least = Math.max(LEAST_CONTRAST, AS_PLAIN * Math.max(...steep))
  for (let i = ts.length - 2; i > 0; i--) {
    const [a, b, c] = [steep[i - 1]!, steep[i]!, steep[i + 1]!]
    if (b >= least && b >= a && b > c) return ts[i]! + ((0.5 * (a - c)) / (a - 2 * b + c || 1)) * OUTLINE_STEP_PX
  }
  return null
}
/**
 * That at each of some places.
 * @param places each with the direction outward, of length 1
 */
export function findOutline(
  light: Reading,
  places: readonly { at: Pixel; outward: Pixel }[],
  reachPx: number,
  bright: boolean,
): (number | null)[] {
  return places.map(({ at, outward }) => {
    const of = light(at, outward)
    return outermostStep(t => of(0, t), reachPx, bright)
  })
}

/** A step is looked for over so many pixels to both sides of the line that is measured. */
const STEP_WIDE_PX = 4
/**
 * Where light turns to dark or dark to light across a length that is measured, nearest to where its end was touched: a
 * thread's side, a plate's edge, a rim's.
 * @param along the length's own direction, of length 1
 */
export function findStep(patch: Patch, touched: Pixel, along: Pixel, reachPx: number = REACH_PX.finger): Found | null {
  const light = reading(patch)(touched, along)
  const of = (t: number) => middleOf(range(-STEP_WIDE_PX, STEP_WIDE_PX).map(x => light(x, t)))
  const step = 0.25
  const ts = range(-1.5 * reachPx, 1.5 * reachPx, step)
  const steep = ts.map(t => (of(t + 0.75) - of(t - 0.75)) / 255)
  let best: { t: number; steep: number; score: number } | null = null
  for (let i = 1; i < ts.length - 1; i++) {
    const [a, b, c] = [Math.abs(steep[i - 1]!), Math.abs(steep[i]!), Math.abs(steep[i + 1]!)]
    if (b < LEAST_CONTRAST || b < a || b <= c) continue
    const t = ts[i]! + ((0.5 * (a - c)) / (a - 2 * b + c || 1)) * step
    const score = b * Math.exp(-0.5 * (t / (REACH_SDS * reachPx)) ** 2)
    if (!best || score > best.score) best = { t, steep: steep[i]!, score }
  }
  if (!best) return null
  const at: Pixel = [touched[0] + best.t * along[0], touched[1] + best.t * along[1]]
  return { at, widthPx: 0, contrast: Math.abs(best.steep), blurPx: 0, bright: best.steep > 0 }
}

/**
 * Where a bar ends, at a touch near its end. Seen a little from the side its middle bows away from the end like the
 * root of the way, as a circle's does; that is taken off.
 * @param into the direction from its end into the bar, of length 1
 */
export function findEnd(
  patch: Patch,
  touched: Pixel,
  into: Pixel,
  widthPx: number,
  reachPx: number = REACH_PX.finger,
): Found | null {
  const light = reading(patch)(touched, into)
  const around = range(-reachPx - widthPx, reachPx + widthPx)
  const beyond = range(-3 * reachPx, -1.5 * reachPx, 2).flatMap(t => around.map(x => light(x, t)))
  const ground = middleOf(beyond)
  const inside = range(reachPx, reachPx + 1.5 * widthPx).flatMap(t => around.map(x => light(x, t) - ground))
  const far = [...inside].sort((l, r) => Math.abs(r) - Math.abs(l))[Math.floor(inside.length / 8)]!
  const contrast = Math.abs(far) / 255
  if (contrast < LEAST_INSIDE) return null
  /** Above 0 on the bar, below beside it. */
  const on = (x: number, t: number) => (light(x, t) - ground) / far - 0.5
  const tips = around.flatMap(x => {
    // the nearest: another bar may end just before this one begins; where they run together there is none
    const ts = range(-2 * reachPx, 2 * reachPx).filter(
      at => on(x, at - 1) <= 0 && on(x, at) > 0 && on(x, at + 1) > 0 && on(x, at + 2) > 0,
    )
    const t = ts.sort((l, r) => Math.abs(l) - Math.abs(r))[0]
    return t === undefined ? [] : [{ x, t }]
  })
  if (!tips.length) return null
  const first = Math.min(...tips.map(p => p.t))
  const top = tips.filter(p => p.t <= first + 1).map(p => p.x)
  const middle = middleOf(top)
  const end = crossing(t => on(middle, t), first - 4, first + 2) ?? first
  const middles: { way: number; across: number; widthPx: number }[] = []
  let last = middle
  for (const t of range(1.5, 2.5 * widthPx)) {
    const row = (x: number) => on(x, end + t)
    // both sides outward from the middle: the first where the bar is left
    const l = crossing(row, last - 2 * widthPx, last)
    const r = crossing(by => row(2 * last - by), last - 2 * widthPx, last)
    if (l === null || r === null || row(last) <= 0) continue
    const across = last + (l - r) / 2
    if (Math.abs(across - last) > 2.5) continue
    middles.push({ way: Math.sqrt(t), across, widthPx: 2 * last - r - l })
    last = across
  }
  if (middles.length < widthPx) return null
  const across = lineAt0(middles)
  return {
    at: [touched[0] + across * into[1] + end * into[0], touched[1] - across * into[0] + end * into[1]],
    widthPx: middleOf(middles.map(m => m.widthPx)),
    contrast,
    blurPx: blurOf(t => on(middle, t), end),
    bright: far > 0,
  }
}

/**
 * The other end of a bar, followed from the one that is known: so that one touch tells both. Grease and shadow lie on
 * its way, so it has ended only where nothing of it is seen for longer than it is thick.
 * @param into the direction from the known end into the bar, of length 1
 * @param between how far from the known end it may lie, px
 * @param bright is it brighter than what lies beside it
 */
export function findFarEnd(
  patch: Patch,
  end: Pixel,
  into: Pixel,
  widthPx: number,
  between: { from: number; to: number },
  bright: boolean,
): Found | null {
  const light = reading(patch)(end, into)
  const sign = bright ? 1 : -1
  const ground = middleOf(
    range(-3 * widthPx, -widthPx, 2).flatMap(t => range(-3 * widthPx, 3 * widthPx).map(x => light(x, t))),
  )
  const row = (t: number) => mean(light, [t - 1, t, t + 1])
  /** How far the bar stands out in a row, from what lies close on its two sides. */
  const standsOut = (t: number, x: number) => {
    const of = row(t)
    const core = (of(x - 0.25 * widthPx) + of(x) + of(x + 0.25 * widthPx)) / 3
    const sides = [of(x - 1.1 * widthPx), of(x + 1.1 * widthPx)]
    return sign * core - Math.max(...sides.map(v => sign * v))
  }
  /** Where the bar's middle is in a row; null where nothing stands out. */
  const middleIn = (t: number, near: number): number | null => {
    const most = standsOut(t, near)
    if (most < LEAST_INSIDE * 255) return null
    const of = row(t)
    const on = (x: number) => (sign * (of(x) - ground)) / most - 0.5
    const l = crossing(on, near - 1.2 * widthPx, near)
    const r = crossing(by => on(2 * near - by), near - 1.2 * widthPx, near)
    return l === null || r === null ? near : near + (l - r) / 2
  }
  let last = 0
  let off = 0
  let t = 2
  for (; t <= between.to + 1.2 * widthPx && off < 1.2 * widthPx; t++) {
    const middle = middleIn(t, last)
    if (middle === null) off += t < between.from ? 0 : 1
    else {
      off = 0
      // it leans, but does not jump
      last += Math.max(-0.5, Math.min(0.5, 0.3 * (middle - last)))
    }
  }
  const at = t - off
  if (off < 1.2 * widthPx || at < between.from + 1) return null
  const there: Pixel = [end[0] + last * into[1] + at * into[0], end[1] - last * into[0] + at * into[1]]
  const found = findEnd(patch, there, [-into[0], -into[1]], widthPx, Math.max(REACH_PX.magnified, 0.7 * widthPx))
  // an end that is not where the bar was followed to is another's
  return found && Math.hypot(found.at[0] - there[0], found.at[1] - there[1]) < widthPx ? found : null
}

/** Spread of the blur at an edge of height 1, px: its steepest slope, our own smoothing taken off. */
export function blurOf(on: (t: number) => number, end: number, aroundPx = 4): number {
  const steepest = Math.max(...range(end - aroundPx, end + aroundPx, 0.5).map(t => on(t + 0.5) - on(t - 0.5)))
  return Math.sqrt(Math.max(0, 1 / (2 * Math.PI * steepest ** 2) - SMOOTH_PX ** 2))
}

const middleOf = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)]!

/** Where a figure last passes from below 0 to above it, coming from one place to another; null where it does not. */
function crossing(figure: (x: number) => number, from: number, to: number): number | null {
  const step = 0.5
  let found: number | null = null
  let before = figure(from)
  for (let x = from + step; x <= to + 1e-9; x += step) {
    const here = figure(x)
    if (before <= 0 && here > 0) found = x - (step * here) / (here - before)
    before = here
  }
  return found
}

/** The straight line through points, where its way is 0; those that lie far from it are left out once. */
function lineAt0(points: readonly { way: number; across: number }[]): number {
  const fit = (of: readonly { way: number; across: number }[]) => {
    const n = of.length
    const mw = of.reduce((s, p) => s + p.way, 0) / n
    const ma = of.reduce((s, p) => s + p.across, 0) / n
    const ww = of.reduce((s, p) => s + (p.way - mw) ** 2, 0)
    const slope = ww > 0 ? of.reduce((s, p) => s + (p.way - mw) * (p.across - ma), 0) / ww : 0
    return { at0: ma - slope * mw, slope }
  }
  const all = fit(points)
  const off = (p: { way: number; across: number }) => Math.abs(p.across - all.at0 - all.slope * p.way)
  const usual = [...points].map(off).sort((a, b) => a - b)[Math.floor(points.length / 2)]!
  const close = points.filter(p => off(p) <= 2.5 * usual + 0.05)
  return fit(close.length > 3 ? close : points).at0
}
