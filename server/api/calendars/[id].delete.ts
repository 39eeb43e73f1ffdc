import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { requirePerson } from '../../auth/actor'
import { param, refuse } from '../../auth/refuse'
import { revokeCalendar } from '../../db/calendars'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'

/** Ends a calendar link. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop, person } = await requirePerson(event)
  if (person.role === 'trainee') throw refuse(403, 'A mechanic or the owner ends a calendar link')
  const id = param(event, 'id', z.uuid('There is no such link'))
  if (!(await inShop(db(), shop, tx => revokeCalendar(tx, shop, id)))) throw refuse(404, 'That link was ended before')
  return { ok: true }
})
