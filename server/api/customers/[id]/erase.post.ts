import { defineEventHandler } from 'h3'
import { z } from 'zod'
import type { Done } from '#core/http/answers'
import { handOf, requireOwner } from '../../../auth/actor'
import { answeringPrivacy } from '../../../auth/answering'
import { param } from '../../../auth/refuse'
import { audit } from '../../../db/audit'
import { inShop } from '../../../db/connect'
import { eraseCustomer } from '../../../db/privacy'
import { db } from '../../../db/shared'

/** Erases a customer at their wish; what was turned and measured stays, and names nobody. */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requireOwner(event)
  const id = param(event, 'id', z.uuid('That customer is not known'))
  await answeringPrivacy(() =>
    inShop(db(), actor.shop, async tx => {
      await eraseCustomer(tx, actor.shop, id)
      await audit(tx, handOf(actor), 'customerErased')
    }),
  )
  return { ok: true }
})
