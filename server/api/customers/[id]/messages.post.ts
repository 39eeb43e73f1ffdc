import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { LeaveAlone } from '#core/http/recalls'
import { requirePerson } from '../../../auth/actor'
import { body, param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { leaveAlone } from '../../../db/recalls'
import { db } from '../../../db/shared'

/** Whether a customer wants messages. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop } = await requirePerson(event)
  const id = param(event, 'id', z.uuid('There is no such customer'))
  const { noMessages } = await body(event, LeaveAlone)
  if (!(await inShop(db(), shop, tx => leaveAlone(tx, shop, id, noMessages))))
    throw refuse(404, 'There is no such customer here')
  return { ok: true }
})
