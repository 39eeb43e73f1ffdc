import { dot, lookAlong, minus, seen, turned, type Lens, type Place, type Pose } from '../sight/camera'
import { onRim, type Rim } from '../sight/rim'
import { randomFrom } from '../quantity/random'

/*
 * A picture of a bike's toothed parts as a camera would take it, ray by ray: for benches, the stand-in camera and
 * tests. It shares the pinhole with the measuring, nothing of how edges are found or figures are told.
 */

/** A toothed or plain disc. */
export type Disc = Rim & { teeth: number; rootMm: number; halfMm: number; tone: number }
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
  seed: number
}
export type Grey = { width: number; height: number; data: Uint8Array }

type Ready = { disc: Disc; up: Place; forward: Place; axis: Place; from: Place; box: [number, number, number, number] }

/** A part of a picture: its upper left corner and size, px; `every` keeps one in so many, for a smaller one. */
export type Part = { left: number; top: number; width: number; height: number; every?: number }

export function render(discs: readonly Disc[], lens: Lens, pose: Pose, weather: Weather, part: Part): Grey {
  const every = part.every ?? 1
  // twice as fine as asked, then averaged
  const [w, h] = [Math.round(part.width / every), Math.round(part.height / every)]
  const margin = Math.ceil(3 * weather.blurPx) + 1
  const ready = discs.map(d => readied(d, lens, pose))
  const rows = turned(pose)
  const all = [0, 1, 2, 3].map(i => (i < 2 ? Math.min : Math.max)(...ready.map(r => r.box[i]!)))
  const [bw, bh] = [w + 2 * margin, h + 2 * margin]
  const sharp = new Float32Array(bw * bh)
  for (let y = 0; y < bh; y++)
    for (let x = 0; x < bw; x++) {
      const [u, v] = [part.left + (x - margin + 0.5) * every - 0.5, part.top + (y - margin + 0.5) * every - 0.5]
      const near =
        u > all[0] && u < all[2] && v > all[1] && v < all[3]
          ? ready.filter(r => u > r.box[0] && u < r.box[2] && v > r.box[1] && v < r.box[3])
          : null
      if (!near?.length) {
        sharp[y * bw + x] = falling(lens, weather, u) * floor(u, v, weather.seed)
        continue
      }
      let light = 0
      for (const [su, sv] of QUARTERS) {
        const [uu, vv] = [u + su * every, v + sv * every]
        light += lightAt(near, lookAlong(lens, pose, [uu, vv], rows), lens, weather, uu, vv)
      }
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
  const box: Ready['box'] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < 24; i++)
    for (const side of [-1, 1]) {
      const rim = onRim({ ...disc, radiusMm: disc.radiusMm + 1 }, (i * Math.PI) / 12)
      const place = rim.map((v, k) => v + side * disc.halfMm * axis[k]!) as unknown as Place
      const [u, v] = seen(lens, pose, place)
      box[0] = Math.min(box[0], u - 3)
      box[1] = Math.min(box[1], v - 3)
      box[2] = Math.max(box[2], u + 3)
      box[3] = Math.max(box[3], v + 3)
    }
  return { disc, up, forward, axis, from: minus(pose.atMm, disc.middle), box }
}

const STEP_MM = 0.7

/** The first place where a ray meets a disc: how far along, which way it faces, and where on it. */
function meets({ disc, up, forward, axis, from }: Ready, along: Place) {
  const [ow, op, oq] = [dot(axis, from), dot(up, from), dot(forward, from)]
  const [dw, dp, dq] = [dot(axis, along), dot(up, along), dot(forward, along)]
  let [s0, s1] = [0, Infinity]
  if (Math.abs(dw) > 1e-9) {
    const [a, b] = [(-disc.halfMm - ow) / dw, (disc.halfMm - ow) / dw]
    ;[s0, s1] = [Math.min(a, b), Math.max(a, b)]
  } else if (Math.abs(ow) > disc.halfMm) return null
  const [qa, qb, qc] = [dp * dp + dq * dq, op * dp + oq * dq, op * op + oq * oq - disc.radiusMm ** 2]
  const root = qb * qb - qa * qc
  if (root <= 0) return null
  const [c0, c1] = [(-qb - Math.sqrt(root)) / qa, (-qb + Math.sqrt(root)) / qa]
  const onFace = s0 > c0
  let s = Math.max(s0, c0, 0)
  const end = Math.min(s1, c1)
  if (s >= end) return null
  for (let first = true; s < end; s += STEP_MM, first = false) {
    const [p, q] = [op + s * dp, oq + s * dq]
    const r = Math.hypot(p, q)
    const angle = Math.atan2(q, p)
    if (r > disc.rootMm) {
      const tooth = Math.max(0, Math.min(1, 0.5 + 0.95 * Math.cos(disc.teeth * angle)))
      if (r > disc.rootMm + (disc.radiusMm - disc.rootMm) * tooth) continue
    }
    const facing: Place =
      first && onFace
        ? (axis.map(v => (dw > 0 ? -v : v)) as unknown as Place)
        : (up.map((v, i) => (v * p + forward[i]! * q) / Math.max(1e-6, r)) as unknown as Place)
    return { s, facing, p, q }
  }
  return null
}

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

const QUARTERS = [
  [-0.25, -0.25],
  [0.25, -0.25],
  [-0.25, 0.25],
  [0.25, 0.25],
] as const

const falling = (lens: Lens, { uneven }: Weather, u: number) => 1 + (uneven * (u - lens.middle[0])) / lens.middle[0]
/** What lies behind the bike, out of focus. */
const floor = (u: number, v: number, seed: number) =>
  26 + 30 * blotch(u / 170, v / 170, seed) + 10 * blotch(u / 23, v / 60, seed + 1)

function lightAt(near: readonly Ready[], along: Place, lens: Lens, weather: Weather, u: number, v: number): number {
  let first: { s: number; facing: Place; p: number; q: number } | null = null
  let disc: Disc | null = null
  for (const r of near) {
    const met = meets(r, along)
    if (met && (!first || met.s < first.s)) [first, disc] = [met, r.disc]
  }
  const fall = falling(lens, weather, u)
  if (!first || !disc) return fall * floor(u, v, weather.seed)
  const lit = Math.max(0, dot(first.facing, weather.lightFrom))
  const size = disc.radiusMm
  const smear = blotch((9 * first.p) / size, (9 * first.q) / size, weather.seed + Math.round(size * 10))
  const dirty = smear < weather.grease ? 0.45 : 1
  return fall * dirty * disc.tone * (weather.fill + 120 * lit)
}

function blurred(from: Float32Array, w: number, h: number, sd: number): Float32Array {
  const reach = Math.ceil(3 * sd)
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sd * sd)))
  const whole = kernel.reduce((a, b) => a + b, 0)
  const pass = (data: Float32Array, dx: number, dy: number) => {
    const out = new Float32Array(w * h)
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        let sum = 0
        for (let i = -reach; i <= reach; i++) {
          const xx = Math.max(0, Math.min(w - 1, x + i * dx))
          const yy = Math.max(0, Math.min(h - 1, y + i * dy))
          sum += kernel[i + reach]! * data[yy * w + xx]!
        }
        out[y * w + x] = sum / whole
      }
    return out
  }
  return pass(pass(from, 1, 0), 0, 1)
}
