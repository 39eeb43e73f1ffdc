import { z } from 'zod'

/** How long a joining code counts, and how many may be open at once. */
export const JOIN_MINUTES = 10
export const MOST_JOIN_CODES = 20
/** A device joins by the code on the owner's screen, and may say what it is called. */
export const Join = z.strictObject({
  code: z
    .string({ error: 'Code: type the one under the square' })
    .transform(c => c.toUpperCase().replace(/[^A-Z0-9]/g, ''))
    .pipe(z.string().length(8, 'Code: eight letters and digits, as under the square')),
  device: z.string().trim().max(40, 'Name: at most 40 characters').optional(),
})
/** A code just made: where it leads, as squares and to read. */
export const JoinCode = z.object({
  id: z.uuid(),
  code: z.string(),
  expiresAt: z.iso.datetime(),
  /** Where a device reads how to trust this machine; null where it need not. */
  trust: z.object({ url: z.string(), svg: z.string() }).nullable(),
  join: z.object({ url: z.string(), svg: z.string() }),
})
export type JoinCode = z.infer<typeof JoinCode>
/** What became of it. */
export const JoinCodeState = z.object({ is: z.enum(['open', 'used', 'over']), device: z.string().nullable() })
