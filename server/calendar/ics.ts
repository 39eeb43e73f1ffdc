import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import type { CalendarEntry } from '../db/calendars'

/** Recalls as a calendar (RFC 5545): a whole day each, by bike and tag. Who owns the bike stays in the shop. */
export function icsOf(name: string, entries: readonly CalendarEntry[], origin: string, now = new Date()): string {
  const calendar = ical({
    name: `${name}, recalls`,
    prodId: { company: 'Ocho', product: 'Recalls', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  })
  for (const e of entries)
    calendar.createEvent({
      id: `${e.id}@ocho`,
      start: new Date(`${e.dueOn}T00:00:00Z`),
      allDay: true,
      stamp: now,
      summary: `${e.state === 'due' ? 'Recall' : 'Settled'}: ${e.bike}, tag ${e.tag}`,
      description: `Job ${e.number}`,
      status: e.state === 'due' ? ICalEventStatus.CONFIRMED : ICalEventStatus.CANCELLED,
      url: `${origin}/recalls`,
    })
  return calendar.toString()
}
