import {
  dot,
  minus,
  seen,
  turned,
  unbent,
  type Lens,
  type Pixel,
  type Place,
  type Pose,
  type Turned,
} from '../sight/camera'
import { onRim, type Rim } from '../sight/rim'
import { randomFrom } from '../quantity/random'

/*
 * A picture of a bike's toothed parts as a camera would take it, ray by ray: for benches, the stand-in camera and
 * tests. It shares the pinhole with the measuring, nothing of how edges are found or figures are told.
 */

/**
 * A toothed or plain disc. `turn`: its first tooth stands so far forward of upright, radians; `each`: how its teeth
 * differ from one another, mm shorter and mm leaning; `narrow`: its tips are so much narrower than the usual; `arcs`:
 * it stands only within these, radians forward of upright.
 */
export type Disc = Rim & {
  teeth: number
  rootMm: number
  halfMm: number
  tone: number
  turn?: number
  each?: readonly { shorterMm: number; leanMm: number }[]
  narrow?: number
  arcs?: readonly (readonly [number, number])[]
}
export type Weather = {
  /** Spread of the lens's blur, px, of the sensor's noise (0 to 255), and how much of the metal is under grease. */
  blurPx: number
  noise: number
  grease: number
  /** Light falls off by so much across the picture, and comes from this side. */
  uneven: number
  lightFrom: Place
  /** How light what no lamp reaches is, 0 to 255. */
  fill: number
  /** How light what lies behind the bike is: a dark workshop where left out, up to a light wall. */
  behind?: number
  seed: number
}
export type Grey = { width: number; height: number; data: Uint8Array }

type Ready = {
  disc: Disc
  up: Place
  forward: Place
  axis: Place
  /** The camera from its middle, along its axis, up and forward. */
  from: Place
  box: [number, number, number, number]
  /** How far its longest tooth reaches, mm. */
  reachMm: number
  /** Is it there, at so many shares of a turn; null where it is whole. */
  stands: Uint8Array | null
}

/** A part of a picture: its upper left corner and size, px; `every` keeps one in so many, for a smaller one. */
export type Part = { left: number; top: number; width: number; height: number; every?: number }

export function render(discs: readonly Disc[], lens: Lens, pose: Pose, weather: Weather, part: Part): Grey {
  const every = part.every ?? 1
  // twice as fine as asked, then averaged
  const [w, h] = [Math.round(part.width / every), Math.round(part.height / every)]
  const margin = Math.ceil(3 * weather.blurPx) + 1
  const ready = discs.map(d => readied(d, lens, pose))
  const rays: Rays = { lens, weather, rows: turned(pose) }
  const all = [0, 1, 2, 3].map(i => (i < 2 ? Math.min : Math.max)(...ready.map(r => r.box[i]!)))
  const [bw, bh] = [w + 2 * margin, h + 2 * margin]
  const sharp = new Float32Array(bw * bh)
  const near: Ready[] = []
  for (let y = 0; y < bh; y++)
    for (let x = 0; x < bw; x++) {
      const [u, v] = [part.left + (x - margin + 0.5) * every - 0.5, part.top + (y - margin + 0.5) * every - 0.5]
      near.length = 0
      if (u > all[0]! && u < all[2]! && v > all[1]! && v < all[3]!)
        for (const r of ready) if (u > r.box[0] && u < r.box[2] && v > r.box[1] && v < r.box[3]) near.push(r)
      if (!near.length) {
        sharp[y * bw + x] = falling(lens, weather, u) * floor(u, v, weather)
        continue
      }
      let light = 0
      for (let i = 0; i < 4; i++) light += lightAt(near, rays, u + QUARTERS_U[i]! * every, v + QUARTERS_V[i]! * every)
      sharp[y * bw + x] = light / 4
    }
  const soft = weather.blurPx > 0 ? blurred(sharp, bw, bh, weather.blurPx) : sharp
  const random = randomFrom(weather.seed, 31, Math.round(part.left), Math.round(part.top))
  const data = new Uint8Array(w * h)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const light = soft[(y + margin) * bw + x + margin]! + weather.noise * random.normal()
      data[y * w + x] = Math.max(0, Math.min(255, Math.round(light)))
    }
  return { width: w, height: h, data }
}

function readied(disc: Disc, lens: Lens, pose: Pose): Ready {
  const up: Place = [-Math.sin(disc.camber), Math.cos(disc.camber), 0]
  const forward: Place = [Math.sin(disc.toe), 0, Math.cos(disc.toe)]
  const axis: Place = [
    up[1] * forward[2] - up[2] * forward[1],
    up[2] * forward[0] - up[0] * forward[2],
    up[0] * forward[1] - up[1] * forward[0],
  ]
  const reachMm = disc.radiusMm - Math.min(0, ...(disc.each ?? []).map(tooth => tooth.shorterMm))
  const box: Ready['box'] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < 24; i++)
    for (const side of [-1, 1]) {
      const rim = onRim({ ...disc, radiusMm: reachMm + 1 }, (i * Math.PI) / 12)
      const place = rim.map((v, k) => v + side * disc.halfMm * axis[k]!) as unknown as Place
      const [u, v] = seen(lens, pose, place)
      box[0] = Math.min(box[0], u - 3)
      box[1] = Math.min(box[1], v - 3)
      box[2] = Math.max(box[2], u + 3)
      box[3] = Math.max(box[3], v + 3)
    }
  const to = minus(pose.atMm, disc.middle)
  const from: Place = [dot(axis, to), dot(up, to), dot(forward, to)]
  const stands = disc.arcs ? new Uint8Array(SHARES) : null
  for (const [from, to] of disc.arcs ?? [])
    for (let i = shareOf(from); i <= shareOf(from) + ((to - from) / TURN) * SHARES; i++) stands![i % SHARES] = 1
  // every disc in one form: a ray asks each of them a few million times a picture
  const { middle, radiusMm, camber, toe, teeth, rootMm, halfMm, tone, turn, each, narrow } = disc
  const alike = { middle, radiusMm, camber, toe, teeth, rootMm, halfMm, tone, turn, each, narrow, arcs: undefined }
  return { disc: alike, up, forward, axis, from, box, reachMm, stands }
}

const STEP_MM = 0.7
const ROUNDING_MM = 1e-6

/** How far along its ray a disc is met, on which face (0 on its rim), and where on it. */
type Met = { s: number; face: number; p: number; q: number }
/** The one met last; made once, since a picture has millions. */
const last: Met = { s: 0, face: 0, p: 0, q: 0 }
/**
 * The first place where a ray that goes so far inboard, up and forward meets a disc: left in `last`; false where it
 * does not.
 * @param before what lies further along is hidden
 */
function meets(ready: Ready, inboard: number, above: number, ahead: number, before: number): boolean {
  const { disc, up, forward, axis, from, reachMm, stands } = ready
  // one by one: this is where the time of a picture goes; lists, and what another module brings, would double it
  const ow = from[0]
  const op = from[1]
  const oq = from[2]
  const dw = axis[0] * inboard + axis[1] * above + axis[2] * ahead
  const dp = up[0] * inboard + up[1] * above + up[2] * ahead
  const dq = forward[0] * inboard + forward[1] * above + forward[2] * ahead
  let s0 = 0
  let s1 = Infinity
  if (Math.abs(dw) > 1e-9) {
    const a = (-disc.halfMm - ow) / dw
    const b = (disc.halfMm - ow) / dw
    s0 = Math.min(a, b)
    s1 = Math.max(a, b)
  } else if (Math.abs(ow) > disc.halfMm) return false
  const qa = dp * dp + dq * dq
  const qb = op * dp + oq * dq
  const root = qb * qb - qa * (op * op + oq * oq - reachMm ** 2)
  if (root <= 0) return false
  const c0 = (-qb - Math.sqrt(root)) / qa
  const c1 = (-qb + Math.sqrt(root)) / qa
  const onFace = s0 > c0
  let s = Math.max(s0, c0, 0)
  const end = Math.min(s1, c1, before)
  if (s >= end) return false
  // where the ray comes in tells which of its arcs it meets: they are thin
  if (stands && !stands[shareOf(Math.atan2(oq + s * dq, op + s * dp))]) return false
  for (let first = true; ; first = false) {
    const p = op + s * dp
    const q = oq + s * dq
    const r = Math.sqrt(p * p + q * q)
    // the longest tip stands just as far out as the round that the ray came in by
    if (r <= disc.rootMm || r <= toothAt(disc, Math.atan2(q, p)) + ROUNDING_MM) {
      last.s = s
      last.face = first && onFace ? -Math.sign(dw) : 0
      last.p = p
      last.q = q
      return true
    }
    // the last step is as short as it must be: what leaves by an edge has met it
    if (s >= end - ROUNDING_MM) return false
    s = Math.min(s + STEP_MM, end - ROUNDING_MM)
  }
}

/** How much light falls on a disc where a ray met it, 0 to 1: by which way it faces there. */
function litAt({ axis, up, forward }: Ready, { face, p, q }: Met, { lightFrom }: Weather): number {
  const [x, y, z] = lightFrom
  if (face) return Math.max(0, face * axis[0] * x + face * axis[1] * y + face * axis[2] * z)
  const r = Math.max(1e-6, Math.hypot(p, q))
  const a = (up[0] * p + forward[0] * q) / r
  const b = (up[1] * p + forward[1] * q) / r
  const c = (up[2] * p + forward[2] * q) / r
  return Math.max(0, a * x + b * y + c * z)
}

/** How far out a disc reaches at an angle, mm: its teeth rise and fall, each a little unlike the next. */
function toothAt({ teeth, rootMm, radiusMm, turn = 0, each, narrow = 0 }: Disc, angle: number): number {
  const turned = angle - turn
  const own = each?.[((Math.round((teeth * turned) / TURN) % teeth) + teeth) % teeth]
  const by = own ? turned - own.leanMm / radiusMm : turned
  const tooth = Math.max(0, Math.min(1, 0.5 + (0.95 - narrow) * Math.cos(teeth * by)))
  return rootMm + (radiusMm - (own?.shorterMm ?? 0) - rootMm) * tooth
}
/** The outline of a tooth is looked at in so many places for where it reaches farthest. */
const PLACES_A_TOOTH = 40
/**
 * Where a toothed disc ends in a picture, along the picture of its own upright, as an eye sees it: at a tooth's tip,
 * which need not stand just at the end of the round that they all stand on.
 */
export function toothedEndsOf(lens: Lens, pose: Pose, disc: Disc): { upper: Pixel; lower: Pixel } {
  const rows = turned(pose)
  const [foot, head] = [0, 1].map(up => seen(lens, pose, onRim({ ...disc, radiusMm: up }, 0), rows))
  const [ux, uy] = [head![0] - foot![0], head![1] - foot![1]]
  const ends = { upper: foot!, lower: foot! }
  const reach = { upper: -Infinity, lower: -Infinity }
  for (let i = 0; i < PLACES_A_TOOTH * disc.teeth; i++) {
    const angle = (i / (PLACES_A_TOOTH * disc.teeth)) * TURN
    const at = seen(lens, pose, onRim({ ...disc, radiusMm: toothAt(disc, angle) }, angle), rows)
    const up = at[0] * ux + at[1] * uy
    if (up > reach.upper) [ends.upper, reach.upper] = [at, up]
    if (-up > reach.lower) [ends.lower, reach.lower] = [at, -up]
  }
  return ends
}
const TURN = 2 * Math.PI
/** An arc's ends are kept so finely, shares of a turn. */
const SHARES = 16384
const shareOf = (angle: number) => Math.floor((((angle % TURN) + TURN) % TURN) * (SHARES / TURN)) % SHARES

function corner(i: number, k: number, seed: number): number {
  let t = Math.imul(i, 374761393) + Math.imul(k, 668265263) + Math.imul(seed, 1274126177)
  t = Math.imul(t ^ (t >>> 13), 1274126177)
  return ((t ^ (t >>> 16)) >>> 0) / 4294967296
}
const ease = (t: number) => t * t * (3 - 2 * t)
/** Smooth noise over a plane, 0 to 1. */
function blotch(x: number, y: number, seed: number): number {
  const i = Math.floor(x)
  const k = Math.floor(y)
  const fx = ease(x - i)
  const a = corner(i, k, seed) * (1 - fx) + corner(i + 1, k, seed) * fx
  const b = corner(i, k + 1, seed) * (1 - fx) + corner(i + 1, k + 1, seed) * fx
  return a + (b - a) * ease(y - k)
}

/** A pixel is looked at in its four quarters. */
const QUARTERS_U = [-0.25, 0.25, -0.25, 0.25] as const
const QUARTERS_V = [-0.25, -0.25, 0.25, 0.25] as const

const falling = (lens: Lens, { uneven }: Weather, u: number) => 1 + (uneven * (u - lens.middle[0])) / lens.middle[0]
/** A dark workshop. */
const DARK_BEHIND = 26
/** What lies behind the bike, out of focus. */
const floor = (u: number, v: number, { seed, behind = DARK_BEHIND }: Weather) =>
  behind + 30 * blotch(u / 170, v / 170, seed) + 10 * blotch(u / 23, v / 60, seed + 1)

/** What all rays of a picture share. */
type Rays = { lens: Lens; weather: Weather; rows: Turned }
function lightAt(near: readonly Ready[], { lens, weather, rows }: Rays, u: number, v: number): number {
  const [right, down, into] = rows
  const [x, y] = unbent(lens, u, v)
  const inboard = x * right[0] + y * down[0] + into[0]
  const above = x * right[1] + y * down[1] + into[1]
  const ahead = x * right[2] + y * down[2] + into[2]
  let on: Ready | null = null
  for (const r of near) if (meets(r, inboard, above, ahead, on ? last.s : Infinity)) on = r
  const fall = falling(lens, weather, u)
  if (!on) return fall * floor(u, v, weather)
  const { radiusMm: size, tone } = on.disc
  const smear = blotch((9 * last.p) / size, (9 * last.q) / size, weather.seed + Math.round(size * 10))
  const dirty = smear < weather.grease ? 0.45 : 1
  return fall * dirty * tone * (weather.fill + 120 * litAt(on, last, weather))
}

function blurred(from: Float32Array, w: number, h: number, sd: number): Float32Array {
  const reach = Math.ceil(3 * sd)
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sd * sd)))
  const whole = kernel.reduce((a, b) => a + b, 0)
  const out = new Float32Array(w * h)
  const wide = new Float32Array(w + 2 * reach)
  for (let y = 0; y < h; y++) {
    // its borders go on as they end
    wide.fill(from[y * w]!, 0, reach).fill(from[y * w + w - 1]!, w + reach)
    wide.set(from.subarray(y * w, (y + 1) * w), reach)
    for (let x = 0; x < w; x++) {
      let sum = 0
      for (let i = 0; i < kernel.length; i++) sum += kernel[i]! * wide[x + i]!
      out[y * w + x] = sum / whole
    }
  }
  // down the columns row by row, as the picture lies in memory
  const soft = new Float32Array(w * h)
  const sums = new Float64Array(w)
  for (let y = 0; y < h; y++) {
    sums.fill(0)
    for (let i = -reach; i <= reach; i++) {
      const row = Math.max(0, Math.min(h - 1, y + i)) * w
      const k = kernel[i + reach]!
      for (let x = 0; x < w; x++) sums[x] = sums[x]! + k * out[row + x]!
    }
    for (let x = 0; x < w; x++) soft[y * w + x] = sums[x]! / whole
  }
  return soft
}
