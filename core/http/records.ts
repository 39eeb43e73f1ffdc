import { z } from 'zod'
import { FrameKind } from '../records/frames'
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
})
export type RecordsOfStandard = z.infer<typeof RecordsOfStandard>

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
