import { randomFrom, type Random } from '../quantity/random'
import { lean, moveAll, normalPrior, nudge, redraw } from './moves'
import { systematic } from './sampling'

/** A belief as weighted points; what their coordinates mean is the model's business. */
export type Cloud = {
  readonly points: readonly Float64Array[]
  readonly logWeights: Float64Array
  /** Of each point, the log chance of everything seen: kept, so that none is replayed before it is moved. */
  readonly logChances: Float64Array
}

/** Weights that sum to 1. */
export function weightsOf({ logWeights }: Pick<Cloud, 'logWeights'>): Float64Array {
  let most = -Infinity
  for (const l of logWeights) if (l > most) most = l
  const out = new Float64Array(logWeights.length)
  let sum = 0
  for (let i = 0; i < out.length; i++) sum += out[i] = Math.exp(logWeights[i]! - most)
  for (let i = 0; i < out.length; i++) out[i]! /= sum
  return out
}

/** How many points carry the belief, as a share of all. */
const effectiveShare = (weights: Float64Array): number =>
  1 / weights.reduce((sum, w) => sum + w * w, 0) / weights.length

/**
 * A cloud after one thing more was seen: weighed by its chance, and when few points carry the belief, drawn again by
 * their weights (sequential importance resampling, any handbook) and moved.
 * @param logChance of what was seen, for a point
 * @param renewBelow share of effective points
 * @param move moves copies apart in place, and their log chances with them, told how large that share was
 */
export function afterSeen(
  { points, logWeights: before, logChances: seenBefore }: Cloud,
  logChance: (point: Float64Array) => number,
  renewBelow: number,
  move: (points: Float64Array[], logChances: Float64Array, effective: number) => void,
  random: Random,
): Cloud {
  const told = Float64Array.from(points, logChance)
  const logWeights = before.map((l, i) => l + told[i]!)
  const logChances = seenBefore.map((l, i) => l + told[i]!)
  const weights = weightsOf({ logWeights })
  const effective = effectiveShare(weights)
  if (effective >= renewBelow) return { points, logWeights, logChances }
  const drawn: Float64Array[] = []
  const drawnChances = new Float64Array(points.length)
  systematic(weights, points.length, random.next()).forEach((times, i) => {
    for (let k = 0; k < times; k++) {
      drawnChances[drawn.length] = logChances[i]!
      drawn.push(points[i]!.slice())
    }
  })
  move(drawn, drawnChances, effective)
  return { points: drawn, logWeights: new Float64Array(drawn.length), logChances: drawnChances }
}

/** A belief that follows a log whose coordinates are standard normals before anything was seen. */
export type Belief = Cloud & { readonly steps: number; readonly dims: number }

/**
 * One entry of a log as the filter needs it: how many coordinates are in use once it happened, and what it says of a
 * particle, whose coordinates were put in the model's own terms before.
 */
export type Step<T> = { dims: number; logChance: ((read: T) => number) | null }
/** Coordinates in the model's own terms; done once a particle, not once an entry. */
type Read<T> = (u: Float64Array) => T

const RENEW_BELOW = 0.5
const SWEEPS = 4
const SWEEPS_WHEN_FEW = 8
const FEW = 0.15
/** Kinds of moves, as shares added up; the rest are redraws of one coordinate. */
const SHARES = { lean: 0.6, nudge: 0.85 }
const NUDGE = nudge(0.3, 0.4)

/** Belief before anything was seen. */
export function believing(dims: number, particles: number, seed: number): Belief {
  const random = randomFrom(seed, 0)
  return {
    points: Array.from({ length: particles }, () => grown(new Float64Array(0), dims, random)),
    logWeights: new Float64Array(particles),
    logChances: new Float64Array(particles),
    steps: 0,
    dims,
  }
}

function grown(u: Float64Array, dims: number, random: Random): Float64Array {
  const out = new Float64Array(dims)
  out.set(u)
  for (let d = u.length; d < dims; d++) out[d] = random.normal()
  return out
}

/**
 * Belief after the next entry of `log`. Seeded by (seed, number of the entry), so that a log gives one belief however
 * it was reached.
 */
export function afterNext<T>(before: Belief, log: readonly Step<T>[], read: Read<T>, seed: number): Belief {
  const { dims, logChance } = log[before.steps]!
  const steps = before.steps + 1
  const random = randomFrom(seed, steps)
  const points = dims > before.dims ? before.points.map(u => grown(u, dims, random)) : before.points
  const cloud = { points, logWeights: before.logWeights, logChances: before.logChances }
  if (!logChance) return { ...cloud, steps, dims }
  const move = (drawn: Float64Array[], logChances: Float64Array, effective: number) =>
    renew(drawn, logChances, effective, log.slice(0, steps), read, random)
  return { ...afterSeen(cloud, u => logChance(read(u)), RENEW_BELOW, move, random), steps, dims }
}

function renew<T>(
  points: Float64Array[],
  logChances: Float64Array,
  effective: number,
  log: readonly Step<T>[],
  read: Read<T>,
  random: Random,
): void {
  const said = log.flatMap(s => (s.logChance ? [s.logChance] : [])).reverse() // the newest first: a bad trial is soon given up
  const whole = (u: Float64Array, floor: number): number => {
    let sum = 0
    const x = read(u)
    for (const logChance of said) {
      sum += logChance(x)
      if (sum < floor) return -Infinity
    } // chances are at most 1
    return sum
  }
  const pick = () => {
    const kind = random.next()
    return kind < SHARES.lean ? lean : kind < SHARES.nudge ? NUDGE : redraw
  }
  const sweeps = effective < FEW ? SWEEPS_WHEN_FEW : SWEEPS
  moveAll(points, logChances, normalPrior(points[0]!.length), whole, sweeps, pick, random)
}
