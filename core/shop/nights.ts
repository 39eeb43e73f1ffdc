import { z } from 'zod'

/** What the night's backups left behind, as the launcher keeps it beside the data. */
export const NightStatus = z.object({
  /** When one was last tried, and when the last was made and proven by restoring it. */
  triedAt: z.iso.datetime().nullable(),
  goodAt: z.iso.datetime().nullable(),
  bytes: z.int().nullable(),
  trouble: z.string().nullable(),
})
export type NightStatus = z.infer<typeof NightStatus>

/** The same with the disk, and what is to be said of both. */
export const NightsView = z.object({
  status: NightStatus,
  freeBytes: z.number(),
  /** A backup was asked for and is being made. */
  asked: z.boolean(),
  warnings: z.array(z.string()),
})
export type NightsView = z.infer<typeof NightsView>

/** From so many days on, the last good backup is said on the Floor. */
export const LATE_DAYS = 2
/** Less room than this on the data's disk is said on the Floor: a shop's year with photographs is about as much. */
export const LOW_BYTES = 2 * 1024 ** 3

/**
 * What the shop must hear of its nights, each in a sentence that says what to do; nothing when all is well.
 * @param since when the data's first day was, when no backup was made yet
 * @param freeBytes room on the disk the data is on
 */
export function nightWarnings(
  status: NightStatus,
  { now, since, freeBytes }: { now: Date; since: Date; freeBytes: number },
): string[] {
  const words: string[] = []
  if (freeBytes < LOW_BYTES)
    words.push(
      `Only ${Math.max(0, Math.floor(freeBytes / 1024 ** 2))} MB are free on Ocho's disk: make room, or taps can no longer be kept`,
    )
  const days = Math.floor((now.getTime() - (status.goodAt ? new Date(status.goodAt) : since).getTime()) / 86_400_000)
  if (days >= LATE_DAYS) {
    const how = status.goodAt ? `The last good backup is ${days} days old` : 'There is no good backup yet'
    words.push(`${how}${status.trouble ? `: ${status.trouble}` : ''}`)
  }
  return words
}
