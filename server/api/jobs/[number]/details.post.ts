import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { Details, JobNumber } from '#core/http/job'
import { requirePerson, tapped } from '../../../auth/actor'
import { answering } from '../../../auth/answering'
import { body, param } from '../../../auth/refuse'
import { changeDetails } from '../../../db/details'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** Puts right what was written at the door: customer, phone, bike, frame number, complaint, promise, tag. */
export default defineEventHandler(async (event): Promise<Done> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const order = await body(event, Details)
  const { shop, person, session } = actor
  await answering(number, () => changeDetails(db(), shop, number, person.id, session, order))
  tellJob(shop, number, event)
  tapped(actor, person.id)
  return { ok: true }
})
