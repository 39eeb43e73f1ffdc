import { finite } from '../quantity/check'
import { toEighth } from '../quantity/turns'
import { STOP_PLACING } from '../standards/model'
import type { BenchEvent } from './benchEvents'

export type Between = { from: number; to: number }
/** Where a school wants the stops' own places, mm from their end sprockets' planes, + inboard. */
export type Placing = { H: Between; L: Between }
/** Where they are wanted unless a school says otherwise. `practice`: in line, never further inboard at the largest */
export const PLACING: Placing = STOP_PLACING
/** So near to where it is wanted a stop counts as standing there, mm; an eye is no better. `practice` */
const NEAR_MM = 0.25
/** L this far outboard still counts as in line, mm. */
const IN_LINE_MM = 0.05

/** Is this event one after which what was seen of the stops no longer counts? */
const movedStops = (e: BenchEvent): boolean =>
  e.kind === 'bend' || (e.kind === 'replace' && e.part !== 'cable' && e.part !== 'shifter')

/**
 * A stop as it was last seen by hand, and what came since; null when it was not seen, or has moved since by other work.
 */
function lastSeen(
  at: 'H' | 'L',
  log: readonly BenchEvent[],
): { offsetMm: number; since: readonly BenchEvent[] } | null {
  const i = log.findLastIndex(e => movedStops(e) || (e.kind === 'sight' && e.at === at && e.sdMm === undefined))
  const seen = log[i]
  return seen?.kind === 'sight' ? { offsetMm: seen.offsetMm, since: log.slice(i + 1) } : null
}

/**
 * What was seen stands: how a stop may be turned, for what was seen of it. One judgement for advice, stage and sheet.
 * @param n sprockets of the cassette
 * @returns `stands`: seen where it is wanted, not turned since, and nothing but clean heard at its sprocket since: left
 *   alone; `shut`: ways its limit is not moved: further from where it is wanted than it was seen, not turned since and
 *   nothing but clean heard since, and L never towards the spokes where it was seen in line or inboard; `awayMm`: how
 *   far from where it is wanted it was seen, not turned since, null where that is not known or near enough
 */
export function asSeen(
  at: 'H' | 'L',
  log: readonly BenchEvent[],
  n: number,
  placing: Placing = PLACING,
): { stands: boolean; shut: { inboard: boolean; outboard: boolean }; awayMm: number | null } {
  const seen = lastSeen(at, log)
  if (!seen) return { stands: false, shut: { inboard: false, outboard: false }, awayMm: null }
  const { offsetMm, since } = seen
  const { from, to } = placing[at]
  const turned = since.some(e => e.kind === 'turn' && e.screw === at)
  const end = at === 'H' ? 0 : n - 1
  const unclean = since.some(
    e => (e.kind === 'shift' && e.to === end && e.heard !== 'clean') || (e.kind === 'unclean' && e.to === end),
  )
  const away = offsetMm < from ? offsetMm - from : offsetMm > to ? offsetMm - to : 0
  const near = Math.abs(away) <= NEAR_MM
  const holds = !turned && !unclean
  return {
    stands: near && holds,
    shut: {
      inboard: (at === 'L' && offsetMm >= -IN_LINE_MM) || (holds && (near || away > 0)),
      outboard: holds && (near || away < 0),
    },
    awayMm: near || turned ? null : away,
  }
}

/** Which way so many turns of a stop screw, + in, move its limit. `practice` */
export const limitMoves = (stop: 'H' | 'L', turns: number): 'inboard' | 'outboard' =>
  turns > 0 === (stop === 'H') ? 'inboard' : 'outboard'

/**
 * The next turn of a stop screw, in eighths, + in: to the middle of where it is to stand; 0 when it stands there, or as
 * near as an eye can tell.
 * @param target between which offsets it is to stand, mm, + inboard
 */
export function stopTurn(
  stop: 'H' | 'L',
  offsetMm: number,
  target: { from: number; to: number },
  mmPerTurn: number,
): number {
  finite('offsetMm', offsetMm)
  if (offsetMm >= target.from - NEAR_MM && offsetMm <= target.to + NEAR_MM) return 0
  const off = (target.from + target.to) / 2 - offsetMm
  return toEighth((stop === 'H' ? off : -off) / mmPerTurn)
}
