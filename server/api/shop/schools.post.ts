import { defineEventHandler } from 'h3'
import { ChooseSchools } from '#core/http/session'
import { requireOwner, requirePerson } from '../../auth/actor'
import { body } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { chooseSchools } from '../../db/people'
import { db } from '../../db/shared'

/** The schools a shop or a person works by; a job's own are entries of its ledger. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { of, choice } = await body(event, ChooseSchools)
  const actor = of === 'shop' ? await requireOwner(event) : await requirePerson(event)
  await inShop(db(), actor.shop, tx => chooseSchools(tx, actor.shop, of === 'shop' ? null : actor.person.id, choice))
  return { ok: true }
})
