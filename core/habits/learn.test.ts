import { describe, expect, test } from 'vitest'
import { usualPrior, withKnown } from '../advice/prior'
import { priorFor } from '../ledger/belief'
import { reduce } from '../ledger/reduce'
import { geometryOf } from '../response/setup'
import { STOP_SCREW } from '../response/parameters'
import { setupOf } from '../rear/parts'
import { stockParts } from '../rear/typedParts'
import type { Habit } from './habit'
import { learntFor, LEAST_JOBS, USUALLY_FOUND } from './learn'
import { stopTold } from './stopTold'

const job = (over: Partial<Habit> = {}): Habit => ({
  frame: 'open',
  cableDays: null,
  back: false,
  found: [],
  frictionMm: null,
  stop: null,
  ...over,
})
const HERE = { frame: 'open', cableDays: null, back: false } as const
const times = (n: number, over: Partial<Habit> = {}) => Array.from({ length: n }, () => job(over))

describe('what a shop’s closed jobs say of the next bike', () => {
  test('fewer than five say nothing', () => {
    expect(learntFor(times(LEAST_JOBS - 1, { found: ['hanger'], frictionMm: 1 }), HERE)).toEqual({
      jobs: LEAST_JOBS - 1,
      odds: {},
      usual: {},
    })
    expect(learntFor(times(LEAST_JOBS, { found: ['hanger'] }), HERE).odds.hanger).toBeGreaterThan(1)
  })
  test('bikes as usual leave the usual odds', () => {
    const usual = Array.from({ length: 1000 }, (_, i) =>
      job({
        found: (['friction', 'hanger', 'mismatch', 'stops', 'wear'] as const).filter(c => i < 1000 * USUALLY_FOUND[c]),
      }),
    )
    const { odds } = learntFor(usual, HERE)
    for (const times of Object.values(odds)) expect(times).toBeCloseTo(1, 1)
  })
  test('a share is the mean of a beta: worked by hand, no source', () => {
    // 12 usual jobs with 0.155 of them and 30 of 50 here, all of them like this one; then half of them not
    const share = (12 * 0.155 + 30) / 62
    const told = (p: number) => (p / (1 - p)) * ((1 - 0.155) / 0.155)
    const jobs = [...times(30, { found: ['hanger'] }), ...times(20)]
    expect(learntFor(jobs, HERE).odds.hanger).toBeCloseTo(told(share), 6)
    const apart = learntFor(jobs, { ...HERE, back: true }).odds.hanger
    expect(apart).toBeCloseTo(told(share), 6)
    const [among, others] = [(n: number, k: number, p: number) => (12 * p + k) / (12 + n), 0.155] as const
    const both = [...jobs, ...times(10, { back: true })]
    expect(learntFor(both, HERE).odds.hanger).toBeCloseTo(told(among(50, 30, among(10, 0, others))), 6)
  })
  test('friction is told apart by how the frame leads its cable, and by how old that is', () => {
    const jobs = [
      ...times(20, { frame: 'internal', found: ['friction'] }),
      ...times(20, { frame: 'open', cableDays: 100 }),
      ...times(10, { frame: 'open', cableDays: 900, found: ['friction'] }),
    ]
    const odds = (over: Partial<typeof HERE | Habit>) => learntFor(jobs, { ...HERE, ...over }).odds.friction!
    expect(odds({ frame: 'internal' })).toBeGreaterThan(2 * odds({ frame: 'open' }))
    expect(odds({ cableDays: 900 })).toBeGreaterThan(2 * odds({ cableDays: 100 }))
    expect(odds({ frame: null })).toBeGreaterThan(odds({ frame: 'open' }))
  })
  test('a bike that comes back is like those that came back', () => {
    const jobs = [...times(30), ...times(12, { back: true, found: ['hanger'] })]
    const odds = (back: boolean) => learntFor(jobs, { ...HERE, back }).odds.hanger!
    expect(odds(true)).toBeGreaterThan(3 * odds(false))
  })
  test('travel of stop screws is drawn towards what was measured', () => {
    const { usual } = learntFor(times(30, { stop: { mean: 0.8, sd: 0.1 } }), HERE)
    expect(usual.mmPerTurnH).toBe(usual.mmPerTurnL)
    expect(usual.mmPerTurnH).toBeGreaterThan(0.8)
    expect(usual.mmPerTurnH).toBeLessThan(0.85)
    expect(learntFor(times(30), HERE).usual).toEqual({})
  })
})

describe('what stop screws told', () => {
  test('a belief without what it started from gives back what was measured (textbook’s normal update, backwards)', () => {
    const [start, seen] = [STOP_SCREW.sd, 0.1]
    const precision = 1 / start ** 2 + 1 / seen ** 2
    const mean = (STOP_SCREW.mmPerTurn / start ** 2 + 0.7 / seen ** 2) / precision
    const told = stopTold([{ mean, sd: Math.sqrt(1 / precision) }])!
    expect(told.mean).toBeCloseTo(0.7, 9)
    expect(told.sd).toBeCloseTo(1.5 * 0.1, 9)
  })
  test('one that nobody turned told nothing', () => {
    expect(stopTold([{ mean: 1, sd: STOP_SCREW.sd }, undefined])).toBeNull()
  })
})

describe('the advice starts from it', () => {
  const parts = stockParts('r14-10')
  const g = geometryOf(setupOf(parts))
  test('odds tilt the share of a fault, a usual figure moves its middle; a known bike’s own figure stands before it', () => {
    const prior = usualPrior(g)
    const here = withKnown(prior, { odds: { hanger: 4 }, usual: { lnBacklash: -1, mmPerTurnH: 0.8 } })
    const tail = 1 - prior.camber.weight
    expect(1 - here.camber.weight).toBeCloseTo((4 * tail) / (4 * tail + 1 - tail), 9)
    expect(here.lnBacklash).toMatchObject({ mean: -1, mean2: prior.lnBacklash.mean2 })
    expect(here.mmPerTurnH.mean).toBe(0.8)
    const known = withKnown(prior, { usual: { mmPerTurnH: 0.8 }, mmPerTurnH: { mean: 1.3, sd: 0.05 } })
    expect(known.mmPerTurnH).toMatchObject({ mean: 1.3, sd: 0.05, mean2: 0.8 })
  })
  test('what the customer says and what the shop knows are multiplied', () => {
    const state = reduce([])
    const learnt = { odds: { hanger: 2 }, usual: {} }
    expect(priorFor(state, null, learnt)).toBeUndefined()
    const arrived = { ...state, rear: { ...state.rear, parts, setup: setupOf(parts), happened: ['fell'] as const } }
    const alone = priorFor(arrived, null)?.odds?.hanger ?? 1
    expect(priorFor(arrived, null, learnt)!.odds!.hanger).toBeCloseTo(2 * alone, 9)
  })
})
