import { defineEventHandler } from 'h3'
import { PutBack, type StockView } from '#core/http/cables'
import { requirePerson, tapped } from '../../../auth/actor'
import { body, refuse } from '../../../auth/refuse'
import { putBack, stock, StockMoved } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

/** Not cut after all, or taken down by mistake: the wall as it was before. */
export default defineEventHandler(async (event): Promise<StockView[]> => {
  const actor = await requirePerson(event)
  const { ids } = await body(event, PutBack)
  try {
    const now = await inShop(db(), actor.shop, async tx => {
      await putBack(tx, actor.shop, ids)
      return stock(tx, actor.shop)
    })
    tapped(actor, actor.person.id)
    return now
  } catch (error) {
    if (error instanceof StockMoved) throw refuse(409, error.message, [{ field: 'ids', message: error.message }])
    throw error
  }
})
