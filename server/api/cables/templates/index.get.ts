import { defineEventHandler } from 'h3'
import type { TemplateView } from '#core/http/cables'
import { requireSession } from '../../../auth/actor'
import { templates } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

export default defineEventHandler(async (event): Promise<TemplateView[]> => {
  const { shop } = await requireSession(event)
  return inShop(db(), shop, tx => templates(tx, shop))
})
