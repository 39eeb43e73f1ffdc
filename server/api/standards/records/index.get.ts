import type { StandardCount } from '#core/http/records'
import { defineEventHandler } from 'h3'
import { requireSession } from '../../../auth/actor'
import { inShop } from '../../../db/connect'
import { countsByStandard } from '../../../db/recordViews'
import { db } from '../../../db/shared'

export default defineEventHandler(async (event): Promise<StandardCount[]> => {
  const { shop } = await requireSession(event)
  return inShop(db(), shop, tx => countsByStandard(tx, shop))
})
