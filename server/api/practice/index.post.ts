import { defineEventHandler } from 'h3'
import { KeepPractice } from '#core/http/practice'
import { requirePerson } from '../../auth/actor'
import { body } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { keepPractice } from '../../db/practice'
import { db } from '../../db/shared'

/** Keeps a run of whoever is at the tablet; sent again it is kept once. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop, person } = await requirePerson(event)
  const { result } = await body(event, KeepPractice)
  await inShop(db(), shop, tx => keepPractice(tx, shop, person.id, result))
  return { ok: true }
})
