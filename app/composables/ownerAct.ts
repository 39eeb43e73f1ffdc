import { CONFIRM } from '#core/http/page'
import type { Asked } from './ask'

/** Resolved with true once the password was typed again, false when it was left; null while nothing is asked. */
const asking = shallowRef<((typed: boolean) => void) | null>(null)
export const useConfirming = () => asking
/** Counted up with each act that was done, so that what lists them looks again. */
const acts = ref(0)
export const useOwnerActs = () => acts

/** Does an owner's act; where it asks for the password once more, it is asked in a dialog and the act done again. */
export async function asOwner<T>(act: () => Promise<Asked<T>>): Promise<Asked<T>> {
  const counted = async () => {
    const asked = await act()
    if (asked.is === 'done') acts.value++
    return asked
  }
  const first = await counted()
  if (first.is !== 'refused' || !first.issues.some(i => i.field === CONFIRM)) return first
  const typed = await new Promise<boolean>(resolve => {
    asking.value = resolve
  })
  asking.value = null
  return typed ? counted() : first
}
