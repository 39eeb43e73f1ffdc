import { randomFrom, type Random } from '../quantity/random'
import { farSquared, leanTowards, shapeOf } from './shape'

/**
 * A belief as weighted particles whose coordinates are standard normals before anything was seen; what they mean is the
 * model's business. Sequential importance resampling with moves that replay the whole log (as core/advice does it for
 * the rear, whose densities and merged shifts are its own).
 */
export type Belief = {
  readonly points: readonly Float64Array[]
  readonly logWeights: Float64Array
  readonly steps: number
  readonly dims: number
}

/**
 * One entry of a log as the filter needs it: how many coordinates are in use once it happened, and what it says of a
 * particle, whose coordinates were put in the model's own terms before.
 */
export type Step<T> = { dims: number; logChance: ((read: T) => number) | null }
/** Coordinates in the model's own terms; done once a particle, not once an entry. */
export type Read<T> = (u: Float64Array) => T

const RENEW_BELOW = 0.5
const SWEEPS = 4
const SWEEPS_WHEN_FEW = 8
const FEW = 0.15
/** Kinds of moves, as shares added up; the rest are redraws of one coordinate. */
const SHARES = { lean: 0.6, some: 0.85 }

/** Belief before anything was seen. */
export function believing(dims: number, particles: number, seed: number): Belief {
  const random = randomFrom(seed, 0)
  return {
    points: Array.from({ length: particles }, () => grown(new Float64Array(0), dims, random)),
    logWeights: new Float64Array(particles),
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

/** Belief after the next entry of `log`. Seeded by (seed, number of the entry), so that a log gives one belief however it was reached. */
export function afterNext<T>(before: Belief, log: readonly Step<T>[], read: Read<T>, seed: number): Belief {
  const step = log[before.steps]
  const random = randomFrom(seed, before.steps + 1)
  const points = step.dims > before.dims ? before.points.map(u => grown(u, step.dims, random)) : before.points
  const next = { points, logWeights: before.logWeights, steps: before.steps + 1, dims: step.dims }
  if (!step.logChance) return next
  const logWeights = Float64Array.from(points, (u, i) => before.logWeights[i] + step.logChance!(read(u)))
  const weights = weightsOf({ ...next, logWeights })
  const effective = 1 / weights.reduce((sum, w) => sum + w * w, 0) / weights.length
  return effective < RENEW_BELOW
    ? renewed({ ...next, logWeights }, weights, effective, log.slice(0, next.steps), read, random)
    : { ...next, logWeights }
}

/** Weights that sum to 1. */
export function weightsOf({ logWeights }: Belief): Float64Array {
  const most = logWeights.reduce((a, b) => Math.max(a, b), -Infinity)
  const out = logWeights.map(l => Math.exp(l - most))
  const sum = out.reduce((a, b) => a + b, 0)
  return out.map(w => w / sum)
}

function renewed<T>(
  b: Belief,
  weights: Float64Array,
  effective: number,
  log: readonly Step<T>[],
  read: Read<T>,
  random: Random,
): Belief {
  const points = resampled(b.points, weights, random)
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
  const target = points.map(u => whole(u, -Infinity))
  const shape = shapeOf(points, b.dims)
  const scratch = new Float64Array(b.dims)
  const trial = new Float64Array(b.dims)
  const sq = (u: Float64Array) => {
    let s = 0
    for (let d = 0; d < b.dims; d++) s += u[d] * u[d]
    return s
  }
  for (let sweep = effective < FEW ? SWEEPS_WHEN_FEW : SWEEPS; sweep > 0; sweep--)
    for (let i = 0; i < points.length; i++) {
      const u = points[i]
      const kind = random.next()
      let change = 0 // of the log prior, less what the proposal favours
      if (kind < SHARES.lean) {
        leanTowards(shape, u, trial, random.next() < 1 / 3 ? 0.5 : 1, scratch, random)
        change = 0.5 * (sq(u) - sq(trial)) + 0.5 * (farSquared(shape, trial, scratch) - farSquared(shape, u, scratch))
      } else {
        // Crank–Nicolson steps leave the prior as it is: only the likelihood decides
        const step = kind < SHARES.some ? 0.3 : 1
        const only = kind < SHARES.some ? -1 : random.below(b.dims)
        for (let d = 0; d < b.dims; d++)
          trial[d] = (only < 0 ? random.next() < 0.4 : d === only)
            ? Math.sqrt(1 - step * step) * u[d] + step * random.normal()
            : u[d]
      }
      const floor = target[i] - change + Math.log(random.next() + 1e-300)
      const found = whole(trial, floor)
      if (found < floor) continue
      u.set(trial)
      target[i] = found
    }
  return { ...b, points, logWeights: new Float64Array(points.length) }
}

/** Systematic resampling: every particle as often as its weight says, to within one. */
function resampled(points: readonly Float64Array[], weights: Float64Array, random: Random): Float64Array[] {
  const out: Float64Array[] = []
  let sum = 0
  let mark = random.next() / points.length
  points.forEach((u, i) => {
    for (sum += weights[i]; mark < sum && out.length < points.length; mark += 1 / points.length) out.push(u.slice())
  })
  while (out.length < points.length) out.push(points.at(-1)!.slice())
  return out
}
