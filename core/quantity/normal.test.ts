import { describe, expect, test } from 'vitest'
import { normalBelow, one, quantileOf, two } from './normal'

/** Simpson's rule over the density from -9 to z. */
function integrated(z: number): number {
  const steps = 2000
  const h = (z + 9) / steps
  const f = (x: number) => Math.exp(-0.5 * x * x) / Math.sqrt(2 * Math.PI)
  let sum = f(-9) + f(z)
  for (let i = 1; i < steps; i++) sum += (i % 2 ? 4 : 2) * f(-9 + i * h)
  return (sum * h) / 3
}

describe('the normal distribution', () => {
  // Published source: standard normal table of any statistics handbook (recalled)
  test.each([
    [0, 0.5],
    [1, 0.8413],
    [1.645, 0.95],
    [1.96, 0.975],
    [2.576, 0.995],
    [-1, 0.1587],
  ])('below %f: %f', (z, p) => {
    expect(normalBelow(z)).toBeCloseTo(p, 4)
  })

  test('agrees with its own definition, integrated numerically', () => {
    for (let z = -4; z <= 4; z += 0.25) expect(normalBelow(z)).toBeCloseTo(integrated(z), 6)
  })

  test('one normal is scaled; two keep their share on either side and their order', () => {
    expect(quantileOf(one(3, 2))(1.5)).toBe(6)
    const q = quantileOf(two(0.75, 0, 0.5, 0, 3))
    expect(q(0)).toBeCloseTo(0, 3)
    // by definition: as much of the mixture lies below q(z) as of a standard normal below z
    for (const z of [-2.5, -1, 0.4, 1.8])
      expect(0.75 * normalBelow(q(z) / 0.5) + 0.25 * normalBelow(q(z) / 3)).toBeCloseTo(normalBelow(z), 3)
    for (let z = -4.9; z < 4.8; z += 0.1) expect(q(z + 0.1)).toBeGreaterThan(q(z))
  })
})
