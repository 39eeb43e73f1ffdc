import { z } from 'zod'
import { listTrouble, ShopClaim, ShopValue } from '../standards/shopValues'

/** What a shop says of the catalogue, oldest first; the table itself ships with the app. */
export const StandardsView = z.object({ values: z.array(ShopValue) })
export type StandardsView = z.infer<typeof StandardsView>

/** One or more figures measured at a time. */
export const ClaimRequest = z
  .strictObject({
    claims: z.array(ShopClaim).min(1, 'claims is empty').max(20, 'at most 20 figures at once'),
  })
  .superRefine(({ claims }, ctx) => {
    const trouble = listTrouble(claims)
    if (trouble) ctx.addIssue({ code: 'custom', path: ['claims', trouble.index, 'value'], message: trouble.message })
  })

/** What an import would do, or has done. At most so many changes and refusals are listed; the counts are whole. */
export const LISTED = 200
export const ImportView = z.object({
  rows: z.int(),
  same: z.int(),
  values: z.object({
    count: z.int(),
    listed: z.array(
      z.object({
        where: z.string(),
        kind: z.string(),
        entry: z.string(),
        figure: z.string(),
        from: z.string(),
        to: z.string(),
      }),
    ),
  }),
  records: z.object({ count: z.int(), byStandard: z.array(z.object({ standard: z.string(), count: z.int() })) }),
  refused: z.object({
    count: z.int(),
    listed: z.array(z.object({ where: z.string(), column: z.string(), message: z.string() })),
  }),
  taken: z.boolean(),
})
export type ImportView = z.infer<typeof ImportView>

/** `look` changes nothing; `all` takes the file when no row is bad; `good` takes the good rows. */
export const ImportMode = z.object({ take: z.enum(['look', 'all', 'good']), kind: z.enum(['json', 'csv']) })
/** Largest file taken. */
export const MAX_IMPORT_BYTES = 8 * 1024 * 1024

/** A file that was taken in, as the page of files lists it. */
export const TakenIn = z.object({
  id: z.uuid(),
  at: z.iso.datetime(),
  by: z.string(),
  records: z.int(),
  values: z.int(),
  takenBackAt: z.iso.datetime().nullable(),
})
export type TakenIn = z.infer<typeof TakenIn>
/** What came of taking one back: values that were changed since stay as they are. */
export const TakenBack = z.object({ records: z.int(), values: z.int(), stay: z.int() })
export type TakenBack = z.infer<typeof TakenBack>
