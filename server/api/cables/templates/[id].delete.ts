import { defineEventHandler } from 'h3'
import { z } from 'zod'
import type { TemplateView } from '#core/http/cables'
import { requireMechanic } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { dropTemplate, templates } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

export default defineEventHandler(async (event): Promise<TemplateView[]> => {
  const actor = await requireMechanic(event)
  const id = param(event, 'id', z.uuid('There is no such template'))
  return inShop(db(), actor.shop, async tx => {
    if (!(await dropTemplate(tx, actor.shop, id))) throw refuse(404, 'That template is not there any more')
    return templates(tx, actor.shop)
  })
})
