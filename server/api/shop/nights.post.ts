import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { handOf, requireOwner } from '../../auth/actor'
import { refuse } from '../../auth/refuse'
import { audit } from '../../db/audit'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'
import { askForBackup } from '../../nights/status'

/** An owner asks for a backup now; the launcher makes and proves it. */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requireOwner(event)
  if (!askForBackup())
    throw refuse(409, 'This server was not started by Ocho’s own command: its backups are made elsewhere')
  await inShop(db(), actor.shop, tx => audit(tx, handOf(actor), 'backupAsked'))
  return { ok: true }
})
