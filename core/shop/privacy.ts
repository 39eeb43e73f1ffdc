import { z } from 'zod'

const At = z.string()
/** Everything that is kept on one customer, as they may ask for it. */
export const CustomerKept = z.object({
  customer: z.object({ name: z.string(), contact: z.string(), since: At }),
  messages: z.array(z.object({ address: z.string(), body: z.string(), answer: z.string(), state: z.string(), at: At })),
  bikes: z.array(
    z.object({
      name: z.string(),
      frameNumber: z.string(),
      visits: z.array(
        z.object({
          number: z.int(),
          tag: z.string(),
          complaint: z.string(),
          cameAt: At,
          leftAt: At.nullable(),
          notes: z.array(z.object({ text: z.string(), at: At })),
          putRight: z.array(z.object({ field: z.string(), was: z.string(), at: At })),
          photographs: z.array(z.object({ of: z.string(), at: At, bytes: z.int() })),
          ledger: z.array(z.object({ at: At, entry: z.unknown() })),
          sheets: z.array(z.object({ at: At, sheet: z.unknown() })),
        }),
      ),
    }),
  ),
})
export type CustomerKept = z.infer<typeof CustomerKept>
