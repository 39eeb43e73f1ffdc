import { defineEventHandler } from 'h3'
import type { StandardsView } from '#core/http/standards'
import { requireSession } from '../../auth/actor'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'
import { valuesInForce } from '../../db/standards'

/** What this shop measured and how it calls things; the table itself ships with the app. */
export default defineEventHandler(async (event): Promise<StandardsView> => {
  const { shop } = await requireSession(event)
  return { values: await inShop(db(), shop, tx => valuesInForce(tx, shop)) }
})
