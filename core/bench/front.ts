import type { FrontFault } from '../front/causes'
import { randomFrom } from '../quantity/random'
import type { FrontMoveTo } from '../front/contract'
import { ownChances, ownFront, ownGapMm, ownRight, ownShiftsClean } from './frontPhysics'
import { endGapMm, FRONT_MEASURE } from '../front/belief'
import type { FrontSet, FrontSight } from '../front/events'
import { FRONT_OUTCOMES, type FrontSeen } from '../front/moves'
import { USUAL_FRONT, type FrontParts } from '../front/parts'
import { frontSetupOf, type FrontSetup } from '../front/setup'
import {
  dropsUndone,
  FRONT,
  frontFaults,
  frontGeometry,
  frontIsRight,
  frontWindow,
  shiftChances,
  type FrontBike,
  type FrontGeometry,
} from '../front/response'

/** A simulated front on the stand; its hidden state is never given to the advice. */
export type HiddenFront = FrontBike & { perL: number; perH: number; perBarrel: number }

type Shift = { from: number; to: number; sprocket: number }
type SimulatedFront = {
  readonly setup: FrontSetup
  readonly log: readonly FrontSight[]
  /** For scores and tests only. */
  readonly hidden: HiddenFront
  readonly thrown: { inboard: number; outboard: number }
  perform(move: FrontMoveTo): FrontSight | null
  /**
   * Shifts there and back so often, until one is not clean; then the log holds that one, after the clean way there in
   * the first round: what was clean in rounds before it nobody tells.
   */
  thereAndBack(
    ways: readonly [Shift, Shift],
    times: number,
  ): { shifts: number; entries: number; badWay: 'there' | 'back' | null }
  /** Stops looked at by themselves and told in one touch, if each reads about as said; else nothing is told. */
  tellsAtAGlance(said: readonly FrontSight[]): boolean
  isRight(): boolean
  /** Goes every shift clean often enough, whether or not the stops would hold without the cable? */
  shiftsClean(): boolean
  /** Faults the bike truly has, the window judged against `narrowMm`. */
  faults(narrowMm?: number): Record<FrontFault, boolean>
}

/** A front of the population: doubles and triples, conventional and rotating cages. Rates are `model`. */
export function seededFront(seed: number): { setup: FrontSetup; hidden: HiddenFront } {
  const random = randomFrom(seed, 501)
  const uniform = (from: number, to: number) => from + (to - from) * random.next()
  const either = () => (random.next() < 0.5 ? -1 : 1)
  const triple = random.next() < 0.25
  const usual = USUAL_FRONT[triple ? 'triple' : 'double']
  const rotating = !triple && random.next() < 0.25
  const speeds = triple ? 9 : 11
  const parts: FrontParts = {
    ...usual,
    cage: rotating ? 'rotating' : 'conventional',
    trimMm: rotating ? 0 : usual.trimMm,
    chainLineMm: usual.chainLineMm + uniform(-1, 2.5),
    chainstayMm: Math.round(uniform(405, 460)),
  }
  const stop = () => (random.next() < 0.25 ? either() * uniform(0.6, 2.5) : uniform(-0.6, 0.6))
  const stopLMm = stop()
  const hidden: HiddenFront = {
    stopLMm,
    stopHMm: stop(),
    slackMm: stopLMm + (random.next() < 0.5 ? uniform(-0.6, 0.4) : uniform(-3.5, 2.5)),
    backlashMm: random.next() < 0.18 ? uniform(1.3, 2.8) : uniform(0.25, 0.9),
    heightMm: random.next() < 0.15 ? (random.next() < 0.25 ? uniform(-0.5, 0.7) : uniform(3.5, 8)) : uniform(1.2, 2.9),
    angleDeg: random.next() < 0.12 ? either() * uniform(1, 5) : 0.3 * random.normal(),
    stroke:
      random.next() < 0.04
        ? random.next() < 0.7
          ? uniform(0.7, 0.88)
          : uniform(1.15, 1.35)
        : 1.02 + 0.02 * random.normal(),
    sharpness: Math.min(1.25, Math.max(0.8, 1 + 0.1 * random.normal())),
    middleMm: 0.3 * random.normal(),
    perL: uniform(0.75, 1.3),
    perH: uniform(0.75, 1.3),
    perBarrel: uniform(0.65, 1),
  }
  return {
    setup: frontSetupOf(parts, {
      teeth: new Array<number>(speeds).fill(0),
      pitchMm: new Array<number>(speeds - 1).fill(speeds === 9 ? 4.35 : 3.74),
    }),
    hidden,
  }
}

/**
 * A front as a shop meets it: one in ten with nothing wrong, one in ten with two things, else one. What is not at fault
 * stands well, by hands that are not perfect. Rates are invented for the bench.
 */
export function faultyFront(seed: number): { setup: FrontSetup; hidden: HiddenFront; faults: readonly FrontIll[] } {
  const { setup, hidden } = seededFront(seed)
  const random = randomFrom(seed, 503)
  const uniform = (from: number, to: number) => from + (to - from) * random.next()
  const either = () => (random.next() < 0.5 ? -1 : 1)
  const one = (): FrontIll => {
    let left = random.next()
    return (Object.entries(ILLS) as [FrontIll, number][]).find(([, share]) => (left -= share) < 0)?.[0] ?? 'tension'
  }
  const how = random.next()
  const faults = how < 0.1 ? [] : [...new Set(how < 0.2 ? [one(), one()] : [one()])]
  const well: HiddenFront = {
    ...hidden,
    stopLMm: uniform(-0.5, 0.4),
    stopHMm: uniform(-0.4, 0.5),
    slackMm: uniform(-0.4, 0.3),
    backlashMm: uniform(0.25, 0.8),
    heightMm: uniform(1.2, 2.9),
    angleDeg: 0.3 * random.normal(),
    stroke: 1.02 + 0.02 * random.normal(),
  }
  const ill: Record<FrontIll, () => Partial<HiddenFront>> = {
    tension: () => ({ slackMm: random.next() < 0.65 ? uniform(-4, -1) : uniform(1, 3) }),
    'L out': () => ({ stopLMm: uniform(-3, -1.3), slackMm: uniform(-0.6, 0.3) }),
    'L in': () => ({ stopLMm: uniform(1.1, 2.5) }),
    'H out': () => ({ stopHMm: uniform(1.3, 3) }),
    'H in': () => ({ stopHMm: uniform(-2.5, -1.2) }),
    height: () => ({ heightMm: random.next() < 0.3 ? uniform(-0.5, 0.4) : uniform(5, 9) }),
    angle: () => ({ angleDeg: either() * uniform(1.5, 5) }),
    friction: () => ({ backlashMm: uniform(1.8, 3) }),
    pull: () => ({ stroke: random.next() < 0.7 ? uniform(0.68, 0.85) : uniform(1.18, 1.35) }),
  }
  return { setup, hidden: faults.reduce<HiddenFront>((b, f) => ({ ...b, ...ill[f]() }), well), faults }
}
/** What may be wrong on the bench, as shares. */
const ILLS = {
  tension: 0.32,
  'L out': 0.14,
  'L in': 0.07,
  'H out': 0.1,
  'H in': 0.08,
  height: 0.1,
  angle: 0.08,
  friction: 0.08,
  pull: 0.03,
} as const
export type FrontIll = keyof typeof ILLS

/**
 * Where the bench departs from the response that the advice believes in; `own` gives every front thresholds, widths and
 * a hand of its own (`frontPhysics.ts`), and the faults a shop meets.
 */
export type FrontPhysics = { tolerance: number; wrongReports: number; own?: true }
export const FRONT_AS_MODELLED: FrontPhysics = { tolerance: 1, wrongReports: FRONT.wrongReports }
export const FRONT_UNLIKE: Record<'tolerances' | 'reports' | 'faults' | 'slips', FrontPhysics> = {
  tolerances: { tolerance: 0.85, wrongReports: FRONT.wrongReports },
  reports: { tolerance: 1, wrongReports: 0.1 },
  faults: { tolerance: 1, wrongReports: 0.05, own: true },
  slips: { tolerance: 1, wrongReports: 0.1, own: true },
}

/** A gap that reads within this of what is wanted is told as right by a hand that tells at a glance. */
const ABOUT_MM = 0.5

/** @param seed of what is seen and measured, apart from the bike's own */
export function simulatedFront(
  setup: FrontSetup,
  start: HiddenFront,
  seed: number,
  physics: FrontPhysics = FRONT_AS_MODELLED,
): SimulatedFront {
  const g: FrontGeometry = frontGeometry(setup)
  const random = randomFrom(seed, 502)
  const own = physics.own ? ownFront(seed) : null
  const chances = (from: number, to: number) =>
    own ? ownChances(own, g, hidden, from, to) : shiftChances(g, hidden, from, to)
  const gapOf = (plate: 'inner' | 'outer', byStop: boolean): number => {
    // a plate that presses reads as touching
    if (!own) return Math.max(0, noisy(endGapMm(g, hidden, plate, byStop), FRONT_MEASURE.gapMm, 0.1))
    const { gapBiasMm, gapSdMm } = own.hand
    // nobody reads finer than half a millimetre by eye
    return Math.max(0, noisy(ownGapMm(own, g, hidden, plate, byStop) + gapBiasMm, gapSdMm, byStop ? 0.5 : 0.25))
  }
  const log: FrontSight[] = []
  const thrown = { inboard: 0, outboard: 0 }
  let hidden = { ...start, sharpness: start.sharpness * physics.tolerance }
  const noisy = (x: number, sd: number, step: number) => Math.round((x + sd * random.normal()) / step) * step
  const draw = <K extends string>(chances: Record<K, number>): K => {
    let left = random.next() * Object.values<number>(chances).reduce((a, b) => a + b, 0)
    return (
      (Object.entries(chances) as [K, number][]).find(([, c]) => (left -= c) < 0)?.[0] ??
      (Object.keys(chances) as K[])[0]
    )
  }
  const seeing = (from: number, to: number): FrontSeen => {
    const truth = draw(chances(from, to))
    // past a middle ring the chain lands on the next one: that is no chain off
    if (truth === 'falls-inboard' && to === 0) thrown.inboard++
    if (truth === 'falls-outboard' && to === g.rings - 1) thrown.outboard++
    const other = FRONT_OUTCOMES.filter(
      s => s !== truth && !s.startsWith('falls') && s !== (to > from ? 'no-drop' : 'no-climb'),
    )
    return !truth.startsWith('falls') && random.next() < physics.wrongReports
      ? other[random.below(other.length)]
      : truth
  }
  const clamped = () => {
    hidden = { ...hidden, slackMm: (setup.parts.cage === 'rotating' ? 0 : hidden.stopLMm) + 0.4 * random.normal() }
  }
  function set(what: FrontSet): void {
    if (what === 'position')
      hidden = {
        ...hidden,
        heightMm: 2 + 0.35 * random.normal(),
        angleDeg: 0.35 * random.normal(),
        stopLMm: hidden.stopLMm + 0.8 * random.normal(),
        stopHMm: hidden.stopHMm + 0.8 * random.normal(),
      }
    if (what === 'cable') hidden = { ...hidden, backlashMm: Math.min(hidden.backlashMm, 0.5) }
    if (what === 'lever') hidden = { ...hidden, stroke: 1.02 + 0.015 * random.normal() }
    clamped()
  }
  function made(move: FrontMoveTo): FrontSight | null {
    switch (move.do) {
      case 'done':
        return null
      case 'shift':
        return {
          kind: 'frontShift',
          from: move.from,
          to: move.to,
          sprocket: move.sprocket,
          seen: seeing(move.from, move.to),
        }
      case 'gap':
        return {
          kind: 'frontGap',
          plate: move.plate,
          gapMm: gapOf(move.plate, move.byStop === true),
          ...(move.byStop ? { byStop: true } : {}),
        }
      case 'position':
        return {
          kind: 'frontPosition',
          heightMm: noisy(hidden.heightMm, own?.hand.placeSdMm ?? FRONT_MEASURE.heightMm, 0.5),
          angleDeg: noisy(
            hidden.angleDeg,
            own?.hand.angleSdDeg ?? (setup.parts.cage === 'rotating' ? FRONT_MEASURE.marksDeg : FRONT_MEASURE.angleDeg),
            0.5,
          ),
        }
      case 'undone': {
        const drops = random.next() < dropsUndone(g, hidden)
        clamped()
        return { kind: 'frontUndone', drops }
      }
      case 'set':
        set(move.what)
        return { kind: 'frontSet', what: move.what }
      case 'turn': {
        const turns = move.sixteenths / 16
        if (move.screw === 'barrel') hidden = { ...hidden, slackMm: hidden.slackMm + hidden.perBarrel * turns }
        else if (move.screw === 'L') hidden = { ...hidden, stopLMm: hidden.stopLMm + hidden.perL * turns }
        else hidden = { ...hidden, stopHMm: hidden.stopHMm - hidden.perH * turns }
        return { kind: 'frontTurn', screw: move.screw, sixteenths: move.sixteenths }
      }
    }
  }
  return {
    setup,
    log,
    thrown,
    get hidden() {
      return hidden
    },
    perform(move) {
      const e = made(move)
      if (e) log.push(e)
      return e
    },
    thereAndBack(ways, times) {
      const start = log.length
      for (let shifts = 0; shifts < 2 * times; shifts++) {
        const e = made({ do: 'shift', ...ways[shifts % 2]! })!
        const clean = e.kind === 'frontShift' && e.seen === 'clean'
        if (!clean && shifts >= 2) log.length = start
        log.push(e)
        if (!clean) return { shifts: shifts + 1, entries: log.length - start, badWay: shifts % 2 ? 'back' : 'there' }
      }
      return { shifts: 2 * times, entries: 2 * times, badWay: null }
    },
    tellsAtAGlance(said) {
      const about = said.every(e => e.kind === 'frontGap' && Math.abs(gapOf(e.plate, true) - e.gapMm) <= ABOUT_MM)
      if (about) log.push(...said)
      return about
    },
    isRight: () => (own ? ownRight(own, g, hidden) : frontIsRight(g, hidden, frontWindow(g, hidden))),
    shiftsClean: () =>
      own
        ? ownShiftsClean(own, g, hidden)
        : Array.from({ length: g.rings - 1 }, (_, r) => [
            [r, r + 1],
            [r + 1, r],
          ])
            .flat()
            .every(([from, to]) => shiftChances(g, hidden, from, to).clean >= FRONT.rightChance),
    faults: narrowMm => frontFaults(g, hidden, narrowMm),
  }
}
