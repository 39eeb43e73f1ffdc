import { defineEventHandler } from 'h3'
import type { DeviceView } from '#core/http/people'
import { requireOwnerToLook } from '../../auth/actor'
import { inShop } from '../../db/connect'
import { devices } from '../../db/sessions'
import { db } from '../../db/shared'

export default defineEventHandler(async (event): Promise<DeviceView[]> => {
  const actor = await requireOwnerToLook(event)
  const rows = await inShop(db(), actor.shop, tx => devices(tx, actor.shop))
  return rows.map(d => ({
    id: d.id,
    device: d.device,
    signedInAt: d.created_at.toISOString(),
    lastSeenAt: d.last_seen_at.toISOString(),
    person: d.person,
    current: d.id === actor.session,
  }))
})
