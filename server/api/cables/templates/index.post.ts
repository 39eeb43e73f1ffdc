import { defineEventHandler } from 'h3'
import { NewTemplate, type TemplateView } from '#core/http/cables'
import { requireMechanic, tapped } from '../../../auth/actor'
import { body } from '../../../auth/refuse'
import { keepTemplate, templates } from '../../../db/cables'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'

/** Keeps runs as a template of the shop; one of that name is replaced. */
export default defineEventHandler(async (event): Promise<TemplateView[]> => {
  const actor = await requireMechanic(event)
  const { name, runs } = await body(event, NewTemplate)
  const now = await inShop(db(), actor.shop, async tx => {
    await keepTemplate(tx, actor.shop, actor.person.id, name, runs)
    return templates(tx, actor.shop)
  })
  tapped(actor, actor.person.id)
  return now
})
