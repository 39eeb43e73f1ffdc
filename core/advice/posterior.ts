import { degrees } from '../quantity/angle'
import { randomFrom, type Random } from '../quantity/random'
import { logistic, thrownChance, type Arrival } from '../response/heard'
import { EDGE, HEARING, MEASURE, THROWN } from '../response/parameters'
import type { Bike } from '../response/pulley'
import { geometryOf, type Geometry, type RearSetup } from '../response/setup'
import type { Hearing } from '../response/window'
import type { BenchEvent } from './contract'
import { hearingTable, lookUp, type HearingTable } from './hearingTable'
import { densityOf, drawFrom, logDensity, RENEWED, U, UNKNOWNS, usualPrior, withKnown, wornRateWith, type Density, type KnownPrior } from './prior'
import { farSquared, leanTowards, shapeOf } from './shape'
import { senseOfShift, startOf, step, type Trace } from './trace'

/**
 * Belief about one bike as weighted particles: sequential importance resampling, and after each resampling moves that
 * replay the whole log: leaning towards a normal fitted to the particles (shape.ts), which mixes eight times faster a
 * replay than differential evolution (ter Braak 2006), kept for what no one normal fits; walks; redraws from the prior.
 * Seeded by (seed, number of the event), so that a log always gives the same belief however it was reached.
 */
export const PARTICLES = 800
const SWEEPS = 4
const SWEEPS_WHEN_FEW = 6
/** Share of effective particles below which they are drawn again and moved. */
const REJUVENATE_BELOW = 0.45
/** Kinds of moves, as shares added up; the rest are redraws from the prior. */
const SHARES = { gauged: 0.025, trade: 0.05, evolve: 0.3, lean: 0.88, walk: 0.96 }

/** A stretch of the log with the same clamp and parts: which coordinate each unknown is read from. */
type Epoch = {
  at: Int32Array
  /** How the cable offset follows: on its own, from the stop it was clamped against, or from what it was before. */
  cable: 'own' | 'clamped' | 'moved' | 'same'
  stops: 'own' | 'moved' | 'same'
  barrelTurns: number
  hTurns: number
  lTurns: number
}

type Observation =
  | { is: 'heard'; epoch: number; screws: Screws; click: number; inward: boolean; table: HearingTable | null; end: 'smallest' | 'largest' | null; key: string; times: number }
  | { is: 'unclean'; epoch: number; screws: Screws; click: number; arrivals: { inward: boolean; table: HearingTable }[] }
  | { is: 'stop'; epoch: number; screws: Screws; at: 'H' | 'L'; placeMm: number }
  | { is: 'offset'; epoch: number; screws: Screws; click: number; placeMm: number }
  | { is: 'edge'; epoch: number; screws: Screws; click: number; inboard: boolean; turns: number; limit: number; found: boolean }
  | { is: 'camber'; epoch: number; screws: Screws; camberDeg: number }

type Screws = { barrelTurns: number; hTurns: number; lTurns: number }

/** One particle in the terms of the response model, at given screws. */
export type Belief = Bike & Hearing & { mmPerTurnH: number; mmPerTurnL: number }

/** Slots of a resolved epoch in the scratch array. */
const R = { cable: 0, ratio: 1, hIn: 2, hOut: 3, camber: 4, bow: 5, asym: 6, stopH: 7, stopL: 8, perH: 9, perL: 10, lnQ: 11, size: 12 } as const

export type Posterior = {
  readonly setup: RearSetup
  readonly geometry: Geometry
  readonly trace: Trace
  readonly events: number
  readonly weights: Float64Array
  /** Sprocket by sprocket: arrivals that skipped and that did not, since the cassette was renewed. */
  readonly skips: readonly { skipped: number; held: number }[]
  /** Chance of worn sprockets before any was heard. */
  readonly wornRate: number
  /** Particle `i` at the screws as they stand. */
  belief(i: number): Belief
  after(event: BenchEvent): Posterior
}

/** Belief before anything was seen. @throws RangeError naming what is wrong with the setup */
export function posteriorAtStart(setup: RearSetup, seed: number, known?: KnownPrior): Posterior {
  const geometry = geometryOf(setup)
  const prior = withKnown(usualPrior(geometry), known)
  const densities = UNKNOWNS.map(name => prior[name])
  const random = randomFrom(seed, 0)
  const particles = Array.from({ length: PARTICLES }, () => Float64Array.from(densities, d => drawFrom(d, random)))
  const trace = startOf(setup)
  return make({
    setup, geometry, seed, trace, densities, particles,
    events: 0,
    logWeights: new Float64Array(PARTICLES),
    epochs: [{ at: Int32Array.from(UNKNOWNS, (_, i) => i), cable: 'own', stops: 'own', ...screwsOf(trace) }],
    observations: [],
    skips: setup.teeth.map(() => ({ skipped: 0, held: 0 })),
    wornRate: wornRateWith(known),
  })
}

type State = {
  setup: RearSetup
  geometry: Geometry
  seed: number
  events: number
  trace: Trace
  densities: Density[]
  particles: Float64Array[]
  logWeights: Float64Array
  epochs: Epoch[]
  observations: Observation[]
  skips: { skipped: number; held: number }[]
  wornRate: number
}

const screwsOf = (t: Trace): Screws => ({ barrelTurns: t.barrelTurns, hTurns: t.hTurns, lTurns: t.lTurns })

function make(s: State): Posterior {
  const scratch = new Float64Array(R.size * s.epochs.length)
  return {
    setup: s.setup,
    geometry: s.geometry,
    trace: s.trace,
    events: s.events,
    skips: s.skips,
    wornRate: s.wornRate,
    weights: normalised(s.logWeights),
    belief(i) {
      resolve(s, s.particles[i], scratch)
      return beliefAt(s, scratch)
    },
    after: event => make(advance(s, event)),
  }
}

function beliefAt(s: State, r: Float64Array): Belief {
  const e = s.epochs.length - 1
  const o = e * R.size
  const epoch = s.epochs[e]
  return {
    cableMm: r[o + R.cable] + s.geometry.threadMm * (s.trace.barrelTurns - epoch.barrelTurns),
    ratio: r[o + R.ratio],
    backlashInMm: r[o + R.hIn],
    backlashOutMm: r[o + R.hOut],
    camberTan: r[o + R.camber],
    bowMm: r[o + R.bow],
    stopHMm: r[o + R.stopH] + r[o + R.perH] * (s.trace.hTurns - epoch.hTurns),
    stopLMm: r[o + R.stopL] - r[o + R.perL] * (s.trace.lTurns - epoch.lTurns),
    sharpness: Math.exp(r[o + R.lnQ]),
    asymmetryPitch: r[o + R.asym],
    mmPerTurnH: r[o + R.perH],
    mmPerTurnL: r[o + R.perL],
  }
}

/** Turns a particle's coordinates into the values of each epoch. */
function resolve(s: State, x: Float64Array, r: Float64Array): void {
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
    else if (cable === 'clamped') r[o + R.cable] = r[o + (restsOn === 'H' ? R.stopH : R.stopL)] / ratio - cableMm[slackest] + x[at[U.cable]]
    else r[o + R.cable] = r[was + R.cable] + s.geometry.threadMm * (barrelTurns - before.barrelTurns) + (cable === 'moved' ? x[at[U.cable]] : 0)
  }
}

/** Stop places, in pitches, short of which no chain is thrown to speak of. */
const NEAR_THROWN = { largest: THROWN.overLargest - 10 * THROWN.width, smallest: -THROWN.overSmallest + 10 * THROWN.width }

const LOG_SQRT_2PI = 0.5 * Math.log(2 * Math.PI)
const logNormal = (x: number, sd: number): number => -0.5 * (x / sd) ** 2 - Math.log(sd) - LOG_SQRT_2PI

/** Free place of the pulley at a click, when the observation was made, mm. */
function freeAt(s: State, r: Float64Array, obs: Observation, k: number): number {
  const o = obs.epoch * R.size
  const cable = r[o + R.cable] + s.geometry.threadMm * (obs.screws.barrelTurns - s.epochs[obs.epoch].barrelTurns)
  return r[o + R.ratio] * (s.geometry.cableMm[k] + cable) + r[o + R.bow] * s.geometry.bow[k] + r[o + R.camber] * s.geometry.radiusMm[k]
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

/** Log chance of one observation; never above 0 for the discrete ones, near it for the measured. */
function logLikelihood(s: State, obs: Observation, r: Float64Array): number {
  const g = s.geometry
  const o = obs.epoch * R.size
  switch (obs.is) {
    case 'heard': {
      const k = obs.click
      const free = freeAt(s, r, obs, k)
      let y = obs.inward ? free - r[o + R.hIn] : free + r[o + R.hOut]
      const stopH = stopHAt(s, r, obs)
      const stopL = stopLAt(s, r, obs)
      if (y < stopH) y = stopH
      if (y > stopL) y = stopL
      const z = (y - g.placeMm[k]) / g.pitchMm[k]
      if (obs.end) {
        const stopZ = ((obs.end === 'largest' ? stopL : stopH) - g.placeMm[k]) / g.pitchMm[k]
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
    case 'stop': {
      const place = obs.at === 'H'
        ? stopHAt(s, r, obs)
        : stopLAt(s, r, obs)
      return slipping(logNormal(obs.placeMm - place, MEASURE.sightSdMm), MEASURE.slips, 6)
    }
    case 'offset': {
      const k = obs.click
      const free = freeAt(s, r, obs, k)
      let y = k === 0 ? free + r[o + R.hOut] : free - r[o + R.hIn]
      y = Math.max(y, stopHAt(s, r, obs))
      y = Math.min(y, stopLAt(s, r, obs))
      return slipping(logNormal(obs.placeMm - y, MEASURE.offsetSdMm), MEASURE.slips, 8)
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
      return slipping(logNormal(degrees(Math.atan(r[o + R.camber])) - obs.camberDeg, MEASURE.hangerSdDeg), MEASURE.slips, 6)
  }
}

/** Mixes in the share of measurements that slipped: spread flat over `span`. */
const slipping = (log: number, share: number, span: number): number => Math.log((1 - share) * Math.exp(log) + share / span)

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

function normalised(logWeights: Float64Array): Float64Array {
  let most = -Infinity
  for (const l of logWeights) if (l > most) most = l
  const out = new Float64Array(logWeights.length)
  let sum = 0
  for (let i = 0; i < out.length; i++) sum += out[i] = Math.exp(logWeights[i] - most)
  for (let i = 0; i < out.length; i++) out[i] /= sum
  return out
}

function advance(s: State, event: BenchEvent): State {
  const trace = step(s.trace, event, s.setup)
  const next: State = { ...s, trace, events: s.events + 1 }
  if (event.kind === 'reclamp' || event.kind === 'replace' || event.kind === 'bend') return renew(next, event, randomFrom(s.seed, next.events))
  if (event.kind === 'shift') next.skips = countSkips(s, event)
  const added = observationOf(s, event)
  if (!added) return next
  next.observations = merge(s.observations, added)
  next.logWeights = s.logWeights.slice()
  const r = new Float64Array(R.size * s.epochs.length)
  for (let i = 0; i < s.particles.length; i++) {
    resolve(next, s.particles[i], r)
    next.logWeights[i] += logLikelihood(next, added, r)
  }
  const weights = normalised(next.logWeights)
  const effective = 1 / weights.reduce((sum, w) => sum + w * w, 0) / weights.length
  return effective < REJUVENATE_BELOW ? rejuvenate(next, weights, effective, randomFrom(s.seed, next.events)) : next
}

function observationOf(s: State, event: BenchEvent): Observation | null {
  const base = { epoch: s.epochs.length - 1, screws: screwsOf(s.trace) }
  const g = s.geometry
  switch (event.kind) {
    case 'shift': {
      if (event.heard === 'skips') return null
      const end = event.to === 0 ? 'smallest' : event.to === g.n - 1 ? 'largest' : null
      // a chain can only be thrown over an end it reaches; reported elsewhere it tells nothing
      if (event.heard === 'off' && !end) return null
      const sense = senseOfShift(s.trace, g.n, event.from, event.to)
      const arrival: Arrival = { end, ...sense }
      const table = event.heard === 'off' ? null : hearingTable(event.heard, arrival)
      const { barrelTurns, hTurns, lTurns } = base.screws
      const key = [base.epoch, event.to, sense.inward, sense.alreadyThere, event.heard, barrelTurns, end ? `${hTurns} ${lTurns}` : ''].join()
      return { is: 'heard', ...base, click: event.to, inward: sense.inward, table, end, key, times: 1 }
    }
    case 'unclean': {
      const end = event.to === 0 ? 'smallest' : event.to === g.n - 1 ? 'largest' : null
      const arrivals = event.ways.map(way => ({ inward: way === 'spokes', table: hearingTable('clean', { end, inward: way === 'spokes', alreadyThere: false }) }))
      return { is: 'unclean', ...base, click: event.to, arrivals }
    }
    case 'sight':
      return { is: 'stop', ...base, at: event.at, placeMm: event.offsetMm + (event.at === 'H' ? 0 : g.placeMm[g.n - 1]) }
    case 'offset':
      return { is: 'offset', ...base, click: event.click, placeMm: event.offsetMm + g.placeMm[event.click] }
    case 'edge': {
      const left = event.way === 'out' ? s.setup.barrelTurnsRange - s.trace.barrelTurns : s.trace.barrelTurns
      return { is: 'edge', ...base, click: event.click, inboard: (event.way === 'out') === g.threadMm > 0, turns: event.turns, limit: Math.min(EDGE.limitTurns, left), found: event.found }
    }
    case 'hanger':
      return { is: 'camber', ...base, camberDeg: event.camberDeg }
    default:
      return null
  }
}

/** Identical shifts are one observation counted several times. */
function merge(observations: Observation[], added: Observation): Observation[] {
  if (added.is === 'heard') {
    const same = observations.findIndex(o => o.is === 'heard' && o.key === added.key)
    if (same >= 0) return observations.map((o, i) => (i === same && o.is === 'heard' ? { ...o, times: o.times + 1 } : o))
  }
  return [...observations, added]
}

function countSkips(s: State, event: { from: number; to: number; heard: string }): State['skips'] {
  if (event.heard === 'none' || event.heard === 'jumps' || event.heard === 'off') return s.skips
  return s.skips.map((k, i) => i !== event.to ? k : event.heard === 'skips' ? { ...k, skipped: k.skipped + 1 } : { ...k, held: k.held + 1 })
}

/** Opens a new epoch after a re-clamp or a new part: new coordinates for what was renewed, the old ones for the rest. */
function renew(s: State, event: Extract<BenchEvent, { kind: 'reclamp' | 'replace' | 'bend' }>, random: Random): State {
  const part = event.kind === 'replace' ? event.part : event.kind === 'bend' ? 'bend' : 'clamp'
  const fresh: Partial<Record<keyof typeof U, Density>> = {}
  const clamped = part === 'clamp' || part === 'cable' || part === 'shifter' || part === 'derailleur'
  const moved = part === 'bend' || part === 'hanger' || part === 'derailleur' || part === 'cassette'
  fresh.cable = clamped ? RENEWED.clampMm : RENEWED.movedMm
  if (moved) fresh.stopH = fresh.stopL = RENEWED.movedMm
  if (part === 'cable') {
    fresh.lnBacklash = RENEWED.newBacklash
    fresh.inwardShare = RENEWED.newShare
  }
  if (part === 'hanger') fresh.camber = RENEWED.straight
  if (part === 'bend') fresh.camber = RENEWED.levered
  if (part === 'shifter' || part === 'derailleur' || part === 'cassette') fresh.lnRatio = RENEWED.matched
  if (part === 'derailleur') {
    fresh.bow = RENEWED.bow
    fresh.mmPerTurnH = fresh.mmPerTurnL = RENEWED.screw
  }
  const added = UNKNOWNS.filter(name => fresh[name])
  const at = s.epochs.at(-1)!.at.slice()
  const first = s.densities.length
  added.forEach((name, i) => { at[U[name]] = first + i })
  const densities = [...s.densities, ...added.map(name => fresh[name]!)]
  const particles = s.particles.map(p => {
    const grown = new Float64Array(densities.length)
    grown.set(p)
    for (let i = first; i < densities.length; i++) grown[i] = drawFrom(densities[i], random)
    return grown
  })
  const skips = part === 'cassette' ? s.skips.map(() => ({ skipped: 0, held: 0 })) : s.skips
  const epoch: Epoch = { at, cable: clamped ? 'clamped' : 'moved', stops: moved ? 'moved' : 'same', ...screwsOf(s.trace) }
  return { ...s, densities, particles, skips, epochs: [...s.epochs, epoch] }
}

/** Systematic resampling, then moves that leave the belief as it is and set the copies apart. */
function rejuvenate(s: State, weights: Float64Array, effective: number, random: Random): State {
  const particles = resampled(s.particles, weights, random)
  const target = new Float64Array(particles.length) // log prior + log likelihood
  const count = s.densities.length
  const { densities } = s
  const priors = particles.map(p => {
    const out = new Float64Array(count)
    for (let d = 0; d < count; d++) out[d] = logDensity(densities[d], p[d])
    return out
  })
  const r = new Float64Array(R.size * s.epochs.length)
  const gauged = gaugedIn(s)
  const justGauged = s.observations.at(-1)?.is === 'camber'
  // the newest speaks first: the particles agree least about it, so a bad trial is soon given up
  const observations = [...s.observations].reverse()
  const toCome = mostToCome(observations)
  const whole = (x: Float64Array, floor: number): number => {
    if (toCome[0] < floor) return -Infinity
    resolve(s, x, r)
    let sum = 0
    for (let i = 0; i < observations.length; i++) {
      sum += logLikelihood(s, observations[i], r)
      if (sum + toCome[i + 1] < floor) return -Infinity
    }
    return sum
  }
  particles.forEach((p, i) => { target[i] = whole(p, -Infinity) })
  const spread = spreads(particles, count)
  const shape = shapeOf(particles, count)
  const scratch = new Float64Array(count)
  const far = particles.map(p => farSquared(shape, p, scratch))
  const trial = new Float64Array(count)
  const trialPrior = new Float64Array(count)
  const sweeps = effective < 0.15 ? SWEEPS_WHEN_FEW : SWEEPS
  for (let sweep = 0; sweep < sweeps + (justGauged ? GAUGED_SWEEPS : 0); sweep++) {
    for (let i = 0; i < particles.length; i++) {
      const x = particles[i]
      const prior = priors[i]
      let trialFar = NaN // known after leaning; other moves work it out when they are taken
      let change = 0 // of log prior, redraws left out: there the prior cancels
      // after a gauging every particle is first asked whether it lies under the reading
      const kind = justGauged && sweep < GAUGED_SWEEPS ? 0 : random.next()
      if (kind < SHARES.evolve || kind >= SHARES.lean) {
        trial.set(x)
        trialPrior.set(prior)
      }
      if (gauged && kind < SHARES.gauged) change = redrawGauged(gauged, trial, trialPrior, prior, random)
      else if (kind < SHARES.trade) change = trade(s, trial, trialPrior, prior, random)
      else if (kind < SHARES.evolve) {
        const a = particles[random.below(particles.length)]
        const b = particles[random.below(particles.length)]
        const some = random.next() < 0.3 ? 1 : 0.15 + 0.6 * random.next()
        let moving = 0
        for (let d = 0; d < count; d++) if (some === 1 || random.next() < some) { trial[d] = NaN; moving++ }
        const gamma = random.next() < 0.12 ? 1 : (2.38 / Math.sqrt(2 * Math.max(1, moving))) * (0.5 + 0.7 * random.next())
        for (let d = 0; d < count; d++) {
          if (trial[d] === trial[d]) continue
          trial[d] = x[d] + gamma * (a[d] - b[d]) + 0.01 * spread[d] * random.normal()
          trialPrior[d] = logDensity(densities[d], trial[d])
          change += trialPrior[d] - prior[d]
        }
      } else if (kind < SHARES.lean) {
        leanTowards(shape, x, trial, random.next() < 1 / 3 ? 0.5 : 1, scratch, random)
        for (let d = 0; d < count; d++) {
          trialPrior[d] = logDensity(densities[d], trial[d])
          change += trialPrior[d] - prior[d]
        }
        trialFar = farSquared(shape, trial, scratch)
        change += 0.5 * (trialFar - far[i])
      } else {
        const d = random.below(count)
        if (kind < SHARES.walk) {
          trial[d] = x[d] + spread[d] * random.normal()
          trialPrior[d] = logDensity(densities[d], trial[d])
          change = trialPrior[d] - prior[d]
        } else {
          trial[d] = drawFrom(densities[d], random)
          trialPrior[d] = logDensity(densities[d], trial[d])
        }
      }
      const floor = target[i] - change + Math.log(random.next() + 1e-300)
      if (!Number.isFinite(change)) continue
      const found = whole(trial, floor)
      if (found < floor) continue
      x.set(trial)
      prior.set(trialPrior)
      target[i] = found
      far[i] = trialFar === trialFar ? trialFar : farSquared(shape, x, scratch)
    }
  }
  return { ...s, particles, logWeights: new Float64Array(particles.length) }
}

/** The last gauging: which coordinate it is about, and its figure in radians. */
type Gauged = { at: number; density: Density; measured: number }
const GAUGED_SWEEPS = 3
const GAUGE_SD = MEASURE.hangerSdDeg / degrees(1)

function gaugedIn(s: State): Gauged | null {
  const last = s.observations.findLast(o => o.is === 'camber')
  if (!last || last.is !== 'camber') return null
  const at = s.epochs[last.epoch].at[U.camber]
  return { at, density: s.densities[at], measured: last.camberDeg / degrees(1) }
}

/**
 * A gauge is so narrow that hardly any particle lies under it: draws the camber from the reading or from the prior,
 * so that belief can cross between "bent so" and "the reading slipped".
 * @returns change of log prior, less that of the draw
 */
function redrawGauged({ at, density, measured }: Gauged, trial: Float64Array, trialPrior: Float64Array, prior: Float64Array, random: Random): number {
  const drawn = (x: number) => Math.log(0.5 * Math.exp(-0.5 * ((x - measured) / GAUGE_SD) ** 2) / GAUGE_SD + 0.5 * densityOf(density, x))
  const was = trial[at]
  trial[at] = random.next() < 0.5 ? measured + GAUGE_SD * random.normal() : drawFrom(density, random)
  trialPrior[at] = logDensity(density, trial[at])
  return trialPrior[at] - prior[at] + drawn(was) - drawn(trial[at])
}

/**
 * A bent hanger and a ratio that does not match look alike from few gears: draws another camber and lets the ratio
 * take back what it did at the largest sprocket, so that belief can cross between the two.
 * @returns change of log prior, less that of the redraw, whose own prior cancels
 */
function trade(s: State, trial: Float64Array, trialPrior: Float64Array, prior: Float64Array, random: Random): number {
  const { at } = s.epochs[random.below(s.epochs.length)]
  const camber = at[U.camber]
  const ratio = at[U.lnRatio]
  const g = s.geometry
  const last = g.n - 1
  const was = trial[camber]
  trial[camber] = drawFrom(s.densities[camber], random)
  const share = Math.exp(trial[ratio]) + ((Math.tan(was) - Math.tan(trial[camber])) * g.radiusMm[last]) / g.placeMm[last]
  if (share <= 0) return -Infinity
  if (random.next() < 0.7) trial[ratio] = Math.log(share)
  else trial[ratio] = drawFrom(s.densities[ratio], random)
  trialPrior[camber] = logDensity(s.densities[camber], trial[camber])
  trialPrior[ratio] = logDensity(s.densities[ratio], trial[ratio])
  return trial[ratio] === Math.log(share) ? trialPrior[ratio] - prior[ratio] : 0
}

/** What the observations from each one on may add to a log likelihood, at most: a narrow measurement's density can pass 1. */
function mostToCome(observations: readonly Observation[]): Float64Array {
  const out = new Float64Array(observations.length + 1)
  for (let i = observations.length - 1; i >= 0; i--) {
    const { is } = observations[i]
    const sd = is === 'stop' ? MEASURE.sightSdMm : is === 'offset' ? MEASURE.offsetSdMm : is === 'camber' ? MEASURE.hangerSdDeg : 1
    out[i] = out[i + 1] + Math.max(0, logNormal(0, sd) + 0.05) // the share of slips adds a little
  }
  return out
}

function resampled(particles: Float64Array[], weights: Float64Array, random: Random): Float64Array[] {
  const n = particles.length
  const out: Float64Array[] = []
  let at = 0
  let reached = weights[0]
  const start = random.next()
  for (let i = 0; i < n; i++) {
    const want = (start + i) / n
    while (reached < want && at < n - 1) reached += weights[++at]
    out.push(particles[at].slice())
  }
  return out
}

function spreads(particles: Float64Array[], count: number): Float64Array {
  const out = new Float64Array(count)
  for (let d = 0; d < count; d++) {
    let sum = 0, squares = 0
    for (const p of particles) {
      sum += p[d]
      squares += p[d] * p[d]
    }
    const mean = sum / particles.length
    out[d] = Math.sqrt(Math.max(1e-12, squares / particles.length - mean * mean))
  }
  return out
}
