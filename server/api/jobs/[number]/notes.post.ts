import { defineEventHandler } from 'h3'
import { JobNumber, Note } from '#core/http/job'
import { requirePerson, tapped } from '../../../auth/actor'
import { body, param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { addNote, jobByNumber } from '../../../db/jobs'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** One line of what was done, for a mechanic who wants no advice. */
export default defineEventHandler(async (event): Promise<{ id: string }> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { text } = await body(event, Note)
  const id = await inShop(db(), actor.shop, async tx => {
    const job = await jobByNumber(tx, actor.shop, number)
    return job ? addNote(tx, actor.shop, job.id, actor.person.id, text) : null
  })
  if (!id) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  tellJob(actor.shop, number)
  tapped(actor, actor.person.id)
  return { id }
})
