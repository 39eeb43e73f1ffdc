import { defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import type { PhotoView } from '#core/http/photos'
import { requireSession } from '../../../../auth/actor'
import { param, refuse } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { jobByNumber } from '../../../../db/jobs'
import { photosOf } from '../../../../db/photos'
import { db } from '../../../../db/shared'

/** A job's photographs, without their bytes. */
export default defineEventHandler(async (event): Promise<PhotoView[]> => {
  const actor = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  return inShop(db(), actor.shop, async tx => {
    const job = await jobByNumber(tx, actor.shop, number)
    if (!job) throw refuse(404, `There is no job ${number} here: look on the Floor`)
    return photosOf(tx, actor.shop, job.id)
  })
})
