import { defineEventHandler, setResponseHeaders } from 'h3'
import { JobNumber } from '#core/http/job'
import { requireSession } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { jobView } from '../../../db/jobView'
import { shopRow } from '../../../db/people'
import { sheetDraft } from '../../../db/sheets'
import { db } from '../../../db/shared'
import { sheetPdf } from '../../../pdf/sheetPdf'

/** The setup sheet as a PDF: the frozen one, or a draft while the job is open. */
export default defineEventHandler(async event => {
  const actor = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const found = await inShop(db(), actor.shop, async tx => {
    const job = await jobView(tx, actor.shop, number)
    return job && { job, shop: await shopRow(tx, actor.shop) }
  })
  const sheet = found && (found.job.sheet ?? (await sheetDraft(db(), actor.shop, number, actor.person?.id ?? '')))
  if (!found || !sheet) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  const { job, shop } = found
  const pdf = await sheetPdf({ job, sheet, shop: { name: shop.name, zone: shop.zone }, draft: job.sheet === null })
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="setup-sheet-${number}.pdf"`,
    'cache-control': 'no-store',
  })
  return pdf
})
