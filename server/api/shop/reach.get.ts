import { defineEventHandler } from 'h3'
import type { ReachView } from '#core/shop/reach'
import { requireOwnerToLook } from '../../auth/actor'
import { refuse } from '../../auth/refuse'
import { reachNow } from '../../reach/status'

/** Whether tablets reach this machine, by which names, and whose word they take for it. */
export default defineEventHandler(async (event): Promise<ReachView> => {
  await requireOwnerToLook(event)
  const now = reachNow()
  if (!now) throw refuse(409, 'This server was not started by Ocho’s own command: who reaches it is decided elsewhere')
  return now
})
