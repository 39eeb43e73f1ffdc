import { toSixteenths } from '../quantity/turns'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { turnsFromReading } from './diagnose'
import { targetMm, type HubParts } from './kinds'
import type { HubState } from './state'

/** What is to be turned, and whether it is known or tried to see what a turn does. Sixteenths, + tighter. */
export type ToGo = { sixteenths: number; tried: boolean }

/** The first turn where nobody knows yet what one does to the play. `model` */
const TRIAL_SIXTEENTHS = 8
/**
 * A turn of both barrels moves the grip's edge by so much at least and at most, mm; otherwise a reading was wrong.
 * `model`
 */
const LEAST_MM = 0.2
const MOST_MM = 6

/**
 * Turns to what is wanted. Rod and marks by the thread; the grip's play by what the turns between two readings did to
 * it, since no table says how far a turn moves a grip's edge.
 * @returns null when it stands as it should, or nothing was read
 */
export function hubToGo(
  p: HubParts,
  hub: Pick<HubState, 'readings' | 'plays'>,
  s: Standards = TABLE_ONLY,
): ToGo | null {
  const { from, to } = targetMm(p, s)
  // a turn since makes what was read before it old
  const mm = hub.readings.at(-1)?.mm
  if (mm === undefined || (mm >= from && mm <= to)) return null
  if (p.way !== 'twin') {
    const sixteenths = toSixteenths(turnsFromReading(p, mm, s))
    return sixteenths === 0 ? null : { sixteenths, tried: false }
  }
  const a = hub.plays.findLast(r => r.net !== hub.plays.at(-1)!.net)
  const b = hub.plays.at(-1)!
  const tighter = mm > to ? 1 : -1
  const perTurn = a ? (b.mm - a.mm) / ((b.net - a.net) / 16) : null
  if (perTurn === null || -perTurn < LEAST_MM || -perTurn > MOST_MM)
    return { sixteenths: tighter * TRIAL_SIXTEENTHS, tried: true }
  const sixteenths = Math.round((((from + to) / 2 - mm) / perTurn) * 8) * 2
  return { sixteenths: sixteenths || tighter * 2, tried: false }
}
