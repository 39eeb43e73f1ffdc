import { lastReachable, mayReachLargest } from '../rear/gates'
import { emptyJoint, mutualInformation } from '../inference/information'
import { systematic } from '../inference/sampling'
import { NO_WINDOW_TURNS } from '../standards/model'
import { MOVE_COST } from '../rear/benchEvents'
import { degrees } from '../quantity/angle'
import { logistic, thrownChance, type Arrival } from '../response/heard'
import { EDGE, HEARING, MEASURE, WORN_SKIPS } from '../response/parameters'
import { errorPitch, freePlaceMm, restPlaceMm } from '../response/pulley'
import { bestEighth, weightedQuantiles, type Analysis, type Reading } from './analysis'
import { CURABLE } from './blames'
import type { Move } from './contract'
import { lookUp, tablesOf } from './hearingTable'
import type { Posterior } from './posterior'
import { senseOfShift } from '../rear/trace'

/** A check, what it would tell about what to do next (mutual information, nats) and what it costs. */
export type Check = {
  move: Extract<Move, { do: 'shift' | 'edge' | 'offset' | 'hanger' }>
  tells: number
  cost: number
}

/**
 * What a shift tells besides what is reckoned, nats: it ends in another gear, nearer to all that was not thought of.
 * `model`: without it 87.7 % of 300 simulated bikes were won and 89.7 % right at the end, with it 90.0 % and 92.3 %.
 */
const SHIFT_TELLS_BESIDES = 0.007

/** By what checks are chosen: what one tells for its cost, nats for the time of a shift. */
export const worthOf = ({ move, tells, cost }: Check): number =>
  (tells + (move.do === 'shift' ? SHIFT_TELLS_BESIDES : 0)) / cost

/** No shift into an end gear whose chance of a thrown chain passes this (model, section 4). */
export const THROWN_LIMIT = 0.0005

/** What is told apart: how far the best setting is from a bike's window, what keeps it from having one, and worn. */
const PLACES = 7
const WITHIN = (PLACES - 1) / 2
const STOPS = PLACES + 5
const WORN = STOPS + 1
const KINDS = WORN + 1
const SAMPLE = 220
/** From this chance of right the barrel's place is one to come back to. */
const WORTH_KEEPING = 0.5

type Sampled = { reading: Reading; weight: number; kind: number }

/**
 * Every check that is safe now, the one that tells most for its cost first. Shifts are judged `aimTurns` of barrel on.
 */
export function checksFor(posterior: Posterior, analysis: Analysis, aimTurns: number): Check[] {
  const { geometry: g, trace } = posterior
  const sample = sampleOf(analysis, trace.barrelTurns)
  const checks: Check[] = []
  for (let to = 0; to < g.n; to++) {
    const { inward } = senseOfShift(trace, g.n, trace.lever, to)
    const end = to === 0 ? 'smallest' : to === g.n - 1 ? 'largest' : null
    if (end && chainMayBeThrown(posterior, analysis, end)) continue
    checks.push({
      move: { do: 'shift', to },
      tells: shiftTells(posterior, analysis, sample, to, { end, inward, alreadyThere: false }, aimTurns),
      cost: MOVE_COST.shift,
    })
  }
  // from where the barrel is to stay, an edge is followed by winding back
  const windBack = aimTurns === 0 && analysis.right > WORTH_KEEPING ? MOVE_COST.turn : 0
  for (let click = 1; click < g.n - 1; click++)
    for (const way of ['out', 'in'] as const) {
      const limit = Math.min(
        EDGE.limitTurns,
        way === 'out' ? posterior.setup.barrelTurnsRange - trace.barrelTurns : trace.barrelTurns,
      )
      if (limit < 1 / 8) continue
      checks.push({
        move: { do: 'edge', click, way },
        tells: edgeTells(posterior, sample, click, way, limit),
        cost: MOVE_COST.edge + windBack,
      })
    }
  for (const click of new Set([1, Math.floor(g.n / 2), g.n - 2])) {
    if (click > lastReachable(trace, g.n)) continue
    checks.push({
      move: { do: 'offset', click },
      tells: measuredTells(sample, r => restPlaceMm(g, r.belief, click, true) - g.placeMm[click], MEASURE.offsetSdMm),
      cost: MOVE_COST.offset,
    })
  }
  checks.push({
    move: { do: 'hanger' },
    tells: measuredTells(sample, r => degrees(Math.atan(r.belief.camberTan)), MEASURE.hangerSdDeg),
    cost: MOVE_COST.hanger,
  })
  return checks.sort((a, b) => worthOf(b) - worthOf(a))
}

/** Between which sprockets a pass may go without a chain being thrown. */
export function passRange(posterior: Posterior, analysis: Analysis): { from: number; to: number } {
  const { n } = posterior.geometry
  return {
    from: chainMayBeThrown(posterior, analysis, 'smallest') ? 1 : 0,
    to: chainMayBeThrown(posterior, analysis, 'largest') ? n - 2 : n - 1,
  }
}

/**
 * A shift that would tell, made as a pass: on to the end of that way and back, as far as is safe, until something is
 * not clean. What the single arrival would tell decides between it and other checks: weighed by all that a pass may
 * tell, passes came out dearer than their worth on the simulated bench (88.7 % won against 92 %, needless parts 3.3
 * against 1 in 100).
 */
export function asPass(move: Extract<Move, { do: 'shift' }>, posterior: Posterior, analysis: Analysis): Move {
  const { lever } = posterior.trace
  const { from, to } = passRange(posterior, analysis)
  const end = move.to > lever ? to : move.to < lever ? from : lever
  // back again ends where it began: that must be safe to arrive at too
  return end === lever ? move : { do: 'pass', to: end, back: lever >= from && lever <= to }
}

/** What each click of a pass after the first costs, in units of a shift. `model` section 6 */
export const PASS_CLICK = 0.2

/** Is the predicted chance of a thrown chain, shifting into this end as things stand, above the limit? */
export function chainMayBeThrown(posterior: Posterior, analysis: Analysis, end: 'smallest' | 'largest'): boolean {
  const { geometry: g, trace } = posterior
  if (end === 'largest' ? !mayReachLargest(trace) : !trace.seenH) return true
  return thrownChanceOver(posterior, analysis, end, g.n) > THROWN_LIMIT
}

function thrownChanceOver(posterior: Posterior, analysis: Analysis, end: 'smallest' | 'largest', n: number): number {
  const g = posterior.geometry
  const k = end === 'largest' ? n - 1 : 0
  return analysis.readings.reduce((sum, { weight, belief }) => {
    const stop = end === 'largest' ? belief.stopLMm : belief.stopHMm
    return (
      sum +
      weight * thrownChance(end, errorPitch(g, belief, k, end === 'largest'), (stop - g.placeMm[k]) / g.pitchMm[k])
    )
  }, 0)
}

/**
 * A manageable number of particles, systematically by weight, each sorted into the kind of answer it stands for. Places
 * are told apart by how far the best eighth is from their window: where in the window it lies is no matter.
 */
function sampleOf(analysis: Analysis, barrelTurns: number): Sampled[] {
  const best = bestEighth(analysis, barrelTurns).turns
  const middles = analysis.readings.filter(hasWindow).map((r): [number, number] => [r.middle, r.weight])
  const [low, high] = middles.length ? weightedQuantiles(middles, [0.04, 0.96]) : [0, 0]
  const binTurns = Math.max(0.16, (high - low) / PLACES)
  const kindOf = (r: Reading): number => {
    if (hasWindow(r)) {
      const away = best < r.span.from ? r.span.from - best : best > r.span.to ? r.span.to - best : 0
      if (away === 0) return r.stopsSafe && !r.stopSpoils ? WITHIN : STOPS
      return WITHIN + Math.sign(away) * Math.min(WITHIN, 1 + Math.floor(Math.abs(away) / binTurns))
    }
    const blamed = CURABLE.filter(c => r.atFault[c])
    return PLACES + (blamed.length === 1 ? CURABLE.indexOf(blamed[0]) : blamed.length ? 3 : 4)
  }
  const times = systematic(
    analysis.readings.map(r => r.weight),
    SAMPLE,
    0.5,
  )
  return analysis.readings.flatMap((reading, i) =>
    times[i] ? [{ reading, weight: times[i] / SAMPLE, kind: kindOf(reading) }] : [],
  )
}

const hasWindow = (r: Reading): boolean => r.span.to - r.span.from >= NO_WINDOW_TURNS

function shiftTells(
  posterior: Posterior,
  analysis: Analysis,
  sample: Sampled[],
  to: number,
  arrival: Arrival,
  aimTurns: number,
): number {
  const g = posterior.geometry
  const tables = tablesOf(arrival, posterior.ear)
  const outcomes = tables.length + 1 // the last is skips
  const joint = emptyJoint(KINDS, outcomes)
  const { table } = joint
  const moved = aimTurns * g.threadMm
  const worn = analysis.wear.any
  const wornHere = worn > 0 ? analysis.wear.of[to] / worn : 0
  for (const { reading, weight, kind } of sample) {
    const b = reading.belief
    const place = Math.min(
      Math.max(
        freePlaceMm(g, b, to) + b.ratio * moved + (arrival.inward ? -b.backlashInMm : b.backlashOutMm),
        b.stopHMm,
      ),
      b.stopLMm,
    )
    const z = (place - g.placeMm[to]) / g.pitchMm[to] - b.asymmetryPitch
    const lnQ = Math.log(b.sharpness)
    for (let i = 0; i < tables.length; i++) {
      const chance = Math.exp(lookUp(tables[i].table, z, lnQ))
      table[kind * outcomes + i] += weight * (1 - worn) * chance
      table[WORN * outcomes + i] += weight * worn * chance * (1 - wornHere * WORN_SKIPS)
    }
  }
  table[WORN * outcomes + tables.length] = worn * wornHere * WORN_SKIPS
  return mutualInformation(joint)
}

const EDGE_BINS = 17

function edgeTells(posterior: Posterior, sample: Sampled[], click: number, way: 'out' | 'in', limit: number): number {
  const g = posterior.geometry
  const outcomes = EDGE_BINS + 1
  const inboard = (way === 'out') === g.threadMm > 0
  const joint = emptyJoint(KINDS, outcomes)
  const { table } = joint
  for (const { reading, weight, kind } of sample) {
    const b = reading.belief
    const perTurn = b.ratio * Math.abs(g.threadMm)
    const free = freePlaceMm(g, b, click)
    const rub =
      g.placeMm[click] + g.pitchMm[click] * (b.asymmetryPitch + (inboard ? 1 : -1) * HEARING.rub * b.sharpness)
    const turns = inboard
      ? (rub - free + b.backlashInMm) / perTurn
      : free - b.backlashInMm < rub
        ? 0
        : (free + b.backlashOutMm - rub) / perTurn
    const noticed = turns <= 0 ? turns : turns + EDGE.lateTurns
    const scale = 1.702 / Math.sqrt(EDGE.sdTurns ** 2 + ((EDGE.sdPitch * g.pitchMm[click]) / perTurn) ** 2)
    let before = 0
    const row = kind * outcomes
    for (let i = 0; i < EDGE_BINS; i++) {
      const upTo = i / 8 + 1 / 32
      if (upTo > limit) break
      const by = logistic(scale * (upTo - noticed))
      table[row + i] += weight * (by - before)
      before = by
    }
    table[row + EDGE_BINS] += weight * (1 - before)
  }
  return mutualInformation(joint)
}

/** For a measured figure: bins of its own spread, each particle smeared over its neighbours. */
function measuredTells(sample: Sampled[], figure: (r: Reading) => number, sd: number): number {
  const outcomes = 25
  const joint = emptyJoint(KINDS, outcomes)
  const { table } = joint
  const values = sample.map(s => figure(s.reading))
  const centre = values.reduce((s, v, i) => s + v * sample[i].weight, 0)
  sample.forEach(({ weight, kind }, s) => {
    const at = (values[s] - centre) / sd + outcomes / 2
    let before = 0
    for (let i = 0; i < outcomes; i++) {
      const by = i === outcomes - 1 ? 1 : logistic(1.702 * (i + 1 - at))
      table[kind * outcomes + i] += weight * (by - before)
      before = by
    }
  })
  return mutualInformation(joint)
}
