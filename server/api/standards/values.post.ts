import { defineEventHandler } from 'h3'
import { ClaimRequest, type StandardsView } from '#core/http/standards'
import { catalogueInForce, ownTrouble } from '#core/standards/shopValues'
import { requireMechanic, tapped } from '../../auth/actor'
import { body, refuse } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'
import { claim, shopValues, valuesInForce } from '../../db/standards'

/** Adds what was measured, a nickname, or "back to the table". Nothing said before is changed. */
export default defineEventHandler(async (event): Promise<StandardsView> => {
  const actor = await requireMechanic(event)
  const { claims } = await body(event, ClaimRequest)
  const values = await inShop(db(), actor.shop, async tx => {
    const trouble = ownTrouble(claims, catalogueInForce(await shopValues(tx, actor.shop)))
    if (trouble) throw refuse(400, trouble.message, [{ field: 'value', message: trouble.message }])
    await claim(tx, actor.shop, actor.person.id, claims)
    return valuesInForce(tx, actor.shop)
  })
  tapped(actor, actor.person.id)
  return { values }
})
