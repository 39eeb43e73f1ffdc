/**
 * Chance that a standard normal lies below `z`.
 * Source: Abramowitz & Stegun 26.2.17, error below 7.5e-8 (recalled; checked against its definition in the tests).
 */
export function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z))
  const tail =
    (Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return z > 0 ? 1 - tail : tail
}

/** One or two normals; `weight` is the share of the first. */
export type Density = { mean: number; sd: number; weight: number; mean2: number; sd2: number }

export const one = (mean: number, sd: number): Density => ({ mean, sd, weight: 1, mean2: mean, sd2: sd })
export const two = (weight: number, mean: number, sd: number, mean2: number, sd2: number): Density => ({
  mean,
  sd,
  weight,
  mean2,
  sd2,
})

const REACH = 5
const POINTS = 401

/**
 * The value of a density that stands where `z` stands in a standard normal: draws of the one become draws of the other.
 */
export function quantileOf(d: Density): (z: number) => number {
  if (d.weight === 1) return z => d.mean + d.sd * z
  const below = (x: number) =>
    d.weight * normalBelow((x - d.mean) / d.sd) + (1 - d.weight) * normalBelow((x - d.mean2) / d.sd2)
  const widest = Math.max(d.sd, d.sd2) * 2 * REACH
  const table = Float64Array.from({ length: POINTS }, (_, i) => {
    const wanted = normalBelow(-REACH + (2 * REACH * i) / (POINTS - 1))
    let [low, high] = [Math.min(d.mean, d.mean2) - widest, Math.max(d.mean, d.mean2) + widest]
    for (let k = 0; k < 50; k++) {
      const mid = (low + high) / 2
      if (below(mid) < wanted) low = mid
      else high = mid
    }
    return (low + high) / 2
  })
  return z => {
    const at = Math.min(POINTS - 1.000001, Math.max(0, ((z + REACH) / (2 * REACH)) * (POINTS - 1)))
    const i = Math.floor(at)
    return table[i] + (at - i) * (table[i + 1] - table[i])
  }
}
