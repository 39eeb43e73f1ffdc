import { z } from 'zod'
import { BasedOn } from '../chapter/ids'
import { DECLINABLE_IDS } from '../job/declined'
import { DETAILS, LEAVES } from '../job/events'
import { NOTE_LENGTH } from '../job/note'
import { OwnFigure } from '../standards/inForce'
import { Learnt, NOTHING_LEARNT } from '../advice/learnt'
import { Settled } from '../standards/settled'
import { Sheet } from '../ledger/sheet'
import { FrameKind } from '../standards/frames'
import { line, moment, optionalLine } from './words'

export const JobNumber = z.coerce
  .number({ error: 'Job number: a whole number' })
  .int('Job number: a whole number')
  .min(1, 'Job numbers start at 1')
  .max(2_000_000_000, 'There is no such job number')
export const Tag = z
  .string({ error: 'Tag: type what hangs on the bike' })
  .trim()
  .regex(/^[A-Za-z0-9-]{1,8}$/, 'Tag: 1 to 8 letters or digits, as on the bike')

/** What is put right of what was written at the door; what is left out stays as it is. */
export const Details = z.strictObject({
  id: z.uuid(),
  basedOn: BasedOn,
  customer: line('Customer', 80).optional(),
  contact: optionalLine('Phone', 120).optional(),
  bike: line('Bike', 80).optional(),
  frameNumber: optionalLine('Frame number', 40).optional(),
  complaint: line('Complaint', 400).optional(),
  promisedAt: moment('Promised').optional(),
  tag: Tag.optional(),
})
export type Details = z.infer<typeof Details>
/** This job's bike is really that one, entered a second time. */
export const SameBike = z.strictObject({ id: z.uuid(), basedOn: BasedOn, bike: z.uuid() })
export type SameBike = z.infer<typeof SameBike>
const EditView = z.object({ field: z.enum(DETAILS), was: z.string(), by: z.string(), at: z.string() })
export type EditView = z.infer<typeof EditView>

export const Note = z.strictObject({ text: line('Note', NOTE_LENGTH) })
const NoteView = z.object({ id: z.uuid(), text: z.string(), by: z.string(), at: z.string() })
export const HandBack = z.strictObject({
  id: z.uuid(),
  basedOn: BasedOn,
  how: z.enum(LEAVES),
  /** The fault its customer declined, where it leaves with one. */
  fault: z.enum(DECLINABLE_IDS).nullable().default(null),
})
export type HandBack = z.infer<typeof HandBack>
export const Reopen = z.strictObject({ id: z.uuid(), basedOn: BasedOn })

/** One job as a page needs it; its log comes apart. */
export const JobView = z.object({
  number: z.int(),
  tag: z.string(),
  complaint: z.string(),
  promisedAt: z.string(),
  createdAt: z.string(),
  closedAt: z.string().nullable(),
  customer: z.object({ name: z.string(), contact: z.string() }),
  bike: z.object({
    id: z.uuid(),
    name: z.string(),
    frameNumber: z.string(),
    frameKind: FrameKind.nullable().default(null),
  }),
  notes: z.array(NoteView),
  /** The last sheet of this bike, if the parts are the same: where the belief starts. */
  known: Sheet.nullable(),
  sheet: Sheet.nullable(),
  people: z.record(z.string(), z.string()),
  /** What this shop measured of the standards, so that sums at the bench go by it, offline too. */
  own: z.array(OwnFigure).default([]),
  /** How renewed runs had settled when they came back here, the latest. */
  settled: z.array(Settled).default([]),
  /** What the shop's closed jobs say of bikes like this one. */
  learnt: Learnt.default(NOTHING_LEARNT),
  /** Minutes such jobs take here: the middle, and what three of four stay under. */
  takes: z.object({ median: z.number(), most: z.number() }).nullable().default(null),
  /** What the customer must be called for: something failed after the bike was handed back. */
  call: z.string().nullable().default(null),
  /** What stood there before something was put right, the latest first. */
  edits: z.array(EditView).default([]),
})
export type JobView = z.infer<typeof JobView>
