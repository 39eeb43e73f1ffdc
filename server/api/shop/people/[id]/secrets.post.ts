import { PersonId } from '#core/chapter/ids'
import { defineEventHandler } from 'h3'
import { NewSecrets } from '#core/http/people'
import { forgetAllSessions, handOf, requireOwner } from '../../../../auth/actor'
import { body, param, refuse } from '../../../../auth/refuse'
import { hashSecret } from '../../../../auth/secrets'
import { audit } from '../../../../db/audit'
import { inShop } from '../../../../db/connect'
import { personById, setSecrets } from '../../../../db/people'
import { db } from '../../../../db/shared'

/** An owner gives somebody a new PIN or password; names unlocked by the old PIN ask for the new one. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const actor = await requireOwner(event)
  const id = param(event, 'id', PersonId)
  const { pin, password } = await body(event, NewSecrets)
  const hashes = {
    ...(pin ? { pin_hash: await hashSecret(pin) } : {}),
    ...(password ? { password_hash: await hashSecret(password) } : {}),
  }
  const done = await inShop(db(), actor.shop, async tx => {
    const person = await personById(tx, actor.shop, id)
    if (!(await setSecrets(tx, actor.shop, id, hashes, actor.session))) return false
    await audit(tx, handOf(actor), 'secrets', person?.name)
    return true
  })
  if (!done) throw refuse(404, 'That person does not work here')
  forgetAllSessions()
  return { ok: true }
})
