import { defineEventHandler } from 'h3'
import type { MyPractice } from '#core/http/practice'
import { requirePerson } from '../../auth/actor'
import { inShop } from '../../db/connect'
import { myPractice } from '../../db/practice'
import { db } from '../../db/shared'

/** What whoever is at the tablet practised. */
export default defineEventHandler(async (event): Promise<MyPractice> => {
  const { shop, person } = await requirePerson(event)
  return inShop(db(), shop, tx => myPractice(tx, shop, person.id))
})
