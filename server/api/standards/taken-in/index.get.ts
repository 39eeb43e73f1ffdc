import { defineEventHandler } from 'h3'
import type { TakenIn } from '#core/http/standards'
import { requireOwnerToLook } from '../../../auth/actor'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'
import { takenIn } from '../../../db/takenIn'

/** Files that were taken in lately. */
export default defineEventHandler(async (event): Promise<TakenIn[]> => {
  const actor = await requireOwnerToLook(event)
  return inShop(db(), actor.shop, tx => takenIn(tx, actor.shop))
})
