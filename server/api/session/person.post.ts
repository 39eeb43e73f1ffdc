import { defineEventHandler } from 'h3'
import { SwitchPerson } from '#core/http/session'
import { forgetSession, isFresh, requireSession } from '../../auth/actor'
import { personByPin } from '../../auth/pin'
import { body, refuse } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { personById } from '../../db/people'
import { setPerson } from '../../db/sessions'
import { db } from '../../db/shared'

/**
 * Says who works: by PIN, or by name alone within a quarter of an hour of their last tap on this device. From a trainee
 * to anyone who may sign only by PIN: else a tap on a mechanic's name would sign for them.
 */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const actor = await requireSession(event)
  const { person: id, pin } = await body(event, SwitchPerson)
  if (pin !== undefined) await personByPin(actor, id, pin)
  else {
    const person = await inShop(db(), actor.shop, tx => personById(tx, actor.shop, id))
    if (!person) throw refuse(404, 'Nobody of that name works here')
    const fromTrainee = actor.person?.role === 'trainee' && person.role !== 'trainee'
    if (fromTrainee || !isFresh(actor.unlocked.get(id)))
      throw refuse(401, 'Type your PIN', [{ field: 'pin', message: 'Type your PIN' }])
  }
  await inShop(db(), actor.shop, tx => setPerson(tx, actor.shop, actor.session, id))
  forgetSession(actor.session, event)
  return { ok: true }
})
