import { defineEventHandler } from 'h3'
import { HandBack, JobNumber } from '#core/http/job'
import type { Sheet } from '#core/ledger/sheet'
import { requirePerson, tapped } from '../../../auth/actor'
import { answering } from '../../../auth/answering'
import { handFor } from '../../../auth/hand'
import { body, param } from '../../../auth/refuse'
import { handBack } from '../../../db/sheets'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** Lets a bike leave: proven, rideable with a fault its customer declined, or unridable and the customer told. */
export default defineEventHandler(async (event): Promise<Sheet> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const order = await body(event, HandBack)
  const { shop, person, session } = actor
  const sheet = await answering(number, () =>
    handBack(db(), shop, number, person.id, session, order, handFor(actor, null)),
  )
  tellJob(shop, number, event)
  tapped(actor, person.id)
  return sheet
})
