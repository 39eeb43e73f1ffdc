import { defineEventHandler } from 'h3'
import { HandBack, JobNumber } from '#core/http/job'
import type { Sheet } from '#core/ledger/sheet'
import { requirePerson, tapped } from '../../../auth/actor'
import { body, param, refuse } from '../../../auth/refuse'
import { NoSuchJob } from '../../../db/ledger'
import { handBack, MustStay } from '../../../db/sheets'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

/** Lets a bike leave: both brakes proven, or unridable and the customer told. */
export default defineEventHandler(async (event): Promise<Sheet> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const order = await body(event, HandBack)
  if (order.how === 'unridable' && actor.person.role === 'trainee')
    throw refuse(403, 'A mechanic lets a bike leave unridable: let one unlock this device')
  try {
    const sheet = await handBack(db(), actor.shop, number, actor.person.id, actor.session, order)
    tellJob(actor.shop, number)
    tapped(actor, actor.person.id)
    return sheet
  } catch (error) {
    if (error instanceof MustStay) throw refuse(409, error.message, [{ field: 'how', message: error.message }])
    if (error instanceof NoSuchJob) throw refuse(404, `There is no job ${number} here: look on the Floor`)
    throw error
  }
})
