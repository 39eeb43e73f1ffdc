import { EventId, PersonId } from './ids'
import type { AnyEvent, Told } from './chapter'

/** For tests: ids that differ only in their last digits. */
export const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
export const PERSON = PersonId.parse(uuid(1))
export const AT = '2026-11-25T10:00:00.000Z'

let count = 100
/** For tests: entries of some kinds told by somebody, each with an id of its own. */
export const telling =
  <E extends AnyEvent>() =>
  (event: E, extra: Partial<Told<E>> = {}): Told<E> => ({
    id: EventId.parse(uuid(count++)),
    at: AT,
    by: PERSON,
    event,
    ...extra,
  })
