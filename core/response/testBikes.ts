import { DRIVETRAIN_STANDARDS, USUAL_TEETH } from '../standards/drivetrains'
import type { Bike } from './pulley'
import type { Geometry, RearSetup } from './setup'

/** Bikes for tests: a stock setup, and one with nothing wrong. */
export const partsOfStandard = DRIVETRAIN_STANDARDS

export function setupOfStandard(id: string, barrelTurnsOut = 3): RearSetup {
  const s = DRIVETRAIN_STANDARDS.find(x => x.id === id)!
  const even = (mm: number) => new Array<number>(s.speeds - 1).fill(mm)
  return {
    teeth: [...USUAL_TEETH[s.speeds]],
    pitchMm: even(s.pitchMm),
    pullMm: even(s.pullMm),
    pullRatio: s.listedRatio,
    barrelPitchMm: 0.8,
    barrelTurnsOut,
    barrelTurnsRange: 6,
  }
}

export function perfectBike(g: Geometry): Bike {
  return {
    cableMm: 0,
    ratio: g.fittedRatio,
    backlashInMm: 0.14,
    backlashOutMm: 0.14,
    camberTan: 0,
    bowMm: 0,
    stopHMm: -0.6,
    stopLMm: g.placeMm[g.n - 1] + 0.2,
  }
}
