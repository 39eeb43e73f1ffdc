import type { BenchEvent } from '../rear/benchEvents'
import { worthOf, type Check } from './checks'
import type { Listening, Move } from './contract'

/** A check of the kind that a school prefers is taken while it tells more than this share of the best. `model` */
const PREFERRED = 0.5
/** The sprockets that usually settle all: the four smallest. `practice` */
const FIRST = 4

/**
 * Checks as the school of listening would have them: of its own kind first, while that tells enough for its cost; then
 * as they came.
 * @param checks the one that tells most for its cost first
 */
export function asListened(checks: readonly Check[], listening: Listening, log: readonly BenchEvent[], lever: number) {
  const own = checks.find(c => isOwn(c.move, listening, log, lever))
  const most = checks[0]
  return own && most && worthOf(own) > PREFERRED * worthOf(most) ? [own, ...checks.filter(c => c !== own)] : checks
}

function isOwn(move: Check['move'], listening: Listening, log: readonly BenchEvent[], lever: number): boolean {
  if (listening === 'twoClicks') return move.do === 'shift' && Math.abs(move.to - lever) === 2
  if (move.do !== 'edge') return false
  if (listening === 'findTheEdge') return move.way === 'out'
  if (listening !== 'middleOfTheRub') return false
  // the other rub of the gear that was last wound in, before any other
  const last = log.findLast(e => e.kind === 'edge')
  return !last || log.at(-1) !== last || (last.click === move.click && last.way !== move.way)
}

/** What makes a gear that was heard another gear. */
const CHANGES: ReadonlySet<BenchEvent['kind']> = new Set(['turn', 'edge', 'reclamp', 'replace', 'bend'])

/**
 * By the first-four school nothing is done before the four smallest were heard as things stand: the arrival that is
 * still open, or null.
 */
export function openOfFirstFour(log: readonly BenchEvent[], n: number): Move | null {
  const changed = log.findLastIndex(e => CHANGES.has(e.kind))
  const since = log.slice(changed + 1)
  const heard = new Set(since.flatMap(e => (e.kind === 'shift' ? [e.to] : [])))
  for (let to = 1; to < Math.min(FIRST, n - 1); to++) if (!heard.has(to)) return { do: 'shift', to }
  return null
}
