import { defineEventHandler, getRequestURL, setResponseHeaders } from 'h3'
import { JobNumber } from '#core/http/job'
import { requireSession } from '../../../auth/actor'
import { answeringHeavy } from '../../../auth/answering'
import { param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { jobByNumber } from '../../../db/jobs'
import { db } from '../../../db/shared'
import { pdfOf } from '../../../heavy/queue'

/** The label of a job's tag, with a square code that opens the job. */
export default defineEventHandler(async event => {
  const { shop } = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const job = await inShop(db(), shop, tx => jobByNumber(tx, shop, number))
  if (!job) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  const url = new URL(`/t/${encodeURIComponent(job.tag)}`, getRequestURL(event).origin)
  const pdf = await answeringHeavy(() => pdfOf({ what: 'tag', tag: job.tag, bike: job.bike_name, url: url.href }))
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="tag-${number}.pdf"`,
    'cache-control': 'no-store',
  })
  return pdf
})
