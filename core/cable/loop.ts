import { radians } from '../quantity/angle'
import { finite, positive } from '../quantity/check'

/**
 * A loop of housing between an end that turns about an axis and one that stays, seen in a frame of its own: x forward,
 * y to the left, z up, mm; the axis goes through the origin. At the bars it is the steering axis, at a rear suspension
 * the pivot.
 */
export type Vec = readonly [number, number, number]
export type LoopGeometry = {
  /** The end that turns, as it stands at 0°, and which way the housing points there. */
  movingAt: Vec
  movingWay: Vec
  /** The end that stays, and which way the housing points there. */
  fixedAt: Vec
  fixedWay: Vec
  axis: Vec
  /** The places the loop must serve, degrees about the axis. */
  poses: readonly Pose[]
  /** Least radius of a bend, mm. */
  leastRadiusMm: number
}
export const POSES = ['straight', 'left', 'right', 'extended', 'sagged', 'full-travel'] as const
export type PoseName = (typeof POSES)[number]
/**
 * `second`: the moving end hangs on a link that has turned about a pivot of its own besides, measured as it stands at
 * 0°.
 */
export type Pose = { name: PoseName; deg: number; second?: { at: Vec; deg: number } }
export const POSE_WORDS: Record<PoseName, string> = {
  straight: 'straight ahead',
  left: 'full left',
  right: 'full right',
  extended: 'extended',
  sagged: 'with the rider’s sag',
  'full-travel': 'full travel',
}
export type LoopAt = { points: Vec[]; lengthMm: number; minRadiusMm: number; tightestAt: number }

const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
const sub = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const times = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k, a[2] * k]
const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const cross = (a: Vec, b: Vec): Vec => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
const norm = (a: Vec): number => Math.hypot(...a)
const unit = (a: Vec): Vec => times(a, 1 / norm(a))

/** Turns a vector about an axis through the origin (Rodrigues' formula, `std`). */
export function turnAbout(v: Vec, axis: Vec, deg: number): Vec {
  const k = unit(axis)
  const [c, s] = [Math.cos(radians(deg)), Math.sin(radians(deg))]
  return add(add(times(v, c), times(cross(k, v), s)), times(k, dot(k, v) * (1 - c)))
}

/**
 * The steering axis, upward: leaning back from the vertical by 90° less the head angle. @throws RangeError below 45° or
 * above 90°
 */
export function steeringAxis(headDeg: number): Vec {
  finite('headDeg', headDeg)
  if (headDeg < 45 || headDeg > 90) throw new RangeError(`headDeg must be from 45 to 90, it is ${headDeg}`)
  return [-Math.cos(radians(headDeg)), 0, Math.sin(radians(headDeg))]
}

/** Segments of a loop, coarse to fine: low bends settle on the coarse ones. */
const SEGMENTS = [8, 16, 32] as const
const SWEEPS = [120, 80, 50] as const

/**
 * The shape housing of a given length takes between two ends held in their directions: the curve of least bending. A
 * chain of equal links whose bending energy is relaxed node by node, its ends and end directions fixed.
 * @returns null when the housing is too short to reach
 */
export function restingLoop(fromAt: Vec, fromWay: Vec, toAt: Vec, toWay: Vec, lengthMm: number): LoopAt | null {
  if (norm(sub(toAt, fromAt)) > lengthMm - LEAST_PLAY_MM) return null
  let points = roughLoop(fromAt, fromWay, toAt, toWay, lengthMm, SEGMENTS[0])
  SEGMENTS.forEach((n, level) => {
    if (level > 0) points = refined(points)
    points = relaxed(points, n, fromAt, unit(fromWay), toAt, unit(toWay), lengthMm / n, SWEEPS[level])
  })
  return measured(points)
}
/** What a loop needs beyond the straight line to have a shape at all, mm. */
const LEAST_PLAY_MM = 2

/** A cubic with equal handles of about the right length, to start from. */
function roughLoop(fromAt: Vec, fromWay: Vec, toAt: Vec, toWay: Vec, lengthMm: number, n: number): Vec[] {
  const shape = (handle: number): Vec[] => {
    const p1 = add(fromAt, times(unit(fromWay), handle))
    const p2 = sub(toAt, times(unit(toWay), handle))
    return Array.from({ length: n + 1 }, (_, i) => {
      const t = i / n
      const u = 1 - t
      return add(
        add(times(fromAt, u ** 3), times(p1, 3 * u * u * t)),
        add(times(p2, 3 * u * t * t), times(toAt, t ** 3)),
      )
    })
  }
  let low = 0
  let high = lengthMm
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2
    if (lengthOf(shape(middle)) < lengthMm) low = middle
    else high = middle
  }
  return shape(low)
}

const lengthOf = (points: readonly Vec[]): number =>
  points.reduce((s, p, i) => (i ? s + norm(sub(p, points[i - 1])) : 0), 0)
/** Twice the nodes, the new ones halfway. */
const refined = (points: readonly Vec[]): Vec[] =>
  points.flatMap((p, i) => (i === 0 ? [p] : [times(add(points[i - 1], p), 0.5), p]))

/**
 * Relaxes a chain: its ends fixed, its direction at each end held by a ghost node beyond it, mirrored so that the
 * middle of the three has the wanted direction.
 */
function relaxed(
  start: readonly Vec[],
  n: number,
  fromAt: Vec,
  fromWay: Vec,
  toAt: Vec,
  toWay: Vec,
  link: number,
  sweeps: number,
): Vec[] {
  const p = [...start]
  p[0] = fromAt
  p[n] = toAt
  const at = (i: number): Vec =>
    i < 0 ? sub(p[1], times(fromWay, 2 * link)) : i > n ? add(p[n - 1], times(toWay, 2 * link)) : p[i]
  for (let sweep = 0; sweep < sweeps; sweep++) {
    // each node to where its own bending and its neighbours' is least: the minimum of Σ|p(i−1) − 2p(i) + p(i+1)|²
    for (let k = 1; k < n; k++) {
      const i = sweep % 2 ? n - k : k
      p[i] = times(sub(times(add(at(i - 1), at(i + 1)), 4), add(at(i - 2), at(i + 2))), 1 / 6)
    }
    // then the links back to their length, from both ends in turn
    for (let pass = 0; pass < LINK_PASSES; pass++)
      for (let k = 0; k < n; k++) {
        const i = pass % 2 ? n - 1 - k : k
        const between = sub(p[i + 1], p[i])
        const off = (norm(between) - link) / (norm(between) || 1)
        if (i > 0 && i + 1 < n) {
          p[i] = add(p[i], times(between, off / 2))
          p[i + 1] = sub(p[i + 1], times(between, off / 2))
        } else if (i > 0) p[i] = add(p[i], times(between, off))
        else p[i + 1] = sub(p[i + 1], times(between, off))
      }
  }
  return p
}
const LINK_PASSES = 8

/** Length, and the tightest bend as the circle through three nodes. */
function measured(points: Vec[]): LoopAt {
  let minRadiusMm = Infinity
  let tightestAt = 0
  for (let i = 1; i < points.length - 1; i++) {
    const [a, b, c] = [sub(points[i], points[i - 1]), sub(points[i + 1], points[i]), sub(points[i + 1], points[i - 1])]
    const area = norm(cross(a, b))
    const radius = area < 1e-9 ? Infinity : (norm(a) * norm(b) * norm(c)) / (2 * area)
    if (radius < minRadiusMm) {
      minRadiusMm = radius
      tightestAt = i / (points.length - 1)
    }
  }
  return { points, lengthMm: lengthOf(points), minRadiusMm, tightestAt }
}

/** The second pivot's part of a turn, shared over it as the whole turn goes. */
function secondAt(g: LoopGeometry, turnDeg: number): { at: Vec; deg: number } | null {
  const most = g.poses.reduce((a, b) => (b.second && Math.abs(b.deg) > Math.abs(a.deg) ? b : a))
  return most.second && most.deg !== 0 ? { at: most.second.at, deg: (most.second.deg * turnDeg) / most.deg } : null
}
/**
 * The moving end with the axis turned by so many degrees: about its own pivot first, where it has one, then about the
 * axis.
 */
function movingEnd(g: LoopGeometry, turnDeg: number): { at: Vec; way: Vec } {
  const second = secondAt(g, turnDeg)
  const at = second ? add(second.at, turnAbout(sub(g.movingAt, second.at), g.axis, second.deg)) : g.movingAt
  const way = second ? turnAbout(g.movingWay, g.axis, second.deg) : g.movingWay
  return { at: turnAbout(at, g.axis, turnDeg), way: turnAbout(way, g.axis, turnDeg) }
}

/**
 * The loop of a given length with its moving end turned by so many degrees; null when the housing is too short to
 * reach.
 */
export function loopAt(g: LoopGeometry, lengthMm: number, turnDeg: number): LoopAt | null {
  const { at, way } = movingEnd(g, turnDeg)
  return restingLoop(at, way, g.fixedAt, g.fixedWay, lengthMm)
}

/** What a length does in every pose: the slack left over the straight line, and the tightest bend. */
export type LoopJudged = {
  pose: PoseName
  reaches: boolean
  slackMm: number
  minRadiusMm: number
  bendsWell: boolean
}[]

/** A pull at the end of its turn begins when less than this is left over the shortest way, mm. `model` */
const LEAST_SLACK_MM = 15

export function judgeLoop(g: LoopGeometry, lengthMm: number): LoopJudged {
  return g.poses.map(({ name, deg }) => {
    const slackMm = lengthMm - apartMm(g, deg)
    const loop = loopAt(g, lengthMm, deg)
    return {
      pose: name,
      reaches: loop !== null && slackMm >= LEAST_SLACK_MM,
      slackMm,
      minRadiusMm: loop?.minRadiusMm ?? 0,
      bendsWell: loop !== null && loop.minRadiusMm >= g.leastRadiusMm,
    }
  })
}

/** The straight line between both ends, mm. */
export const apartMm = (g: LoopGeometry, deg: number): number => norm(sub(g.fixedAt, movingEnd(g, deg).at))

/** Searched in steps, up to a longest loop and so much beyond the shortest that reaches: longer ones only catch. */
const LENGTHS = { stepMm: 5, most: 900, beyond: 250 } as const

/**
 * The shortest length, in steps of 5 mm, that reaches in every pose and bends nowhere tighter than it may.
 * @throws RangeError naming what makes no sense, or when no such loop exists, with what stands in the way
 */
export function loopLengthMm(g: LoopGeometry): number {
  checkLoop(g)
  let why = 'no length reaches everywhere'
  const shortest = Math.max(...g.poses.map(p => apartMm(g, p.deg)))
  const most = Math.min(LENGTHS.most, shortest + LENGTHS.beyond)
  for (
    let lengthMm = LENGTHS.stepMm * Math.ceil((shortest + LEAST_SLACK_MM) / LENGTHS.stepMm);
    lengthMm <= most;
    lengthMm += LENGTHS.stepMm
  ) {
    const judged = judgeLoop(g, lengthMm)
    if (judged.every(j => j.reaches && j.bendsWell)) return lengthMm
    const tight = judged.filter(j => j.reaches && !j.bendsWell)
    if (judged.every(j => j.reaches))
      why = `it bends to ${Math.floor(Math.max(...tight.map(j => j.minRadiusMm)))} mm at ${tight.map(j => POSE_WORDS[j.pose]).join(' and ')}, and may to ${g.leastRadiusMm}`
  }
  throw new RangeError(
    `no such loop exists up to ${Math.round(Math.max(most, 0))} mm: ${why}. Move one of its ends, or turn its direction`,
  )
}

/** @throws RangeError naming the argument */
function checkLoop(g: LoopGeometry): void {
  for (const name of ['movingAt', 'movingWay', 'fixedAt', 'fixedWay', 'axis'] as const)
    g[name].forEach((v, i) => finite(`${name}[${i}]`, v))
  for (const name of ['movingWay', 'fixedWay'] as const)
    if (norm(g[name]) < 1e-9) throw new RangeError(`${name} has no direction`)
  if (norm(g.axis) < 1e-9) throw new RangeError('axis has no direction')
  if (g.poses.length === 0) throw new RangeError('poses is empty')
  g.poses.forEach((p, i) => {
    if (!(Math.abs(p.deg) <= 180)) throw new RangeError(`poses[${i}].deg must be within 180, it is ${p.deg}`)
  })
  positive('leastRadiusMm', g.leastRadiusMm)
}
