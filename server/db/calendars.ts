import { addDays } from 'date-fns'
import { sql } from 'kysely'
import { inShop, type Db, type ShopTx } from './connect'
import { newId } from './ids'

/** Recalls a calendar holds: what is due, and what was settled in the last weeks. */
export type CalendarEntry = {
  id: string
  dueOn: string
  state: 'due' | 'came' | 'done' | 'notneeded'
  number: number
  tag: string
  bike: string
}

export async function makeCalendar(tx: ShopTx, shop: string, person: string, tokenHash: string): Promise<void> {
  await tx.insertInto('calendar').values({ shop, id: newId(), token_hash: tokenHash, person }).execute()
}

/** A link that is revoked answers nobody any more. @returns whether there was one */
export async function revokeCalendar(tx: ShopTx, shop: string, id: string, at = new Date()): Promise<boolean> {
  const done = await tx
    .updateTable('calendar')
    .set({ revoked_at: at })
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('revoked_at', 'is', null)
    .executeTakeFirst()
  return Number(done.numUpdatedRows) > 0
}

/**
 * What a calendar shows, by the link's token: bikes and jobs, nobody's name. Null where the link is not, or was
 * revoked.
 */
export async function calendarOf(
  db: Db,
  tokenHash: string,
  now = new Date(),
): Promise<{ shop: string; name: string; entries: CalendarEntry[] } | null> {
  const {
    rows: [found],
  } = await sql<{ shop: string }>`select shop from shop_of_calendar(${tokenHash})`.execute(db)
  if (!found) return null
  const { shop } = found
  return inShop(db, shop, async tx => {
    await tx
      .updateTable('calendar')
      .set({ seen_at: now })
      .where('shop', '=', shop)
      .where('token_hash', '=', tokenHash)
      .execute()
    const { name } = await tx.selectFrom('shop').select('name').where('shop', '=', shop).executeTakeFirstOrThrow()
    const rows = await tx
      .selectFrom('recall')
      .innerJoin('job', j => j.onRef('job.shop', '=', 'recall.shop').onRef('job.id', '=', 'recall.job'))
      .innerJoin('bike', j => j.onRef('bike.shop', '=', 'job.shop').onRef('bike.id', '=', 'job.bike'))
      .select(['recall.id', 'recall.due_on as dueOn', 'recall.state', 'job.number', 'job.tag', 'bike.name as bike'])
      .where('recall.shop', '=', shop)
      .where(eb => eb.or([eb('recall.state', '=', 'due'), eb('recall.done_at', '>', addDays(now, -60))]))
      .orderBy('recall.due_on')
      .limit(1000)
      .execute()
    return { shop, name, entries: rows }
  })
}
