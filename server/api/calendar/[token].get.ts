import { defineEventHandler, getRequestURL, setResponseHeader } from 'h3'
import { z } from 'zod'
import { param, refuse } from '../../auth/refuse'
import { tokenHash } from '../../auth/secrets'
import { icsOf } from '../../calendar/ics'
import { calendarOf } from '../../db/calendars'
import { db } from '../../db/shared'

/** The recalls as a calendar reads them, by a link's token: open, since a calendar signs in nowhere. */
export default defineEventHandler(async event => {
  const token = param(
    event,
    'token',
    z.string().regex(/^[A-Za-z0-9_-]{20,60}(\.ics)?$/, 'That is no calendar link: make one on the recalls page'),
  )
  const found = await calendarOf(db(), tokenHash(token.replace(/\.ics$/, '')))
  if (!found) throw refuse(404, 'This calendar link was ended: make a new one on the recalls page')
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  return icsOf(found.name, found.entries, getRequestURL(event).origin)
})
