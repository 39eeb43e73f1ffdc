import { acrossTolerance } from './hangerLimit'
import { beforeAnyScrew } from '../procedure/senseCheck'
import type { Schools } from '../procedure/schools'
import type { Stage } from '../procedure/stages'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { gapNext } from './gapNext'
import { mayReachLargest } from './gates'
import { indexHeard, setupToIndex } from './toIndex'
import type { RearState } from './state'

/** From this chance of right the index stage counts as done, and a bench says so. `model` */
export const INDEXED = 0.88

/**
 * Which stages of a job are done, by what its ledger says. Nothing forbids going back, or skipping what does not apply.
 */
export function stagesDone(
  rear: RearState,
  handedBack: boolean,
  schools: Schools,
  right: number | null,
  s: Standards = TABLE_ONLY,
): Record<Stage, boolean> {
  const gauge = rear.gauges.at(-1)
  const gap = gapNext(rear, schools.gap)
  return {
    said: rear.said.length > 0,
    sense: rear.sensed !== null && beforeAnyScrew(rear.sensed.exceptions).length === 0,
    hanger:
      gauge !== undefined &&
      gauge.bentBefore === null &&
      gauge.event.acrossMm <= acrossTolerance(rear.parts?.cassette.teeth.length ?? 11, s),
    stops: mayReachLargest(rear.trace) && rear.trace?.seenH === true,
    cable: rear.sinceClamp !== null || rear.cut !== null,
    // without clicks there is nothing to index: stops, gap and slack are all
    index: (rear.setup !== null && setupToIndex(rear) === null) || (indexHeard(rear) && (right ?? 0) >= INDEXED),
    gap: gap.good,
    prove: rear.torqued !== null && rear.proved.some(p => p.exceptions.length === 0),
    handBack: handedBack,
  }
}
