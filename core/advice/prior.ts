import type { Cause } from '../response/causes'
import { radians } from '../quantity/angle'
import { one, two, type Density } from '../quantity/normal'
import type { Random } from '../quantity/random'
import { NEW_CABLE, STOP_SCREW } from '../response/parameters'
import type { Geometry } from '../response/setup'

/** The unknowns of a bike, in the order of a particle's coordinates. */
export const UNKNOWNS = [
  'cable',
  'lnBacklash',
  'inwardShare',
  'lnRatio',
  'camber',
  'bow',
  'asymmetry',
  'stopH',
  'stopL',
  'mmPerTurnH',
  'mmPerTurnL',
  'lnSharpness',
] as const
export type Unknown = (typeof UNKNOWNS)[number]
export const U = Object.fromEntries(UNKNOWNS.map((name, i) => [name, i])) as Record<Unknown, number>

/**
 * What is already believed of a bike, from its last sheet or the match of its parts: normals in place of the usual
 * ones; and by how much the complaint and the sense check change the odds of each cause.
 */
export type KnownPrior = Partial<Record<Unknown, { mean: number; sd: number }>> & {
  odds?: CauseOdds
  /** The normals are the truth and no bike may have changed since: for a bench that asks what could be won at all. */
  sure?: boolean
  /** Where the usual figure of an unknown lies in this shop, as its closed jobs tell. */
  usual?: Partial<Record<Unknown, number>>
}
export type CauseOdds = Partial<Record<Cause, number>>

/** Beliefs about a bike nothing is known of. All `model`; base rates of faults from model, section 3. */
export function usualPrior(g: Geometry): Record<Unknown, Density> {
  const first = g.pitchMm[0]
  const last = g.pitchMm[g.n - 1]
  const largest = g.placeMm[g.n - 1]
  return {
    cable: two(0.6, 0, 0.8, 0, 1.8),
    lnBacklash: two(0.8, Math.log(0.28), 0.38, Math.log(0.95), 0.33),
    inwardShare: one(NEW_CABLE.inwardShare, 0.09),
    lnRatio: two(0.94, 0, 0.007, 0, 0.085),
    camber: two(0.85, 0, radians(0.15), 0, radians(2.2)),
    bow: one(0, 0.12),
    asymmetry: one(0, 0.01),
    // three quarters stand safe, about the middle of their safe span; the rest anywhere
    stopH: two(0.75, -0.17 * first, 0.2 * first, -0.17 * first, 1.8),
    stopL: two(0.75, largest - 0.02 * last, 0.11 * last, largest - 0.02 * last, 1.5),
    mmPerTurnH: one(STOP_SCREW.mmPerTurn, STOP_SCREW.sd),
    mmPerTurnL: one(STOP_SCREW.mmPerTurn, STOP_SCREW.sd),
    lnSharpness: one(0, 0.17),
  }
}

/** Beliefs about what a re-clamp or a new part brings; `cable` is what the clamp or the move adds. */
export const RENEWED = {
  clampMm: one(0, 0.6),
  movedMm: two(0.5, 0, 0.6, 0, 1.8),
  newBacklash: one(Math.log(NEW_CABLE.backlashMm), 0.33),
  newShare: one(NEW_CABLE.inwardShare, 0.07),
  matched: one(0, 0.007),
  straight: one(0, radians(0.1)),
  levered: two(0.7, 0, radians(0.25), 0, radians(1.5)),
  bow: one(0, 0.12),
  screw: one(STOP_SCREW.mmPerTurn, STOP_SCREW.sd),
} as const

/**
 * What a clamp leaves against snug by the way the inner was drawn, mm of cable; snug, as the contract has it, where
 * that is not known.
 */
export const clampedMm = (takeUp: { from: number; to: number } | undefined): Density =>
  takeUp && takeUp.from + takeUp.to !== 0
    ? one((takeUp.from + takeUp.to) / 2, Math.max(CLAMP_SD_MM, (takeUp.to - takeUp.from) / 3))
    : RENEWED.clampMm
/** How evenly a hand draws at best, mm of cable. `model` */
const CLAMP_SD_MM = 0.5

/** Worn sprockets: chance that there are any, and every run of one to three neighbours alike (model, section 3). */
export const WORN_RATE = 0.08

/** Which unknown's second, wide part stands for each cause. */
const FAULTY: Record<Exclude<Cause, 'wear'>, readonly Unknown[]> = {
  tension: ['cable'],
  friction: ['lnBacklash'],
  hanger: ['camber'],
  mismatch: ['lnRatio'],
  stops: ['stopH', 'stopL'],
}

/** A complaint or a check never makes a cause certain. */
const MOST_ODDS = 12

/** The share of a density's second part when its odds are multiplied. */
const tilted = (share: number, times: number): number => (share * times) / (share * times + 1 - share)
const bounded = (times: number): number => Math.min(MOST_ODDS, Math.max(1 / MOST_ODDS, times))

export const wornRateWith = (known: KnownPrior | undefined): number =>
  tilted(WORN_RATE, bounded(known?.odds?.wear ?? 1))

export function withKnown(prior: Record<Unknown, Density>, known: KnownPrior | undefined): Record<Unknown, Density> {
  if (!known) return prior
  const out = { ...prior }
  for (const name of UNKNOWNS) {
    const here = known.usual?.[name]
    if (here !== undefined)
      out[name] = { ...out[name], mean: here, mean2: out[name].weight < 1 ? out[name].mean2 : here }
    const k = known[name]
    // a tenth stays with the usual belief: a bike may have changed since
    if (k && known.sure) out[name] = one(k.mean, k.sd)
    else if (k) out[name] = two(0.9, k.mean, k.sd, out[name].mean, Math.max(prior[name].sd, prior[name].sd2))
  }
  for (const [cause, names] of Object.entries(FAULTY) as [keyof typeof FAULTY, readonly Unknown[]][]) {
    const times = known.odds?.[cause]
    if (times)
      for (const name of names)
        if (out[name].weight < 1) out[name] = { ...out[name], weight: 1 - tilted(1 - out[name].weight, bounded(times)) }
  }
  return out
}

export const drawFrom = (d: Density, random: Random): number =>
  d.weight >= 1 || random.next() < d.weight ? d.mean + d.sd * random.normal() : d.mean2 + d.sd2 * random.normal()

/** Log density up to a constant of its own: only differences within one density are used. */
export function logDensity(d: Density, x: number): number {
  const a = (x - d.mean) / d.sd
  if (d.weight >= 1) return -0.5 * a * a
  const b = (x - d.mean2) / d.sd2
  // far out of the narrow part only the wide one is left, and within it both
  const near = -0.5 * a * a
  if (near < -30) return Math.log((1 - d.weight) / d.sd2) - 0.5 * b * b
  return Math.log((d.weight / d.sd) * Math.exp(near) + ((1 - d.weight) / d.sd2) * Math.exp(-0.5 * b * b))
}

/** Density up to 1/√2π, comparable between densities. */
export const densityOf = (d: Density, x: number): number =>
  (d.weight / d.sd) * Math.exp(-0.5 * ((x - d.mean) / d.sd) ** 2) +
  (d.weight >= 1 ? 0 : ((1 - d.weight) / d.sd2) * Math.exp(-0.5 * ((x - d.mean2) / d.sd2) ** 2))
