import { defineEventHandler } from 'h3'
import { forgetSession, handOf, requireSession, takeCookie } from '../auth/actor'
import { audit } from '../db/audit'
import { inShop } from '../db/connect'
import { revokeSession } from '../db/sessions'
import { db } from '../db/shared'
import { endSession } from '../live/hub'

export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const actor = await requireSession(event)
  await inShop(db(), actor.shop, async tx => {
    await revokeSession(tx, actor.shop, actor.session)
    await audit(tx, handOf(actor), 'signOut')
  })
  forgetSession(actor.session)
  endSession(actor.session)
  takeCookie(event)
  return { ok: true }
})
