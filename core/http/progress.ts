import { z } from 'zod'

/**
 * An answer that takes longer than a second, told line by line: how much of it is done, then what came of it. Asked for
 * by naming this type as the one accepted; without it the same address answers once, at the end.
 */
export const PROGRESS_TYPE = 'application/x-ndjson'
/** `share` is from 0 to 1; the last line is `done`, with the answer, or `refused`, with what a refusal answers. */
export const ProgressLine = z.union([
  z.strictObject({ share: z.number().min(0).max(1) }),
  z.strictObject({ done: z.unknown() }),
  z.strictObject({ refused: z.strictObject({ status: z.int().min(400).max(599), data: z.unknown() }) }),
])
export type ProgressLine = z.infer<typeof ProgressLine>

/** Says how much is done, from 0 to 1. */
export type Tell = (share: number) => void
/** The same of a part of the whole: what is a half of the part's own work is told as so much of all. */
export const partOf =
  (tell: Tell, from: number, to: number): Tell =>
  share =>
    tell(from + (to - from) * share)
