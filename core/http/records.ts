import { z } from 'zod'
import { FrameKind } from '../standards/frames'
import { optionalLine } from './words'
import { Seen } from '../records/question'

export const StandardId = z.string().trim().min(1, 'Name the standard').max(40, 'No standard has so long a name')

export const StandardCount = z.object({ standard: z.string(), bikes: z.int() })
export type StandardCount = z.infer<typeof StandardCount>

export const RecordsOfStandard = z.object({
  standard: z.string(),
  bikes: z.int(),
  figures: z.array(
    z.object({
      figure: z.string(),
      seen: Seen,
      frames: z.array(z.object({ frame: FrameKind.nullable(), seen: Seen })),
    }),
  ),
  /** What was found wrong, how often it was cured, and how often the cure held for two months or did not. */
  faults: z
    .array(z.object({ fault: z.string(), found: z.int(), cured: z.int(), held: z.int(), back: z.int() }))
    .default([]),
})
export type RecordsOfStandard = z.infer<typeof RecordsOfStandard>

const Day = z.iso.date({ error: 'A day is written 2026-11-28' })
/**
 * Which points of a figure are asked for: by days, both ends counted, and by words of the bike or the job's number or
 * tag.
 */
export const PointsAsked = z
  .object({
    from: Day.optional(),
    to: Day.optional(),
    q: optionalLine('Search', 80).optional(),
  })
  .refine(a => !a.from || !a.to || a.from <= a.to, { path: ['to'], message: 'The last day comes after the first' })
export type PointsAsked = z.infer<typeof PointsAsked>

export const RecordPoint = z.object({
  id: z.string(),
  value: z.number(),
  at: z.string(),
  frame: FrameKind.nullable(),
  latest: z.boolean(),
  origin: z.string().nullable(),
  job: z.object({ number: z.int(), tag: z.string() }).nullable(),
  bike: z.object({ id: z.string(), name: z.string() }).nullable(),
})
export type RecordPoint = z.infer<typeof RecordPoint>

/** What a shop has seen on bikes like one: of each standard it has, and of any such part on its kind of frame. */
export const LikeHere = z.object({
  standards: z.array(RecordsOfStandard.pick({ standard: true, figures: true })),
  any: z.array(z.object({ figure: z.string(), seen: Seen })),
})
export type LikeHere = z.infer<typeof LikeHere>

const BikeRecord = z.object({
  standard: z.string(),
  figure: z.string(),
  value: z.number(),
  at: z.string(),
  job: z.object({ number: z.int(), tag: z.string() }),
})
export const BikeView = z.object({
  id: z.string(),
  name: z.string(),
  frameNumber: z.string(),
  frame: FrameKind.nullable(),
  customer: z.object({ id: z.uuid(), name: z.string(), erased: z.boolean() }),
  records: z.array(BikeRecord),
  /**
   * What was renewed, by visit, in the words of its sheet; photographs as found; what is booked; the last sheet to
   * start from.
   */
  changed: z.array(z.object({ job: z.int(), at: z.string(), what: z.array(z.string()) })).default([]),
  photos: z.array(z.object({ job: z.int(), id: z.string(), of: z.string(), at: z.string() })).default([]),
  recall: z.object({ dueOn: z.string(), job: z.int() }).nullable().default(null),
  last: z
    .object({ job: z.int(), right: z.number().nullable(), settle: z.boolean(), at: z.string() })
    .nullable()
    .default(null),
  /** Sprockets, for the limit its chain wears to; null on a bike without a derailleur. */
  sprockets: z.int().nullable().default(null),
  /** When its gear cable was last renewed here. */
  cableRenewedAt: z.string().nullable().default(null),
  visits: z.array(
    z.object({
      number: z.int(),
      tag: z.string(),
      closedAt: z.string().nullable(),
      createdAt: z.string(),
      complaint: z.string(),
    }),
  ),
})
export type BikeView = z.infer<typeof BikeView>
