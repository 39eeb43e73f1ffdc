import { defineEventHandler } from 'h3'
import type { RecallDesk } from '#core/http/recalls'
import { requireSession } from '../../auth/actor'
import { inShop } from '../../db/connect'
import { recallDesk } from '../../db/recalls'
import { db } from '../../db/shared'
import { gateway } from '../../gateway'
import { seenHere } from '../../gateway/shops'

/** Who is due, why, what to say, and what was written. */
export default defineEventHandler(async (event): Promise<RecallDesk> => {
  const { shop } = await requireSession(event)
  seenHere(shop)
  const { name, standIn } = gateway()
  return { ...(await inShop(db(), shop, tx => recallDesk(tx, shop))), gateway: { name, standIn } }
})
