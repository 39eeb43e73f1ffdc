import { defineEventHandler } from 'h3'
import { NewStock, type StockView } from '#core/http/cables'
import { requirePerson, tapped } from '../../../auth/actor'
import { body, madeBy } from '../../../auth/refuse'
import { addStock, stock } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

/** Hangs a roll or offcut on the wall. */
export default defineEventHandler(async (event): Promise<StockView[]> => {
  const actor = await requirePerson(event)
  const item = await body(event, NewStock)
  const now = await inShop(db(), actor.shop, async tx => {
    await addStock(tx, actor.shop, actor.person.id, item, madeBy(event, item))
    return stock(tx, actor.shop)
  })
  tapped(actor, actor.person.id)
  return now
})
