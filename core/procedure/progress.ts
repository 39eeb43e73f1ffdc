import type { JobState } from '../ledger/reduce'
import { acrossTolerance } from '../rear/hanger'
import { beforeAnyScrew } from './senseCheck'
import type { Schools } from './schools'
import type { Stage } from './stages'

/** From this chance of right the index stage counts as done. */
const INDEXED = 0.88

/** Which stages of a job are done, by what its ledger says. Nothing forbids going back, or skipping what does not apply. */
export function stagesDone(state: JobState, schools: Schools, right: number | null): Record<Stage, boolean> {
  const { noted, trace } = state
  const gauge = noted.gauges.at(-1)
  const gap = noted.gaps.at(-1)
  const { from, to } = schools.gap.targetMm
  return {
    said: noted.said !== null,
    sense: noted.sensed !== null && beforeAnyScrew(noted.sensed.exceptions).length === 0,
    hanger:
      gauge !== undefined &&
      gauge.bentBefore === null &&
      gauge.event.acrossMm <= acrossTolerance(state.parts?.cassette.teeth.length ?? 11),
    stops: Boolean(trace?.seenL && trace.seenH),
    cable: noted.sinceClamp !== null || noted.cut !== null,
    // without clicks there is nothing to index: stops, gap and slack are all
    index: state.parts?.shifter.friction === true || (right ?? 0) >= INDEXED,
    gap: gap !== undefined && gap.event.gapMm >= from && gap.event.gapMm <= to,
    prove: noted.torqued !== null && noted.proved.some(p => p.exceptions.length === 0),
    handBack: state.handedBack !== null,
  }
}

/** What must be put right before any screw is turned, as words; null when nothing. */
export const firstPutRight = (state: JobState): string | null => {
  const [first] = beforeAnyScrew(state.noted.sensed?.exceptions ?? [])
  return first ? `${first.otherwise}: ${first.does}` : null
}
