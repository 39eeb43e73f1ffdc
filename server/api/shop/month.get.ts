import { defineEventHandler, setResponseHeader } from 'h3'
import { z } from 'zod'
import Papa from 'papaparse'
import { Month, type MonthView } from '#core/http/month'
import { requireOwner } from '../../auth/actor'
import { query } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { monthView } from '../../db/month'
import { db } from '../../db/shared'

const Asked = z.object({ month: Month, as: z.enum(['json', 'csv'], { error: 'as: json or csv' }).default('json') })

/** The owner's month; as a table too. */
export default defineEventHandler(async (event): Promise<MonthView | string> => {
  const { shop } = await requireOwner(event)
  const { month, as } = query(event, Asked)
  const view = await inShop(db(), shop, tx => monthView(tx, shop, month))
  if (as === 'json') return view
  setResponseHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="ocho-${month}.csv"`)
  return Papa.unparse([
    ['what', 'of', 'count', 'figure'],
    ...view.kinds.map(k => ['jobs', k.kind, k.jobs, k.minutes === null ? '' : Math.round(k.minutes)]),
    ...view.ends.map(e => ['left', e.how, e.jobs, '']),
    ['left proven', '', view.right.jobs, ''],
    ['came back with a fault', '', view.right.back, ''],
    ...view.standards.map(s => ['rounds', s.standard, s.bikes, s.rounds.toFixed(1)]),
    ...view.housing.map(h => ['housing mm', h.kind, Math.round(h.usedMm), Math.round(h.leftMm)]),
  ])
})
