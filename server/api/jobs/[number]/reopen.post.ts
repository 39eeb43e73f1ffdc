import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { JobNumber } from '#core/http/job'
import { requirePerson } from '../../../auth/actor'
import { body, param, refuse } from '../../../auth/refuse'
import { NoSuchJob } from '../../../db/ledger'
import { MustStay, reopen } from '../../../db/sheets'
import { db } from '../../../db/shared'
import { tellJob } from '../../../live/hub'

const Reopen = z.strictObject({ id: z.uuid(), basedOn: z.int().min(0) })

export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { id, basedOn } = await body(event, Reopen)
  try {
    await reopen(db(), actor.shop, number, actor.person.id, actor.session, id, basedOn)
  } catch (error) {
    if (error instanceof MustStay) throw refuse(409, error.message)
    if (error instanceof NoSuchJob) throw refuse(404, `There is no job ${number} here: look on the Floor`)
    throw error
  }
  tellJob(actor.shop, number)
  return { ok: true }
})
