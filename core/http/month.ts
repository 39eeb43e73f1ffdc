import { z } from 'zod'
import { CAUSES } from '../response/causes'

export const Month = z.string().regex(/^20\d\d-(0[1-9]|1[0-2])$/, 'A month is written 2026-11')

/** A shop's month: jobs, not people. */
export const MonthView = z.object({
  month: Month,
  /** By what was promised; minutes are null where none were told. */
  kinds: z.array(
    z.object({ kind: z.string(), jobs: z.int(), minutes: z.number().nullable(), median: z.number().nullable() }),
  ),
  ends: z.array(z.object({ how: z.string(), jobs: z.int() })),
  /**
   * Jobs that left proven, how many came back with a fault within two months, and how many have not and are too new to
   * say.
   */
  right: z.object({ jobs: z.int(), back: z.int(), young: z.int() }),
  /** Standards that cost most turns of a screw. */
  standards: z.array(z.object({ standard: z.string(), bikes: z.int(), rounds: z.number(), slowest: z.number() })),
  housing: z.array(z.object({ kind: z.string(), usedMm: z.number(), leftMm: z.number() })),
  /** What the advice learnt of the shop's latest bikes, whichever month: shares on which a cause was found. */
  learnt: z.object({
    jobs: z.int(),
    shares: z.array(z.object({ cause: z.enum(CAUSES), here: z.number(), usually: z.number() })),
  }),
  fitted: z.object({ mm: z.number(), pieces: z.int() }),
})
export type MonthView = z.infer<typeof MonthView>
