import type { BenchEvent } from '../rear/benchEvents'
import type { Senses } from './learnt'

/** A log with the senses of one person beside what they reported; others' reports count as a usual person's. */
export function asSensed<P>(
  log: readonly BenchEvent[],
  by: readonly P[],
  person: P | null,
  senses: Pick<Senses, 'wrongReports' | 'eye'> | null,
): readonly BenchEvent[] {
  if (!senses || person === null) return log
  return log.map((event, i): BenchEvent => {
    if (by[i] !== person) return event
    if (event.kind === 'shift' || event.kind === 'unclean') return { ...event, ear: senses.wrongReports }
    if ((event.kind === 'sight' && event.sdMm === undefined) || event.kind === 'offset')
      return { ...event, eye: senses.eye }
    return event
  })
}
