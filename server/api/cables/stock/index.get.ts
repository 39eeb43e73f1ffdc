import { defineEventHandler } from 'h3'
import type { StockView } from '#core/http/cables'
import { requireSession } from '../../../auth/actor'
import { stock } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

export default defineEventHandler(async (event): Promise<StockView[]> => {
  const { shop } = await requireSession(event)
  return inShop(db(), shop, tx => stock(tx, shop))
})
