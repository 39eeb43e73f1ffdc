import { randomBytes } from 'node:crypto'
import { defineEventHandler, getRequestURL } from 'h3'
import type { z } from 'zod'
import type { CalendarLink } from '#core/http/recalls'
import { secureOrigin } from '#core/shop/reach'
import { requirePerson } from '../../auth/actor'
import { refuse } from '../../auth/refuse'
import { tokenHash } from '../../auth/secrets'
import { makeCalendar } from '../../db/calendars'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'
import { reachNow } from '../../reach/status'

/** A link under which a calendar reads the recalls: shown once, kept as a hash. */
export default defineEventHandler(async (event): Promise<z.infer<typeof CalendarLink>> => {
  const { shop, person } = await requirePerson(event)
  if (person.role === 'trainee') throw refuse(403, 'A mechanic or the owner makes a calendar link')
  const token = randomBytes(24).toString('base64url')
  await inShop(db(), shop, tx => makeCalendar(tx, shop, person.id, tokenHash(token)))
  // as other devices reach this machine, where they do
  const reach = reachNow()?.status
  const origin = (reach?.lan ? secureOrigin(reach) : null) ?? getRequestURL(event).origin
  return { url: `${origin}/api/calendar/${token}.ics` }
})
