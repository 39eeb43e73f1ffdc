import { housingMm } from '../cable/wire'
import type { CableState } from '../cable/state'
import type { Standards } from '../standards/inForce'
import { BEDDING_SHIFTS, recallAfterDays, settlingIn, slackMargin, type NewRun } from './settle'
import type { RearState } from './state'
import { barrelLeft } from './ofState'

/** The run that was renewed in this visit, as far as settling goes; null where none was. */
export function newRunOf(rear: RearState, cable: CableState): NewRun | null {
  if (!rear.renewed.includes('cable')) return null
  const laid = cable.runs.find(r => r.run === 'rear')
  return {
    housingMm: laid ? housingMm(laid) : notedMm(rear),
    bedded: rear.beddedShifts >= BEDDING_SHIFTS,
    riding: rear.riding,
  }
}

/** All of the housing as the rear's own stage noted it: one piece alone does not tell the run. */
function notedMm({ housing }: RearState): number | null {
  const of = (place: string) => housing.find(h => h.place === place)?.lengthMm ?? null
  const [lever, last] = [of('lever loop'), of('last loop')]
  return of('full length') ?? (lever !== null && last !== null ? lever + last + (of('along the frame') ?? 0) : null)
}

/**
 * Days after which a bike is asked back: by how its new run will settle in its window; by the rule where nothing was
 * renewed.
 */
export function recallDays(
  rear: RearState,
  cable: CableState,
  windowTurns: { from: number; to: number } | null,
  s: Standards,
): number {
  const run = newRunOf(rear, cable)
  if (!run) return RECALL_DAYS
  return recallAfterDays(slackMargin(barrelLeft(rear)?.inTurns ?? 0, windowTurns), run, settlingIn(s))
}
/** The look after a visit without a new run, days after hand-back. `practice` */
export const RECALL_DAYS = 14
