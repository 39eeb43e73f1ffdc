import { defineEventHandler } from 'h3'
import { JobNumber, type JobView } from '#core/http/job'
import { requireSession } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { db } from '../../../db/shared'
import { jobView } from '../../../db/jobView'

export default defineEventHandler(async (event): Promise<JobView> => {
  const { shop } = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const view = await inShop(db(), shop, tx => jobView(tx, shop, number))
  if (!view) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  return view
})
