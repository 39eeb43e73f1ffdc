import { defineEventHandler } from 'h3'
import type { ImportPlan } from '#core/exchange/plan'
import { partOf } from '#core/http/progress'
import { ImportMode, LISTED, MAX_IMPORT_BYTES, type ImportView } from '#core/http/standards'
import { catalogueInForce } from '#core/standards/shopValues'
import { handOf, requireOwner, requireOwnerToLook, tapped } from '../../auth/actor'
import { answeringHeavy } from '../../auth/answering'
import { query, refuse, textBody } from '../../auth/refuse'
import { telling } from '../../auth/telling'
import { audit } from '../../db/audit'
import { inShop } from '../../db/connect'
import { knownRecords } from '../../db/recordFiles'
import { db } from '../../db/shared'
import { shopValues } from '../../db/standards'
import { takeIn } from '../../db/takenIn'
import { planOf } from '../../heavy/queue'

/** How much of the time a file that is taken is read and judged; the rest it is written. */
const READ_SHARE = 0.25

/** Shows what a file would change, or takes it: all of it when no row is bad, or the good rows when so asked. */
export default defineEventHandler(async (event): Promise<ImportView | ReadableStream<Uint8Array>> => {
  const { take, kind } = query(event, ImportMode)
  const actor = await (take === 'look' ? requireOwnerToLook(event) : requireOwner(event))
  const text = await textBody(event, MAX_IMPORT_BYTES)
  return telling(event, async tell => {
    const catalogue = catalogueInForce(await inShop(db(), actor.shop, tx => shopValues(tx, actor.shop)))
    // computed before anything is held against others, and beside what others ask
    const first = await answeringHeavy(() =>
      planOf({ text, kind, catalogue }, partOf(tell, 0, take === 'look' ? 1 : READ_SHARE)),
    )
    if (first.is === 'refused') throw refuse(400, first.message, [{ field: 'file', message: first.message }])
    const { plan, taken } = await inShop(db(), actor.shop, async tx => {
      // which records are here already is asked of the database once their ids are read
      const known = await knownRecords(
        tx,
        actor.shop,
        first.records.map(r => r.id),
      )
      const plan: ImportPlan = {
        ...first,
        records: first.records.filter(r => !known.has(r.id)),
        same: first.same + known.size,
      }
      if (take === 'look') return { plan, taken: false }
      if (take === 'all' && plan.refused.length)
        throw refuse(
          409,
          `${plan.refused.length} rows are refused, so nothing was taken: put them right, or take only the good ones`,
          plan.refused
            .slice(0, LISTED)
            .map(r => ({ field: r.where, message: `${r.column ? `${r.column}: ` : ''}${r.message}` })),
        )
      await takeIn(
        tx,
        actor.shop,
        actor.person.id,
        {
          records: plan.records,
          claims: plan.values.map(v => ({ ...v.claim, note: v.claim.note || 'from a file' })),
        },
        partOf(tell, READ_SHARE, 1),
      )
      await audit(tx, handOf(actor), 'imported', `${plan.records.length} records, ${plan.values.length} values`)
      return { plan, taken: true }
    })
    tapped(actor, actor.person.id)
    return viewOf(plan, taken)
  })
})

function viewOf(plan: ImportPlan, taken: boolean): ImportView {
  const byStandard = new Map<string, number>()
  for (const r of plan.records) byStandard.set(r.standard, (byStandard.get(r.standard) ?? 0) + 1)
  return {
    rows: plan.rows,
    same: plan.same,
    taken,
    values: {
      count: plan.values.length,
      listed: plan.values.slice(0, LISTED).map(v => ({
        where: v.where,
        kind: v.claim.kind,
        entry: v.claim.entry,
        figure: v.claim.figure,
        from: v.from,
        to: v.to,
      })),
    },
    records: {
      count: plan.records.length,
      byStandard: [...byStandard]
        .sort((a, b) => b[1] - a[1])
        .slice(0, LISTED)
        .map(([standard, count]) => ({ standard, count })),
    },
    refused: { count: plan.refused.length, listed: plan.refused.slice(0, LISTED) },
  }
}
