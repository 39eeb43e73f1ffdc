import { defineEventHandler } from 'h3'
import { ShowPractice } from '#core/http/practice'
import { requirePerson } from '../../auth/actor'
import { body } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { showPractice } from '../../db/practice'
import { db } from '../../db/shared'

/** Whether a mechanic may see what this person practised: their own word alone. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop, person } = await requirePerson(event)
  const { shows } = await body(event, ShowPractice)
  await inShop(db(), shop, tx => showPractice(tx, shop, person.id, shows))
  return { ok: true }
})
