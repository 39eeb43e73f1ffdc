import { defineEventHandler } from 'h3'
import type { NightsView } from '#core/shop/nights'
import { requireOwnerToLook } from '../../auth/actor'
import { refuse } from '../../auth/refuse'
import { nightsNow } from '../../nights/status'

/** How the nights' backups and the disk stand. */
export default defineEventHandler(async (event): Promise<NightsView> => {
  await requireOwnerToLook(event)
  const now = nightsNow()
  if (!now) throw refuse(409, 'This server was not started by Ocho’s own command: its backups are made elsewhere')
  return now
})
