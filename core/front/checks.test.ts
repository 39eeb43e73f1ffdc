import { describe, expect, test } from 'vitest'
import { seededFront, simulatedFront } from '../bench/front'
import { adviseFront } from './advise'
import { believeFront, endGapMm } from './belief'
import { checksOf, type Check } from './checks'
import type { FrontSight } from './events'
import { thereAndBack } from './decide'
import { asFallen, DONE } from './looks'
import { USUAL_FRONT } from './parts'
import { frontFaults, frontGeometry, frontWindow, STRAIGHT, type FrontBike } from './response'
import { frontSetupOf } from './setup'
import { explainFront } from './words'
import { bestTurn, wayChance, type Read } from './turns'

const cassette = { teeth: [11, 13, 15, 17, 19, 21, 24, 28, 32, 37, 46], pitchMm: new Array<number>(10).fill(3.74) }
const double = frontSetupOf(USUAL_FRONT.double, cassette)
const g = frontGeometry(double)
const NO_THROW = { inboard: 0, outboard: 0 }

/** A belief made of these bikes, alike in weight. */
const reads = (changes: Partial<FrontBike>[]): Read[] => {
  const { guesses } = believeFront(g, [])
  return changes.map(change => {
    const guess = {
      ...guesses[0]!,
      ...STRAIGHT,
      backlashMm: 0.4,
      stroke: 1,
      perBarrel: 0.8,
      perL: 1,
      perH: 1,
      ...change,
    }
    return { guess, window: frontWindow(g, guess), faults: frontFaults(g, guess), weight: 1 / changes.length }
  })
}
const gap = (checks: readonly Check[], plate: 'inner' | 'outer') =>
  checks.find(c => c.move.do === 'gap' && c.move.plate === plate && !c.move.byStop)!
const shift = (checks: readonly Check[], to: number) => checks.find(c => c.move.do === 'shift' && c.move.to === to)

describe('what a check tells', () => {
  // the plate rests on the chain: what is read is 0 (common practice, no source)
  test('how hard a plate presses, no gap tells', () => {
    const wide = reads(Array.from({ length: 40 }, (_, i) => ({ slackMm: -1 + i / 20 })))
    const pressed = reads(Array.from({ length: 40 }, (_, i) => ({ slackMm: 3 + i / 10 })))
    for (const { guess } of pressed) expect(endGapMm(g, guess, 'inner')).toBeLessThan(-0.75)
    expect(gap(checksOf(g, [], wide, NO_THROW, {}), 'inner').tells).toBeGreaterThan(0.1)
    expect(gap(checksOf(g, [], pressed, NO_THROW, {}), 'inner').tells).toBeLessThan(0.005)
  })

  test('a shift that may throw the chain is kept for the last round, a likelier one is not asked', () => {
    const some = reads(Array.from({ length: 40 }, (_, i) => ({ slackMm: -1 + i / 20 })))
    const at = (inboard: number) => checksOf(g, [], some, { inboard, outboard: 0 }, {})
    expect(shift(at(0.002), 0)).toMatchObject({ last: false })
    expect(shift(at(0.006), 0)).toMatchObject({ last: true })
    expect(shift(at(0.02), 0)).toBeUndefined()
    expect(shift(at(0.02), 1)).toMatchObject({ last: false })
  })

  test('there and back goes twice, once where a way may throw the chain, and not at all where it may not be asked', () => {
    const some = reads(Array.from({ length: 40 }, (_, i) => ({ slackMm: -1 + i / 20 })))
    const from = (ring: number, inboard: number) => {
      const checks = checksOf(g, [], some, { inboard, outboard: 0 }, {})
      return thereAndBack(shift(checks, ring === 0 ? 1 : 0)!.move, checks)
    }
    expect(from(0, 0.002)).toMatchObject({ from: 0, back: true, times: 2 })
    for (const ring of [0, 1]) {
      expect(from(ring, 0.006)).toMatchObject({ from: ring, back: true })
      expect(from(ring, 0.006)).not.toHaveProperty('times')
    }
    expect(from(0, 0.02)).not.toHaveProperty('back')
  })

  test('followed on fronts of the population, no shift of the last round is made to learn from', () => {
    let shifts = 0
    for (const seed of [671001, 671002, 671003]) {
      const { setup, hidden } = seededFront(seed)
      const bench = simulatedFront(setup, hidden, seed)
      for (let k = 0; k < 12; k++) {
        const { move, thrown, right } = adviseFront(setup, bench.log)
        if (move.do === 'done') break
        const { rings } = setup.parts
        const over =
          move.do !== 'shift' ? null : move.to === 0 ? 'inboard' : move.to === rings.length - 1 ? 'outboard' : null
        if (over) shifts++
        if (over && right < DONE.late) expect(thrown[over]).toBeLessThanOrEqual(0.003)
        bench.perform(move)
      }
    }
    expect(shifts).toBeGreaterThan(5)
  })
})

describe('a turn before anybody knows how far', () => {
  test('which way is sure where nearly all bikes ask for it, whatever their figure', () => {
    const tight = reads(Array.from({ length: 40 }, (_, i) => ({ slackMm: 1.5 + i / 12 })))
    const t = bestTurn(tight, 'barrel', {})
    expect(t.sixteenths).toBeLessThan(0)
    expect(t.best).toBeLessThan(0.5)
    expect(wayChance(tight, t)).toBeGreaterThan(0.8)
    const either = reads(Array.from({ length: 40 }, (_, i) => ({ slackMm: (i % 2 ? 1 : -1) * (1.5 + i / 20) })))
    const u = bestTurn(either, 'barrel', {})
    expect(wayChance(either, { ...u, sixteenths: u.sixteenths || 8 })).toBeLessThan(0.6)
  })

  test('a chain that will not drop: the barrel goes in before how far is known', () => {
    const log: FrontSight[] = [
      { kind: 'frontPosition', heightMm: 2, angleDeg: 0 },
      { kind: 'frontShift', from: 1, to: 0, seen: 'no-drop' },
    ]
    const advice = adviseFront(double, log)
    const { move } = advice
    expect(advice.after).toBeLessThan(0.5)
    expect(explainFront(advice, double.parts)).toContain('how far shows after it')
    expect(move).toMatchObject({ do: 'turn', screw: 'barrel' })
    expect(move.do === 'turn' && move.sixteenths).toBeLessThan(-8)
  })
})

test('what is asked for falls with the work spent, and no further', () => {
  const cable = { early: 0.9, late: 0.7, lateCost: 40 }
  expect(asFallen(cable, 0)).toBe(0.9)
  expect(asFallen(cable, 20)).toBeCloseTo(0.8, 12)
  expect(asFallen(cable, 40)).toBeCloseTo(0.7, 12)
  expect(asFallen(cable, 90)).toBe(0.7)
})
