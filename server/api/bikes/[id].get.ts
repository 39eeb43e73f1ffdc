import type { BikeView } from '#core/http/records'
import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { requireSession } from '../../auth/actor'
import { param, refuse } from '../../auth/refuse'
import { bikeView } from '../../db/bikes'
import { inShop } from '../../db/connect'
import { db } from '../../db/shared'

export default defineEventHandler(async (event): Promise<BikeView> => {
  const { shop } = await requireSession(event)
  const id = param(event, 'id', z.uuid('There is no such bike: find it on the Floor'))
  const view = await inShop(db(), shop, tx => bikeView(tx, shop, id))
  if (!view) throw refuse(404, 'That bike is not known here: find it on the Floor')
  return view
})
