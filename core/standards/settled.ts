import { z } from 'zod'
import { RIDINGS } from './riding'

/** A run that was renewed here and came back: what its barrel took by then, turns, so many days after it left. */
export const Settled = z.object({
  /** Housing on the run, mm; null where it was not measured. */
  housingMm: z.number().nullable(),
  bedded: z.boolean(),
  /** How much it was ridden; null where nobody said. */
  riding: z.enum(RIDINGS).nullable().default(null),
  days: z.number(),
  turns: z.number(),
})
export type Settled = z.infer<typeof Settled>
