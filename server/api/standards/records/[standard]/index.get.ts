import { type RecordsOfStandard, StandardId } from '#core/http/records'
import { defineEventHandler } from 'h3'
import { requireSession } from '../../../../auth/actor'
import { param } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { recordsOfStandard } from '../../../../db/recordViews'
import { db } from '../../../../db/shared'

/** Medians and spread of what this shop recorded under a standard; empty when nothing was. */
export default defineEventHandler(async (event): Promise<RecordsOfStandard> => {
  const { shop } = await requireSession(event)
  const standard = param(event, 'standard', StandardId)
  return inShop(db(), shop, tx => recordsOfStandard(tx, shop, standard))
})
