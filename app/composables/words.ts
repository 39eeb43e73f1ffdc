import { TZDate } from '@date-fns/tz'
import { differenceInCalendarDays, format } from 'date-fns'

/** A time of day or a day as a shop says it, in the shop's own zone: "today 16:00", "tomorrow", "Friday", "9 December". */
export function sayWhen(iso: string, zone: string, now = new Date()): string {
  const at = new TZDate(iso, zone)
  const days = differenceInCalendarDays(at, new TZDate(now, zone))
  if (days === 0) return `today ${format(at, 'HH:mm')}`
  if (days === 1) return `tomorrow ${format(at, 'HH:mm')}`
  if (days === -1) return 'yesterday'
  if (days > 1 && days < 7) return format(at, 'EEEE')
  return format(at, 'd MMMM')
}

export const sayDay = (date: string): string => format(new Date(`${date}T12:00:00`), 'd MMMM yyyy')
export const sayTime = (iso: string, zone: string): string => format(new TZDate(iso, zone), 'd MMM yyyy, HH:mm')
