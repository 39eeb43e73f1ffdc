import { defineEventHandler, setResponseHeader } from 'h3'
import { z } from 'zod'
import { writeCsv } from '#core/exchange/csv'
import { exchangeFile } from '#core/exchange/write'
import { StandardId } from '#core/http/records'
import { handOf, requireOwner } from '../../auth/actor'
import { query } from '../../auth/refuse'
import { audit } from '../../db/audit'
import { inShop } from '../../db/connect'
import { exportRecords } from '../../db/recordFiles'
import { db } from '../../db/shared'
import { shopValues } from '../../db/standards'

const Wanted = z.object({
  as: z.enum(['json', 'catalogue', 'values', 'records'], { error: 'as: json, catalogue, values or records' }),
  /** Of one standard alone. */
  standard: StandardId.optional(),
})

/** Catalogue, shop values and records in the open format, as one JSON file or one CSV table. */
export default defineEventHandler(async (event): Promise<string> => {
  const actor = await requireOwner(event)
  const { shop } = actor
  const { as, standard } = query(event, Wanted)
  const { values, records } = await inShop(db(), shop, async tx => ({
    values: await shopValues(tx, shop),
    records: as === 'json' || as === 'records' ? await exportRecords(tx, shop, standard) : [],
    told: await audit(tx, handOf(actor), 'exported', standard ? `${as} of ${standard}` : as),
  }))
  const file = exchangeFile(values, records, new Date().toISOString(), standard)
  setResponseHeader(
    event,
    'content-type',
    as === 'json' ? 'application/json; charset=utf-8' : 'text/csv; charset=utf-8',
  )
  setResponseHeader(
    event,
    'content-disposition',
    `attachment; filename="ocho-${standard ? `${standard.replace(/[^\w+.-]/g, '-')}-` : ''}${as === 'json' ? 'standards.json' : `${as}.csv`}"`,
  )
  return as === 'json' ? JSON.stringify(file, null, 1) : writeCsv(as, file)
})
