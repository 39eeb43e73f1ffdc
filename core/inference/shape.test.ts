import { CholeskyDecomposition, covariance, inverse, Matrix } from 'ml-matrix'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { farSquared, leanTowards, shapeOf } from './shape'

const random = randomFrom(11)
/** A skewed cloud in four dimensions. */
const cloud = Array.from({ length: 3000 }, () => {
  const [a, b, c, d] = [random.normal(), random.normal(), random.normal(), random.normal()]
  return Float64Array.of(1 + 2 * a, -3 + a + 0.5 * b, 0.2 * c - 0.1 * a, d + 0.7 * b)
})
const shape = shapeOf(cloud, 4)
const cov = covariance(new Matrix(cloud.map(p => [...p]))).mul(2999 / 3000)
for (let i = 0; i < 4; i++) cov.set(i, i, cov.get(i, i) * 1.05 + 1e-9)

describe('the normal fitted to particles', () => {
  // Outside source: covariance, Cholesky factor and inverse by a general matrix library, ml-matrix
  test("has the cloud's mean, and the factor of its covariance", () => {
    const lower = new CholeskyDecomposition(cov).lowerTriangularMatrix
    for (let i = 0; i < 4; i++)
      for (let j = 0; j <= i; j++) expect(shape.factor[i * 4 + j]).toBeCloseTo(lower.get(i, j), 8)
    expect(shape.mean[1]).toBeCloseTo(cloud.reduce((s, p) => s + p[1], 0) / 3000, 9)
  })
  test('measures distance as Mahalanobis did', () => {
    const x = Float64Array.of(0, 1, -0.5, 2)
    const off = Matrix.columnVector([...x].map((v, i) => v - shape.mean[i]))
    expect(farSquared(shape, x, new Float64Array(4))).toBeCloseTo(
      off.transpose().mmul(inverse(cov)).mmul(off).get(0, 0),
      8,
    )
  })
  test('leaning leaves that normal as it is, whatever the step', () => {
    for (const b of [0.3, 1]) {
      let x = Float64Array.from(shape.mean)
      const out = new Float64Array(4)
      const seen: number[][] = []
      for (let i = 0; i < 40_000; i++) {
        leanTowards(shape, x, out, b, new Float64Array(4), random)
        x = Float64Array.from(out)
        seen.push([...x])
      }
      const found = covariance(new Matrix(seen))
      // Monte Carlo: a few per cent of each variance at these lengths of chain
      for (let i = 0; i < 4; i++) expect(Math.abs(found.get(i, i) / cov.get(i, i) - 1)).toBeLessThan(0.15)
    }
  })
  test('a cloud without spread in one direction still has a factor', () => {
    const flat = shapeOf(
      cloud.map(p => Float64Array.of(p[0], 5, p[0])),
      3,
    )
    expect([...flat.factor].every(Number.isFinite)).toBe(true)
  })
})
