import { defineEventHandler } from 'h3'
import { Desk } from '#core/recall/desk'
import { requirePerson } from '../../auth/actor'
import { body, refuse } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'

/** Quiet hours and places a day. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop, person } = await requirePerson(event)
  if (person.role === 'trainee') throw refuse(403, 'A mechanic or the owner sets this')
  const desk = await body(event, Desk)
  await inShop(db(), shop, tx =>
    tx
      .updateTable('shop')
      .set({ desk: JSON.stringify(desk) })
      .where('shop', '=', shop)
      .execute(),
  )
  return { ok: true }
})
