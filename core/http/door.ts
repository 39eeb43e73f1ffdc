import { z } from 'zod'
import { Took } from '../job/minutes'
import { NOTE_LENGTH } from '../job/note'
import { Seen } from '../job/seen'
import { Sheet } from '../ledger/sheet'
import { RearParts } from '../rear/parts'
import { FrameKind } from '../standards/frames'
import { Tag } from './job'
import { line, moment, optionalLine } from './words'

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
  /**
   * The rear drivetrain by its numbers; null on a bike without a derailleur, or where it is to be found out at the
   * stand.
   */
  parts: RearParts.nullable(),
  /** What the eye counted; left out where nobody looked. */
  seen: Seen.optional(),
  /** The bike's parts are those of its last sheet, so that it may start from there. */
  sameParts: z.boolean(),
  /** What the code it came with says, that no entry does. */
  note: line('Note', NOTE_LENGTH).optional(),
})
export type TakeIn = z.infer<typeof TakeIn>

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
