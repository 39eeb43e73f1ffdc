import { z } from 'zod'
import type { Chapter, EventSchema } from '../chapter/chapter'
import { BasedOn, EventId, PersonId } from '../chapter/ids'
import { CHAPTERS, type ChapterName } from './chapters'

/** Version of the shapes below; older stored entries are raised to it when read. */
export const EVENT_VERSION = 1

type OwnOf<C> = C extends Chapter<infer Own, infer _Heard, infer _State, infer _Job, infer _Opinion> ? Own : never
/** The shop's truth: what a tap can mean, of whichever chapter. No names and no free text in any of them. */
export type LedgerEvent = OwnOf<(typeof CHAPTERS)[ChapterName]>
export type LedgerKind = LedgerEvent['kind']

const SCHEMAS = Object.values(CHAPTERS).flatMap((c): readonly EventSchema[] => c.events)
/** Every kind there is. */
export const KINDS = SCHEMAS.map(s => s.shape.kind.value) as readonly LedgerKind[]
/** Read by its kind, so that a refusal speaks of that kind alone. The chapters' own types say what it gives. */
export const LedgerEvent = z.discriminatedUnion(
  'kind',
  SCHEMAS as unknown as readonly [z.ZodObject],
) as unknown as z.ZodType<LedgerEvent>

const OF_KIND = new Map(SCHEMAS.map(s => [s.shape.kind.value, s]))
/** The schema of one kind, for a form that makes such an entry. */
export const schemaOf = <K extends LedgerKind>(kind: K) =>
  OF_KIND.get(kind) as unknown as z.ZodType<Extract<LedgerEvent, { kind: K }>>

/**
 * A tablet's clock can be wrong: what it says is kept, and said to be odd where it is shown. Year 0 is in no calendar.
 */
const AnyTime = z.iso.datetime('at must be a UTC time').refine(at => at >= '0001', 'at: no such year')
/** A time that no tap of this shop can have been made at: the tablet's clock was wrong. */
export const oddClock = (at: string): boolean => at < '2000' || at >= '2101'

/** What a tablet writes; `id` makes posting twice harmless, `by` is who it shows, which the server checks. */
export const Entry = z.strictObject({
  id: EventId,
  v: z.literal(EVENT_VERSION),
  at: AnyTime,
  /** The last `seq` the tablet had seen when this was tapped. */
  basedOn: BasedOn,
  by: PersonId,
  event: LedgerEvent,
})
export type Entry = z.infer<typeof Entry>

/** What the ledger holds; only the server gives `seq`, the place in the job. */
export const Stored = Entry.extend({
  seq: z.int().positive(),
  receivedAt: z.iso.datetime(),
  verified: z.boolean(),
  signedBy: PersonId.nullable(),
})
export type Stored = z.infer<typeof Stored>

/** A batch: entries are taken or refused one by one. `sign` is a mechanic's hand for a gate: name and PIN. */
export const AppendRequest = z.strictObject({
  entries: z.array(z.unknown()).min(1, 'entries is empty').max(200, 'send at most 200 entries at once'),
  sign: z.strictObject({ person: PersonId, pin: z.string().min(1).max(12) }).optional(),
})

/** The server's answer for each entry, in the order sent. */
export const EntryAnswer = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('stored'), stored: Stored }),
  z.strictObject({ is: z.literal('held'), id: EventId, seq: z.int().positive() }),
  z.strictObject({ is: z.literal('refused'), id: z.string().nullable(), field: z.string(), message: z.string() }),
])
export type EntryAnswer = z.infer<typeof EntryAnswer>
export const AppendAnswer = z.strictObject({ answers: z.array(EntryAnswer) })

/** A job's entries after a place. `newer` says that some were written by a later version: reload to update. */
export const EntriesAnswer = z.strictObject({ entries: z.array(Stored), newer: z.boolean() })

/** A stored entry as this version reads it, or null when a later version wrote it: "reload to update". */
export function readStored(raw: unknown): Stored | null {
  const read = Stored.safeParse(raw)
  return read.success ? read.data : null
}
