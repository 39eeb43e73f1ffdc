import { describe, expect, test } from 'vitest'
import { afterNext, believing, weightsOf, type Belief, type Step } from './particles'

const identity = (u: Float64Array) => u
const readingOf = (at: number, value: number, sd: number): Step<Float64Array> => ({
  dims: 3,
  logChance: u => -0.5 * ((value - u[at]) / sd) ** 2,
})
const through = (log: readonly Step<Float64Array>[], seed = 1): Belief =>
  log.reduce(b => afterNext(b, log, identity, seed), believing(2, 1500, seed))
function moments(b: Belief, at: number): { mean: number; sd: number } {
  const w = weightsOf(b)
  const mean = b.points.reduce((s, u, i) => s + w[i] * u[at], 0)
  return { mean, sd: Math.sqrt(b.points.reduce((s, u, i) => s + w[i] * (u[at] - mean) ** 2, 0)) }
}

describe('a belief as particles', () => {
  // Published source: conjugate normal update, any textbook of Bayesian statistics: precision 1 + n/sd², mean their
  // weighted mean
  test('normal readings give the closed form, through many a renewal', () => {
    const readings = [1.9, 2.1, 2.0, 1.8, 2.2, 2.05, 1.95, 2.1]
    const b = through(readings.map(v => readingOf(0, v, 0.3)))
    const precision = 1 + readings.length / 0.09
    const { mean, sd } = moments(b, 0)
    expect(mean).toBeCloseTo(readings.reduce((s, v) => s + v / 0.09, 0) / precision, 1)
    expect(sd).toBeGreaterThan(0.8 / Math.sqrt(precision))
    expect(sd).toBeLessThan(1.25 / Math.sqrt(precision))
    // what was never measured stays as it was before
    expect(moments(b, 1).mean).toBeCloseTo(0, 0)
    expect(moments(b, 1).sd).toBeGreaterThan(0.85)
  })

  test('a reading far out is reached, and a sum of two leaves their difference open', () => {
    expect(Math.abs(moments(through([readingOf(0, 3, 0.3)]), 0).mean - 3 / 1.09)).toBeLessThan(0.2) // closed form again
    const sum = through(
      Array.from({ length: 3 }, () => ({
        dims: 2,
        logChance: (u: Float64Array) => -0.5 * ((2 - u[0] - u[1]) / 0.05) ** 2,
      })),
    )
    const w = weightsOf(sum)
    const mean = sum.points.reduce((s, u, i) => s + w[i] * (u[0] - u[1]), 0)
    const sd = Math.sqrt(sum.points.reduce((s, u, i) => s + w[i] * (u[0] - u[1] - mean) ** 2, 0))
    expect(moments(sum, 0).mean).toBeCloseTo(1, 0)
    expect(sd).toBeGreaterThan(1.1) // √2 in the limit
  })

  test('each point knows the chance of everything seen, through renewals and new coordinates', () => {
    const log: Step<Float64Array>[] = [
      readingOf(0, 1, 0.2),
      readingOf(1, -0.5, 0.3),
      { dims: 5, logChance: u => -0.5 * ((2 - u[0]! - u[4]!) / 0.4) ** 2 },
      readingOf(2, 0.3, 0.5),
    ]
    const b = log.reduce(had => afterNext(had, log, identity, 1), believing(3, 300, 1))
    const whole = (u: Float64Array) => log.reduce((sum, step) => sum + step.logChance!(u), 0)
    b.points.forEach((u, i) => expect(b.logChances[i]).toBeCloseTo(whole(u), 9))
  })

  test('new coordinates begin as the prior; the same log and seed give the same, another seed another', () => {
    const log: Step<Float64Array>[] = [readingOf(0, 1, 0.2), { dims: 5, logChance: null }]
    const b = through(log)
    expect(b.points[0]).toHaveLength(5)
    expect(Math.abs(moments(b, 4).mean)).toBeLessThan(0.15)
    expect(through(log).points).toEqual(b.points)
    expect(through(log, 2).points).not.toEqual(b.points)
  })
})
