import { arrivalsOf } from '../rear/arrivals'
import { SAFE } from '../standards/model'
import type { BenchEvent, Part } from '../rear/benchEvents'
import { degrees, radians } from '../quantity/angle'
import { randomFrom, type Random } from '../quantity/random'

import type { Move } from '../advice/contract'
import { senseOfShift, startOf, step, type Trace } from '../rear/trace'
import { HEARD, arrivalChances, thrownChance, type Heard } from '../response/heard'
import { RUB_DB, rubOddsOf } from '../hearing/rubOdds'
import { EDGE, HEARING, MEASURE, RIGHT_CHANCE, WORN_SKIPS } from '../response/parameters'
import { errorPitch, freePlaceMm, restPlaceMm, type Bike } from '../response/pulley'
import { stopIsSafe } from '../response/safe'
import { geometryOf, snugCableMm, type Geometry, type RearSetup } from '../response/setup'
import { arrivalsAt, type Hearing } from '../response/window'
import { DRIVETRAIN_STANDARDS, USUAL_TEETH } from '../standards/drivetrains'
import { M5_PITCH_MM } from '../standards/tables/threads'
import { AS_MODELLED, type Physics } from './physics'

/**
 * A simulated bike on the stand. Its hidden state is never given to the advice, only what a person would see and hear.
 */
export type HiddenBike = Bike & Hearing & { mmPerTurnH: number; mmPerTurnL: number; worn: ReadonlySet<number> }

export type SimulatedBench = {
  readonly setup: RearSetup
  readonly log: readonly BenchEvent[]
  /** For scores and tests only. */
  readonly hidden: HiddenBike
  /** Does a move and tells what was found; nothing for `done`. */
  perform(move: Move): BenchEvent | null
  /** Is every gear clean often enough from both sides, and both stops safe (model, section 2)? */
  isRight(): boolean
  /** Has the chain gone over an end so far? */
  chainOff(): boolean
}

/** How often a bike has each fault, and how far a turn of its stop screws goes, mm. */
export type Population = {
  mismatch: number
  friction: number
  hanger: number
  stops: number
  wear: number
  mmPerTurn: { from: number; to: number }
}
/** Model, section 5. */
export const USUAL_POPULATION: Population = {
  mismatch: 0.05,
  friction: 0.2,
  hanger: 0.15,
  stops: 0.15,
  wear: 0.08,
  mmPerTurn: { from: 0.7, to: 1.4 },
}

/** A bike of the population of model, section 5, or of a shop's own, on a standard drivetrain. */
export function seededBike(seed: number, of: Population = USUAL_POPULATION): { setup: RearSetup; hidden: HiddenBike } {
  const random = randomFrom(seed, 77)
  const standards = DRIVETRAIN_STANDARDS.filter(s => s.speeds >= 8 && s.speeds <= 12)
  const standard = standards[random.below(standards.length)]
  const range = 6 + random.below(3)
  const gaps = standard.speeds - 1
  const setup: RearSetup = {
    teeth: [...USUAL_TEETH[standard.speeds]],
    pitchMm: new Array<number>(gaps).fill(standard.pitchMm),
    pullMm: new Array<number>(gaps).fill(standard.pullMm),
    pullRatio: standard.listedRatio,
    barrelPitchMm: M5_PITCH_MM,
    barrelTurnsOut: Math.round(random.next() * 5 * 8) / 8,
    barrelTurnsRange: range,
  }
  const g = geometryOf(setup)
  const uniform = (from: number, to: number) => from + (to - from) * random.next()
  const either = () => (random.next() < 0.5 ? -1 : 1)
  const mismatch = random.next() < of.mismatch ? either() * uniform(0.05, 0.15) : 0
  const ratio = g.fittedRatio * (1 + mismatch) * Math.exp(0.005 * random.normal())
  const backlash = random.next() < of.friction ? uniform(0.6, 1.4) : uniform(0.1, 0.4)
  const share = Math.min(0.8, Math.max(0.2, 0.5 + 0.09 * random.normal()))
  const camberDeg = random.next() < of.hanger ? either() * uniform(0.8, 3) : 0.12 * random.normal()
  const wrongStop = random.next() < of.stops ? (random.next() < 0.5 ? 'H' : 'L') : null
  const place = (stop: 'H' | 'L') => {
    const { from, to } = SAFE[stop]
    const inPitch =
      wrongStop === stop
        ? random.next() < 0.5
          ? from - uniform(0.02, 0.25)
          : to + uniform(0.02, 0.25)
        : uniform(from + 0.05, to - 0.05)
    const end = stop === 'H' ? 0 : g.n - 1
    return g.placeMm[end] + inPitch * g.pitchMm[end]
  }
  const worn = new Set<number>()
  if (random.next() < of.wear) {
    const count = 1 + random.below(3)
    const first = random.below(g.n - count + 1)
    for (let k = first; k < first + count; k++) worn.add(k)
  }
  const hidden: HiddenBike = {
    cableMm: uniform(-2.5, 2.5),
    ratio,
    backlashInMm: backlash * share,
    backlashOutMm: backlash * (1 - share),
    camberTan: Math.tan(radians(camberDeg)),
    bowMm: 0.12 * random.normal(),
    stopHMm: place('H'),
    stopLMm: place('L'),
    sharpness: Math.min(1.3, Math.max(0.7, 1 + 0.15 * random.normal())),
    asymmetryPitch: 0.008 * random.normal(),
    mmPerTurnH: uniform(of.mmPerTurn.from, of.mmPerTurn.to),
    mmPerTurnL: uniform(of.mmPerTurn.from, of.mmPerTurn.to),
    worn,
  }
  return { setup, hidden }
}

/**
 * Puts a bike on the simulated stand. `seed` is for what the person hears and how they measure.
 * @param before what was done with it before, where it is taken up in the middle: `bike` is as it stands after that
 */
export function simulatedBench(
  setup: RearSetup,
  bike: HiddenBike,
  seed: number,
  physics: Physics = AS_MODELLED,
  before: readonly BenchEvent[] = [],
): SimulatedBench {
  const g = geometryOf(setup)
  const random = randomFrom(seed, 4242)
  const microphone = randomFrom(seed, 4243)
  const log: BenchEvent[] = [...before]
  let hidden: HiddenBike = { ...bike }
  let trace = log.reduce((t, e) => step(t, e, setup), startOf(setup))
  let off = false
  const record = (event: BenchEvent): BenchEvent => {
    const from = trace
    trace = step(trace, event, setup)
    const turned = (trace.barrelTurns - from.barrelTurns) * g.threadMm
    if (event.kind !== 'reclamp' && event.kind !== 'replace') hidden = { ...hidden, cableMm: hidden.cableMm + turned }
    if (event.kind === 'turn' && event.screw === 'H')
      hidden = { ...hidden, stopHMm: hidden.stopHMm + event.turns * hidden.mmPerTurnH }
    if (event.kind === 'turn' && event.screw === 'L')
      hidden = { ...hidden, stopLMm: hidden.stopLMm - event.turns * hidden.mmPerTurnL }
    log.push(event)
    return event
  }
  return {
    setup,
    log,
    get hidden() {
      return hidden
    },
    chainOff: () => off,
    isRight: () => isRight(g, hidden, physics),
    perform(move) {
      switch (move.do) {
        case 'done':
        case 'pass': // a pass is done click by click: see `passClicks`
          return null
        case 'turn':
          return record({ kind: 'turn', screw: move.screw, turns: move.turns })
        case 'shift': {
          const heard = hear(g, hidden, trace, move.to, random, physics)
          if (heard === 'off') off = true
          const event = record({ kind: 'shift', from: trace.lever, to: move.to, heard })
          if (physics.microphone && trace.chain === trace.lever)
            record(byMicrophone(g, hidden, trace, microphone, physics))
          return event
        }
        case 'sight': {
          const place = move.at === 'H' ? hidden.stopHMm : hidden.stopLMm - g.placeMm[g.n - 1]
          return record({
            kind: 'sight',
            at: move.at,
            offsetMm: measured(place, MEASURE.sightSdMm * (physics.eye ?? 1), 3, random),
          })
        }
        case 'offset': {
          const place =
            restPlaceMm(g, at(g, hidden, move.click, physics), move.click, move.click > 0) - g.placeMm[move.click]
          return record({
            kind: 'offset',
            click: move.click,
            offsetMm: measured(place, MEASURE.offsetSdMm * (physics.eye ?? 1), 4, random),
          })
        }
        case 'edge':
          return record(windToEdge(g, setup, at(g, hidden, move.click, physics), trace, move, random, physics))
        case 'hanger':
          return record({
            kind: 'hanger',
            camberDeg: degrees(Math.atan(hidden.camberTan)) + MEASURE.hangerSdDeg * random.normal(),
            toeDeg: MEASURE.hangerSdDeg * random.normal(),
          })
        case 'reclamp':
          hidden = { ...hidden, cableMm: snugCableMm(g, hidden) + clampSlip(random) }
          return record({ kind: 'reclamp', barrelTurnsOut: move.barrelTurnsOut })
        case 'replace':
          hidden = renewed(g, hidden, move.part, random)
          return record({ kind: 'replace', part: move.part })
      }
    },
  }
}

/** Goes click by click as far as it is clean: the arrivals heard. */
export function passClicks(bench: SimulatedBench, move: Extract<Move, { do: 'pass' }>): BenchEvent[] {
  const lever = bench.log.reduce((trace, event) => step(trace, event, bench.setup), startOf(bench.setup)).lever
  const heard: BenchEvent[] = []
  for (const { to } of arrivalsOf(lever, move.to, move.back)) {
    const event = bench.perform({ do: 'shift', to })!
    heard.push(event)
    if (event.kind !== 'shift' || event.heard !== 'clean') break
  }
  return heard
}

const clampSlip = (random: Random): number => Math.max(-1.2, Math.min(1.2, 0.5 * random.normal()))

const measured = (value: number, sd: number, spanMm: number, random: Random): number =>
  Math.round(
    10 * (random.next() < MEASURE.slips ? value + spanMm * (2 * random.next() - 1) : value + sd * random.normal()),
  ) / 10

/** The bike as it answers at one sprocket: its friction may differ along the cassette. */
function at(g: Geometry, bike: HiddenBike, click: number, physics: Physics): HiddenBike {
  const lag = physics.lag(click / (g.n - 1))
  return lag === 1 ? bike : { ...bike, backlashInMm: bike.backlashInMm * lag, backlashOutMm: bike.backlashOutMm * lag }
}

function hear(g: Geometry, bike: HiddenBike, trace: Trace, to: number, random: Random, physics: Physics): Heard {
  const { inward, alreadyThere } = senseOfShift(trace, g.n, trace.lever, to)
  const chances = outcomeChances(g, bike, to, inward, alreadyThere, physics)
  let draw = random.next()
  let happened: Heard = 'clean'
  for (const heard of HEARD) {
    if (draw < chances[heard]) {
      happened = heard
      break
    }
    draw -= chances[heard]
  }
  if (happened === 'off' || random.next() >= physics.wrongReports) return happened
  const others = HEARD.filter(h => h !== happened && h !== 'off')
  return others[random.below(others.length)]
}

/**
 * What a microphone makes of the chain as it runs: the hiss of a chain that rubs or of one that does not, as spread on
 * made sounds (docs/hearing.md), and its odds.
 */
function byMicrophone(g: Geometry, bike: HiddenBike, trace: Trace, random: Random, physics: Physics): BenchEvent {
  const k = trace.chain
  const z = physics.heardAs(errorPitch(g, at(g, bike, k, physics), k, trace.lastInward) - bike.asymmetryPitch)
  const alone = (k === 0 && z < 0) || (k === g.n - 1 && z > 0)
  const limit = alone ? (k === 0 ? HEARING.smallestRough : HEARING.largestRough) : HEARING.rub
  const rubs = Math.abs(z) + HEARING.width * random.normal() > limit * bike.sharpness
  const { mean, sd } = RUB_DB[rubs ? 'rub' : 'clean']
  return { kind: 'sounded', to: k, rubOdds: rubOddsOf(mean + sd * random.normal()) }
}

/** Chances of what happens on a shift, thrown chains and worn teeth included. */
export function outcomeChances(
  g: Geometry,
  bike: HiddenBike,
  to: number,
  inward: boolean,
  alreadyThere: boolean,
  physics: Physics = AS_MODELLED,
): Record<Heard, number> {
  const end = to === 0 ? 'smallest' : to === g.n - 1 ? 'largest' : null
  const z = errorPitch(g, at(g, bike, to, physics), to, inward)
  const chances = arrivalChances(
    physics.heardAs(z - bike.asymmetryPitch),
    { end, inward, alreadyThere },
    bike.sharpness,
  )
  if (bike.worn.has(to)) {
    const arrives = 1 - chances.none - chances.jumps
    for (const heard of HEARD) if (heard !== 'none' && heard !== 'jumps') chances[heard] *= 1 - WORN_SKIPS
    chances.skips = WORN_SKIPS * arrives
  }
  if (!end) return chances
  const thrown = thrownChance(
    end,
    z,
    ((end === 'largest' ? bike.stopLMm : bike.stopHMm) - g.placeMm[to]) / g.pitchMm[to],
  )
  for (const heard of HEARD) chances[heard] *= 1 - thrown
  return { ...chances, off: thrown }
}

export function isRight(g: Geometry, bike: HiddenBike, physics: Physics = AS_MODELLED): boolean {
  return stopIsSafe(g, 'H', bike.stopHMm) && stopIsSafe(g, 'L', bike.stopLMm) && everyGearClean(g, bike, physics)
}

/** Is every gear clean often enough from both sides, worn teeth included? */
export const everyGearClean = (g: Geometry, bike: HiddenBike, physics: Physics): boolean =>
  uncleanGear(g, bike, physics) === null

/** A sprocket that is not clean often enough, looked for from `from` on and round; null where every one is. */
export function uncleanGear(g: Geometry, bike: HiddenBike, physics: Physics, from = 0): number | null {
  for (let i = 0; i < g.n; i++) {
    const k = (from + i) % g.n
    for (const inward of arrivalsAt(g, k))
      if (outcomeChances(g, bike, k, inward, false, physics).clean < RIGHT_CHANCE) return k
  }
  return null
}

function windToEdge(
  g: Geometry,
  setup: RearSetup,
  bike: HiddenBike,
  trace: Trace,
  move: { click: number; way: 'out' | 'in' },
  random: Random,
  physics: Physics,
): BenchEvent {
  const { click, way } = move
  const perTurn = bike.ratio * Math.abs(g.threadMm)
  const inboard = (way === 'out') === g.threadMm > 0
  const left = Math.min(EDGE.limitTurns, way === 'out' ? setup.barrelTurnsRange - trace.barrelTurns : trace.barrelTurns)
  const limit = Math.floor(left * 16 + 1e-6) / 16
  const sign = way === 'out' ? 1 : -1
  const rub =
    g.placeMm[click] +
    g.pitchMm[click] *
      (bike.asymmetryPitch + (inboard ? 1 : -1) * physics.rubsAt * bike.sharpness + EDGE.sdPitch * random.normal())
  const free = freePlaceMm(g, bike, click)
  const start = free - bike.backlashInMm
  let turns = inboard ? (rub - start) / perTurn : start < rub ? 0 : (free + bike.backlashOutMm - rub) / perTurn
  // a stop holds the pulley short of the rub
  if (inboard ? bike.stopLMm < rub : bike.stopHMm > rub) turns = Infinity
  if (turns > 0) turns += EDGE.lateTurns + EDGE.sdTurns * random.normal()
  if (random.next() < MEASURE.slips) turns = 2 * random.next()
  const told = Math.max(0, Math.round(turns * 16) / 16)
  return told > limit
    ? { kind: 'edge', click, way, turns: sign * limit, found: false }
    : { kind: 'edge', click, way, turns: told === 0 ? 0 : sign * told, found: true }
}

/** The bike with one part renewed; after hanger, derailleur or cassette, stops and offset have moved. */
function renewed(g: Geometry, bike: HiddenBike, part: Part, random: Random): HiddenBike {
  const move = () => (random.next() < 0.6 ? 0.5 : 1.3) * random.normal()
  const clamped = (b: HiddenBike): HiddenBike => ({ ...b, cableMm: snugCableMm(g, b) + clampSlip(random) })
  const moved = (b: HiddenBike): HiddenBike => ({
    ...b,
    stopHMm: b.stopHMm + move(),
    stopLMm: b.stopLMm + move(),
    cableMm: b.cableMm + move(),
  })
  const matching = g.fittedRatio * Math.exp(0.005 * random.normal())
  switch (part) {
    case 'cable': {
      const backlash = 0.15 + 0.25 * random.next()
      return clamped({ ...bike, backlashInMm: backlash / 2, backlashOutMm: backlash / 2 })
    }
    case 'hanger':
      return moved({ ...bike, camberTan: Math.tan(radians(0.05 * random.normal())) })
    case 'shifter':
      return clamped({ ...bike, ratio: matching })
    case 'derailleur':
      return clamped(moved({ ...bike, ratio: matching, bowMm: 0.12 * random.normal() }))
    case 'cassette':
      return moved({ ...bike, ratio: matching, worn: new Set() })
  }
}
