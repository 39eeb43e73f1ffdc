import { describe, expect, test } from 'vitest'
import { pitchDiameterMm, ROLLER_MM, tipDiameterMm } from './sprockets'
import { toothOutline } from './toothShape'

describe.each([11, 13, 28, 51])('the teeth of a sprocket of %i, by ISO 606', teeth => {
  const outline = toothOutline(teeth)
  const radii = outline.map(p => Math.hypot(p.x, p.y))

  test('reach to the tip circle and down to the roller seats', () => {
    expect(Math.max(...radii)).toBeCloseTo(tipDiameterMm(teeth) / 2, 6)
    expect(Math.min(...radii)).toBeCloseTo(pitchDiameterMm(teeth) / 2 - 0.505 * ROLLER_MM, 6)
  })

  test('let a roller lie in every gap, and touch it nowhere but at its seat', () => {
    const pitchR = pitchDiameterMm(teeth) / 2
    for (let k = 0; k < teeth; k++) {
      const a = (2 * Math.PI * k) / teeth
      const away = outline.map(p => Math.hypot(p.x - pitchR * Math.sin(a), p.y - pitchR * Math.cos(a)))
      expect(Math.min(...away)).toBeGreaterThan(ROLLER_MM / 2)
      expect(Math.min(...away)).toBeLessThan(0.51 * ROLLER_MM)
    }
  })

  test('go round once, every tooth alike', () => {
    const each = outline.length / teeth
    expect(Number.isInteger(each)).toBe(true)
    const turn = (2 * Math.PI) / teeth
    for (let i = 0; i < each; i++) {
      const { x, y } = outline[i]!
      const next = outline[i + each]!
      expect(next.x).toBeCloseTo(x * Math.cos(turn) + y * Math.sin(turn), 9)
      expect(next.y).toBeCloseTo(y * Math.cos(turn) - x * Math.sin(turn), 9)
    }
    const angles = outline.map(p => Math.atan2(p.x, p.y))
    const steps = angles.map((a, i) => {
      const d = a - angles[(i + angles.length - 1) % angles.length]!
      return ((d + 3 * Math.PI) % (2 * Math.PI)) - Math.PI
    })
    expect(steps.every(d => d > -1e-9)).toBe(true)
  })
})
