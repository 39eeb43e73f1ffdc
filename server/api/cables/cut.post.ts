import { defineEventHandler } from 'h3'
import { CutRequest, type StockView } from '#core/http/cables'
import { requirePerson, tapped } from '../../auth/actor'
import { body, madeBy, refuse } from '../../auth/refuse'
import { cutStock, stock, StockMoved } from '../../db/cables'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'

/** A cut list was cut: what is left goes back on the wall. */
export default defineEventHandler(async (event): Promise<StockView[]> => {
  const actor = await requirePerson(event)
  const { cuts } = await body(event, CutRequest)
  const cutId = madeBy(event, cuts)
  try {
    const now = await inShop(db(), actor.shop, async tx => {
      await cutStock(tx, actor.shop, actor.person.id, cuts, cutId)
      return stock(tx, actor.shop)
    })
    tapped(actor, actor.person.id)
    return now
  } catch (error) {
    if (error instanceof StockMoved) throw refuse(409, error.message, [{ field: 'cuts', message: error.message }])
    throw error
  }
})
