import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { RecallAct } from '#core/http/recalls'
import { requirePerson } from '../../auth/actor'
import { body, param } from '../../auth/refuse'
import { recalling } from '../../auth/recalling'
import { inShop } from '../../db/connect'
import { actOnRecall } from '../../db/recalls'
import { db } from '../../db/shared'
import { sendFor } from '../../gateway/shops'

/** What becomes of one recall. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop, person, session } = await requirePerson(event)
  const id = param(event, 'id', z.uuid('There is no such recall'))
  const act = await body(event, RecallAct)
  await recalling(() => inShop(db(), shop, tx => actOnRecall(tx, { shop, person: person.id, session }, id, act)))
  if (act.do === 'write') await sendFor(shop)
  return { ok: true }
})
