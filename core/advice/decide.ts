import { costOf, PATIENCE, type BenchEvent, type Part } from '../rear/benchEvents'
import type { Cause } from '../response/causes'
import { bestEighth, weightedQuantile, type Analysis } from './analysis'
import { CURABLE, type Curable } from './blames'
import { asPass, checksFor, PASS_CLICK, passRange, type Check } from './checks'
import type { AdviceOptions, AdviceOrder, Move } from './contract'
import { asListened, openOfFirstFour } from './listening'
import { declineKey } from './moveKey'
import { snugCableMm } from '../response/setup'
import type { Posterior } from './posterior'
import { lastReachable, mayReachLargest, stopsSeen } from '../rear/gates'
import { asSeen, limitMoves, stopTurn, type Placing } from '../rear/asSeen'
import type { Trace } from '../rear/trace'
import { STOP_SCREW } from '../response/parameters'

/** Thresholds of the decision; `model`, chosen on the simulated bench. */
export const DECIDE = {
  /** A stop screw is turned when the chance of a safe stop gains this. */
  stopGain: 0.03,
  /** A stop less sure than this is seen again once the rest is known. */
  stopSeenAgain: 0.93,
  /** Less sure than this it is seen once more before "done". */
  stopSureAtLast: 0.98,
  /** Done at this chance of right, falling late. */
  doneAt: 0.95,
  doneLate: 0.88,
  /** With passes, which go over every sprocket before it. */
  doneAfterPass: 0.93,
  /** A barrel turn must gain this chance of right; the last one before stopping less, as it needs no check after it. */
  turnGain: 0.08,
  lastTurnGain: 0.015,
  /** A part is renewed when this sure that it is needed, falling as cost mounts. */
  partAt: 0.95,
  partLate: 0.77,
  /** A check that tells less than this for its cost is not worth making. */
  tellsLittle: 0.004,
  /** Tension counts as unknown while the cable's offset is spread wider than this, mm. */
  tensionUnknownMm: 0.5,
  /** Where a stop is seen late: once all else is this sure, or patience runs out. */
  othersSure: 0.85,
  lateCost: 34,
  budget: PATIENCE,
} as const

export type Decision = { move: Move; best: { turns: number; right: number }; check: Check | null }

/** What to do next, and the check that would tell most. Follows model, section 4. */
export function decide(
  posterior: Posterior,
  analysis: Analysis,
  log: readonly BenchEvent[],
  options: AdviceOptions = {},
): Decision {
  const found = decideAsSeen(posterior, analysis, log, options)
  const open =
    found.move.do === 'done' && options.listening === 'firstFour' && posterior.trace.cost < DECIDE.budget - 10
      ? openOfFirstFour(log, posterior.geometry.n)
      : null
  if (open && !options.declined?.includes(declineKey(open))) return { ...found, move: open, check: null }
  // nothing is called done on a stop that nobody has seen
  const unseen = unseenStop(posterior.trace)
  return found.move.do === 'done' && unseen ? { ...found, move: { do: 'sight', at: unseen }, check: null } : found
}

const unseenStop = (trace: Trace): 'L' | 'H' | null => (!mayReachLargest(trace) ? 'L' : !trace.seenH ? 'H' : null)

/** Which stop is looked at now, by the order of the work; null while that can wait. */
function stopToSee(
  { trace }: Posterior,
  analysis: Analysis,
  log: readonly BenchEvent[],
  best: { right: number },
  order: AdviceOrder,
): 'L' | 'H' | null {
  if (order === 'stopsFirst') return unseenStop(trace)
  if (!trace.seenH) {
    const listened = log.filter(e => e.kind === 'shift' || e.kind === 'edge' || e.kind === 'offset').length
    const known = listened > 0 && analysis.offsetMm.sd < DECIDE.tensionUnknownMm
    if (order === 'climbThenL' || known || listened >= 6 || trace.cost >= DECIDE.lateCost) return 'H'
  }
  if (mayReachLargest(trace)) return null
  // all but L: its own doubt is left out of the sum
  const others = Math.min(1, best.right / Math.max(0.05, analysis.stops.L.good))
  return others >= DECIDE.othersSure && best.right - analysis.right < DECIDE.turnGain ? 'L' : lateL(trace)
}
const lateL = (trace: Trace): 'L' | null => (trace.cost >= DECIDE.lateCost ? 'L' : null)

/** The first check after arrival: one click from the end where the cable is slack, while the tension is unknown. */
function firstClick({ trace, geometry: g }: Posterior, analysis: Analysis, log: readonly BenchEvent[]): Move | null {
  const listened = log.some(e => e.kind === 'shift' || e.kind === 'unclean' || e.kind === 'edge' || e.kind === 'offset')
  if (listened || analysis.offsetMm.sd < DECIDE.tensionUnknownMm) return null
  // of two sprockets the next one is the largest
  if (trace.lever === 0) return lastReachable(trace, g.n) > 0 ? { do: 'shift', to: 1 } : null
  return trace.lever === g.n - 1 ? { do: 'shift', to: g.n - 2 } : null
}

function decideAsSeen(
  posterior: Posterior,
  analysis: Analysis,
  log: readonly BenchEvent[],
  {
    passes = false,
    order = 'stopsFirst',
    placing,
    listening = 'oneClick',
    startTurnsOut,
    declined = [],
  }: AdviceOptions,
): Decision {
  const { trace } = posterior
  const may = (move: Move | null): move is Move => move !== null && !declined.includes(declineKey(move))
  const best = bestEighth(analysis, trace.barrelTurns)
  const answer = (move: Move, check: Check | null = null): Decision => ({ move, best, check })
  const see = stopToSee(posterior, analysis, log, best, order)
  if (see && may({ do: 'sight', at: see })) return answer({ do: 'sight', at: see })
  if (see === 'L' && order === 'stopsFirst' && !trace.seenH && may({ do: 'sight', at: 'H' }))
    return answer({ do: 'sight', at: 'H' })
  const spent = spentOf(trace, log, passes)
  if (spent >= DECIDE.budget - 2) return answer({ do: 'done' })
  const stop = stopMove(posterior, analysis, log, best, placing, may)
  if (stop) return answer(stop)
  const first = order === 'stopsFirst' ? null : firstClick(posterior, analysis, log)
  if (may(first)) return answer(first)

  const late = Math.min(1, Math.max(0, (spent - 28) / 26))
  const doneEarly = passes ? DECIDE.doneAfterPass : DECIDE.doneAt
  const doneAt = doneEarly + late * (DECIDE.doneLate - doneEarly)
  if (best.right >= doneAt) {
    const turn: Move = { do: 'turn', screw: 'barrel', turns: best.turns - trace.barrelTurns }
    if (best.right - analysis.right > DECIDE.lastTurnGain && may(turn)) return answer(turn)
    const last = passes ? lastPass(posterior, analysis, log, spent) : null
    if (may(last)) return answer(last)
    const at = lookAgain(trace, analysis, log, DECIDE.stopSureAtLast)
    return answer(at && spent < DECIDE.budget - 10 && may({ do: 'sight', at }) ? { do: 'sight', at } : { do: 'done' })
  }

  const part = partMove(analysis, log, best.right, spent)
  if (may(part)) return answer(part)
  if (analysis.outOfReach > 0.5 && best.right < 0.5 && analysis.windowExists > 0.5) {
    const reclamp = reclampMove(posterior, analysis, startTurnsOut)
    if (may(reclamp)) return answer(reclamp)
  }

  const gain = best.right - analysis.right
  const justTurned = log.at(-1)?.kind === 'turn'
  const mayTurn = may({ do: 'turn', screw: 'barrel', turns: 1 })
  const aim = gain > DECIDE.turnGain && mayTurn ? best.turns - trace.barrelTurns : 0
  const checks = checksFor(posterior, analysis, aim).filter(
    c => c.tells / c.cost > DECIDE.tellsLittle && !isRepeat(c.move, log) && may(c.move),
  )
  const check = asListened(checks, listening, log, trace.lever)[0] ?? null
  if (aim !== 0 && !justTurned) {
    if (check?.move.do === 'edge') return answer(check.move, check)
    return answer({ do: 'turn', screw: 'barrel', turns: aim }, check)
  }
  if (check) {
    const walked =
      passes && check.move.do === 'shift' && listening !== 'twoClicks'
        ? asPass(check.move, posterior, analysis)
        : check.move
    return answer(walked, check)
  }
  const last = whenNothingTells(analysis, log, best, trace.barrelTurns)
  return answer(may(last) ? last : { do: 'done' }, check)
}

/**
 * The same edge at once again, or a third time since the barrel last went elsewhere: what it was wrong about it would
 * be wrong about again.
 */
function isRepeat(move: Check['move'], log: readonly BenchEvent[]): boolean {
  if (move.do !== 'edge') return false
  let times = 0
  let atOnce = true
  for (const e of [...log].reverse()) {
    if (e.kind === 'replace' || e.kind === 'reclamp' || e.kind === 'turn') break
    if (e.kind !== 'edge') continue
    const same = e.click === move.click && e.way === move.way
    if (same && (atOnce || ++times === 2)) return true
    if (e.turns !== 0) break
    atOnce = false
  }
  return false
}

/** What the log cost so far: with passes, a click that goes on from a clean arrival costs a fifth. */
function spentOf(trace: Trace, log: readonly BenchEvent[], passes: boolean): number {
  if (!passes) return trace.cost
  return log.reduce((spent, e, i) => {
    const before = log[i - 1]
    const goesOn =
      e.kind === 'shift' && before?.kind === 'shift' && before.heard === 'clean' && Math.abs(e.to - e.from) === 1
    return spent + (goesOn ? PASS_CLICK : costOf(e))
  }, 0)
}

/**
 * The last look before "done": over every sprocket nobody has been on since its teeth were new, listening for skips.
 */
function lastPass(posterior: Posterior, analysis: Analysis, log: readonly BenchEvent[], spent: number): Move | null {
  const { n } = posterior.geometry
  const { lever } = posterior.trace
  if (spent >= DECIDE.budget - 10) return null
  const renewed = log.findLastIndex(e => e.kind === 'replace' && e.part === 'cassette')
  const been = new Set(log.slice(renewed + 1).flatMap(e => (e.kind === 'shift' || e.kind === 'unclean' ? [e.to] : [])))
  const { from, to } = passRange(posterior, analysis)
  const left = (a: number, b: number) => {
    let unseen = 0
    for (let k = Math.min(a, b); k <= Math.max(a, b); k++) if (!been.has(k) && k !== lever) unseen++
    return unseen
  }
  const end = left(lever, to) >= left(lever, from) ? to : from
  if (left(from, to) < Math.ceil(n / 4) || end === lever || left(lever, end) === 0) return null
  return { do: 'pass', to: end, back: false }
}

/**
 * A stop screw is turned where the chance of a well-set stop gains by it, and to where a school wants it; never against
 * what was seen (`asSeen`).
 */
function stopMove(
  { geometry: g, trace }: Posterior,
  analysis: Analysis,
  log: readonly BenchEvent[],
  best: { right: number },
  placing: Placing | undefined,
  may: (move: Move) => boolean,
): Move | null {
  const seenNow = stopsSeen(trace)
  for (const at of ['L', 'H'] as const) {
    if (!seenNow[at]) continue
    const { good, bestTurns, bestGood, offsetMm } = analysis.stops[at]
    const seen = asSeen(at, log, g.n, placing)
    const mayTurn = (turns: number) =>
      turns !== 0 && !seen.shut[limitMoves(at, turns)] && may({ do: 'turn', screw: at, turns })
    if (placing && seen.awayMm !== null) {
      const turns = stopTurn(at, offsetMm.mean, placing[at], STOP_SCREW.mmPerTurn)
      if (mayTurn(turns)) return { do: 'turn', screw: at, turns }
    }
    if (mayTurn(bestTurns) && bestGood - good >= DECIDE.stopGain) return { do: 'turn', screw: at, turns: bestTurns }
    const last = log.findLastIndex(e => (e.kind === 'turn' && e.screw === at) || (e.kind === 'sight' && e.at === at))
    if (last >= 0 && log[last].kind === 'turn' && good < DECIDE.stopSeenAgain && may({ do: 'sight', at }))
      return { do: 'sight', at }
  }
  // all but the stops is known well: look once more at the one that is least sure
  const again = lookAgain(trace, analysis, log, DECIDE.stopSeenAgain)
  return again && best.right > 0.85 * analysis.stops[again].good && may({ do: 'sight', at: again })
    ? { do: 'sight', at: again }
    : null
}

/** The stop that is least sure, where it is less sure than that and was not looked at three times as it stands. */
function lookAgain(trace: Trace, analysis: Analysis, log: readonly BenchEvent[], sure: number): 'L' | 'H' | null {
  const at = analysis.stops.L.good < analysis.stops.H.good ? 'L' : 'H'
  if (!stopsSeen(trace)[at] || analysis.stops[at].good >= sure) return null
  const moved = log.findLastIndex(e => (e.kind === 'turn' && e.screw === at) || e.kind === 'replace')
  return log.slice(moved + 1).filter(e => e.kind === 'sight' && e.at === at).length < 3 ? at : null
}

function partMove(analysis: Analysis, log: readonly BenchEvent[], bestRight: number, cost: number): Move | null {
  const late = Math.min(1, Math.max(0, (cost - 22) / 38))
  const sure = DECIDE.partAt + late * (DECIDE.partLate - DECIDE.partAt)
  if (analysis.wear.any > sure) return { do: 'replace', part: 'cassette', cause: 'wear' }
  const cause = [...CURABLE].sort((a, b) => analysis.needed[b] - analysis.needed[a])[0]
  const needed = analysis.needed[cause]
  if (needed < sure || needed < bestRight || renewedFor(cause, log)) return null
  return gaugedFirst(log, cause) ?? replaceFor(cause, analysis)
}

/** The gauge comes before any hanger, and before a shifter when a hanger is possible. */
function gaugedFirst(log: readonly BenchEvent[], cause: Curable): Move | null {
  if (cause === 'friction') return null
  const renewed = log.findLastIndex(e => e.kind === 'replace' && e.part === 'hanger')
  // an eye is no gauge
  const gauged = log.findLastIndex(e => e.kind === 'hanger' && e.sdDeg === undefined)
  if (gauged > renewed || (renewed >= 0 && cause === 'mismatch')) return null
  return { do: 'hanger' }
}

/** A part renewed once for this cause is not renewed for it again: the belief must be wrong elsewhere. */
const renewedFor = (cause: Curable, log: readonly BenchEvent[]): boolean =>
  log.some(
    e =>
      e.kind === 'replace' &&
      (e.part === PART_FOR[cause] || (cause === 'mismatch' && (e.part === 'cassette' || e.part === 'derailleur'))),
  )

const PART_FOR: Record<Curable, Part> = { friction: 'cable', hanger: 'hanger', mismatch: 'shifter' }

function replaceFor(cause: Curable, analysis: Analysis): Move {
  const part = cause === 'mismatch' && analysis.wear.any > 0.2 ? 'cassette' : PART_FOR[cause]
  return { do: 'replace', part, cause: cause satisfies Cause }
}

/**
 * Where to put the barrel so that the window, as far as it is known, is reached with travel left both ways; where a
 * school starts it, as long as the window is then within the thread.
 */
function reclampMove(posterior: Posterior, analysis: Analysis, startTurnsOut: number | undefined): Move {
  const { setup, geometry, trace } = posterior
  const need = weightedQuantile(
    analysis.readings.map(({ belief, middle, weight }) => {
      return [middle - trace.barrelTurns + (belief.cableMm - snugCableMm(geometry, belief)) / geometry.threadMm, weight]
    }),
    0.5,
  )
  const range = setup.barrelTurnsRange
  if (
    startTurnsOut !== undefined &&
    startTurnsOut + need >= 0 &&
    startTurnsOut + need <= range &&
    startTurnsOut <= range / 2
  )
    return { do: 'reclamp', barrelTurnsOut: startTurnsOut }
  const spare = Math.min(1.5, range / 2)
  const at = Math.min(range - spare, Math.max(spare, range / 2 - need))
  return { do: 'reclamp', barrelTurnsOut: Math.round(at * 2) / 2 }
}

/** No check is worth its cost: cure what is most blamed, or turn to the best that is left, or stop. */
function whenNothingTells(
  analysis: Analysis,
  log: readonly BenchEvent[],
  best: { turns: number; right: number },
  barrelTurns: number,
): Move {
  const cause = [...CURABLE].sort((a, b) => analysis.needed[b] - analysis.needed[a])[0]
  if (analysis.needed[cause] > 0.6 && analysis.needed[cause] > best.right && !renewedFor(cause, log))
    return gaugedFirst(log, cause) ?? replaceFor(cause, analysis)
  if (best.right > analysis.right + 0.02 && log.at(-1)?.kind !== 'turn')
    return { do: 'turn', screw: 'barrel', turns: best.turns - barrelTurns }
  return { do: 'done' }
}
