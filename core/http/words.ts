import { z } from 'zod'

/** A line of text a person types: kept as typed, trimmed at the ends; `<b>` and quotes are just characters. */
export const line = (what: string, most: number) =>
  z
    .string({ error: `${what}: type some text` })
    .trim()
    .min(1, `${what} is empty: type it in`)
    .max(most, `${what} is longer than ${most} characters: shorten it`)

/** The same, but may be left empty. */
export const optionalLine = (what: string, most: number) =>
  z
    .string({ error: `${what}: type some text` })
    .trim()
    .max(most, `${what} is longer than ${most} characters: shorten it`)

/** A day and time that a shop can mean. */
export const moment = (what: string, how = 'choose a day and time') =>
  z.iso.datetime({ error: `${what}: ${how}` }).refine(at => at >= '2000' && at < '2101', `${what}: from 2000 to 2100`)

/** What every refused request answers with: the field, and what to do. */
export const Refusal = z.object({
  message: z.string(),
  issues: z.array(z.object({ field: z.string(), message: z.string() })),
})
export type Refusal = z.infer<typeof Refusal>

/** Issues of a failed parse in the shape of a refusal. */
export const issuesOf = (error: z.ZodError): Refusal['issues'] =>
  error.issues.map(i => ({ field: i.path.join('.') || 'body', message: i.message }))
