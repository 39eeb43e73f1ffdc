import { defineEventHandler, setResponseHeader } from 'h3'
import { z } from 'zod'
import type { CustomerKept } from '#core/shop/privacy'
import { handOf, requireOwner } from '../../../auth/actor'
import { answeringPrivacy } from '../../../auth/answering'
import { param } from '../../../auth/refuse'
import { audit } from '../../../db/audit'
import { inShop } from '../../../db/connect'
import { customerKept } from '../../../db/privacy'
import { db } from '../../../db/shared'

/** All that is kept on one customer, as a file. */
export default defineEventHandler(async (event): Promise<CustomerKept> => {
  const actor = await requireOwner(event)
  const id = param(event, 'id', z.uuid('That customer is not known'))
  const kept = await answeringPrivacy(() =>
    inShop(db(), actor.shop, async tx => {
      const all = await customerKept(tx, actor.shop, id)
      await audit(tx, handOf(actor), 'customerExported')
      return all
    }),
  )
  setResponseHeader(event, 'content-disposition', 'attachment; filename="customer.json"')
  return kept
})
