import { TZDate } from '@date-fns/tz'
import { format } from 'date-fns'

/** A time as a field for day and time holds it, on the shop's own clock. */
export const onShopClock = (iso: string, zone: string): string => format(new TZDate(iso, zone), "yyyy-MM-dd'T'HH:mm")

/** A field's time on the shop's own clock, as the contract has it; '' where it is not whole. */
export function fromShopClock(local: string, zone: string): string {
  const [date, time] = local.split('T')
  if (!date || !time) return ''
  const [y, m, d] = date.split('-').map(Number)
  const [h, min] = time.split(':').map(Number)
  return new Date(new TZDate(y!, m! - 1, d!, h!, min!, zone)).toISOString()
}

/** A promise that has passed already is questioned, not refused: a job can be entered late. */
export const inThePast = (iso: string, now = new Date()): boolean => iso !== '' && new Date(iso) < now

/** A moment as the shop's clock shows it, as if that were UTC: what hours of work are counted in. */
export function wallClock(at: string | Date, zone: string): Date {
  const t = new TZDate(new Date(at), zone)
  return new Date(Date.UTC(t.getFullYear(), t.getMonth(), t.getDate(), t.getHours(), t.getMinutes()))
}
