import type { BenchEvent } from '../rear/benchEvents'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { MEASURE } from '../response/parameters'
import { perfectBike, setupOfStandard } from '../response/testBikes'
import { geometryOf, slackestClick, snugCableMm } from '../response/setup'
import { consider } from './advise'
import { densityOf, drawFrom, logDensity, usualPrior, withKnown, wornRateWith, WORN_RATE } from './prior'

const setup = setupOfStandard('r14-11')
const g = geometryOf(setup)
const prior = usualPrior(g)

describe('densities', () => {
  test('integrate to one, and draws follow them', () => {
    const random = randomFrom(5)
    for (const d of [prior.cable, prior.lnBacklash, prior.camber, prior.stopL, prior.lnSharpness]) {
      const wide = Math.max(d.sd, d.sd2)
      let sum = 0
      const step = Math.min(d.sd, d.sd2) / 40
      const from = Math.min(d.mean, d.mean2) - 8 * wide,
        to = Math.max(d.mean, d.mean2) + 8 * wide
      for (let x = from; x < to; x += step) sum += (densityOf(d, x) * step) / Math.sqrt(2 * Math.PI)
      expect(sum).toBeCloseTo(1, 3)
      const draws = Array.from({ length: 20_000 }, () => drawFrom(d, random))
      const mean = draws.reduce((s, x) => s + x, 0) / draws.length
      expect(Math.abs(mean - (d.weight * d.mean + (1 - d.weight) * d.mean2))).toBeLessThan(
        4 * (wide / Math.sqrt(20_000)),
      )
    }
  })
  test('the log is that of the density, up to a constant of each, far out too', () => {
    for (const d of [prior.cable, prior.camber, prior.lnRatio]) {
      const at = (z: number) => logDensity(d, d.mean + z * d.sd) - Math.log(densityOf(d, d.mean + z * d.sd))
      for (const z of [0.5, 3, 9, 20]) expect(at(z)).toBeCloseTo(at(0), 9)
    }
  })
})

describe('odds from what was said', () => {
  test('multiply the odds of the faulty part, within bounds, and touch nothing else', () => {
    const share = (times: number) => 1 - withKnown(prior, { odds: { friction: times } }).lnBacklash.weight
    expect(share(1)).toBeCloseTo(0.2, 9)
    expect(share(3) / (1 - share(3))).toBeCloseTo(3 * 0.25, 9) // odds of 0.2 are 1 to 4
    expect(share(1000)).toBe(share(12))
    expect(withKnown(prior, { odds: { friction: 3 } }).camber).toEqual(prior.camber)
    expect(withKnown(prior, { odds: { stops: 3 } }).stopH.weight).toBeLessThan(prior.stopH.weight)
    expect(wornRateWith({ odds: { wear: 6 } }) / (1 - wornRateWith({ odds: { wear: 6 } }))).toBeCloseTo(
      (6 * WORN_RATE) / (1 - WORN_RATE),
      9,
    )
    expect(wornRateWith(undefined)).toBeCloseTo(WORN_RATE, 9)
  })
})

describe('measurements move belief as far as they are good', () => {
  const stop = (...log: BenchEvent[]) => consider(setup, log).analysis.stops.L.offsetMm
  test('two sightings of L are sharper than one, and neither is sharper than a sighting can be', () => {
    const once = stop({ kind: 'sight', at: 'L', offsetMm: 1.2 })
    const twice = stop({ kind: 'sight', at: 'L', offsetMm: 1.2 }, { kind: 'sight', at: 'L', offsetMm: 1.2 })
    expect(twice.sd).toBeLessThan(once.sd)
    expect(twice.mean).toBeGreaterThan(once.mean) // further from what is usual, towards what was seen
    expect(twice.mean).toBeLessThan(1.35)
    expect(once.sd).toBeGreaterThan(MEASURE.sightSdMm * 0.6)
  })
  test('a measured offset places the pulley, and an absurd one is taken for a slip', () => {
    const seen: BenchEvent[] = [
      { kind: 'sight', at: 'L', offsetMm: 0 },
      { kind: 'sight', at: 'H', offsetMm: -0.5 },
    ]
    const offset = (mm: number) =>
      consider(setup, [...seen, { kind: 'offset', click: 5, offsetMm: mm }]).advice.offsetMm
    expect(offset(-1).mean).toBeLessThan(offset(0).mean)
    expect(offset(0).mean).toBeLessThan(offset(1).mean)
    expect(Math.abs(offset(14).mean)).toBeLessThan(3)
  })
})

describe('where the cable is slackest', () => {
  test('at the smallest under the usual spring, at the largest under the other; snug there, the pulley is on its stop', () => {
    for (const spring of ['high', 'low'] as const) {
      const s = { ...setup, spring }
      const gs = geometryOf(s)
      const bike = perfectBike(gs)
      expect(slackestClick(s)).toBe(spring === 'high' ? 0 : gs.n - 1)
      const free = bike.ratio * (gs.cableMm[gs.slackest] + snugCableMm(gs, bike))
      expect(free).toBeCloseTo(spring === 'high' ? bike.stopHMm : bike.stopLMm, 9)
      expect(Math.sign(gs.threadMm)).toBe(spring === 'high' ? 1 : -1)
    }
  })
})
