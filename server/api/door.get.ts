import { defineEventHandler } from 'h3'
import type { DoorView } from '#core/http/door'
import { requireSession } from '../auth/actor'
import { inShop } from '../db/connect'
import { promisedHere, tookHere } from '../db/minutes'
import { drivetrainsUsed, nextTag } from '../db/jobs'
import { db } from '../db/shared'

export default defineEventHandler(async (event): Promise<DoorView> => {
  const { shop } = await requireSession(event)
  return inShop(db(), shop, async tx => ({
    nextTag: await nextTag(tx, shop),
    used: await drivetrainsUsed(tx, shop),
    took: await tookHere(tx, shop),
    ...(await promisedHere(tx, shop)),
  }))
})
