import { defineEventHandler } from 'h3'
import { JobNumber, Reopen } from '#core/http/job'
import { requirePerson } from '../../../auth/actor'
import { answering } from '../../../auth/answering'
import { body, param } from '../../../auth/refuse'
import { reopen } from '../../../db/sheets'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** Opens a closed job again: the way back from a hand-back, which is never taken back. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop, person, session } = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const order = await body(event, Reopen)
  await answering(number, () => reopen(db(), shop, number, person.id, session, order))
  tellJob(shop, number, event)
  return { ok: true }
})
