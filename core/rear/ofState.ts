import { SCREWS, type ScrewName } from '../chapter/screws'
import { fromSixteenths } from '../quantity/turns'
import { EDGE } from '../response/parameters'
import { costOf } from './benchEvents'
import type { RearState } from './state'

/*
 * What is read off a rear derailleur's state: what is left of the barrel, what would put it back, what it has cost.
 */

/** What is left of the barrel each way, in turns. */
export const barrelLeft = (rear: RearState): { inTurns: number; outTurns: number } | null =>
  rear.setup && {
    inTurns: fromSixteenths(rear.barrelSixteenths),
    outTurns: rear.setup.barrelTurnsRange - fromSixteenths(rear.barrelSixteenths),
  }

/** How far a rub is looked for that way, in whole eighths of a turn: as far as the barrel goes, two turns at most. */
export function edgeLimitTurns(rear: RearState, way: 'out' | 'in'): number {
  const left = barrelLeft(rear)
  const room = left === null ? 0 : way === 'out' ? left.outTurns : left.inTurns
  return Math.min(EDGE.limitTurns, Math.floor(8 * room + 1e-6) / 8)
}

/**
 * Turns that put a screw back as it came in; none where a part or clamp was renewed and there is nothing to go back to.
 */
export function asItCameIn(rear: RearState): Partial<Record<ScrewName, number>> {
  const out: Partial<Record<ScrewName, number>> = {}
  for (const screw of SCREWS) if (!rear.restarted.has(screw) && rear.net[screw] !== 0) out[screw] = -rear.net[screw]
  return out
}

/** What the work so far has cost, in shifts listened to. */
export const workOf = (rear: RearState): number => rear.bench.reduce((sum, e) => sum + costOf(e), 0)
