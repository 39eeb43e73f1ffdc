import { CholeskyDecomposition, Matrix } from 'ml-matrix'

/** What is not known, and what is thought of it beforehand. */
export type Unknown = { mean: number; sd: number }

export type Solved = {
  at: Float64Array
  covariance: Matrix
  /** Sum of squares of what was seen, each in its own spread, without what was thought beforehand. */
  misfit: number
  /** How many figures were seen. */
  figures: number
}

const MOST_ROUNDS = 60
const SETTLED = 1e-9

/**
 * The values that fit best what was seen and what was thought beforehand, by least squares (Levenberg’s and Marquardt’s
 * damping), and how far each may be off: the inverse of the normal matrix there.
 * @param unknowns what is thought of each beforehand
 * @param misfits how far each figure that was seen lies from what it would be, in its own spreads
 */
export function solve(unknowns: readonly Unknown[], misfits: (x: Float64Array) => readonly number[]): Solved {
  const n = unknowns.length
  const scaled = (z: Float64Array) => z.map((v, i) => unknowns[i]!.mean + unknowns[i]!.sd * v)
  const sum = (r: readonly number[], z: Float64Array) =>
    r.reduce((s, v) => s + v * v, 0) + z.reduce((s, v) => s + v * v, 0)
  let z = new Float64Array(n)
  let r = misfits(scaled(z))
  let cost = sum(r, z)
  let damping = 1e-3
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const slopes = slopesAt(z, r, x => misfits(scaled(x)))
    const normal = slopes.transpose().mmul(slopes).add(Matrix.eye(n, n))
    const down = slopes
      .transpose()
      .mmul(Matrix.columnVector([...r]))
      .add(Matrix.columnVector([...z]))
    let step: Float64Array | null = null
    while (damping < 1e8) {
      const damped = normal.clone()
      for (let i = 0; i < n; i++) damped.set(i, i, damped.get(i, i) * (1 + damping))
      const by = new CholeskyDecomposition(damped).solve(down)
      const next = z.map((v, i) => v - by.get(i, 0))
      const there = misfits(scaled(next))
      const costThere = sum(there, next)
      if (Number.isFinite(costThere) && costThere <= cost) {
        step = next.map((v, i) => v - z[i]!)
        const gain = cost - costThere
        ;[z, r, cost] = [next, there, costThere]
        damping = Math.max(1e-9, damping / 8)
        if (gain < SETTLED * (1 + cost)) round = MOST_ROUNDS
        break
      }
      damping *= 6
    }
    if (!step) break
  }
  const slopes = slopesAt(z, r, x => misfits(scaled(x)))
  const normal = slopes.transpose().mmul(slopes).add(Matrix.eye(n, n))
  const inverse = new CholeskyDecomposition(normal).solve(Matrix.eye(n, n))
  const covariance = new Matrix(n, n)
  for (let i = 0; i < n; i++)
    for (let k = 0; k < n; k++) covariance.set(i, k, inverse.get(i, k) * unknowns[i]!.sd * unknowns[k]!.sd)
  return { at: scaled(z), covariance, misfit: r.reduce((s, v) => s + v * v, 0), figures: r.length }
}

function slopesAt(z: Float64Array, r: readonly number[], misfits: (z: Float64Array) => readonly number[]): Matrix {
  const slopes = new Matrix(r.length, z.length)
  const step = 1e-5
  for (let i = 0; i < z.length; i++) {
    const beside = Float64Array.from(z)
    beside[i]! += step
    misfits(beside).forEach((v, k) => slopes.set(k, i, (v - r[k]!) / step))
  }
  return slopes
}

/** A figure of what was solved, with its spread. */
export function figureOf(
  { at, covariance }: Solved,
  figure: (x: Float64Array) => number,
): { mean: number; sd: number } {
  const mean = figure(at)
  const slope = [...at].map((v, i) => {
    const step = 1e-3 * Math.sqrt(covariance.get(i, i))
    const beside = Float64Array.from(at)
    beside[i] = v + step
    return (figure(beside) - mean) / step
  })
  let variance = 0
  for (let i = 0; i < slope.length; i++)
    for (let k = 0; k < slope.length; k++) variance += slope[i]! * covariance.get(i, k) * slope[k]!
  return { mean, sd: Math.sqrt(variance) }
}

/** One that lies far off is another edge's: it pulls no harder than one at the limit, by Huber's rule. */
const LIMIT = 2
export const held = (misfit: number): number =>
  Math.abs(misfit) <= LIMIT ? misfit : Math.sign(misfit) * Math.sqrt(2 * LIMIT * Math.abs(misfit) - LIMIT * LIMIT)
