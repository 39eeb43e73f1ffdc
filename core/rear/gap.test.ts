import { pitchDiameterMm, tipDiameterMm } from '../standards/sprockets'
import { describe, expect, test } from 'vitest'
import { gapNow, gapTurn, guideGap, learntGapPerTurn } from './gap'

describe('sprocket diameters', () => {
  // ISO 606, as tabulated in machinery handbooks.
  test.each([
    [11, 45.08],
    [17, 69.12],
    [32, 129.57],
    [50, 202.26],
  ])('pitch diameter of %i teeth is %f mm', (teeth, mm) => {
    expect(pitchDiameterMm(teeth)).toBeCloseTo(mm, 2)
  })
  // ISO 606 least tip diameters; recalled to a tenth, and 53 teeth comes to 218.95.
  test.each([
    [11, 48.2],
    [12, 52.3],
    [50, 206.8],
    [53, 219.0],
  ])('least tip diameter of %i teeth is %f mm', (teeth, mm) => {
    expect(Math.abs(tipDiameterMm(teeth) - mm)).toBeLessThan(0.06)
  })
})

describe('guideGap', () => {
  test('is the centre distance less both tip radii', () => {
    expect(guideGap({ sprocketTeeth: 50, pulleyTeeth: 12, centresMm: 135 })).toBeCloseTo(135 - (206.8 + 52.3) / 2, 1)
  })
  test('shrinks by half the tip diameter when the sprocket grows, and may be negative', () => {
    const gap = (sprocketTeeth: number) => guideGap({ sprocketTeeth, pulleyTeeth: 11, centresMm: 100 })
    expect(gap(32) - gap(36)).toBeCloseTo((tipDiameterMm(36) - tipDiameterMm(32)) / 2, 9)
    expect(gap(51)).toBeLessThan(0)
  })
  test.each([
    ['sprocketTeeth', { sprocketTeeth: 0, pulleyTeeth: 11, centresMm: 100 }],
    ['pulleyTeeth', { sprocketTeeth: 34, pulleyTeeth: 11.5, centresMm: 100 }],
    ['centresMm', { sprocketTeeth: 34, pulleyTeeth: 11, centresMm: NaN }],
  ])('names %s', (name, p) => {
    expect(() => guideGap(p)).toThrow(new RegExp(name))
    expect(() => guideGap(p)).toThrow(RangeError)
  })
})

describe('a turn of the B screw', () => {
  test('is as usual until it was measured, and nothing is learnt of one gap', () => {
    expect(learntGapPerTurn([])).toEqual({ mmPerTurn: 1.25, sdMm: 0.2 })
    expect(learntGapPerTurn([{ turnsIn: 2, gapMm: 7 }])).toEqual({ mmPerTurn: 1.25, sdMm: 0.2 })
  })
  // the precision-weighted mean of a slope and what was thought of it, by hand: 2 turns² over 0.4² beside 1 over 0.2²
  test('is learnt from two gaps, weighed against the usual', () => {
    const told = learntGapPerTurn([
      { turnsIn: 1, gapMm: 5 },
      { turnsIn: 3, gapMm: 8 },
    ])
    expect(told.mmPerTurn).toBeCloseTo((12.5 * 1.5 + 25 * 1.25) / 37.5, 9)
    expect(told.sdMm).toBeCloseTo(Math.sqrt(1 / 37.5), 9)
  })
  // by hand: weights 1/0.2² and 1/0.4² about their mean, 2 turns apart: 20 turns²/mm² beside 1 over 0.2²
  test('is learnt more from one in a photograph that tells closer', () => {
    const told = learntGapPerTurn([
      { turnsIn: 1, gapMm: 5, sdMm: 0.2 },
      { turnsIn: 3, gapMm: 8 },
    ])
    expect(told.mmPerTurn).toBeCloseTo((20 * 1.5 + 25 * 1.25) / 45, 9)
    expect(told.sdMm).toBeCloseTo(Math.sqrt(1 / 45), 9)
  })
  test('carries the last gap on, and none where none was measured', () => {
    const seen = [
      { turnsIn: 0, gapMm: 3 },
      { turnsIn: 2, gapMm: 6 },
    ]
    expect(gapNow(seen, 3, 1.5)).toBe(7.5)
    expect(gapNow([], 3, 1.5)).toBeNull()
  })
  test('is turned to the middle of what is wanted, and not at all from either end of it', () => {
    const target = { from: 5, to: 6 }
    expect([5, 5.5, 6].map(mm => gapTurn(mm, target, 1.25))).toEqual([0, 0, 0])
    expect(gapTurn(4.25, target, 1.25)).toBe(1)
    expect(gapTurn(8, target, 1.25)).toBe(-2)
  })
})
