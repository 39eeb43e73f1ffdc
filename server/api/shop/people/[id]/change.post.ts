import { PersonId } from '#core/chapter/ids'
import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { ChangePerson } from '#core/http/people'
import { forgetAllSessions, handOf, requireOwner } from '../../../../auth/actor'
import { body, param, refuse } from '../../../../auth/refuse'
import { audit } from '../../../../db/audit'
import { inShop } from '../../../../db/connect'
import { CannotChange, changePerson, personById } from '../../../../db/people'
import { db } from '../../../../db/shared'

/** An owner changes a person's name or role, or lets them go; the name stays on the ledger. */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requireOwner(event)
  const id = param(event, 'id', PersonId)
  const change = await body(event, ChangePerson)
  try {
    await inShop(db(), actor.shop, async tx => {
      const was = await personById(tx, actor.shop, id)
      await changePerson(tx, actor.shop, id, change)
      await audit(tx, handOf(actor), change.leaves ? 'personLeft' : 'personChanged', was?.name)
    })
  } catch (error) {
    if (error instanceof CannotChange) throw refuse(409, error.message, [{ field: 'name', message: error.message }])
    if ((error as { code?: string }).code === '23505')
      throw refuse(409, `${change.name} works here already: use another name`, [
        { field: 'name', message: 'That name is taken' },
      ])
    throw error
  }
  forgetAllSessions()
  return { ok: true }
})
