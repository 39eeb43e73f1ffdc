import { adviceBySchools } from '#core/advice/schools'
import type { JobView } from '#core/http/job'
import { priorFor } from '#core/ledger/belief'
import type { JobState } from '#core/ledger/reduce'
import { standingDeclines } from '#core/rear/declined'
import { schoolsOf, type SchoolChoice } from '#core/procedure/schools'
import { standardsWith } from '#core/standards/inForce'
import type { Question } from './useAdvice'

/** What the advice is asked of a job, the same from every page: its log, what was known of the bike, and the schools in force. */
export function adviceQuestion(
  state: JobState,
  record: JobView,
  schools: { shop: SchoolChoice; person: SchoolChoice } | undefined,
): Question | null {
  const { setup, bench: log } = state.rear
  if (!setup) return null
  const standards = standardsWith(record.own)
  const inForce = schoolsOf(standards, state.job.schools, schools?.person, schools?.shop)
  return {
    job: record.number,
    setup,
    log,
    prior: priorFor(state, record.known),
    options: {
      ...adviceBySchools(inForce, standards),
      declined: standingDeclines(state.rear.declines, log, setup.teeth.length),
    },
  }
}
