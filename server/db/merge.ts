import type { SameBike } from '#core/http/job'
import { sql } from 'kysely'
import { inShop, type Db, type ShopTx } from './connect'
import { tellEdited } from './details'
import { newId } from './ids'
import { recount } from './recount'
import { CannotTakeIn, jobByNumber } from './jobs'
import { lockOpenJob } from './ledger'
import { cameBack } from './recalls'

/**
 * The bike of this job is one that was here before, entered a second time: its visits, sheets and records go over to
 * that one, and this job with them. What stood here before is kept, and the ledger says so. All or nothing; asked twice
 * it is done once.
 * @throws NoSuchJob, JobClosed, CannotTakeIn when that bike is not known, is this one, or is here under another tag
 */
export function mergeBike(
  db: Db,
  shop: string,
  number: number,
  person: string,
  session: string | null,
  order: SameBike,
  at = new Date(),
): Promise<void> {
  return inShop(db, shop, async tx => {
    const id = await lockOpenJob(tx, shop, number)
    const job = (await jobByNumber(tx, shop, number))!
    const into = await tx
      .selectFrom('bike')
      .select(['id', 'merged_into'])
      .where('shop', '=', shop)
      .where('id', '=', order.bike)
      .forUpdate()
      .executeTakeFirst()
    if (!into || into.merged_into) throw new CannotTakeIn('bike', 'That bike is not known here: search again')
    if (!(await tellEdited(tx, { shop, number, person, session }, order, ['bike'], at))) return
    if (into.id === job.bike_id) throw new CannotTakeIn('bike', 'That is this bike already')
    const open = await tx
      .selectFrom('job')
      .select('tag')
      .where('shop', '=', shop)
      .where('bike', '=', into.id)
      .where('closed_at', 'is', null)
      .executeTakeFirst()
    if (open)
      throw new CannotTakeIn(
        'bike',
        `That bike is here as well, under tag ${open.tag}: cancel one of the two jobs first`,
      )
    const was = [job.bike_name, job.frame_number, job.customer_name].filter(Boolean).join(', ')
    await tx.insertInto('job_edit').values({ shop, id: newId(), job: id, field: 'bike', was, person }).execute()
    await goOver(tx, shop, job.bike_id, into.id)
    // it was here all the while: nobody asks for it
    await cameBack(tx, shop, into.id, at)
  })
}

async function goOver(tx: ShopTx, shop: string, from: string, to: string): Promise<void> {
  for (const table of ['job', 'sheet', 'record'] as const)
    await tx.updateTable(table).set({ bike: to }).where('shop', '=', shop).where('bike', '=', from).execute()
  // of each figure the newest counts, now that there are two histories
  await recount(tx, shop, [to])
  // what the second entry knew and the first did not
  await sql`update bike b set frame_number = case when b.frame_number = '' then d.frame_number else b.frame_number end,
    frame_kind = coalesce(b.frame_kind, d.frame_kind), seen = coalesce(d.seen, b.seen)
    from bike d where b.shop = ${shop} and b.id = ${to} and d.shop = b.shop and d.id = ${from}`.execute(tx)
  await tx.updateTable('bike').set({ merged_into: to }).where('shop', '=', shop).where('id', '=', from).execute()
}
