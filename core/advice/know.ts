import { matchDrivetrain } from '../standards/match'
import type { RearSetup } from '../response/setup'
import { weightedQuantiles, type Analysis } from './analysis'
import type { Posterior } from './posterior'
import type { KnownPrior, Unknown } from './prior'

/** What a finished job leaves known of a bike: mean and spread of each lasting unknown, in the filter's own terms. */
type KeptBelief = Partial<Record<Unknown, { mean: number; sd: number }>>

/** Spread added from one visit to the next, as bikes are ridden: mm of cable, of stop, and of the rest. `model` */
const DRIFT: Partial<Record<Unknown, number>> = {
  cable: 0.3,
  lnBacklash: 0.2,
  inwardShare: 0.04,
  lnRatio: 0.002,
  camber: 0.002,
  bow: 0.02,
  asymmetry: 0.002,
  stopH: 0.15,
  stopL: 0.15,
  mmPerTurnH: 0.02,
  mmPerTurnL: 0.02,
  lnSharpness: 0.03,
}
/** A run beds in towards slack: about a quarter turn of an M5 barrel over the first weeks. `practice` */
const SETTLE_MM = 0.15

/** What is worth keeping of a belief at hand-back. */
export function keptBelief(posterior: Posterior, analysis: Analysis): KeptBelief {
  const figure: Partial<Record<Unknown, (i: number) => number>> = {}
  const b = analysis.readings.map(r => r.belief)
  figure.cable = i => b[i].cableMm
  figure.lnBacklash = i => Math.log(b[i].backlashInMm + b[i].backlashOutMm)
  figure.inwardShare = i => b[i].backlashInMm / (b[i].backlashInMm + b[i].backlashOutMm)
  figure.lnRatio = i => Math.log(b[i].ratio / posterior.geometry.fittedRatio)
  figure.camber = i => Math.atan(b[i].camberTan)
  figure.bow = i => b[i].bowMm
  figure.asymmetry = i => b[i].asymmetryPitch
  figure.stopH = i => b[i].stopHMm
  figure.stopL = i => b[i].stopLMm
  figure.mmPerTurnH = i => b[i].mmPerTurnH
  figure.mmPerTurnL = i => b[i].mmPerTurnL
  figure.lnSharpness = i => Math.log(b[i].sharpness)
  const out: KeptBelief = {}
  for (const [name, of] of Object.entries(figure) as [Unknown, (i: number) => number][]) {
    const mean = analysis.readings.reduce((s, r, i) => s + r.weight * of(i), 0)
    const variance = analysis.readings.reduce((s, r, i) => s + r.weight * (of(i) - mean) ** 2, 0)
    out[name] = { mean, sd: Math.sqrt(variance) }
  }
  return out
}

/**
 * The belief a known bike starts from: as it left, a little slacker, a little less sure. A stop is still to be seen by
 * hand.
 */
export function priorOfKnownBike(kept: KeptBelief, spring: 'high' | 'low' = 'high'): KnownPrior {
  const out: KnownPrior = {}
  for (const [name, { mean, sd }] of Object.entries(kept) as [Unknown, { mean: number; sd: number }][])
    out[name] = {
      mean: name === 'cable' ? mean - (spring === 'high' ? SETTLE_MM : -SETTLE_MM) : mean,
      sd: Math.hypot(sd, DRIFT[name] ?? 0.1),
    }
  return out
}

/** How far a typed ratio may lie from the fitted one by rounding alone. `memory` */
const ROUNDING = 0.045

/**
 * What the numbers of mixed parts say at once: a ratio too far from the needed one is believed, within a few per cent.
 * @param ratio mm of pulley per mm of cable that the sums go by
 * @param rounded whether that is a listed figure, so rounded
 */
export function priorOfMatch(setup: RearSetup, ratio: number, rounded: boolean): KnownPrior | undefined {
  const { ratioNeeded } = matchDrivetrain(setup)
  const apart = Math.log(ratio / ratioNeeded)
  return Math.abs(apart) > (rounded ? ROUNDING : 0.02) ? { lnRatio: { mean: apart, sd: 0.02 } } : undefined
}

/**
 * Where each gear stands, as believed: mm from its sprocket, by the way of arriving, with the spread. For the drawings.
 */
export type GearBelief = { inMm: Spread | null; outMm: Spread | null; cleanMm: { from: number; to: number } }
export type Spread = { mean: number; low: number; high: number }

/** Median and the middle 80 % of weighted values. */
export function spreadOf(pairs: [number, number][]): Spread {
  const [low, mean, high] = weightedQuantiles(pairs, [0.1, 0.5, 0.9])
  return { mean, low, high }
}
