import { asSensed } from '#core/advice/asSensed'
import { adviceBySchools } from '#core/advice/schools'
import type { JobView } from '#core/http/job'
import type { SessionView } from '#core/http/session'
import { priorFor } from '#core/ledger/belief'
import type { JobState } from '#core/ledger/reduce'
import { standingDeclines } from '#core/rear/declined'
import { setupToIndex } from '#core/rear/toIndex'
import { schoolsOf } from '#core/procedure/schools'
import { standardsWith } from '#core/standards/inForce'
import type { Question } from './useAdvice'

/**
 * What the advice is asked of a job, the same from every page: its log as whoever is at the tablet hears and sees, what
 * was known of the bike and of bikes like it here, and the schools in force. Null where there is no index to set.
 */
export function adviceQuestion(
  state: JobState,
  record: JobView,
  who: Pick<SessionView, 'schools' | 'person' | 'senses'> | null | undefined,
): Question | null {
  const { bench, benchBy } = state.rear
  const setup = setupToIndex(state.rear)
  if (!setup) return null
  const log = asSensed(bench, benchBy, who?.person?.id ?? null, who?.senses ?? null)
  const standards = standardsWith(record.own)
  const inForce = schoolsOf(standards, state.job.schools, who?.schools.person, who?.schools.shop)
  return {
    job: record.number,
    setup,
    log,
    prior: priorFor(state, record.known, record.learnt),
    options: {
      ...adviceBySchools(inForce, standards),
      declined: standingDeclines(state.rear.declines, log, setup.teeth.length),
    },
  }
}
