import type { BenchEvent } from '../rear/benchEvents'
import type { Senses } from './learnt'

/**
 * A log with the ear of one person beside what they reported; others' reports count as a usual ear's. Their eye is not
 * put beside it: weighing it won no more and took longer (docs/advice.md).
 */
export function asSensed<P>(
  log: readonly BenchEvent[],
  by: readonly P[],
  person: P | null,
  senses: Pick<Senses, 'wrongReports'> | null,
): readonly BenchEvent[] {
  if (!senses || person === null) return log
  return log.map((event, i): BenchEvent =>
    by[i] === person && (event.kind === 'shift' || event.kind === 'unclean')
      ? { ...event, ear: senses.wrongReports }
      : event,
  )
}
