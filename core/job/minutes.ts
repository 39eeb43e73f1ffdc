import { z } from 'zod'
import type { Told } from '../chapter/chapter'

/** Nobody taps for longer than this: the bike waited. `model` */
const PAUSE_MIN = 12
/** What goes before the first tap and after the last. `model` */
const AROUND_MIN = 4
const QUIET = new Set(['placed', 'arrived', 'seen', 'handedBack', 'reopened', 'edited', 'waits', 'riderSaid'])

/**
 * Minutes a job was worked on, by when something was tapped on it: pauses are left out. Of jobs, never of people. 0
 * where nothing was.
 */
export function minutesOf(log: readonly Pick<Told, 'at' | 'event'>[]): number {
  const at = log
    .filter(t => !QUIET.has(t.event.kind))
    .map(t => Date.parse(t.at))
    .sort((a, b) => a - b)
  if (!at.length) return 0
  return at.slice(1).reduce((sum, t, i) => sum + Math.min(PAUSE_MIN, (t - at[i]!) / 60_000), AROUND_MIN)
}

/** Kinds of jobs as they are promised, by what the customer says at the door; the first that fits. `practice` */
const KINDS = [
  ['cable', /cable|re-?cable|housing/i],
  ['brakes', /brake/i],
  ['hub', /hub/i],
  ['service', /service|check|overhaul/i],
] as const
export const JOB_KINDS = ['cable', 'brakes', 'hub', 'service', 'gears'] as const
export type JobKind = (typeof JOB_KINDS)[number]
export const JOB_KIND_WORDS: Record<JobKind, string> = {
  cable: 'new cable',
  brakes: 'brakes',
  hub: 'hub gear',
  service: 'service',
  gears: 'gears',
}
export const kindOfJob = (complaint: string): JobKind =>
  KINDS.find(([, words]) => words.test(complaint))?.[0] ?? 'gears'

/** What a shop's closed jobs of a kind took, minutes: the middle, and what three of four stay under. */
export const Took = z.object({ kind: z.enum(JOB_KINDS), jobs: z.int(), median: z.number(), most: z.number() })
export type Took = z.infer<typeof Took>
/** Before a shop has closed so many of a kind, the usual stands. */
const FEWEST_JOBS = 5
/** Minutes where a shop has closed too few to say: the middle, and what three of four stay under. `practice` */
const USUAL: Record<JobKind, { median: number; most: number }> = {
  cable: { median: 45, most: 60 },
  brakes: { median: 30, most: 45 },
  hub: { median: 25, most: 40 },
  service: { median: 50, most: 75 },
  gears: { median: 25, most: 40 },
}
/** Minutes to expect of a job: of this shop's own, or the usual. */
export function expectedMinutes(
  complaint: string,
  took: readonly Took[],
): { median: number; most: number; kind: JobKind; jobs: number } {
  const kind = kindOfJob(complaint)
  const here = took.find(t => t.kind === kind)
  return here && here.jobs >= FEWEST_JOBS
    ? { kind, jobs: here.jobs, median: here.median, most: here.most }
    : { kind, jobs: 0, ...USUAL[kind] }
}

/** Hours a shop works, in its own day. `practice` */
const HOURS = { from: 9, to: 18 } as const
/** Of an hour at a stand so much goes into bikes; the rest is the counter. `model` */
const AT_BIKES = 0.7

/** Minutes of work that are left between two moments of the shop's clock, at so many stands; both as if in UTC. */
export function workMinutes(from: Date, to: Date, stands: number): number {
  let minutes = 0
  for (
    let day = Date.UTC(from.getUTCFullYear(), from.getUTCMonth(), from.getUTCDate());
    day <= to.getTime();
    day += 86_400_000
  ) {
    const open = Math.max(from.getTime(), day + HOURS.from * 3_600_000)
    const shut = Math.min(to.getTime(), day + HOURS.to * 3_600_000)
    if (shut > open) minutes += (shut - open) / 60_000
  }
  return minutes * Math.max(1, stands) * AT_BIKES
}

/** An open job as the day sees it: what is promised, and what it will likely take. */
export type Promised = { number: number; promisedAt: Date; minutes: number }
/**
 * Which promises are at risk at this pace: earliest first, what comes before has to be done too. Times of the shop's
 * clock, as if in UTC.
 */
export function atRisk(jobs: readonly Promised[], now: Date, stands: number): Set<number> {
  const out = new Set<number>()
  let needed = 0
  for (const j of [...jobs].sort((a, b) => a.promisedAt.getTime() - b.promisedAt.getTime())) {
    needed += j.minutes
    if (needed > workMinutes(now, j.promisedAt, stands)) out.add(j.number)
  }
  return out
}

/**
 * The first of some times by which one more job can be done, after all that is promised before it; null where none can
 * be kept.
 */
export function keepable(
  times: readonly Date[],
  mostMinutes: number,
  jobs: readonly Promised[],
  now: Date,
  stands: number,
): Date | null {
  return (
    times.find(at => {
      const before = jobs.filter(j => j.promisedAt <= at).reduce((sum, j) => sum + j.minutes, 0)
      return before + mostMinutes <= workMinutes(now, at, stands)
    }) ?? null
  )
}
