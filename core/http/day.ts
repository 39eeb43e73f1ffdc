import { z } from 'zod'

/** A person's own day: the jobs they tapped on, in the order of the last tap. */
export const DayView = z.object({
  date: z.string(),
  jobs: z.array(
    z.object({
      number: z.int(),
      tag: z.string(),
      bike: z.string(),
      taps: z.int(),
      last: z.string(),
      closedAt: z.string().nullable(),
    }),
  ),
})
export type DayView = z.infer<typeof DayView>
