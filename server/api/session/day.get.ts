import { defineEventHandler } from 'h3'
import type { DayView } from '#core/http/day'
import { requirePerson } from '../../auth/actor'
import { inShop } from '../../db/connect'
import { dayOf } from '../../db/people'
import { db } from '../../db/shared'

/** The day of who works on this device, and nobody else's. */
export default defineEventHandler(async (event): Promise<DayView> => {
  const { shop, person } = await requirePerson(event)
  return inShop(db(), shop, tx => dayOf(tx, shop, person.id))
})
