import type { FrontCause, FrontFault } from './causes'
import { FRONT_FAULTS } from './causes'
import { jointOf, mutualInformation } from '../inference/information'
import { systematic } from '../inference/sampling'
import { positiveList } from '../quantity/check'
import { normalBelow } from '../quantity/normal'
import {
  angleSdDeg,
  believeFront,
  endGapMm,
  followFront,
  FRONT_MEASURE,
  SNUG_SD_MM,
  handChances,
  reported,
  type FrontBelief,
  type FrontGuess,
} from './belief'
import type { FrontSet, FrontSight } from './events'
import { FRONT_SEEN, type FrontScrew } from './moves'
import {
  cageOffMm,
  dropsUndone,
  frontFaults,
  frontGeometry,
  frontIsRight,
  frontWindow,
  shiftChances,
  type FrontGeometry,
  type FrontWindow,
  type Span,
} from './response'
import type { FrontSetup } from './setup'

export type FrontMoveTo =
  | { do: 'turn'; screw: FrontScrew; sixteenths: number }
  | { do: 'shift'; from: number; to: number }
  | { do: 'gap'; plate: 'inner' | 'outer' }
  | { do: 'position' }
  | { do: 'hand' }
  | { do: 'undone' }
  | { do: 'set'; what: FrontSet }
  | { do: 'done' }
export type FrontCheck = Extract<FrontMoveTo, { do: 'shift' | 'gap' | 'position' | 'hand' | 'undone' }>

/** What each step costs, in units of a shift looked at. `model` */
const FRONT_COST = { turn: 1, shift: 1, gap: 2, position: 2, hand: 2, undone: 4, done: 0 } as const
const FRONT_SET_COST: Record<FrontSet, number> = { clamp: 3, position: 4, cable: 10, lever: 15 }
export const frontCost = (m: FrontMoveTo): number => (m.do === 'set' ? FRONT_SET_COST[m.what] : FRONT_COST[m.do])

/** The whole answer. Chances 0 to 1; places in mm from the ideals, + outboard. */
export type FrontAdvice = {
  move: FrontMoveTo
  right: number
  /** Chance of right once the move is done as said; null for a check. */
  after: number | null
  causes: Record<FrontCause, number>
  /** The check that tells most for its cost, and what it tells apart, nats. */
  nextCheck: { move: FrontCheck; tells: number } | null
  /** Where the cage stands on each ring's click, reached outward and inward. */
  clicks: { ring: number; outward: Spread; inward: Spread }[]
  stops: { L: Spread; H: Spread }
  backlashMm: Spread
  heightMm: Spread
  angleDeg: Spread
  /** Turns of barrel from here between which it would most likely be right; null when hardly anywhere. */
  barrelTurns: { from: number; to: number } | null
  /** Chance that a shift to this ring throws the chain, as things stand. */
  thrown: { inboard: number; outboard: number }
}
export type Spread = { mean: number; sd: number }

/** Said done from here; falls with the work spent. */
const DONE = { early: 0.92, late: 0.86, lateCost: 30 }
/** No shift whose predicted chance of a thrown chain passes this, if something safer tells more. */
const THROWN_LIMIT = 0.02
/** A part or the position is blamed from here. */
const BLAME: Record<FrontFault, number> = { height: 0.5, angle: 0.5, friction: 0.85, pull: 0.9 }
const SET_FOR: Record<FrontFault, FrontSet> = {
  height: 'position',
  angle: 'position',
  friction: 'cable',
  pull: 'lever',
}
/** A screw is turned when its own chance of standing right gains so much. */
const GAIN = 0.1
/** A new clamp is worth it when it gains so much over the best barrel turn. */
const CLAMP_GAIN = 0.12
/** Turns from the count at the last clamp beyond which a front barrel has no thread left. `model` */
const BARREL_REACH_TURNS = 2.5
const MAX_SIXTEENTHS: Record<FrontScrew, number> = { barrel: 32, H: 24, L: 24 }

type Read = { guess: FrontGuess; window: FrontWindow; faults: Record<FrontFault, boolean>; weight: number }

/**
 * What is wrong with a front derailleur, how sure that is, and the one best next move.
 * @param setup parts, sprocket gaps in mm (smallest first), width over the chain's plates in mm
 * @throws RangeError naming what makes no sense
 */
export function adviseFront(
  setup: FrontSetup,
  log: readonly FrontSight[],
  options: { seed?: number } = {},
): FrontAdvice {
  positiveList('pitchMm', [...setup.pitchMm])
  return considerFront(believeFront(frontGeometry(setup), log, options.seed), log)
}

/** As `adviseFront`, pausing after each entry. */
export async function adviseFrontInSteps(
  setup: FrontSetup,
  log: readonly FrontSight[],
  pause: () => Promise<void>,
): Promise<FrontAdvice> {
  const following = followFront(frontGeometry(setup), log)
  for (;;) {
    const next = following.next()
    if (next.done) return considerFront(next.value, log)
    await pause()
  }
}

/** The advice of a belief. */
function considerFront(belief: FrontBelief, log: readonly FrontSight[]): FrontAdvice {
  const { geometry: g, guesses, weights } = belief
  const reads = guesses.map((guess, i): Read => ({
    guess,
    window: frontWindow(g, guess),
    faults: frontFaults(g, guess),
    weight: weights[i],
  }))
  const chance = (is: (r: Read) => boolean) => reads.reduce((s, r) => s + (is(r) ? r.weight : 0), 0)
  const spread = (of: (r: Read) => number): Spread => {
    const mean = reads.reduce((s, r) => s + r.weight * of(r), 0)
    return { mean, sd: Math.sqrt(reads.reduce((s, r) => s + r.weight * (of(r) - mean) ** 2, 0)) }
  }
  const right = chance(r => frontIsRight(g, r.guess, r.window))
  const outside = (x: number, { from, to }: Span) => x < from || x > to
  const causes: Record<FrontCause, number> = {
    tension: chance(r => r.window.slack.from <= r.window.slack.to && outside(r.guess.slackMm, r.window.slack)),
    L: chance(r => outside(r.guess.stopLMm, r.window.L)),
    H: chance(r => outside(r.guess.stopHMm, r.window.H)),
    height: chance(r => r.faults.height),
    angle: chance(r => r.faults.angle),
    friction: chance(r => r.faults.friction),
    pull: chance(r => r.faults.pull),
  }
  const thrown = {
    inboard: reads.reduce((s, r) => s + r.weight * shiftChances(g, r.guess, 1, 0)['falls-inboard'], 0),
    outboard: reads.reduce(
      (s, r) => s + r.weight * shiftChances(g, r.guess, g.rings - 2, g.rings - 1)['falls-outboard'],
      0,
    ),
  }
  const checks = checksOf(g, reads, thrown)
  const nextCheck = checks[0] ? { move: checks[0].move, tells: checks[0].tells } : null
  const { move, after } = decide(belief, log, reads, right, causes, checks)
  return {
    move,
    right,
    after,
    causes,
    nextCheck,
    thrown,
    clicks: Array.from({ length: g.rings }, (_, ring) => ({
      ring,
      outward: spread(r => cageOffMm(g, r.guess, ring, true)),
      inward: spread(r => cageOffMm(g, r.guess, ring, false)),
    })),
    stops: { L: spread(r => r.guess.stopLMm), H: spread(r => r.guess.stopHMm) },
    backlashMm: spread(r => r.guess.backlashMm),
    heightMm: spread(r => r.guess.heightMm),
    angleDeg: spread(r => r.guess.angleDeg),
    barrelTurns: barrelWindow(reads),
  }
}

/** How a screw turned by so much leaves a guess. */
function turnedGuess(b: FrontGuess, screw: FrontScrew, sixteenths: number): FrontGuess {
  const turns = sixteenths / 16
  if (screw === 'barrel') return { ...b, slackMm: b.slackMm + b.perBarrel * turns }
  return screw === 'L' ? { ...b, stopLMm: b.stopLMm + b.perL * turns } : { ...b, stopHMm: b.stopHMm - b.perH * turns }
}
const placeOf: Record<FrontScrew, (r: Read) => { at: number; per: number; span: Span }> = {
  barrel: r => ({ at: r.guess.slackMm, per: r.guess.perBarrel, span: r.window.slack }),
  L: r => ({ at: r.guess.stopLMm, per: r.guess.perL, span: r.window.L }),
  H: r => ({ at: r.guess.stopHMm, per: -r.guess.perH, span: r.window.H }),
}

type Turn = { screw: FrontScrew; sixteenths: number; now: number; best: number }

/** The eighth at which a screw most likely stands right, all else left out of account. */
function bestTurn(reads: readonly Read[], screw: FrontScrew): Turn {
  const most = MAX_SIXTEENTHS[screw] / 2
  const sums = new Float64Array(2 * most + 1)
  for (const r of reads) {
    const { at, per, span } = placeOf[screw](r)
    if (span.from > span.to) continue
    const [a, b] = [((span.from - at) / per) * 8, ((span.to - at) / per) * 8]
    const from = Math.max(-most, Math.ceil(Math.min(a, b)))
    const to = Math.min(most, Math.floor(Math.max(a, b)))
    for (let e = from; e <= to; e++) sums[e + most] += r.weight
  }
  // among as good ones the middle, so that a little more or less does not matter
  const best = Math.max(...sums)
  const good = [...sums.keys()].filter(i => sums[i] >= best - 0.01)
  const middle = good.reduce((s, i) => s + i, 0) / good.length
  const at = good.reduce((x, i) => (Math.abs(i - middle) < Math.abs(x - middle) ? i : x), good[0])
  return { screw, sixteenths: 2 * (at - most), now: sums[most], best: sums[at] }
}

/** Chance that the cable, drawn anew, would stand right: snug with the cage on its inner stop, or on the big ring for a rotating cage. */
const chanceClamped = (g: FrontGeometry, reads: readonly Read[]): number =>
  reads.reduce((s, { guess, window: { slack }, weight }) => {
    const at = g.parts.cage === 'rotating' ? 0 : guess.stopLMm
    return (
      s +
      (slack.from > slack.to
        ? 0
        : weight * (normalBelow((slack.to - at) / SNUG_SD_MM) - normalBelow((slack.from - at) / SNUG_SD_MM)))
    )
  }, 0)

function barrelWindow(reads: readonly Read[]): { from: number; to: number } | null {
  const most = MAX_SIXTEENTHS.barrel
  const good = Array.from({ length: 2 * most + 1 }, (_, i) => i - most).filter(
    x =>
      reads.reduce((s, r) => {
        const { at, per, span } = placeOf.barrel(r)
        const place = at + per * (x / 16)
        return s + (place >= span.from && place <= span.to ? r.weight : 0)
      }, 0) >= 0.5,
  )
  return good.length ? { from: good[0] / 16, to: good.at(-1)! / 16 } : null
}

function decide(
  { geometry: g, net }: FrontBelief,
  log: readonly FrontSight[],
  reads: readonly Read[],
  right: number,
  causes: Record<FrontCause, number>,
  checks: readonly Check[],
): { move: FrontMoveTo; after: number | null } {
  const spent = log.reduce((s, e) => s + costOfSight(e), 0)
  const enough = Math.max(DONE.late, DONE.early - (DONE.early - DONE.late) * (spent / DONE.lateCost))
  // position comes first: all else is set to it
  if (!log.some(e => e.kind === 'frontPosition' || (e.kind === 'frontSet' && e.what === 'position')))
    return { move: { do: 'position' }, after: null }
  if (right >= enough) return { move: { do: 'done' }, after: right }
  const blamed = [...FRONT_FAULTS].sort((a, b) => causes[b] - causes[a]).find(f => causes[f] >= BLAME[f])
  const whole = (what: FrontSet) => ({ move: { do: 'set', what } as const, after: null })
  if (
    blamed &&
    !(blamed === 'friction' && setAlready(log, 'cable')) &&
    !(blamed === 'pull' && setAlready(log, 'lever'))
  )
    return whole(SET_FOR[blamed])
  const chanceAfter = (t: Turn) =>
    reads.reduce(
      (s, r) => s + (frontIsRight(g, turnedGuess(r.guess, t.screw, t.sixteenths), r.window) ? r.weight : 0),
      0,
    )
  const turns = (['L', 'H', 'barrel'] as const)
    .map(s => bestTurn(reads, s))
    .filter(t => t.sixteenths !== 0 && t.best - t.now >= GAIN)
    .sort((a, b) => b.best - b.now - (a.best - a.now))
  const justTurned =
    log.at(-1)?.kind === 'frontTurn' ? (log.at(-1) as Extract<FrontSight, { kind: 'frontTurn' }>).screw : null
  const best = turns.find(t => t.screw !== justTurned && t.best >= 0.5)
  const clamp = chanceClamped(g, reads)
  const barrel = bestTurn(reads, 'barrel')
  // far off, drawing the cable anew is one step for what the barrel has no thread for, or nobody knows how far to turn
  if (
    causes.tension >= 0.5 &&
    clamp - Math.max(barrel.now, barrel.best) >= CLAMP_GAIN &&
    log.at(-1)?.kind !== 'frontSet' &&
    (!best || best.screw === 'barrel')
  )
    return whole('clamp')
  if (best) {
    if (best.screw === 'barrel' && Math.abs(net.barrel + best.sixteenths / 16) > BARREL_REACH_TURNS)
      return whole('clamp')
    return { move: { do: 'turn', screw: best.screw, sixteenths: best.sixteenths }, after: chanceAfter(best) }
  }
  const check = checks.find(c => c.rate > 0.015)
  if (check) return { move: check.move, after: null }
  const weak = turns.find(t => t.screw !== justTurned)
  if (weak) return { move: { do: 'turn', screw: weak.screw, sixteenths: weak.sixteenths }, after: chanceAfter(weak) }
  return { move: { do: 'done' }, after: right }
}

const setAlready = (log: readonly FrontSight[], what: FrontSet) =>
  log.some(e => e.kind === 'frontSet' && e.what === what)
const costOfSight = (e: FrontSight): number => {
  switch (e.kind) {
    case 'frontTurn':
      return FRONT_COST.turn
    case 'frontShift':
      return FRONT_COST.shift
    case 'frontGap':
      return FRONT_COST.gap
    case 'frontPosition':
      return FRONT_COST.position
    case 'frontHand':
      return FRONT_COST.hand
    case 'frontUndone':
      return FRONT_COST.undone
    case 'frontSet':
      return FRONT_SET_COST[e.what]
  }
}

type Check = { move: FrontCheck; tells: number; rate: number }
const SAMPLE = 250

/** Every check that is safe enough, the one that tells most for its cost first. */
function checksOf(g: FrontGeometry, reads: readonly Read[], thrown: { inboard: number; outboard: number }): Check[] {
  const sample = sampled(reads)
  const kinds = sample.map(kindOf)
  const weights = new Float64Array(sample.length).fill(1 / sample.length)
  const out: Check[] = []
  const add = (move: FrontCheck, chances: (b: FrontGuess) => ArrayLike<number>) => {
    const shows = sample.map(r => chances(r.guess))
    const tells = mutualInformation(jointOf(weights, kinds, shows))
    out.push({ move, tells, rate: tells / frontCost(move) })
  }
  for (let ring = 0; ring + 1 < g.rings; ring++)
    for (const [from, to] of [
      [ring, ring + 1],
      [ring + 1, ring],
    ]) {
      if (to === 0 && thrown.inboard > THROWN_LIMIT) continue
      if (to === g.rings - 1 && thrown.outboard > THROWN_LIMIT) continue
      add({ do: 'shift', from, to }, b => {
        const c = shiftChances(g, b, from, to)
        return FRONT_SEEN.map(s => reported(c, s))
      })
    }
  for (const plate of ['inner', 'outer'] as const) {
    if (plate === 'outer' && thrown.outboard > THROWN_LIMIT) continue
    add({ do: 'gap', plate }, b => inBins(GAP_BINS, endGapMm(g, b, plate), FRONT_MEASURE.gapMm))
  }
  const sd = angleSdDeg(g)
  add({ do: 'position' }, b =>
    cross(inBins(HEIGHT_BINS, b.heightMm, FRONT_MEASURE.heightMm), inBins(ANGLE_BINS, b.angleDeg, sd)),
  )
  add({ do: 'hand' }, b => Object.values(handChances(b)))
  add({ do: 'undone' }, b => {
    const d = dropsUndone(g, b)
    return [d, 1 - d]
  })
  return out.sort((a, b) => b.rate - a.rate)
}

const bins = (from: number, to: number, step: number): number[] =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step)
const GAP_BINS = bins(-3, 5, 0.5)
const HEIGHT_BINS = bins(0, 5, 1)
const ANGLE_BINS = bins(-2.5, 2.5, 1)

/** Chances that a measured figure falls between the edges, and beyond them; never quite 0. */
function inBins(edges: readonly number[], mean: number, sd: number): Float64Array {
  const out = new Float64Array(edges.length + 1)
  let before = 0
  for (let i = 0; i < edges.length; i++) {
    const below = normalBelow((edges[i] - mean) / sd)
    out[i] = below - before + 1e-4
    before = below
  }
  out[edges.length] = 1 - before + 1e-4
  return out
}

/** Both together, independent of each other. */
function cross(a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(a.length * b.length)
  for (let i = 0; i < a.length; i++) for (let j = 0; j < b.length; j++) out[i * b.length + j] = a[i] * b[j]
  return out
}

/** A manageable number of guesses, systematically by weight, alike in weight then. */
function sampled(reads: readonly Read[]): Read[] {
  const times = systematic(
    reads.map(r => r.weight),
    SAMPLE,
    0.5,
  )
  return reads.flatMap((r, i) => new Array<Read>(times[i]!).fill(r))
}

/** The answer a guess stands for: each screw too far in, right or too far out, or one of the faults. */
function kindOf(r: Read): number {
  const fault = FRONT_FAULTS.findIndex(f => r.faults[f])
  if (fault >= 0) return 27 + fault
  const third = (x: number, { from, to }: Span) => (x < from ? 0 : x > to ? 2 : 1)
  return (
    third(r.guess.slackMm, r.window.slack) +
    3 * third(r.guess.stopLMm, r.window.L) +
    9 * third(r.guess.stopHMm, r.window.H)
  )
}
