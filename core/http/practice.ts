import { z } from 'zod'
import { PracticeResult } from '../practice/results'

/** Everything a person practised, for them alone. */
export const MyPractice = z.object({ shows: z.boolean(), results: z.array(PracticeResult) })
export type MyPractice = z.infer<typeof MyPractice>

export const KeepPractice = z.object({ result: PracticeResult })
export const ShowPractice = z.object({ shows: z.boolean() })

/** The sheet of a test, or of all runs, of those who show theirs. */
export const ShownPractice = z.object({
  people: z.array(z.object({ name: z.string(), results: z.array(PracticeResult) })),
})
export type ShownPractice = z.infer<typeof ShownPractice>
export const ShownAsked = z.object({
  test: z.coerce.number({ error: 'A test has a whole number' }).int().min(1).max(9_999).optional(),
})
