import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { forgetSession, handOf, requireOwner } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { audit } from '../../../db/audit'
import { inShop } from '../../../db/connect'
import { revokeSession } from '../../../db/sessions'
import { db } from '../../../db/shared'
import { endSession } from '../../../live/hub'

/** Signs a device out from afar: a lost tablet, say. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const actor = await requireOwner(event)
  const id = param(event, 'id', z.uuid('That device is not known'))
  const done = await inShop(db(), actor.shop, async tx => {
    if (!(await revokeSession(tx, actor.shop, id))) return false
    await audit(tx, handOf(actor), 'deviceEnded')
    return true
  })
  if (!done) throw refuse(404, 'That device is signed out already')
  forgetSession(id)
  endSession(id)
  return { ok: true }
})
