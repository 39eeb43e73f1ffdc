import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { JobNumber, SameBike } from '#core/http/job'
import { requirePerson, tapped } from '../../../auth/actor'
import { answering } from '../../../auth/answering'
import { body, param } from '../../../auth/refuse'
import { mergeBike } from '../../../db/merge'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** This job's bike is one that was here before under another entry: the two become one. */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const order = await body(event, SameBike)
  const { shop, person, session } = actor
  await answering(number, () => mergeBike(db(), shop, number, person.id, session, order))
  tellJob(shop, number, event)
  tapped(actor, person.id)
  return { ok: true }
})
