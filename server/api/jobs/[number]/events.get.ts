import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { JobNumber } from '#core/http/job'
import type { Stored } from '#core/ledger/events'
import { requireSession } from '../../../auth/actor'
import { param, query, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { jobByNumber } from '../../../db/jobs'
import { entriesAfter } from '../../../db/ledger'
import { db } from '../../../db/shared'

const After = z.object({
  after: z.coerce.number().int('after is a whole number').min(0, 'after counts from 0').default(0),
})

/** A job's entries after a place. `newer` says that some were written by a later version: reload to update. */
export default defineEventHandler(async (event): Promise<{ entries: Stored[]; newer: boolean }> => {
  const { shop } = await requireSession(event)
  const number = param(event, 'number', JobNumber)
  const { after } = query(event, After)
  const read = await inShop(db(), shop, async tx => {
    const job = await jobByNumber(tx, shop, number)
    return job ? entriesAfter(tx, shop, job.id, after) : null
  })
  if (!read) throw refuse(404, `There is no job ${number} here: look on the Floor`)
  const entries = read.filter((e): e is Stored => e !== null)
  return { entries, newer: entries.length < read.length }
})
