import { defineEventHandler } from 'h3'
import type { TakenView } from '#core/http/cables'
import { requirePerson } from '../../../auth/actor'
import { taken } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

/** How long a cut can be called back from the panel, days. */
const DAYS = 7

/** What was cut or taken off the wall lately, and can be put back. */
export default defineEventHandler(async (event): Promise<TakenView[]> => {
  const actor = await requirePerson(event)
  const since = new Date(Date.now() - DAYS * 86_400_000)
  return inShop(db(), actor.shop, tx => taken(tx, actor.shop, since))
})
