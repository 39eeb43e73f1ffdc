import { defineEventHandler, setResponseHeaders } from 'h3'
import { z } from 'zod'
import { JobNumber } from '#core/http/job'
import { requireSession } from '../../../../auth/actor'
import { param, refuse } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { jobByNumber } from '../../../../db/jobs'
import { photo } from '../../../../db/photos'
import { db } from '../../../../db/shared'

/** The picture itself. It never changes, so a tablet may keep it. */
export default defineEventHandler(async (event): Promise<Buffer> => {
  const actor = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const id = param(event, 'id', z.uuid('There is no such photograph'))
  const found = await inShop(db(), actor.shop, async tx => {
    const job = await jobByNumber(tx, actor.shop, number)
    return job && photo(tx, actor.shop, job.id, id)
  })
  if (!found) throw refuse(404, 'There is no such photograph here')
  setResponseHeaders(event, {
    'content-type': found.mime,
    'cache-control': 'private, max-age=86400, immutable',
    'x-content-type-options': 'nosniff',
  })
  return found.bytes
})
