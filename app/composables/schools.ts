import { schoolsOf, type Schools } from '#core/procedure/schools'

/**
 * The schools in force on the open job: its own, then this person's, then the shop's, then the usual; by what this shop
 * measured.
 */
export function useSchools(): ComputedRef<Schools> {
  const session = useSession()
  const { state, standards } = storeToRefs(useLedger())
  return computed(() =>
    schoolsOf(standards.value, state.value.job.schools, session.now?.schools?.person, session.now?.schools?.shop),
  )
}
