import { dayNumber } from '#core/job/rails'

/*
 * Times as a shop says them, in its own zone. By the browser's own calendar: a package of dates would be a tenth of the
 * bench page. Tested against one.
 */
const said = (at: Date, zone: string, o: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...o }).format(at)
/** A time of day on the shop's clock: "16:00". */
export const sayClock = (iso: string, zone: string): string => clock(new Date(iso), zone)
const clock = (at: Date, zone: string) => said(at, zone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })

/**
 * A time of day or a day as a shop says it, in the shop's own zone: "today 16:00", "tomorrow", "Friday", "9 December".
 */
export function sayWhen(iso: string, zone: string, now = new Date()): string {
  const at = new Date(iso)
  const days = dayNumber(at, zone) - dayNumber(now, zone)
  if (days === 0) return `today ${clock(at, zone)}`
  if (days === 1) return `tomorrow ${clock(at, zone)}`
  if (days === -1) return 'yesterday'
  if (days > 1 && days < 7) return said(at, zone, { weekday: 'long' })
  return said(at, zone, { day: 'numeric', month: 'long' })
}

export const sayDay = (date: string): string =>
  said(new Date(`${date}T12:00:00Z`), 'UTC', { day: 'numeric', month: 'long', year: 'numeric' })
export const sayTime = (iso: string, zone: string): string => {
  const at = new Date(iso)
  return `${said(at, zone, { day: 'numeric', month: 'short', year: 'numeric' })}, ${clock(at, zone)}`
}
