import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { ReachWish } from '#core/shop/reach'
import { handOf, requireOwner } from '../../auth/actor'
import { body, refuse } from '../../auth/refuse'
import { audit } from '../../db/audit'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'
import { reachNow, wishReach } from '../../reach/status'

/**
 * An owner lets tablets reach this machine, or no longer, or chooses the name they reach it by; the launcher does it.
 */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requireOwner(event)
  const wish = await body(event, ReachWish)
  const now = reachNow()
  if (!now) throw refuse(409, 'This server was not started by Ocho’s own command: who reaches it is decided elsewhere')
  if (wish.name !== null && now.status.lan && !now.status.names.includes(wish.name)) {
    const message = 'This machine has no such name: choose one of those shown'
    throw refuse(400, message, [{ field: 'name', message }])
  }
  wishReach(wish)
  await inShop(db(), actor.shop, tx =>
    audit(tx, handOf(actor), 'reach', wish.lan ? 'tablets too' : 'this machine alone'),
  )
  return { ok: true }
})
