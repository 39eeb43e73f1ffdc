import { defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import type { Sheet } from '#core/ledger/sheet'
import { requireSession } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { sheetDraft } from '../../../db/sheets'
import { db } from '../../../db/shared'

/** The sheet as it would be frozen now. */
export default defineEventHandler(async (event): Promise<Sheet> => {
  const actor = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const sheet = await sheetDraft(db(), actor.shop, number, actor.person?.id ?? '')
  if (!sheet) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  return sheet
})
