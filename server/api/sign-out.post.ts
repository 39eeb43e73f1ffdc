import { defineEventHandler } from 'h3'
import { forgetSession, requireSession, takeCookie } from '../auth/actor'
import { inShop } from '../db/connect'
import { revokeSession } from '../db/sessions'
import { db } from '../db/shared'
import { endSession } from '../live/hub'

export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const actor = await requireSession(event)
  await inShop(db(), actor.shop, tx => revokeSession(tx, actor.shop, actor.session))
  forgetSession(actor.session)
  endSession(actor.session)
  takeCookie(event)
  return { ok: true }
})
