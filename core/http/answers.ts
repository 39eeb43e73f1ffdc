import { z } from 'zod'

/** What is answered where nothing but "done" is to be told. */
export const Done = z.object({ ok: z.literal(true) })
export type Done = z.infer<typeof Done>
/** The id of what was made. */
export const Made = z.object({ id: z.string() })
/** The number of a job. */
export const NumberOfJob = z.object({ number: z.int() })
