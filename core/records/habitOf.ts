import type { HabitOfVisit } from '../habits/habit'
import { stopTold } from '../habits/stopTold'
import type { JobState } from '../ledger/reduce'
import type { Sheet } from '../ledger/sheet'
import { rearFaults } from '../rear/faultsFound'
import { CAUSES } from '../response/causes'

/**
 * What a visit shows of the shop's bikes; null where it was no work on a rear derailleur.
 * @param known whether its belief started from an earlier sheet: then its screws were told of before
 * @param usualStopMm travel of a stop screw that its belief started from, mm a turn
 */
export function habitOf(
  state: JobState,
  sheet: Pick<Sheet, 'frictionMm' | 'belief'>,
  known: boolean,
  usualStopMm?: number,
): HabitOfVisit | null {
  const { rear, job } = state
  if (!rear.parts || !rear.bench.length || job.handedBack?.how === 'cancelled') return null
  const faults = rearFaults(state)
  const { mmPerTurnH, mmPerTurnL } = sheet.belief
  return {
    found: CAUSES.filter(c => faults.some(f => f.fault === c)),
    frictionMm: sheet.frictionMm,
    stop: known ? null : stopTold([mmPerTurnH, mmPerTurnL], usualStopMm),
  }
}
