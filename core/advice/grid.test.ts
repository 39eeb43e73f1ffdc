import type { BenchEvent } from '../rear/benchEvents'
import { describe, expect, test } from 'vitest'
import { consider } from './advise'
import type { KnownPrior } from './prior'
import { arrivalChances, reportedChance } from '../response/heard'
import { EDGE, HEARING } from '../response/parameters'
import { errorPitch } from '../response/pulley'
import { geometryOf } from '../response/setup'
import { perfectBike, setupOfStandard } from '../response/testBikes'

const setup = setupOfStandard('r14-11')
const g = geometryOf(setup)
const bike = perfectBike(g)
/** Everything known to a hair but the cable offset, of which a broad belief is held. */
const sure = (mean: number) => ({ mean, sd: 1e-4 })
const SD = 0.9
const prior: KnownPrior = {
  cable: { mean: 0, sd: SD },
  lnBacklash: sure(Math.log(0.28)),
  inwardShare: sure(0.5),
  lnRatio: sure(0),
  camber: sure(0),
  bow: sure(0),
  asymmetry: sure(0),
  stopH: sure(bike.stopHMm),
  stopL: sure(bike.stopLMm),
  mmPerTurnH: sure(1),
  mmPerTurnL: sure(1),
  lnSharpness: sure(0),
}

/** Integration over a fine grid of the one unknown: another algorithm for the same question. */
function byGrid(likelihood: (cableMm: number) => number): { mean: number; sd: number } {
  let sum = 0,
    first = 0,
    second = 0
  for (let b = -4; b <= 4; b += 0.004) {
    const weight = Math.exp(-0.5 * (b / SD) ** 2) * likelihood(b)
    sum += weight
    first += weight * b
    second += weight * b * b
  }
  const mean = first / sum
  return { mean, sd: Math.sqrt(second / sum - mean * mean) }
}

/**
 * The filter's own mean of the cable offset, from particles near what is held for sure (a tenth of the prior is not).
 */
function byFilter(log: BenchEvent[]): { mean: number; sd: number } {
  const { analysis } = consider(setup, log, { prior, seed: 3 })
  const sound = analysis.readings.filter(
    r =>
      Math.abs(r.belief.sharpness - 1) < 0.01 &&
      Math.abs(r.belief.backlashInMm - 0.14) < 0.01 &&
      Math.abs(r.belief.camberTan) < 1e-3 &&
      Math.abs(r.belief.ratio / g.fittedRatio - 1) < 1e-3,
  )
  const all = sound.reduce((s, r) => s + r.weight, 0)
  const mean = sound.reduce((s, r) => s + r.weight * r.belief.cableMm, 0) / all
  return { mean, sd: Math.sqrt(sound.reduce((s, r) => s + r.weight * (r.belief.cableMm - mean) ** 2, 0) / all) }
}

describe('the particle filter agrees with integration over a grid', () => {
  const at = (cableMm: number, to: number, inward: boolean) => errorPitch(g, { ...bike, cableMm }, to, inward)
  const heardAt = (cableMm: number, to: number, inward: boolean, heard: 'clean' | 'slow' | 'rubs-out') =>
    reportedChance(arrivalChances(at(cableMm, to, inward), { end: null, inward, alreadyThere: false }, 1)[heard])
  test('after a slow and a clean arrival', () => {
    const log: BenchEvent[] = [
      { kind: 'shift', from: 0, to: 3, heard: 'slow' },
      { kind: 'shift', from: 3, to: 5, heard: 'rubs-out' },
    ]
    const grid = byGrid(b => heardAt(b, 3, true, 'slow') * heardAt(b, 5, true, 'rubs-out'))
    const filter = byFilter(log)
    expect(Math.abs(filter.mean - grid.mean)).toBeLessThan(0.06) // Monte Carlo of some hundred particles
    expect(Math.abs(filter.sd - grid.sd)).toBeLessThan(0.06)
  })
  test('after clean arrivals from both sides', () => {
    const log: BenchEvent[] = [
      { kind: 'shift', from: 0, to: 4, heard: 'clean' },
      { kind: 'shift', from: 4, to: 3, heard: 'clean' },
    ]
    const grid = byGrid(b => heardAt(b, 4, true, 'clean') * heardAt(b, 3, false, 'clean'))
    const filter = byFilter(log)
    expect(Math.abs(filter.mean - grid.mean)).toBeLessThan(0.06)
    expect(Math.abs(filter.sd - grid.sd)).toBeLessThan(0.05)
  })
  test('after winding out to the rub: the edge stands where the barrel was, late by a sixteenth', () => {
    const filter = byFilter([{ kind: 'edge', click: 4, way: 'out', turns: 1, found: true }])
    // by hand: rub at +0.18 pitch with the backlash of arriving inward, noticed 1/16 late
    const rub = g.placeMm[4] + HEARING.rub * g.pitchMm[4] + 0.14
    const atStart = rub / g.fittedRatio - g.cableMm[4] - (1 - EDGE.lateTurns) * setup.barrelPitchMm
    expect(filter.mean).toBeCloseTo(atStart + setup.barrelPitchMm, 1) // belief is of the barrel as it stands: a turn on
    expect(filter.sd).toBeLessThan(0.3) // one in forty slipped, and is spread over all turns
  })
})
