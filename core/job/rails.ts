import type { WaitsFor } from './events'

/** Rails of the Floor, by what was promised. */
export const RAILS = ['late', 'today', 'tomorrow', 'later'] as const
export type Rail = (typeof RAILS)[number]
export const RAIL_WORDS: Record<Rail, string> = { late: 'Late', today: 'Today', tomorrow: 'Tomorrow', later: 'Later' }

/** Days since some day in a zone: two times of the same day there have the same. @param zone an IANA time zone */
export function dayNumber(at: Date, zone: string): number {
  const [day, month, year] = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  })
    .format(at)
    .split('/')
    .map(Number)
  return Date.UTC(year!, month! - 1, day) / 86_400_000
}

/** Which rail a bike that waits hangs from: a promise that has passed is late, whatever its day. */
export function railOf(promisedAt: string, now: Date, zone: string): Rail {
  const at = new Date(promisedAt)
  if (at < now) return 'late'
  const days = dayNumber(at, zone) - dayNumber(now, zone)
  return days === 0 ? 'today' : days === 1 ? 'tomorrow' : 'later'
}

/** What the Floor is narrowed to. */
export type FloorFilter = 'all' | 'mine' | WaitsFor
type Waiting = { promisedAt: string; waits: WaitsFor | null; by: string | null }

/** Is this bike shown? @param me whose bikes are "mine" */
export const shownOn = (job: Pick<Waiting, 'waits' | 'by'>, filter: FloorFilter, me: string | null): boolean =>
  filter === 'all' || (filter === 'mine' ? job.by !== null && job.by === me : job.waits === filter)

/** Bikes that wait, rail by rail, each in the order of their promises; rails without any are left out. */
export const railsOf = <J extends Waiting>(jobs: readonly J[], now: Date, zone: string): { rail: Rail; jobs: J[] }[] =>
  RAILS.map(rail => ({
    rail,
    jobs: jobs
      .filter(j => railOf(j.promisedAt, now, zone) === rail)
      .sort((a, b) => Date.parse(a.promisedAt) - Date.parse(b.promisedAt)),
  })).filter(r => r.jobs.length > 0)
