import { defineEventHandler } from 'h3'
import { Tag } from '#core/http/job'
import { requireSession } from '../../auth/actor'
import { param, refuse } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { openJobByTag } from '../../db/jobs'
import { db } from '../../db/shared'

/** The open job a tag hangs on. */
export default defineEventHandler(async (event): Promise<{ number: number }> => {
  const { shop } = await requireSession(event)
  const tag = param(event, 'tag', Tag)
  const job = await inShop(db(), shop, tx => openJobByTag(tx, shop, tag))
  if (!job) throw refuse(404, `No open job hangs on tag ${tag}: look on the Floor`)
  return job
})
