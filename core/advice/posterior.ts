import { afterSeen, weightsOf } from '../inference/particles'
import type { BenchEvent } from '../rear/benchEvents'
import type { Density } from '../quantity/normal'
import { randomFrom, type Random } from '../quantity/random'
import type { Arrival } from '../response/heard'
import { EDGE, MEASURE, WRONG_REPORTS } from '../response/parameters'
import type { Bike } from '../response/pulley'
import { geometryOf, type Geometry, type RearSetup } from '../response/setup'
import type { Hearing } from '../response/window'
import { hearingTable, nearestEar } from './hearingTable'
import { logLikelihood, R, resolve, senseAt, type Epoch, type Observation, type Screws, type State } from './likelihood'
import {
  clampedMm,
  drawFrom,
  type KnownPrior,
  RENEWED,
  U,
  UNKNOWNS,
  usualPrior,
  withKnown,
  wornRateWith,
} from './prior'
import { rejuvenate } from './rejuvenate'
import { senseOfShift, startOf, step, type Trace } from '../rear/trace'

/**
 * Belief about one bike as weighted particles: sequential importance resampling, and after each resampling moves that
 * replay the whole log: leaning towards a normal fitted to the particles (shape.ts), which mixes eight times faster a
 * replay than differential evolution (ter Braak 2006), kept for what no one normal fits; walks; redraws from the prior.
 * Seeded by (seed, number of the event), so that a log always gives the same belief however it was reached.
 */
const PARTICLES = 800
/** Share of effective particles below which they are drawn again and moved. */
const RENEW_BELOW = 0.45

/** One particle in the terms of the response model, at given screws. */
export type Belief = Bike & Hearing & { mmPerTurnH: number; mmPerTurnL: number }

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
  /** Share of wrong reports of the ear that reported last: by it the next check is weighed. */
  readonly ear: number
  /** Particle `i` at the screws as they stand. */
  belief(i: number): Belief
  after(event: BenchEvent): Posterior
  /**
   * What each event of the log, by its place, says of who reported it, all that came later considered: how likely a
   * report was wrong; how far a look was off, squared, in a usual eye's spreads, and how likely it did not slip.
   */
  senses(): Map<number, { wrong: number } | { squared: number; held: number }>
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
    setup,
    geometry,
    seed,
    trace,
    densities,
    particles,
    events: 0,
    logWeights: new Float64Array(PARTICLES),
    logChances: new Float64Array(PARTICLES),
    epochs: [{ at: Int32Array.from(UNKNOWNS, (_, i) => i), cable: 'own', stops: 'own', ...screwsOf(trace) }],
    observations: [],
    skips: setup.teeth.map(() => ({ skipped: 0, held: 0 })),
    wornRate: wornRateWith(known),
    ear: WRONG_REPORTS,
  })
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
    ear: s.ear,
    weights: weightsOf(s),
    belief(i) {
      resolve(s, s.particles[i], scratch)
      return beliefAt(s, scratch)
    },
    after: event => make(advance(s, event)),
    senses: () => sensesOf(s),
  }
}

/** The particles hold every stretch of the log, so that what came later judges what was said before. */
function sensesOf(s: State): ReturnType<Posterior['senses']> {
  const out: ReturnType<Posterior['senses']> = new Map()
  const weights = weightsOf(s)
  const resolved = s.particles.map(p => {
    const r = new Float64Array(R.size * s.epochs.length)
    resolve(s, p, r)
    return r
  })
  for (const obs of s.observations) {
    let [wrong, squared, held, says] = [0, 0, 0, false]
    resolved.forEach((r, i) => {
      const at = senseAt(s, obs, r)
      if (!at) return
      says = true
      if ('wrong' in at) wrong += weights[i] * at.wrong
      else {
        squared += weights[i] * at.held * at.squared
        held += weights[i] * at.held
      }
    })
    if (!says) continue
    if (obs.is === 'heard') for (const place of obs.reports) out.set(place, { wrong })
    else if ((obs.is === 'stop' || obs.is === 'offset') && obs.look !== null) out.set(obs.look, { squared, held })
  }
  return out
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

const earAfter = (was: number, event: BenchEvent): number =>
  'ear' in event && event.ear !== undefined ? nearestEar(event.ear) : was

function advance(s: State, event: BenchEvent): State {
  const trace = step(s.trace, event, s.setup)
  const next: State = { ...s, trace, events: s.events + 1, ear: earAfter(s.ear, event) }
  if (event.kind === 'reclamp' || event.kind === 'replace' || event.kind === 'bend')
    return renew(next, event, randomFrom(s.seed, next.events))
  if (event.kind === 'shift') next.skips = countSkips(s, event)
  const added = observationOf(s, event)
  if (!added) return next
  next.observations = merge(s.observations, added)
  const r = new Float64Array(R.size * s.epochs.length)
  const logChance = (particle: Float64Array): number => {
    resolve(next, particle, r)
    return logLikelihood(next, added, r)
  }
  const random = randomFrom(s.seed, next.events)
  const move = (drawn: Float64Array[], logChances: Float64Array, effective: number) =>
    rejuvenate(next, drawn, logChances, effective, random)
  const { points, ...weighed } = afterSeen({ ...s, points: s.particles }, logChance, RENEW_BELOW, move, random)
  return { ...next, ...weighed, particles: points }
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
      const ear = nearestEar(event.ear ?? WRONG_REPORTS)
      const table = event.heard === 'off' ? null : hearingTable(event.heard, arrival, ear)
      const { barrelTurns, hTurns, lTurns } = base.screws
      const key = [
        base.epoch,
        event.to,
        sense.inward,
        sense.alreadyThere,
        event.heard,
        barrelTurns,
        end ? `${hTurns} ${lTurns}` : '',
        ear,
      ].join()
      const { inward } = sense
      return { is: 'heard', ...base, click: event.to, inward, table, end, key, times: 1, reports: [s.events], ear }
    }
    case 'unclean': {
      const end = event.to === 0 ? 'smallest' : event.to === g.n - 1 ? 'largest' : null
      const arrivals = event.ways.map(way => ({
        inward: way === 'spokes',
        table: hearingTable('clean', { end, inward: way === 'spokes', alreadyThere: false }, event.ear),
      }))
      return { is: 'unclean', ...base, click: event.to, arrivals }
    }
    case 'sounded': {
      // the same sound again: once an arrival, however often it is noted
      if (s.trace.sounded) return null
      const end = event.to === 0 ? 'smallest' : event.to === g.n - 1 ? 'largest' : null
      const inward = end === 'largest' || (end === null && s.trace.lastInward)
      const arrival: Arrival = { end, inward, alreadyThere: false }
      const quiet = [hearingTable('clean', arrival), hearingTable('slow', arrival)]
      return { is: 'sounded', ...base, click: event.to, inward, quiet, rubOdds: event.rubOdds }
    }
    case 'sight':
      return {
        is: 'stop',
        ...base,
        at: event.at,
        placeMm: event.offsetMm + (event.at === 'H' ? 0 : g.placeMm[g.n - 1]),
        sdMm: event.sdMm ?? event.photoSdMm ?? MEASURE.sightSdMm,
        look: (event.sdMm ?? event.photoSdMm) === undefined ? s.events : null,
      }
    case 'offset':
      return {
        is: 'offset',
        ...base,
        click: event.click,
        placeMm: event.offsetMm + g.placeMm[event.click],
        sdMm: event.photoSdMm ?? MEASURE.offsetSdMm,
        look: event.photoSdMm === undefined ? s.events : null,
      }
    case 'edge': {
      const left = event.way === 'out' ? s.setup.barrelTurnsRange - s.trace.barrelTurns : s.trace.barrelTurns
      return {
        is: 'edge',
        ...base,
        click: event.click,
        inboard: (event.way === 'out') === g.threadMm > 0,
        turns: event.turns,
        limit: Math.min(EDGE.limitTurns, left),
        found: event.found,
      }
    }
    case 'hanger':
      return { is: 'camber', ...base, camberDeg: event.camberDeg, sdDeg: event.sdDeg ?? MEASURE.hangerSdDeg }
    default:
      return null
  }
}

/** Identical shifts are one observation counted several times. */
function merge(observations: Observation[], added: Observation): Observation[] {
  if (added.is === 'heard') {
    const same = observations.findIndex(o => o.is === 'heard' && o.key === added.key)
    if (same >= 0)
      return observations.map((o, i) =>
        i === same && o.is === 'heard' ? { ...o, times: o.times + 1, reports: [...o.reports, ...added.reports] } : o,
      )
  }
  return [...observations, added]
}

function countSkips(s: State, event: { from: number; to: number; heard: string }): State['skips'] {
  if (event.heard === 'none' || event.heard === 'jumps' || event.heard === 'off') return s.skips
  return s.skips.map((k, i) =>
    i !== event.to ? k : event.heard === 'skips' ? { ...k, skipped: k.skipped + 1 } : { ...k, held: k.held + 1 },
  )
}

/**
 * Opens a new epoch after a re-clamp or a new part: new coordinates for what was renewed, the old ones for the rest.
 */
function renew(s: State, event: Extract<BenchEvent, { kind: 'reclamp' | 'replace' | 'bend' }>, random: Random): State {
  const part = event.kind === 'replace' ? event.part : event.kind === 'bend' ? 'bend' : 'clamp'
  const fresh: Partial<Record<keyof typeof U, Density>> = {}
  const clamped = part === 'clamp' || part === 'cable' || part === 'shifter' || part === 'derailleur'
  const moved = part === 'bend' || part === 'hanger' || part === 'derailleur' || part === 'cassette'
  fresh.cable = !clamped ? RENEWED.movedMm : event.kind === 'reclamp' ? clampedMm(event.takeUpMm) : RENEWED.clampMm
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
  added.forEach((name, i) => {
    at[U[name]] = first + i
  })
  const densities = [...s.densities, ...added.map(name => fresh[name]!)]
  const particles = s.particles.map(p => {
    const grown = new Float64Array(densities.length)
    grown.set(p)
    for (let i = first; i < densities.length; i++) grown[i] = drawFrom(densities[i], random)
    return grown
  })
  const skips = part === 'cassette' ? s.skips.map(() => ({ skipped: 0, held: 0 })) : s.skips
  const epoch: Epoch = {
    at,
    cable: clamped ? 'clamped' : 'moved',
    stops: moved ? 'moved' : 'same',
    ...screwsOf(s.trace),
  }
  return { ...s, densities, particles, skips, epochs: [...s.epochs, epoch] }
}
