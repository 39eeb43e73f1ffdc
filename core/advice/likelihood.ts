import { degrees } from '../quantity/angle'
import { chanceWrong, logistic, thrownChance } from '../response/heard'
import { EDGE, HEARING, MEASURE, THROWN } from '../response/parameters'
import type { Geometry, RearSetup } from '../response/setup'
import { lookUp, type HearingTable } from './hearingTable'
import { U } from './prior'
import type { Density } from '../quantity/normal'
import type { Trace } from '../rear/trace'

/** A stretch of the log with the same clamp and parts: which coordinate each unknown is read from. */
export type Epoch = {
  at: Int32Array
  /** How the cable offset follows: on its own, from the stop it was clamped against, or from what it was before. */
  cable: 'own' | 'clamped' | 'moved' | 'same'
  stops: 'own' | 'moved' | 'same'
  barrelTurns: number
  hTurns: number
  lTurns: number
}

export type Observation =
  | {
      is: 'heard'
      epoch: number
      screws: Screws
      click: number
      inward: boolean
      table: HearingTable | null
      end: 'smallest' | 'largest' | null
      key: string
      times: number
      /** Places in the log of the reports that are this one. */
      reports: readonly number[]
      ear: number
    }
  | {
      is: 'unclean'
      epoch: number
      screws: Screws
      click: number
      arrivals: { inward: boolean; table: HearingTable }[]
    }
  | {
      is: 'sounded'
      epoch: number
      screws: Screws
      click: number
      inward: boolean
      /** Reports of a chain that does not rub once it has arrived: clean, and late. */
      quiet: readonly HearingTable[]
      rubOdds: number
    }
  | (Looked & { is: 'stop'; at: 'H' | 'L' })
  | (Looked & { is: 'offset'; click: number })
  | {
      is: 'edge'
      epoch: number
      screws: Screws
      click: number
      inboard: boolean
      turns: number
      limit: number
      found: boolean
    }
  | { is: 'camber'; epoch: number; screws: Screws; camberDeg: number; sdDeg: number }

/** A place told by eye; `look` is where in the log, null where it was judged by thumb or ear, or in a photograph. */
type Looked = { epoch: number; screws: Screws; placeMm: number; sdMm: number; look: number | null }

export type Screws = { barrelTurns: number; hTurns: number; lTurns: number }

/** Slots of a resolved epoch in the scratch array. */
export const R = {
  cable: 0,
  ratio: 1,
  hIn: 2,
  hOut: 3,
  camber: 4,
  bow: 5,
  asym: 6,
  stopH: 7,
  stopL: 8,
  perH: 9,
  perL: 10,
  lnQ: 11,
  size: 12,
} as const

/** A belief in the making: what a particle's coordinates mean, and what was seen. */
export type State = {
  setup: RearSetup
  geometry: Geometry
  seed: number
  events: number
  trace: Trace
  densities: Density[]
  particles: readonly Float64Array[]
  logWeights: Float64Array
  logChances: Float64Array
  epochs: Epoch[]
  observations: Observation[]
  skips: { skipped: number; held: number }[]
  wornRate: number
  /** Share of wrong reports of the ear that reported last. */
  ear: number
}

/** Turns a particle's coordinates into the values of each epoch. */
export function resolve(s: State, x: Float64Array, r: Float64Array): void {
  const { restsOn, cableMm, slackest } = s.geometry
  for (let e = 0; e < s.epochs.length; e++) {
    const { at, cable, stops, barrelTurns, hTurns, lTurns } = s.epochs[e]
    const o = e * R.size
    const was = o - R.size
    const before = e === 0 ? null : s.epochs[e - 1]
    const ratio = s.geometry.fittedRatio * Math.exp(x[at[U.lnRatio]])
    const backlash = Math.exp(x[at[U.lnBacklash]])
    const share = Math.min(1, Math.max(0, x[at[U.inwardShare]]))
    r[o + R.ratio] = ratio
    r[o + R.hIn] = backlash * share
    r[o + R.hOut] = backlash * (1 - share)
    r[o + R.camber] = Math.tan(x[at[U.camber]])
    r[o + R.bow] = x[at[U.bow]]
    r[o + R.asym] = x[at[U.asymmetry]]
    r[o + R.lnQ] = x[at[U.lnSharpness]]
    r[o + R.perH] = x[at[U.mmPerTurnH]]
    r[o + R.perL] = x[at[U.mmPerTurnL]]
    if (stops === 'own' || !before) {
      r[o + R.stopH] = x[at[U.stopH]]
      r[o + R.stopL] = x[at[U.stopL]]
    } else {
      const moved = stops === 'moved' ? 1 : 0
      r[o + R.stopH] = r[was + R.stopH] + r[was + R.perH] * (hTurns - before.hTurns) + moved * x[at[U.stopH]]
      r[o + R.stopL] = r[was + R.stopL] - r[was + R.perL] * (lTurns - before.lTurns) + moved * x[at[U.stopL]]
    }
    if (cable === 'own' || !before) r[o + R.cable] = x[at[U.cable]]
    else if (cable === 'clamped')
      r[o + R.cable] = r[o + (restsOn === 'H' ? R.stopH : R.stopL)] / ratio - cableMm[slackest] + x[at[U.cable]]
    else
      r[o + R.cable] =
        r[was + R.cable] +
        s.geometry.threadMm * (barrelTurns - before.barrelTurns) +
        (cable === 'moved' ? x[at[U.cable]] : 0)
  }
}

/** Stop places, in pitches, short of which no chain is thrown to speak of. */
const NEAR_THROWN = {
  largest: THROWN.overLargest - 10 * THROWN.width,
  smallest: -THROWN.overSmallest + 10 * THROWN.width,
}

const LOG_SQRT_2PI = 0.5 * Math.log(2 * Math.PI)
const logNormal = (x: number, sd: number): number => -0.5 * (x / sd) ** 2 - Math.log(sd) - LOG_SQRT_2PI

/** Free place of the pulley at a click, when the observation was made, mm. */
function freeAt(s: State, r: Float64Array, obs: Observation, k: number): number {
  const o = obs.epoch * R.size
  const cable = r[o + R.cable] + s.geometry.threadMm * (obs.screws.barrelTurns - s.epochs[obs.epoch].barrelTurns)
  return (
    r[o + R.ratio] * (s.geometry.cableMm[k] + cable) +
    r[o + R.bow] * s.geometry.bow[k] +
    r[o + R.camber] * s.geometry.radiusMm[k]
  )
}

/** Own place of a stop, when the observation was made, mm. */
function stopHAt(s: State, r: Float64Array, obs: Observation): number {
  const o = obs.epoch * R.size
  return r[o + R.stopH] + r[o + R.perH] * (obs.screws.hTurns - s.epochs[obs.epoch].hTurns)
}
function stopLAt(s: State, r: Float64Array, obs: Observation): number {
  const o = obs.epoch * R.size
  return r[o + R.stopL] - r[o + R.perL] * (obs.screws.lTurns - s.epochs[obs.epoch].lTurns)
}

/** Where the pulley came to rest at a click, by the way it came, mm: a stop holds it. */
function restsAt(s: State, r: Float64Array, obs: Observation, k: number, inward: boolean): number {
  const o = obs.epoch * R.size
  const free = freeAt(s, r, obs, k)
  let y = inward ? free - r[o + R.hIn] : free + r[o + R.hOut]
  const stopH = stopHAt(s, r, obs)
  const stopL = stopLAt(s, r, obs)
  if (y < stopH) y = stopH
  if (y > stopL) y = stopL
  return y
}

/**
 * What an observation says of who made it, at one particle: the chance that a report was wrong, or how far a look was
 * off in a usual eye's spreads, squared, with the chance that it did not slip. Null where it says nothing.
 */
export function senseAt(
  s: State,
  obs: Observation,
  r: Float64Array,
): { wrong: number } | { squared: number; held: number } | null {
  if (obs.is === 'heard') {
    if (!obs.table) return null
    const o = obs.epoch * R.size
    const z =
      (restsAt(s, r, obs, obs.click, obs.inward) - s.geometry.placeMm[obs.click]) / s.geometry.pitchMm[obs.click]
    return { wrong: chanceWrong(Math.exp(lookUp(obs.table, z - r[o + R.asym], r[o + R.lnQ])), obs.ear) }
  }
  if ((obs.is !== 'stop' && obs.is !== 'offset') || obs.look === null) return null
  const place =
    obs.is === 'offset'
      ? restsAt(s, r, obs, obs.click, obs.click > 0)
      : obs.at === 'H'
        ? stopHAt(s, r, obs)
        : stopLAt(s, r, obs)
  const off = obs.placeMm - place
  const seen = (1 - MEASURE.slips) * Math.exp(logNormal(off, obs.sdMm))
  return { squared: (off / obs.sdMm) ** 2, held: seen / (seen + MEASURE.slips / SLIP_SPAN_MM[obs.is]) }
}
/** A look that slipped may be anywhere within this, mm. */
const SLIP_SPAN_MM = { stop: 6, offset: 8 } as const

/** Log chance of one observation; never above 0 for the discrete ones, near it for the measured. */
export function logLikelihood(s: State, obs: Observation, r: Float64Array): number {
  const g = s.geometry
  const o = obs.epoch * R.size
  switch (obs.is) {
    case 'heard': {
      const k = obs.click
      const z = (restsAt(s, r, obs, k, obs.inward) - g.placeMm[k]) / g.pitchMm[k]
      if (obs.end) {
        const stop = obs.end === 'largest' ? stopLAt(s, r, obs) : stopHAt(s, r, obs)
        const stopZ = (stop - g.placeMm[k]) / g.pitchMm[k]
        // far from being thrown: the chance is below a ten-thousandth and not worth its exponential
        const near = obs.end === 'largest' ? stopZ > NEAR_THROWN.largest : stopZ < NEAR_THROWN.smallest
        if (!near && obs.table) return obs.times * lookUp(obs.table, z - r[o + R.asym], r[o + R.lnQ])
        const thrown = thrownChance(obs.end, z, stopZ)
        if (!obs.table) return obs.times * Math.log(thrown + 1e-6)
        return obs.times * (Math.log(1 - thrown + 1e-9) + lookUp(obs.table, z - r[o + R.asym], r[o + R.lnQ]))
      }
      return obs.times * lookUp(obs.table!, z - r[o + R.asym], r[o + R.lnQ])
    }
    case 'unclean': {
      const k = obs.click
      const free = freeAt(s, r, obs, k)
      const stopH = stopHAt(s, r, obs)
      const stopL = stopLAt(s, r, obs)
      let allClean = 1
      for (const { inward, table } of obs.arrivals) {
        const y = Math.min(Math.max(inward ? free - r[o + R.hIn] : free + r[o + R.hOut], stopH), stopL)
        allClean *= Math.exp(lookUp(table, (y - g.placeMm[k]) / g.pitchMm[k] - r[o + R.asym], r[o + R.lnQ]))
      }
      return Math.log(1 - allClean + 1e-9)
    }
    case 'sounded': {
      const k = obs.click
      const z = (restsAt(s, r, obs, k, obs.inward) - g.placeMm[k]) / g.pitchMm[k] - r[o + R.asym]
      const quiet = Math.min(
        1,
        obs.quiet.reduce((sum, table) => sum + Math.exp(lookUp(table, z, r[o + R.lnQ])), 0),
      )
      // as likely as the sound is of either, no likelier than 1, so that it weighs like a report
      return Math.log((quiet + (1 - quiet) * obs.rubOdds) / Math.max(1, obs.rubOdds))
    }
    case 'stop': {
      const place = obs.at === 'H' ? stopHAt(s, r, obs) : stopLAt(s, r, obs)
      return slipping(logNormal(obs.placeMm - place, obs.sdMm), MEASURE.slips, SLIP_SPAN_MM.stop)
    }
    case 'offset': {
      const y = restsAt(s, r, obs, obs.click, obs.click > 0)
      return slipping(logNormal(obs.placeMm - y, obs.sdMm), MEASURE.slips, SLIP_SPAN_MM.offset)
    }
    case 'edge': {
      const k = obs.click
      const free = freeAt(s, r, obs, k)
      const perTurn = r[o + R.ratio] * Math.abs(g.threadMm)
      const q = Math.exp(r[o + R.lnQ])
      const rub = g.placeMm[k] + g.pitchMm[k] * (r[o + R.asym] + (obs.inboard ? 1 : -1) * HEARING.rub * q)
      const stopH = stopHAt(s, r, obs)
      const stopL = stopLAt(s, r, obs)
      const sd = Math.sqrt(EDGE.sdTurns ** 2 + ((EDGE.sdPitch * g.pitchMm[k]) / perTurn) ** 2)
      let turns: number
      if (obs.inboard) turns = stopL < rub ? 99 : stopH > rub ? 0 : (rub - free + r[o + R.hIn]) / perTurn
      else if (stopH > rub) turns = 99
      else turns = free - r[o + R.hIn] < rub || stopL < rub ? 0 : (free + r[o + R.hOut] - rub) / perTurn
      return Math.log((1 - EDGE.slips) * edgeChance(turns, sd, obs) + EDGE.slips / 33)
    }
    case 'camber':
      return slipping(logNormal(degrees(Math.atan(r[o + R.camber])) - obs.camberDeg, obs.sdDeg), MEASURE.slips, 6)
  }
}

/** Mixes in the share of measurements that slipped: spread flat over `span`. */
const slipping = (log: number, share: number, span: number): number =>
  Math.log((1 - share) * Math.exp(log) + share / span)

/** Chance that an edge expected after `turns` is noticed in the sixteenth reported, or not at all. */
function edgeChance(turns: number, sd: number, obs: { turns: number; limit: number; found: boolean }): number {
  const noticed = turns <= 0 ? turns : turns + EDGE.lateTurns
  // a logistic with the normal's slope stands in for its distribution function
  const scale = 1.702 / sd
  if (!obs.found) return 1 - logistic(scale * (obs.limit - noticed))
  const told = Math.abs(obs.turns)
  if (told === 0) return logistic(scale * (1 / 32 - noticed))
  const off = scale * Math.abs(told - noticed)
  if (off > 20) return 0
  // the middle of the sixteenth stands for all of it
  const e = Math.exp(-off)
  return (scale * e) / (16 * (1 + e) * (1 + e))
}

/**
 * What the observations from each one on may add to a log likelihood, at most: a narrow measurement's density can pass
 * 1.
 */
export function mostToCome(observations: readonly Observation[]): Float64Array {
  const out = new Float64Array(observations.length + 1)
  for (let i = observations.length - 1; i >= 0; i--) {
    const seen = observations[i]
    const sd = seen.is === 'stop' || seen.is === 'offset' ? seen.sdMm : seen.is === 'camber' ? MEASURE.hangerSdDeg : 1
    out[i] = out[i + 1] + Math.max(0, logNormal(0, sd) + 0.05) // the share of slips adds a little
  }
  return out
}
