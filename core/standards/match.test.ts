import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { DRIVETRAIN_STANDARDS, fittedRatio, USUAL_TEETH } from './drivetrains'
import { matchDrivetrain } from './match'

const even = (count: number, mm: number) => new Array<number>(count).fill(mm)

describe('the table of standards (from memory)', () => {
  test.each(DRIVETRAIN_STANDARDS.map(s => [s.id, s] as const))(
    '%s: pull × fitted ratio is its pitch, the listed ratio is near it',
    (_, s) => {
      const match = matchDrivetrain({
        pullMm: even(s.speeds - 1, s.pullMm),
        pullRatio: fittedRatio(s),
        pitchMm: even(s.speeds - 1, s.pitchMm),
      })
      expect(match.worstMm).toBeLessThan(1e-9)
      expect(match.ratioNeeded).toBeCloseTo(fittedRatio(s), 9)
      expect(Math.abs(s.listedRatio / fittedRatio(s) - 1)).toBeLessThan(0.04)
      expect(USUAL_TEETH[s.speeds]).toHaveLength(s.speeds)
    },
  )
  // trade figure: cable over all clicks, from memory
  test.each([
    ['r17-8', 19.6],
    ['r17-10', 20.7],
    ['r14-11', 27.0],
    ['r11-12w', 36.3],
    ['r15-9', 24.0],
  ])('%s pulls %f mm over all clicks', (id, mm) => {
    const s = DRIVETRAIN_STANDARDS.find(x => x.id === id)!
    expect((s.speeds - 1) * s.pullMm).toBeCloseTo(mm, 1)
  })
})

describe('matchDrivetrain', () => {
  test('splits the misfit of even parts between the ends', () => {
    const match = matchDrivetrain({ pullMm: even(8, 4), pullRatio: 1.7, pitchMm: even(8, 4.35) })
    expect(match.worstMm).toBeCloseTo((8 * 4 * 1.7 - 8 * 4.35) / 2, 9)
    expect(match.errorMm[0]).toBeCloseTo(-match.worstMm, 9)
    expect(match.errorMm.at(-1)).toBeCloseTo(match.worstMm, 9)
  })
  test('no other offset and no other ratio near by has a smaller worst error (searched)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 2, max: 5, noNaN: true }), { minLength: 3, maxLength: 11 }),
        fc.double({ min: 0.9, max: 2, noNaN: true }),
        fc.integer({ min: 0, max: 1000 }),
        (pullMm, pullRatio, seed) => {
          const pitchMm = pullMm.map((p, i) => p * 1.3 + 0.2 * Math.sin(seed + i))
          const match = matchDrivetrain({ pullMm, pullRatio, pitchMm })
          const worst = (ratio: number, offset: number) => {
            let cable = 0,
              place = 0
            let most = Math.abs(offset)
            pullMm.forEach((p, i) => {
              cable += p
              place += pitchMm[i]
              most = Math.max(most, Math.abs(ratio * cable - place + offset))
            })
            return most
          }
          for (let shift = -2; shift <= 2; shift += 0.05)
            expect(worst(pullRatio, match.errorMm[0] + shift)).toBeGreaterThanOrEqual(match.worstMm - 1e-9)
          const best = matchDrivetrain({ pullMm, pullRatio: match.ratioNeeded, pitchMm }).worstMm
          for (let r = -0.1; r <= 0.1; r += 0.002)
            expect(
              matchDrivetrain({ pullMm, pullRatio: match.ratioNeeded + r, pitchMm }).worstMm,
            ).toBeGreaterThanOrEqual(best - 1e-9)
        },
      ),
      { numRuns: 40, seed: 3 },
    )
  })
  test.each([
    ['pullMm', { pullMm: [], pullRatio: 1, pitchMm: [4] }],
    ['pullMm', { pullMm: [3, 3], pullRatio: 1, pitchMm: [4] }],
    ['pullRatio', { pullMm: [3], pullRatio: 0, pitchMm: [4] }],
    ['pitchMm', { pullMm: [3], pullRatio: 1, pitchMm: [-4] }],
    ['pullMm[0]', { pullMm: [NaN], pullRatio: 1, pitchMm: [4] }],
  ])('names %s', (name, parts) => {
    expect(() => matchDrivetrain(parts)).toThrow(RangeError)
    expect(() => matchDrivetrain(parts)).toThrow(name)
  })
})
