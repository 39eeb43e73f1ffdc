import type { BenchEvent } from '../rear/benchEvents'
import { WORN_RATE } from './prior'
import { describe, expect, test } from 'vitest'
import { arrivalChances, HEARD, reportedChance, type Arrival } from '../response/heard'
import { cableWindowMm } from '../response/window'
import { geometryOf } from '../response/setup'
import { setupOfStandard } from '../response/testBikes'
import { analyse, weightedQuantile } from './analysis'
import { blames } from './blames'
import { hearingTable, lookUp } from './hearingTable'
import { posteriorAtStart } from './posterior'
import { wearFrom } from './wear'

test('the table of log chances agrees with the chances themselves', () => {
  for (const end of [null, 'smallest', 'largest'] as const)
    for (const inward of [true, false])
      for (const heard of HEARD.filter(h => h !== 'off' && h !== 'skips')) {
        const arrival: Arrival = { end, inward, alreadyThere: false }
        for (const q of [0.75, 1, 1.2])
          for (let z = -0.8; z <= 0.8; z += 0.037) {
            const slow = reportedChance(arrivalChances(z, arrival, q)[heard])
            expect(Math.abs(Math.exp(lookUp(hearingTable(heard, arrival), z, Math.log(q))) - slow)).toBeLessThan(0.03)
          }
      }
})

test('the fast window of a reading agrees with the slow one of the response model', () => {
  const setup = setupOfStandard('r12-11')
  const g = geometryOf(setup)
  const log: BenchEvent[] = [
    { kind: 'sight', at: 'L', offsetMm: 0.2 },
    { kind: 'sight', at: 'H', offsetMm: -0.4 },
    { kind: 'shift', from: 0, to: 5, heard: 'clean' },
  ]
  const posterior = log.reduce((p, e) => p.after(e), posteriorAtStart(setup, 3))
  const { readings } = analyse(posterior, false)
  expect(readings.length).toBeGreaterThan(100)
  let compared = 0
  for (const r of readings) {
    const slow = cableWindowMm(g, r.belief, r.belief, true)
    const turns = (mm: number) => setup.barrelTurnsOut + (mm - r.belief.cableMm) / setup.barrelPitchMm
    expect(r.span.from).toBeCloseTo(turns(slow.from), 9)
    expect(r.span.to).toBeCloseTo(turns(slow.to), 9)
    const held = cableWindowMm(g, r.belief, r.belief, false)
    if (!(held.to > held.from)) {
      expect(r.window.to > r.window.from).toBe(false)
      continue
    }
    compared++
    expect(r.window.from).toBeCloseTo(turns(held.from), 6)
    expect(r.window.to).toBeCloseTo(turns(held.to), 6)
  }
  expect(compared).toBeGreaterThan(50)
})

describe('a cause is at fault (model, section 3)', () => {
  test.each([
    ['wide enough as it is', 0.3, 0.9, 0.9, 0.9, false],
    ['narrow, and curing it alone widens it by an eighth', 0.1, 0.25, 0.1, 0.9, true],
    ['narrow, curing it alone does nothing, but it alone keeps it narrow', 0, 0, 0.1, 0.8, true],
    ['narrow for another reason', 0, 0, 0.8, 0.8, false],
    ['narrow, and nothing cures it', 0.2, 0.2, 0.2, 0.2, false],
  ])('%s', (_, now, alone, others, all, blamed) => {
    expect(blames(now, alone, others, all, 0.25)).toBe(blamed)
  })
})

describe('wear', () => {
  const none = Array.from({ length: 9 }, () => ({ skipped: 0, held: 0 }))
  const at = (k: number, skipped: number, held: number) => none.map((x, i) => (i === k ? { skipped, held } : x))
  test('starts from its base rate', () => {
    expect(wearFrom(none, WORN_RATE).any).toBeCloseTo(0.08, 9)
  })
  // Bayes by hand: odds of one-sprocket-in-24 runs; 0.95·⅔ against 0.05/6 for each skip, a third for each that held
  test('two skips on one sprocket are a worn one, one is a doubt, and clean arrivals clear it', () => {
    expect(wearFrom(at(4, 2, 0), WORN_RATE).any).toBeGreaterThan(0.98)
    const once = wearFrom(at(4, 1, 0), WORN_RATE)
    expect(once.any).toBeGreaterThan(0.4)
    expect(once.any).toBeLessThan(0.85)
    expect(once.of[4]).toBeGreaterThan(once.of[7])
    expect(wearFrom(at(4, 1, 5), WORN_RATE).any).toBeLessThan(0.1)
    expect(
      wearFrom(
        none.map(() => ({ skipped: 0, held: 3 })),
        WORN_RATE,
      ).any,
    ).toBeLessThan(0.01)
  })
  test('a run of neighbours is summed exactly', () => {
    const runs = 9 + 8 + 7
    expect(wearFrom(at(0, 0, 1), WORN_RATE).any / (1 - wearFrom(at(0, 0, 1), WORN_RATE).any)).toBeCloseTo(
      ((0.08 / runs) * (runs - 3 + 3 / 3)) / 0.92,
      6,
    )
  })
  test('a new cassette has none', () => {
    expect(wearFrom(at(4, 3, 0), WORN_RATE, true).any).toBe(0)
  })
})

test('a weighted quantile is where that share of the weight is reached', () => {
  expect(
    weightedQuantile(
      [
        [3, 0.2],
        [1, 0.5],
        [2, 0.3],
      ],
      0.5,
    ),
  ).toBe(1)
  expect(
    weightedQuantile(
      [
        [3, 0.2],
        [1, 0.5],
        [2, 0.3],
      ],
      0.75,
    ),
  ).toBe(2)
})
