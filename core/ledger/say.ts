import type { AnyEvent, Chapter } from '../chapter/chapter'
import { CHAPTERS } from './chapters'
import type { LedgerEvent } from './events'

type Spoken = Chapter<AnyEvent, AnyEvent, unknown, unknown, unknown>
const OF_KIND = new Map<string, Spoken>(
  (Object.values(CHAPTERS) as unknown as readonly Spoken[]).flatMap(c => c.events.map(e => [e.shape.kind.value, c])),
)
/** The chapter whose entry this is. */
export const chapterOf = (event: LedgerEvent): Spoken => OF_KIND.get(event.kind)!

/** An entry in a line of words, for the ledger as a mechanic reads it. */
export const sayEvent = (event: LedgerEvent, teethOf: readonly number[]): string => chapterOf(event).say(event, teethOf)

/** How many sprockets the parts must have for this event to be possible; 0 where it names none. */
export const sprocketsNeeded = (event: LedgerEvent): number => chapterOf(event).sprockets(event)
