import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { MessageAct } from '#core/http/recalls'
import { requirePerson } from '../../auth/actor'
import { recalling } from '../../auth/recalling'
import { body, param } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { actOnMessage } from '../../db/messages'
import { db } from '../../db/shared'
import { sendFor } from '../../gateway/shops'

/** An answer that came, or a message called off, or tried once more. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop } = await requirePerson(event)
  const id = param(event, 'id', z.uuid('There is no such message'))
  const act = await body(event, MessageAct)
  await recalling(() => inShop(db(), shop, tx => actOnMessage(tx, shop, id, act)))
  if (act.do === 'again') await sendFor(shop)
  return { ok: true }
})
