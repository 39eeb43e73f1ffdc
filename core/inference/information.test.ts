import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { randomFrom, type Random } from '../quantity/random'
import { emptyJoint, entropy, jointOf, mutualInformation, normalised, rowsOf } from './information'
import { evolve, lean, moveAll, normalPrior, nudge, redraw, walk, type Move } from './moves'
import { systematic } from './sampling'

describe('entropy and mutual information (Shannon 1948; Cover and Thomas, chapter 2, recalled)', () => {
  test('a fair coin is ln 2, a certain thing 0, n alike ln n', () => {
    expect(entropy([0.5, 0.5])).toBeCloseTo(Math.LN2, 12)
    expect(entropy([1, 0, 0])).toBe(-0)
    expect(entropy([0.25, 0.25, 0.25, 0.25])).toBeCloseTo(Math.log(4), 12)
    expect(entropy([0.9, 0.1])).toBeLessThan(entropy([0.8, 0.2]))
  })
  // Cover and Thomas, example 2.2.1: X has 7/4 bits, X given Y 11/8, so they share 3/8 of a bit
  test('the handbook’s table of two dice shares 3/8 of a bit', () => {
    const rows = [
      [1 / 8, 1 / 16, 1 / 32, 1 / 32],
      [1 / 16, 1 / 8, 1 / 32, 1 / 32],
      [1 / 16, 1 / 16, 1 / 16, 1 / 16],
      [1 / 4, 0, 0, 0],
    ]
    const joint = emptyJoint(4, 4)
    joint.table.set(rows.flat())
    expect(mutualInformation(joint) / Math.LN2).toBeCloseTo(3 / 8, 12)
    expect(entropy([1 / 2, 1 / 4, 1 / 8, 1 / 8]) / Math.LN2).toBeCloseTo(7 / 4, 12)
  })
  test('is H(X) + H(Y) − H(X, Y), never below 0, and 0 where neither tells of the other', () => {
    const table = fc.array(fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 3, maxLength: 3 }), {
      minLength: 2,
      maxLength: 4,
    })
    fc.assert(
      fc.property(table, rows => {
        const sum = rows.flat().reduce((a, b) => a + b, 0)
        fc.pre(sum > 0)
        const p = rows.map(r => r.map(x => x / sum))
        const joint = emptyJoint(p.length, 3)
        joint.table.set(p.flat())
        const x = p.map(r => r.reduce((a, b) => a + b, 0))
        const y = [0, 1, 2].map(j => p.reduce((s, r) => s + r[j]!, 0))
        expect(mutualInformation(joint)).toBeCloseTo(entropy(x) + entropy(y) - entropy(p.flat()), 9)
        expect(mutualInformation(joint)).toBeGreaterThanOrEqual(0)
        const apart = emptyJoint(p.length, 3)
        apart.table.set(x.flatMap(a => y.map(b => a * b)))
        expect(mutualInformation(apart)).toBeCloseTo(0, 9)
      }),
      { numRuns: 100, seed: 5 },
    )
  })
  test('hypotheses of a kind are put together, rows need not sum to one, an empty row tells nothing', () => {
    // two hypotheses of kind 0 that show different things, one of kind 1
    const joint = jointOf(
      [0.25, 0.25, 0.5],
      [0, 0, 1],
      [
        [2, 0],
        [0, 3],
        [0.5, 0.5],
      ],
    )
    expect([...joint.table]).toEqual([0.25, 0.25, 0.25, 0.25])
    expect(mutualInformation(joint)).toBeCloseTo(0, 12)
    const sure = jointOf(
      [0.5, 0.5],
      [0, 1],
      [
        [1, 0],
        [0, 9],
      ],
    )
    expect(mutualInformation(sure)).toBeCloseTo(Math.LN2, 12)
    expect([
      ...jointOf(
        [0.5, 0.5],
        [0, 1],
        [
          [0, 0],
          [1, 1],
        ],
      ).table,
    ]).toEqual([0, 0, 0.25, 0.25])
    expect(
      rowsOf([
        new Map([['a', 1]]),
        new Map([
          ['b', 0.5],
          ['a', 0.25],
        ]),
      ]).map(r => [...r]),
    ).toEqual([
      [1, 0],
      [0.25, 0.5],
    ])
  })
  test('weights are shared out, and nothing cannot be', () => {
    expect(normalised([2, 6])).toEqual([0.25, 0.75])
    for (const nothing of [[0, 0], [], [NaN, 1], [Infinity, 1], [-1, 1]])
      expect(() => normalised(nothing)).toThrow(RangeError)
  })
})

test('systematic sampling: as often as the weight says, to within one, all marks set (Kitagawa 1996, recalled)', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 1, maxLength: 30 }),
      fc.integer({ min: 1, max: 200 }),
      fc.double({ min: 0, max: 0.999999, noNaN: true }),
      (raw, count, start) => {
        const sum = raw.reduce((a, b) => a + b, 0)
        fc.pre(sum > 0)
        const weights = raw.map(w => w / sum)
        const times = systematic(weights, count, start)
        expect(times.reduce((a, b) => a + b, 0)).toBe(count)
        times.forEach((n, i) => expect(Math.abs(n - count * weights[i]!)).toBeLessThanOrEqual(1 + 1e-6))
      },
    ),
    { numRuns: 200, seed: 6 },
  )
})

describe('moves leave what the points stand for as it is (Metropolis–Hastings; detailed balance, any handbook)', () => {
  const MOVES: [string, Move][] = [
    ['lean', lean],
    ['evolve', evolve],
    ['walk', walk],
    ['redraw', redraw],
    ['nudge', nudge(0.6, 0.7)],
  ]
  // normal prior and two normal readings: the closed form is precision 1 + 1/sd², mean reading ÷ sd² ÷ precision
  const SD = 0.5
  const READ = [0.8, -0.4]
  const logChance = (p: Float64Array) => READ.reduce((s, r, d) => s - 0.5 * ((r - p[d]!) / SD) ** 2, 0)
  const precision = 1 + 1 / SD ** 2
  const moved = (points: readonly Float64Array[], sweeps: number, move: Move, random: Random) => {
    const chances = Float64Array.from(points, p => logChance(p))
    moveAll(points, chances, normalPrior(2), logChance, sweeps, () => move, random)
    // each moved along with its point
    points.forEach((p, i) => expect(chances[i]).toBeCloseTo(logChance(p), 9))
  }
  test.each(MOVES)('%s keeps a posterior that it starts from', (_, move) => {
    const random = randomFrom(11)
    const points = Array.from({ length: 3000 }, () =>
      Float64Array.from(READ, r => r / SD ** 2 / precision + random.normal() / Math.sqrt(precision)),
    )
    moved(points, 6, move, random)
    for (const [d, r] of READ.entries()) {
      const mean = points.reduce((s, p) => s + p[d]!, 0) / points.length
      const sd = Math.sqrt(points.reduce((s, p) => s + (p[d]! - mean) ** 2, 0) / points.length)
      expect(mean).toBeCloseTo(r / SD ** 2 / precision, 1)
      expect(sd * Math.sqrt(precision)).toBeGreaterThan(0.93)
      expect(sd * Math.sqrt(precision)).toBeLessThan(1.07)
    }
  })
  test.each(MOVES)('%s parts copies of one point', (_, move) => {
    const random = randomFrom(12)
    const points = Array.from({ length: 200 }, (_, i) => Float64Array.from([0.5 + (i % 2) * 0.2, -0.2 - (i % 3) * 0.1]))
    const before = new Set(points.map(p => p.join())).size
    moved(points, 4, move, random)
    expect(new Set(points.map(p => p.join())).size).toBeGreaterThan(before * 10)
  })
})
