import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { ConfirmOwner } from '#core/http/people'
import { forgetSession, handOf, requireOwnerToLook } from '../../auth/actor'
import { takeTries, wasGood } from '../../auth/limits'
import { body, refuse } from '../../auth/refuse'
import { secretMatches } from '../../auth/secrets'
import { audit } from '../../db/audit'
import { inShop } from '../../db/connect'
import { personById } from '../../db/people'
import { markConfirmed } from '../../db/sessions'
import { db } from '../../db/shared'

/** The password once more, for a quarter of an hour of an owner's acts on this device. */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requireOwnerToLook(event)
  const { secret } = await body(event, ConfirmOwner)
  const key = `${actor.session} ${actor.person.id}`
  await takeTries(['pin', key])
  const person = await inShop(db(), actor.shop, tx => personById(tx, actor.shop, actor.person.id))
  if (!(await secretMatches(secret, person?.password_hash ?? person?.pin_hash ?? null)))
    throw refuse(401, 'That is not it: try again', [{ field: 'secret', message: 'That is not it' }])
  await wasGood(['pin', key])
  await inShop(db(), actor.shop, async tx => {
    await markConfirmed(tx, actor.shop, actor.session)
    await audit(tx, handOf(actor), 'confirmed')
  })
  forgetSession(actor.session, event)
  return { ok: true }
})
