import { defineEventHandler } from 'h3'
import { z } from 'zod'
import type { TakenBack } from '#core/http/standards'
import { handOf, requireOwner } from '../../../../auth/actor'
import { param, refuse } from '../../../../auth/refuse'
import { audit } from '../../../../db/audit'
import { inShop } from '../../../../db/connect'
import { db } from '../../../../db/shared'
import { takeBack } from '../../../../db/takenIn'

/** Takes back all that a file brought, but for what was changed since. */
export default defineEventHandler(async (event): Promise<TakenBack> => {
  const actor = await requireOwner(event)
  const id = param(event, 'id', z.uuid('There is no such file'))
  const back = await inShop(db(), actor.shop, async tx => {
    const done = await takeBack(tx, actor.shop, actor.person.id, id)
    if (done) await audit(tx, handOf(actor), 'importBack', `${done.records} records, ${done.values} values`)
    return done
  })
  if (!back) throw refuse(409, 'That file was taken back already, or never taken: reload the page')
  return back
})
