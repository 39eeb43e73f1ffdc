import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { JobNumber } from '#core/http/job'
import type { PhotoView } from '#core/http/photos'
import { requirePerson } from '../../../../auth/actor'
import { answering } from '../../../../auth/answering'
import { param, refuse } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { lockOpenJob } from '../../../../db/ledger'
import { dropPhoto, photosOf } from '../../../../db/photos'
import { db } from '../../../../db/shared'

/** Takes a photograph off the job. */
export default defineEventHandler(async (event): Promise<PhotoView[]> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const id = param(event, 'id', z.uuid('There is no such photograph'))
  return answering(number, () =>
    inShop(db(), actor.shop, async tx => {
      const job = await lockOpenJob(tx, actor.shop, number)
      if (!(await dropPhoto(tx, actor.shop, job, id))) throw refuse(404, 'That photograph is not there any more')
      return photosOf(tx, actor.shop, job)
    }),
  )
})
