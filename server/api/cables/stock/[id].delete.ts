import { defineEventHandler } from 'h3'
import { z } from 'zod'
import type { StockView } from '#core/http/cables'
import { requirePerson } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { dropStock, stock } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

/** Takes a roll or offcut off the wall: used up or thrown away. */
export default defineEventHandler(async (event): Promise<StockView[]> => {
  const actor = await requirePerson(event)
  const id = param(event, 'id', z.uuid('There is no such roll: look at the wall again'))
  return inShop(db(), actor.shop, async tx => {
    if (!(await dropStock(tx, actor.shop, id)))
      throw refuse(404, 'That roll or offcut is not there any more: look at the wall again')
    return stock(tx, actor.shop)
  })
})
