import { Matrix, solve } from 'ml-matrix'
import { describe, expect, test } from 'vitest'
import { reduce } from '../ledger/reduce'
import type { LedgerEvent } from '../ledger/events'
import { telling } from '../chapter/testTold'
import { standardsWith, TABLE_ONLY } from '../standards/inForce'
import type { Settled } from '../standards/settled'
import { scoreSettling } from '../bench/scoreSettling'
import { newRunOf, RECALL_DAYS, recallDays } from './newRun'
import {
  beddingGains,
  chanceSlackBeyond,
  learnSettling,
  RECALL,
  recallAfterDays,
  sayForecast,
  settleForecast,
  settlingIn,
  slackMargin,
  usualSettling,
} from './settle'
import { RIDINGS, type Riding } from '../standards/riding'
import { stockParts } from './typedParts'

const PLAIN = { housingMm: 710, bedded: false, riding: null }
const back = (change: Partial<Settled>): Settled => ({ ...PLAIN, days: 15, turns: 0.35, ...change })

test('asked back by the forecast, bikes of shops unlike it lose fewer days than after a fortnight, and fewer the more came back', () => {
  const [cold, warm] = [0, 30].map(returns => scoreSettling(returns, 77, 40))
  expect(cold!.forecast / cold!.fortnight).toBeLessThan(0.85)
  expect(warm!.forecast / warm!.fortnight).toBeLessThan(0.72)
  expect(warm!.forecast).toBeLessThan(0.92 * cold!.forecast)
  // what riders say of how much they ride spares a little: one run differs from the next by more
  expect(warm!.forecast).toBeLessThan(warm!.unasked)
  expect(cold!.forecast).toBeLessThan(cold!.unasked)
  // two thirds were said; what is so rarely as sure as it says
  expect(warm!.within).toBeGreaterThan(0.58)
})

// common practice, no source: a run beds in after some rides, not after some weeks
describe('how much it is ridden', () => {
  const ridden = RIDINGS.map(riding => ({ ...PLAIN, riding }))
  test('the more, the sooner it has gone slack and the sooner it is asked back; in the end it is the same slack', () => {
    const belief = usualSettling()
    const afterAWeek = ridden.map(run => settleForecast(run, belief, 7).turns)
    expect(afterAWeek).toEqual([...afterAWeek].sort((a, b) => b - a))
    expect(afterAWeek[0]! / afterAWeek[2]!).toBeGreaterThan(2)
    const asked = ridden.map(run => recallAfterDays(0.35, run, belief))
    expect(asked).toEqual([...asked].sort((a, b) => a - b))
    expect(asked[0]).toBeLessThan(asked[2]!)
    const whole = ridden.map(run => settleForecast(run, belief, 400).turns)
    for (const turns of whole) expect(turns).toBeCloseTo(whole[0]!, 4)
  })
  test('a little slack after a week teaches more of a bike that is ridden daily than of one that stood', () => {
    const after = (riding: Riding) => learnSettling(usualSettling(), [back({ riding, days: 7, turns: 0.1875 })]).mean[0]
    expect(after('daily')).toBeLessThan(after('weekly'))
    expect(after('weekly')).toBeLessThan(after('seldom'))
  })
})

describe('how a run settles', () => {
  test('a quarter to half a turn after two to three weeks, less when it was bedded (common practice, no source)', () => {
    const usual = settleForecast(PLAIN, usualSettling())
    expect(usual.turns).toBeCloseTo(Math.sqrt(0.25 * 0.5), 6)
    expect(sayForecast(usual)).toBe('1/4 to 5/8 turn out')
    expect(settleForecast({ ...PLAIN, bedded: true, riding: null }, usualSettling()).turns).toBeCloseTo(
      usual.turns / 2,
      6,
    )
    // not measured is usual; a long run settles further; more comes by the week
    expect(settleForecast({ ...PLAIN, housingMm: null }, usualSettling())).toEqual(usual)
    expect(settleForecast({ ...PLAIN, housingMm: 1720 }, usualSettling()).turns).toBeGreaterThan(1.4 * usual.turns)
    const byDay = [2, 7, 14, 28].map(d => settleForecast(PLAIN, usualSettling(), d).turns)
    expect(byDay).toEqual([...byDay].sort((a, b) => a - b))
    // a shop that set the standard otherwise starts there
    const own = standardsWith([{ kind: 'target', entry: 'settle', figure: 'turns', value: [0.5, 0.9] }])
    expect(settleForecast(PLAIN, usualSettling(own)).turns).toBeGreaterThan(usual.turns)
  })
  test('what came back is weighed as Bayes’ linear regression has it, whatever its order', () => {
    // Outside source: the normal equations of ridge regression (any handbook), solved by ml-matrix.
    const returns = [
      back({ turns: 0.5, days: 12 }),
      back({ turns: 0.75, days: 20, housingMm: 1700 }),
      back({ turns: 0.25, days: 16, bedded: true, riding: null }),
      back({ turns: 0.6, days: 9 }),
    ]
    const prior = usualSettling()
    const x = new Matrix(returns.map(r => [1, Math.log(r.housingMm! / 710), r.bedded ? 1 : 0]))
    const y = Matrix.columnVector(returns.map(r => Math.log(r.turns) - Math.log(1 - Math.exp(-r.days / 9))))
    const precision = Matrix.diag(prior.covariance.map((row, i) => 1 / row[i]!))
    // each weighed by how runs differ and by a sixteenth read in its own slack
    const weight = Matrix.diag(returns.map(r => 1 / (0.4 ** 2 + (1 / 16 / r.turns) ** 2)))
    const left = Matrix.add(precision, x.transpose().mmul(weight).mmul(x))
    const right = Matrix.add(precision.mmul(Matrix.columnVector(prior.mean)), x.transpose().mmul(weight).mmul(y))
    const wanted = solve(left, right).to1DArray()
    for (const order of [returns, [...returns].reverse()]) {
      const learnt = learnSettling(prior, order)
      learnt.mean.forEach((m, i) => expect(m).toBeCloseTo(wanted[i]!, 9))
      expect(learnt.returns).toBe(4)
    }
    // nothing found is half of the least that is turned, and one from the same day tells nothing
    expect(learnSettling(prior, [back({ turns: 0 })]).mean[0]).toBeLessThan(prior.mean[0])
    expect(learnSettling(prior, [back({ days: 0.2, turns: 3 })])).toEqual(prior)
  })
  test('a bike is asked back when a third of its like would have left their window', () => {
    const belief = usualSettling()
    const day = recallAfterDays(0.4, PLAIN, belief)
    expect(chanceSlackBeyond(0.4, PLAIN, belief, day)).toBeGreaterThan(1 / 3)
    expect(chanceSlackBeyond(0.4, PLAIN, belief, day - 1)).toBeLessThanOrEqual(1 / 3)
    expect(day).toBeGreaterThan(7)
    expect(day).toBeLessThan(21)
    expect(recallAfterDays(null, PLAIN, belief)).toBe(day)
    // a hair's window at once, a wide one never within six weeks
    expect(recallAfterDays(1 / 16, PLAIN, belief)).toBe(RECALL.least)
    expect(recallAfterDays(1.5, PLAIN, belief)).toBe(RECALL.most)
    // runs that go slack far sooner here bring the day forward
    const slackHere = learnSettling(belief, Array<Settled>(12).fill(back({ turns: 0.8 })))
    expect(recallAfterDays(0.4, PLAIN, slackHere)).toBeLessThan(day)
    expect(beddingGains(0.4, PLAIN, belief)).toBeGreaterThan(5)
    expect(beddingGains(0.4, { ...PLAIN, bedded: true, riding: null }, belief)).toBeNull()
    expect(beddingGains(1 / 16, PLAIN, belief)).toBeNull()
    expect([
      slackMargin(2, { from: 1.5, to: 2.5 }),
      slackMargin(1, { from: 1.5, to: 2 }),
      slackMargin(1, null),
    ]).toEqual([0.5, null, null])
  })
  test('what was renewed is told by the log; without a new run the look stays where the rule has it', () => {
    const told = telling<LedgerEvent>()
    const job = (...events: LedgerEvent[]) =>
      reduce([{ kind: 'arrived', parts: stockParts('r14-10') } as LedgerEvent, ...events].map(e => told(e)))
    const piece = (place: 'lever loop' | 'last loop', lengthMm: number): LedgerEvent => ({
      kind: 'housing',
      place,
      lengthMm,
      of: '4 mm',
      ends: 'metal',
    })
    const renewed: LedgerEvent = { kind: 'replace', part: 'cable' }
    const old = job()
    expect(newRunOf(old.rear, old.cable)).toBeNull()
    expect(recallDays(old.rear, old.cable, null, TABLE_ONLY)).toBe(RECALL_DAYS)
    const loop = job(renewed, piece('last loop', 290))
    expect(newRunOf(loop.rear, loop.cable)).toEqual({ housingMm: null, bedded: false, riding: null })
    const daily = job(renewed, { kind: 'ridden', how: 'seldom' }, { kind: 'ridden', how: 'daily' })
    expect(newRunOf(daily.rear, daily.cable)).toEqual({ housingMm: null, bedded: false, riding: 'daily' })
    const both = job(renewed, piece('last loop', 290), piece('lever loop', 420), { kind: 'bedded', shifts: 30 })
    expect(newRunOf(both.rear, both.cable)).toEqual({ housingMm: 710, bedded: true, riding: null })
    const days = recallDays(both.rear, both.cable, null, TABLE_ONLY)
    expect(days).toBe(recallAfterDays(null, { housingMm: 710, bedded: true, riding: null }, settlingIn(TABLE_ONLY)))
  })
})
