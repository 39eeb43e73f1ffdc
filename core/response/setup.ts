import { pitchDiameterMm } from '../standards/sprockets'
import { finite, notNegative, positive, positiveList, wholeIn } from '../quantity/check'
import { runningSum } from '../standards/match'

/** A rear drivetrain by its numbers, as the log starts. */
export type RearSetup = {
  /** Smallest sprocket first. */
  teeth: number[]
  /** n − 1 centre-to-centre gaps, mm. */
  pitchMm: number[]
  /** n − 1 cable pulls, click 0→1 first, mm. */
  pullMm: number[]
  /** mm of pulley per mm of cable, as listed, so rounded. */
  pullRatio: number
  /** Thread of the barrel, mm per turn. */
  barrelPitchMm: number
  /** Turns out from fully in when the log starts. */
  barrelTurnsOut: number
  /** Fully in to the safe limit, turns. */
  barrelTurnsRange: number
  /**
   * Beyond the contract: which way the derailleur's spring pulls. `low` pulls to the largest sprocket: the cable is
   * slackest there, and tightening it moves the pulley outboard. Left out: `high`, the usual one.
   */
  spring?: 'high' | 'low'
}

/** What follows from a setup and never changes with the adjustment. Arrays by sprocket or click, 0 the smallest. */
export type Geometry = {
  n: number
  /** Lateral place of each sprocket from the smallest, mm, + inboard. */
  placeMm: number[]
  /** Pitch about each sprocket: mean of the gaps to its neighbours, mm. */
  pitchMm: number[]
  /** Cable pulled at each click, mm. */
  cableMm: number[]
  /** Share of the bow at each click: 4t(1 − t). */
  bow: number[]
  /** Pitch radius less that of the smallest sprocket, mm: lever arm of a bent hanger. */
  radiusMm: number[]
  /** Ratio that fits pull to pitch end to end. */
  fittedRatio: number
  /** What a turn out of the barrel adds to the cable offset, mm, + inboard: negative when the spring pulls inboard. */
  threadMm: number
  /** The click at which the cable is slackest, and the stop the pulley rests on there. */
  slackest: number
  restsOn: 'H' | 'L'
}

/** @throws RangeError naming the field that makes no sense */
export function checkSetup(setup: RearSetup): void {
  positiveList('teeth', setup.teeth, 2)
  setup.teeth.forEach((t, i) => wholeIn(`teeth[${i}]`, t, 5, 120))
  positiveList('pitchMm', setup.pitchMm)
  positiveList('pullMm', setup.pullMm)
  const gaps = setup.teeth.length - 1
  if (setup.pitchMm.length !== gaps)
    throw new RangeError(`pitchMm needs ${gaps} gaps for ${gaps + 1} sprockets, it has ${setup.pitchMm.length}`)
  if (setup.pullMm.length !== gaps)
    throw new RangeError(`pullMm needs ${gaps} clicks for ${gaps + 1} sprockets, it has ${setup.pullMm.length}`)
  positive('pullRatio', setup.pullRatio)
  positive('barrelPitchMm', setup.barrelPitchMm)
  positive('barrelTurnsRange', setup.barrelTurnsRange)
  if (setup.spring !== undefined && setup.spring !== 'high' && setup.spring !== 'low')
    throw new RangeError(`spring must be high or low, it is ${String(setup.spring)}`)
  notNegative('barrelTurnsOut', setup.barrelTurnsOut)
  finite('barrelTurnsOut', setup.barrelTurnsOut)
  if (setup.barrelTurnsOut > setup.barrelTurnsRange)
    throw new RangeError(`barrelTurnsOut ${setup.barrelTurnsOut} is beyond barrelTurnsRange ${setup.barrelTurnsRange}`)
}

/** Click at which the cable is slackest: the smallest sprocket, or the largest under a spring that pulls inboard. */
export const slackestClick = (setup: RearSetup): number => (setup.spring === 'low' ? setup.teeth.length - 1 : 0)

/** Cable offset, mm, when the slack has just been taken up with the pulley resting on its stop. */
export function snugCableMm(g: Geometry, b: { ratio: number; stopHMm: number; stopLMm: number }): number {
  return (g.restsOn === 'H' ? b.stopHMm : b.stopLMm) / b.ratio - g.cableMm[g.slackest]
}

/** Geometry of a setup that has been checked. */
export function geometryOf(setup: RearSetup): Geometry {
  const placeMm = runningSum(setup.pitchMm)
  const cableMm = runningSum(setup.pullMm)
  const n = setup.teeth.length
  const lastCable = cableMm[n - 1]
  const radii = setup.teeth.map(t => pitchDiameterMm(t) / 2)
  return {
    n,
    placeMm,
    cableMm,
    pitchMm: placeMm.map((_, k) =>
      k === 0 ? setup.pitchMm[0] : k === n - 1 ? setup.pitchMm[n - 2] : (setup.pitchMm[k - 1] + setup.pitchMm[k]) / 2,
    ),
    bow: cableMm.map(c => 4 * (c / lastCable) * (1 - c / lastCable)),
    radiusMm: radii.map(r => r - radii[0]),
    fittedRatio: placeMm[n - 1] / lastCable,
    threadMm: setup.spring === 'low' ? -setup.barrelPitchMm : setup.barrelPitchMm,
    slackest: slackestClick(setup),
    restsOn: setup.spring === 'low' ? 'L' : 'H',
  }
}
