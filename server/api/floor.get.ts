import { defineEventHandler } from 'h3'
import type { FloorView } from '#core/http/floor'
import { requireSession } from '../auth/actor'
import { inShop } from '../db/connect'
import { floor } from '../db/floor'
import { db } from '../db/shared'
import { seenHere } from '../gateway/shops'
import { nightsNow } from '../nights/status'

export default defineEventHandler(async (event): Promise<FloorView> => {
  const { shop } = await requireSession(event)
  seenHere(shop)
  const view = await inShop(db(), shop, tx => floor(tx, shop))
  return { ...view, warnings: nightsNow()?.warnings ?? [] }
})
