import { z } from 'zod'
import { WAITS } from '../job/events'
import { Took } from '../job/minutes'

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
