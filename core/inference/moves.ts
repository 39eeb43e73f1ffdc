import type { Random } from '../quantity/random'
import { farSquared, leanTowards, shapeOf, type Shape } from './shape'

/** What is believed of each coordinate before anything was seen; densities up to a factor. */
export type Prior = {
  readonly dims: number
  draw(d: number, random: Random): number
  logDensity(d: number, x: number): number
}
/** Coordinates that are standard normals before anything was seen. */
export const normalPrior = (dims: number): Prior => ({
  dims,
  draw: (_, random) => random.normal(),
  logDensity: (_, x) => -0.5 * x * x,
})

/**
 * One trial at a time, its arrays used again for the next: a point with the log prior of each coordinate, and where it
 * might go.
 */
export type Trial = {
  readonly points: readonly Float64Array[]
  readonly prior: Prior
  readonly random: Random
  readonly shape: Shape
  /** Standard deviation of the points along each coordinate. */
  readonly spread: Float64Array
  readonly to: Float64Array
  readonly toPrior: Float64Array
  readonly scratch: Float64Array
  from: Float64Array
  fromPrior: Float64Array
  /** Squared distance from the shape; `toFar` NaN while nobody has asked. */
  far: number
  toFar: number
}
/**
 * Proposes where a point goes, into `to` and `toPrior`. @returns the change of log prior, less what the proposal
 * favours: 0 where it leaves the prior as it is; −Infinity where there is no such place
 */
export type Move = (t: Trial) => number

function stay(t: Trial): void {
  t.to.set(t.from)
  t.toPrior.set(t.fromPrior)
}

/** Towards a fresh draw of a normal fitted to the points; a third of the time half the way. */
export const lean: Move = t => {
  const { shape, prior, to, toPrior, from, fromPrior, scratch, random } = t
  leanTowards(shape, from, to, random.next() < 1 / 3 ? 0.5 : 1, scratch, random)
  let change = 0
  for (let d = 0; d < prior.dims; d++) {
    toPrior[d] = prior.logDensity(d, to[d]!)
    change += toPrior[d]! - fromPrior[d]!
  }
  t.toFar = farSquared(shape, to, scratch)
  return change + 0.5 * (t.toFar - t.far)
}

/** Along the difference of two other points, in some coordinates or all: differential evolution, ter Braak 2006. */
export const evolve: Move = t => {
  const { points, prior, spread, to, toPrior, from, fromPrior, random } = t
  const a = points[random.below(points.length)]!
  const b = points[random.below(points.length)]!
  const some = random.next() < 0.3 ? 1 : 0.15 + 0.6 * random.next()
  stay(t)
  let moving = 0
  for (let d = 0; d < prior.dims; d++)
    if (some === 1 || random.next() < some) {
      to[d] = NaN
      moving++
    }
  const gamma = random.next() < 0.12 ? 1 : (2.38 / Math.sqrt(2 * Math.max(1, moving))) * (0.5 + 0.7 * random.next())
  let change = 0
  for (let d = 0; d < prior.dims; d++) {
    if (to[d] === to[d]) continue
    to[d] = from[d]! + gamma * (a[d]! - b[d]!) + 0.01 * spread[d]! * random.normal()
    toPrior[d] = prior.logDensity(d, to[d]!)
    change += toPrior[d]! - fromPrior[d]!
  }
  return change
}

/** A step along one coordinate. */
export const walk: Move = t => {
  const { prior, spread, to, toPrior, from, fromPrior, random } = t
  const d = random.below(prior.dims)
  stay(t)
  to[d] = from[d]! + spread[d]! * random.normal()
  toPrior[d] = prior.logDensity(d, to[d]!)
  return toPrior[d]! - fromPrior[d]!
}

/** One coordinate drawn from the prior anew: its own prior cancels. */
export const redraw: Move = t => {
  const { prior, to, toPrior, random } = t
  const d = random.below(prior.dims)
  stay(t)
  to[d] = prior.draw(d, random)
  toPrior[d] = prior.logDensity(d, to[d]!)
  return 0
}

/**
 * Small steps in some coordinates that leave a standard normal prior as it is (Crank–Nicolson): only the likelihood
 * decides. For `normalPrior` alone.
 */
export const nudge =
  (step: number, share: number): Move =>
  t => {
    const { prior, to, toPrior, from, random } = t
    stay(t)
    const keep = Math.sqrt(1 - step * step)
    for (let d = 0; d < prior.dims; d++) {
      if (random.next() >= share) continue
      to[d] = keep * from[d]! + step * random.normal()
      toPrior[d] = prior.logDensity(d, to[d]!)
    }
    return 0
  }

/**
 * Moves points about without changing what they stand for (Metropolis–Hastings, any handbook), so that copies of one
 * point part.
 * @param chances of each point, the log chance of everything seen; moved along in place
 * @param whole log of the chance of everything seen; may give up with −Infinity once below `floor`
 * @param pick the kind of move for the next trial of a sweep
 */
export function moveAll(
  points: readonly Float64Array[],
  chances: Float64Array,
  prior: Prior,
  whole: (point: Float64Array, floor: number) => number,
  sweeps: number,
  pick: (sweep: number) => Move,
  random: Random,
): void {
  const { dims } = prior
  const priors = points.map(p => Float64Array.from(p, (x, d) => prior.logDensity(d, x)))
  const shape = shapeOf(points, dims)
  const scratch = new Float64Array(dims)
  const far = points.map(p => farSquared(shape, p, scratch))
  const t: Trial = {
    points,
    prior,
    random,
    shape,
    spread: spreadsOf(points, dims),
    to: new Float64Array(dims),
    toPrior: new Float64Array(dims),
    scratch,
    from: points[0]!,
    fromPrior: priors[0]!,
    far: 0,
    toFar: NaN,
  }
  for (let sweep = 0; sweep < sweeps; sweep++)
    for (let i = 0; i < points.length; i++) {
      t.from = points[i]!
      t.fromPrior = priors[i]!
      t.far = far[i]!
      t.toFar = NaN
      const change = pick(sweep)(t)
      const floor = chances[i]! - change + Math.log(random.next() + 1e-300)
      if (!Number.isFinite(change)) continue
      const found = whole(t.to, floor)
      if (found < floor) continue
      t.from.set(t.to)
      t.fromPrior.set(t.toPrior)
      chances[i] = found
      far[i] = t.toFar === t.toFar ? t.toFar : farSquared(shape, t.from, scratch)
    }
}

function spreadsOf(points: readonly Float64Array[], dims: number): Float64Array {
  const out = new Float64Array(dims)
  for (let d = 0; d < dims; d++) {
    let sum = 0
    let squares = 0
    for (const p of points) {
      sum += p[d]!
      squares += p[d]! * p[d]!
    }
    const mean = sum / points.length
    out[d] = Math.sqrt(Math.max(1e-12, squares / points.length - mean * mean))
  }
  return out
}
