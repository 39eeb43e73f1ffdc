import { defineEventHandler } from 'h3'
import { TakeIn } from '#core/http/door'
import { requirePerson, tapped } from '../../auth/actor'
import { body, madeBy, refuse } from '../../auth/refuse'
import { CannotTakeIn, takeIn } from '../../db/jobs'
import { db } from '../../db/shared'

export default defineEventHandler(async (event): Promise<{ number: number }> => {
  const actor = await requirePerson(event)
  const order = await body(event, TakeIn)
  try {
    const number = await takeIn(
      db(),
      actor.shop,
      actor.person.id,
      actor.session,
      order,
      undefined,
      madeBy(event, order),
    )
    tapped(actor, actor.person.id)
    return { number }
  } catch (error) {
    if (error instanceof CannotTakeIn)
      throw refuse(409, error.message, [{ field: error.field, message: error.message }])
    throw error
  }
})
