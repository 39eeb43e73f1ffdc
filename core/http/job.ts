import { z } from 'zod'
import { BasedOn } from '../chapter/ids'
import { DECLINABLE_IDS } from '../job/declined'
import { DETAILS, LEAVES, WAITS } from '../job/events'
import { Took } from '../job/minutes'
import { Seen } from '../job/seen'
import { RearParts } from '../rear/parts'
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

/** A bike comes in: new or known. Known customers and bikes are named by id. */
export const TakeIn = z.strictObject({
  customer: z.union([
    z.strictObject({ id: z.uuid() }),
    z.strictObject({ name: line('Customer', 80), contact: optionalLine('Contact', 120) }),
  ]),
  bike: z.union([
    z.strictObject({ id: z.uuid(), frameKind: FrameKind.optional() }),
    z.strictObject({
      name: line('Bike', 80),
      frameNumber: optionalLine('Frame number', 40),
      frameKind: FrameKind.optional(),
    }),
  ]),
  tag: Tag,
  promisedAt: moment('Promised'),
  complaint: line('Complaint', 400),
  /** The rear drivetrain by its numbers; null on a bike without a derailleur, or where it is to be found out at the stand. */
  parts: RearParts.nullable(),
  /** What the eye counted; left out where nobody looked. */
  seen: Seen.optional(),
  /** The bike's parts are those of its last sheet, so that it may start from there. */
  sameParts: z.boolean(),
})
export type TakeIn = z.infer<typeof TakeIn>

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

export const Note = z.strictObject({ text: line('Note', 400) })
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

/** A bike found by name, tag or frame number. */
export const FoundBike = z.object({
  bike: z.object({
    id: z.uuid(),
    name: z.string(),
    frameNumber: z.string(),
    frameKind: FrameKind.nullable(),
    seen: Seen.nullable(),
  }),
  customer: z.object({ id: z.uuid(), name: z.string(), contact: z.string() }),
  open: z.object({ number: z.int(), tag: z.string() }).nullable(),
  last: z.object({ number: z.int(), closedAt: z.string(), sheet: Sheet }).nullable(),
})
export type FoundBike = z.infer<typeof FoundBike>

/** What the door starts from: the next free tag, and how many jobs here had each stock drivetrain. */
export const DoorView = z.object({
  nextTag: z.string(),
  used: z.record(z.string(), z.int()),
  /** What jobs take here, and what is promised already: by them a time is proposed that can be kept. */
  took: z.array(Took).default([]),
  promised: z.array(z.object({ number: z.int(), promisedAt: z.string(), complaint: z.string() })).default([]),
  stands: z.int().default(1),
})
export type DoorView = z.infer<typeof DoorView>

export const FloorJob = z.object({
  number: z.int(),
  tag: z.string(),
  bike: z.string(),
  customer: z.string(),
  complaint: z.string(),
  promisedAt: z.string(),
  place: z.enum(['rack', 'stand', 'door', 'gone']),
  stand: z.int().nullable(),
  /** False on a bike that was taken in without a derailleur at the back. */
  derailleur: z.boolean(),
  /** What a bike by the door was given; null while it is worked on. */
  summary: z.string().nullable(),
  unridable: z.boolean(),
  waits: z.enum(WAITS).nullable().default(null),
  /** Who tapped on it last, by id and name. */
  by: z.string().nullable().default(null),
  byName: z.string().nullable().default(null),
  /** The fault it left with, in words, where its customer declined the cure. */
  declined: z.string().nullable(),
  /** What its customer must be called for. */
  call: z.string().nullable(),
  closedAt: z.string().nullable(),
  recallOn: z.string().nullable(),
})
export type FloorJob = z.infer<typeof FloorJob>
const FloorRecall = z.object({
  number: z.int(),
  tag: z.string(),
  bike: z.string(),
  dueOn: z.string(),
  done: z.boolean(),
})
export const FloorView = z.object({
  today: z.string(),
  stands: z.int(),
  /** What the shop must hear of its backups and its disk. */
  warnings: z.array(z.string()).default([]),
  /** What jobs take here: by it a promise is seen to be at risk. */
  took: z.array(Took).default([]),
  jobs: z.array(FloorJob),
  recalls: z.array(FloorRecall),
})
export type FloorView = z.infer<typeof FloorView>
