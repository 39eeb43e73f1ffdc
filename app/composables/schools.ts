import type { JobState } from '#core/ledger/reduce'
import { schoolsOf, type Schools } from '#core/procedure/schools'

/** The schools in force on a job: its own, then this person's, then the shop's, then the usual. */
export function useSchools(state: Ref<JobState>): ComputedRef<Schools> {
  const session = useSession()
  return computed(() => schoolsOf(state.value.noted.schools, session.now?.schools?.person, session.now?.schools?.shop))
}
