import { pitchDiameterMm, tipDiameterMm } from '../standards/sprockets'
import { describe, expect, test } from 'vitest'
import { guideGap } from './gap'

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
