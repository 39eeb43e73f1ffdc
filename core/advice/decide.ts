import { PATIENCE, type BenchEvent, type Part } from '../rear/benchEvents'
import type { Cause } from '../response/causes'
import { CURABLE, weightedQuantile, type Analysis, type Curable } from './analysis'
import { checksFor, type Check } from './checks'
import type { Move } from './contract'
import { snugCableMm } from '../response/setup'
import type { Posterior } from './posterior'
import { mayReachLargest } from '../rear/gates'

/** Thresholds of the decision; `model`, chosen on the simulated bench. */
export const DECIDE = {
  /** A stop screw is turned when the chance of a safe stop gains this. */
  stopGain: 0.03,
  /** A stop less sure than this is seen again once the rest is known. */
  stopSeenAgain: 0.93,
  /** Done at this chance of right, falling late. */
  doneAt: 0.95,
  doneLate: 0.88,
  /** A barrel turn must gain this chance of right; the last one before stopping less, as it needs no check after it. */
  turnGain: 0.08,
  lastTurnGain: 0.015,
  /** A part is renewed when this sure that it is needed, falling as cost mounts. */
  partAt: 0.95,
  partLate: 0.77,
  /** A check that tells less than this for its cost is not worth making. */
  tellsLittle: 0.004,
  budget: PATIENCE,
} as const

export type Decision = { move: Move; best: { turns: number; right: number }; check: Check | null }

/** What to do next, and the check that would tell most. Follows model, section 4. */
export function decide(posterior: Posterior, analysis: Analysis, log: readonly BenchEvent[]): Decision {
  const { trace } = posterior
  const best = bestEighth(analysis, trace.barrelTurns)
  const answer = (move: Move, check: Check | null = null): Decision => ({ move, best, check })
  if (!mayReachLargest(trace)) return answer({ do: 'sight', at: 'L' })
  if (!trace.seenH) return answer({ do: 'sight', at: 'H' })
  if (trace.cost >= DECIDE.budget - 2) return answer({ do: 'done' })
  const stop = stopMove(analysis, log, best)
  if (stop) return answer(stop)

  const late = Math.min(1, Math.max(0, (trace.cost - 28) / 26))
  const doneAt = DECIDE.doneAt + late * (DECIDE.doneLate - DECIDE.doneAt)
  if (best.right >= doneAt) {
    if (best.right - analysis.right > DECIDE.lastTurnGain)
      return answer({ do: 'turn', screw: 'barrel', turns: best.turns - trace.barrelTurns })
    return answer({ do: 'done' })
  }

  const part = partMove(analysis, log, best.right, trace.cost)
  if (part) return answer(part)
  if (analysis.outOfReach > 0.5 && best.right < 0.5 && analysis.windowExists > 0.5)
    return answer(reclampMove(posterior, analysis))

  const gain = best.right - analysis.right
  const justTurned = log.at(-1)?.kind === 'turn'
  const aim = gain > DECIDE.turnGain ? best.turns - trace.barrelTurns : 0
  const checks = checksFor(posterior, analysis, aim)
  const check = checks[0] ?? null
  if (aim !== 0 && !justTurned) {
    if (check?.move.do === 'edge' && check.tells / check.cost > DECIDE.tellsLittle) return answer(check.move, check)
    return answer({ do: 'turn', screw: 'barrel', turns: aim }, check)
  }
  if (check && check.tells / check.cost > DECIDE.tellsLittle) return answer(check.move, check)
  return answer(whenNothingTells(analysis, log, best, trace.barrelTurns), check)
}

/** The eighth with the best chance; of equals the nearest to where the barrel is, on a plateau its middle. */
function bestEighth(analysis: Analysis, barrelTurns: number): { turns: number; right: number } {
  const most = Math.max(...analysis.eighths.map(e => e.right))
  const good = analysis.eighths.filter(e => e.right >= most - 1e-6)
  return good.reduce((a, b) => (Math.abs(b.turns - barrelTurns) < Math.abs(a.turns - barrelTurns) ? b : a))
}

function stopMove(analysis: Analysis, log: readonly BenchEvent[], best: { right: number }): Move | null {
  for (const at of ['L', 'H'] as const) {
    const { good, bestTurns, bestGood } = analysis.stops[at]
    if (bestTurns !== 0 && bestGood - good >= DECIDE.stopGain) return { do: 'turn', screw: at, turns: bestTurns }
    const last = log.findLastIndex(e => (e.kind === 'turn' && e.screw === at) || (e.kind === 'sight' && e.at === at))
    if (last >= 0 && log[last].kind === 'turn' && good < DECIDE.stopSeenAgain) return { do: 'sight', at }
  }
  // all but the stops is known well: look once more at the one that is least sure
  const at = analysis.stops.L.good < analysis.stops.H.good ? 'L' : 'H'
  const good = analysis.stops[at].good
  const seen = log.length - 1 - log.findLastIndex(e => (e.kind === 'turn' && e.screw === at) || e.kind === 'replace')
  const sights = log.slice(log.length - seen).filter(e => e.kind === 'sight' && e.at === at).length
  return good < DECIDE.stopSeenAgain && best.right > 0.85 * good && sights < 3 ? { do: 'sight', at } : null
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
  const gauged = log.findLastIndex(e => e.kind === 'hanger')
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

/** Where to put the barrel so that the window, as far as it is known, is reached with travel left both ways. */
function reclampMove(posterior: Posterior, analysis: Analysis): Move {
  const { setup, geometry, trace } = posterior
  const need = weightedQuantile(
    analysis.readings.map(({ belief, middle, weight }) => {
      return [middle - trace.barrelTurns + (belief.cableMm - snugCableMm(geometry, belief)) / geometry.threadMm, weight]
    }),
    0.5,
  )
  const spare = Math.min(1.5, setup.barrelTurnsRange / 2)
  const at = Math.min(setup.barrelTurnsRange - spare, Math.max(spare, setup.barrelTurnsRange / 2 - need))
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
