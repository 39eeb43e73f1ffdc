import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, test } from 'vitest'
import { fitHanger, hangerPlan, wasStraightened } from './hanger'

const gauge = (hours: number[], gap: (angle: number) => number) =>
  hours.map(hour => ({ hour, gapMm: gap((hour * Math.PI) / 6) }))

describe('fitHanger', () => {
  // Outside source: QR least squares of [1 cosθ sinθ], ml-matrix `solve`.
  test('agrees with QR on random readings at any three or more hours', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 4, maxLength: 12 }),
        fc.array(fc.double({ min: 40, max: 80, noNaN: true }), { minLength: 12, maxLength: 12 }),
        (hours, gaps) => {
          const readings = hours.map((hour, i) => ({ hour, gapMm: gaps[i] }))
          const rows = readings.map(r => (r.hour * Math.PI) / 6).map(t => [1, Math.cos(t), Math.sin(t)])
          const [, b, c] = solve(new Matrix(rows), Matrix.columnVector(readings.map(r => r.gapMm))).to1DArray()
          const fit = fitHanger(readings, 311)
          expect(fit.acrossMm).toBeCloseTo(2 * Math.hypot(b, c), 6) // same doubles, another algorithm
          expect(fit.camberDeg).toBeCloseTo((Math.atan(b / 311) * 180) / Math.PI, 7)
        },
      ),
      { numRuns: 60, seed: 7 },
    )
  })

  test('finds camber and toe with their signs, and says when nothing is bent', () => {
    const fit = fitHanger(
      gauge([12, 3, 6, 9], t => 60 + 2 * Math.cos(t) - 1 * Math.sin(t)),
      300,
    )
    expect(fit.camberDeg).toBeCloseTo(0.382, 3) // atan(2/300): wider at 12, the lower end is inboard
    expect(fit.toeDeg).toBeCloseTo(-0.191, 3)
    expect(fit.acrossMm).toBeCloseTo(2 * Math.sqrt(5), 9)
    expect(fit.residualMm).toBeCloseTo(0, 9)
    expect(
      fitHanger(
        gauge([12, 4, 8], () => 60),
        300,
      ),
    ).toMatchObject({ camberDeg: 0, toeDeg: 0, acrossMm: 0 })
  })

  test('shows a bad reading as residual', () => {
    const readings = gauge([12, 2, 4, 6, 8, 10], t => 60 + Math.cos(t))
    readings[2].gapMm += 3
    expect(fitHanger(readings, 300).residualMm).toBeGreaterThan(0.5)
  })

  test.each([
    ['radiusMm', gauge([12, 3, 6], () => 60), 0],
    ['at least 3', gauge([12, 3], () => 60), 311],
    ['twice', gauge([12, 3, 3], () => 60), 311],
    ['twice', gauge([12, 0, 6], () => 60), 311],
    ['gapMm', gauge([12, 3, 6], () => -1), 311],
    ['gapMm', gauge([12, 3, 6], () => NaN), 311],
    ['hour', gauge([12, 3, 13], () => 60), 311],
  ])('refuses nonsense and names it: %s', (words, readings, radius) => {
    expect(() => fitHanger(readings, radius)).toThrow(RangeError)
    expect(() => fitHanger(readings, radius)).toThrow(words)
  })
})

describe('a replaceable hanger', () => {
  const fit = { camberDeg: 0.6, toeDeg: 0, tiltDeg: 0.6, acrossMm: 6, residualMm: 0 }
  test('is renewed; levered back once, where no new one is to be had, and never again', () => {
    const plan = hangerPlan(fit, 11, 'replaceable')
    expect(plan).toMatchObject({ do: 'replace', once: { hour: 12 } })
    expect(hangerPlan(fit, 11, 'replaceable', undefined, true)).toMatchObject({ do: 'replace', once: null })
    expect(hangerPlan(fit, 11, 'direct')).toMatchObject({ do: 'replace', once: null })
    for (const kind of ['titanium', 'carbon'] as const) expect(hangerPlan(fit, 11, kind).do).toBe('refuse')
  })
  test('was straightened once it was gauged within the limit after a bend', () => {
    const g = (acrossMm: number, bentBefore: unknown = null) => ({ event: { acrossMm }, bentBefore })
    expect(wasStraightened([g(6)], 2)).toBe(false)
    // still being levered: steps of the one straightening
    expect(wasStraightened([g(6, {}), g(4, {}), g(3)], 2)).toBe(false)
    expect(wasStraightened([g(6, {}), g(1), g(5)], 2)).toBe(true)
    expect(wasStraightened([g(1), g(5)], 2)).toBe(false)
  })
})
