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
    if (!job) return null
    const sheet = job.sheet ?? (await sheetDraft(tx, actor.shop, number, actor.person?.id ?? ''))
    return sheet && { job, sheet, shop: await shopRow(tx, actor.shop) }
  })
  if (!found) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  const pdf = await sheetPdf({
    ...found,
    shop: { name: found.shop.name, zone: found.shop.zone },
    draft: found.job.sheet === null,
  })
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `attachment; filename="setup-sheet-${number}.pdf"`,
    'cache-control': 'no-store',
  })
  return pdf
})
