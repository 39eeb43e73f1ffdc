import { defineEventHandler } from 'h3'
import { JobNumber, Note } from '#core/http/job'
import { requirePerson, tapped } from '../../../auth/actor'
import { answering } from '../../../auth/answering'
import { body, param, madeBy } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { addNote } from '../../../db/jobs'
import { lockOpenJob } from '../../../db/ledger'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** One line of what was done, for a mechanic who wants no advice. */
export default defineEventHandler(async (event): Promise<{ id: string }> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { text } = await body(event, Note)
  const id = await answering(number, () =>
    inShop(db(), actor.shop, async tx =>
      addNote(tx, actor.shop, await lockOpenJob(tx, actor.shop, number), actor.person.id, text, madeBy(event, text)),
    ),
  )
  tellJob(actor.shop, number, event)
  tapped(actor, actor.person.id)
  return { id }
})
