import type { Random } from '../quantity/random'

/** A normal that stands for a cloud of particles: mean, and the Cholesky factor of its covariance, row by row. */
export type Shape = { mean: Float64Array; factor: Float64Array; count: number }

/** Widens the covariance a little: the cloud is a sample, and its tails are what a proposal must reach. */
const WIDER = 1.05

/** Mean and covariance of equally weighted particles, factored (Cholesky, any numerical handbook). */
export function shapeOf(particles: readonly Float64Array[], count: number): Shape {
  const n = particles.length
  const mean = new Float64Array(count)
  for (const p of particles) for (let d = 0; d < count; d++) mean[d] += p[d] / n
  const c = new Float64Array(count * count)
  for (const p of particles)
    for (let i = 0; i < count; i++) {
      const a = (p[i] - mean[i]) / n
      for (let j = 0; j <= i; j++) c[i * count + j] += a * (p[j] - mean[j])
    }
  for (let i = 0; i < count; i++) c[i * count + i] = c[i * count + i] * WIDER + 1e-9
  for (let i = 0; i < count; i++)
    for (let j = 0; j <= i; j++) {
      let sum = c[i * count + j]
      for (let k = 0; k < j; k++) sum -= c[i * count + k] * c[j * count + k]
      c[i * count + j] = i === j ? Math.sqrt(Math.max(1e-12, sum)) : sum / c[j * count + j]
    }
  return { mean, factor: c, count }
}

/**
 * Leans a particle towards a fresh draw of the shape: mean + √(1 − b²)(x − mean) + b·draw. Leaves the shape's own
 * normal as it is (preconditioned Crank–Nicolson, Cotter et al. 2013), so only the shape's misfit decides acceptance.
 * @param b 1 is a draw of its own, small b a small step
 */
export function leanTowards(
  { mean, factor, count }: Shape,
  x: Float64Array,
  out: Float64Array,
  b: number,
  scratch: Float64Array,
  random: Random,
): void {
  for (let d = 0; d < count; d++) scratch[d] = random.normal()
  const keep = Math.sqrt(1 - b * b)
  for (let i = 0; i < count; i++) {
    let sum = 0
    for (let j = 0; j <= i; j++) sum += factor[i * count + j] * scratch[j]
    out[i] = mean[i] + keep * (x[i] - mean[i]) + b * sum
  }
}

/** Squared Mahalanobis distance of `x` from the shape. */
export function farSquared({ mean, factor, count }: Shape, x: Float64Array, scratch: Float64Array): number {
  let far = 0
  for (let i = 0; i < count; i++) {
    let sum = x[i] - mean[i]
    for (let j = 0; j < i; j++) sum -= factor[i * count + j] * scratch[j]
    scratch[i] = sum / factor[i * count + i]
    far += scratch[i] * scratch[i]
  }
  return far
}
