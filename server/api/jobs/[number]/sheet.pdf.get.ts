import { defineEventHandler, setResponseHeaders } from 'h3'
import { z } from 'zod'
import { JobNumber } from '#core/http/job'
import { PAPERS } from '#core/paper/paper'
import { requireSession } from '../../../auth/actor'
import { answeringHeavy } from '../../../auth/answering'
import { param, query, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { jobView } from '../../../db/jobView'
import { shopRow } from '../../../db/people'
import { sheetDraft } from '../../../db/sheets'
import { db } from '../../../db/shared'
import { pdfOf } from '../../../heavy/queue'

const Asked = z.object({
  paper: z.enum(PAPERS, `Paper: ${PAPERS.join(', ')}`).default('setup'),
})

/** A job's paper as a PDF: of the frozen sheet, or of a draft while the job is open. */
export default defineEventHandler(async event => {
  const actor = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const { paper } = query(event, Asked)
  const found = await inShop(db(), actor.shop, async tx => {
    const job = await jobView(tx, actor.shop, number)
    return job && { job, shop: await shopRow(tx, actor.shop) }
  })
  const sheet = found && (found.job.sheet ?? (await sheetDraft(db(), actor.shop, number, actor.person?.id ?? '')))
  if (!found || !sheet) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  const { job, shop } = found
  const pdf = await answeringHeavy(() =>
    pdfOf({
      what: 'sheet',
      kind: paper,
      job,
      sheet,
      shop: { name: shop.name, zone: shop.zone },
      draft: job.sheet === null,
    }),
  )
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="${paper}-sheet-${number}.pdf"`,
    'cache-control': 'no-store',
  })
  return pdf
})
