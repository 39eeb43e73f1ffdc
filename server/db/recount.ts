import { sql } from 'kysely'
import type { ShopTx } from './connect'

/**
 * Of each figure of these bikes the newest record counts, and no other: after records came, went or got another bike.
 * Neither statement joins the records with themselves: of a long file that the database has no statistics of yet, each
 * row would be looked up among all.
 */
export async function recount(tx: ShopTx, shop: string, bikes: Iterable<string>): Promise<void> {
  const these = [...new Set(bikes)]
  if (!these.length) return
  const { rows } = await sql<{ id: string }>`
    select distinct on (bike, standard, figure) id from record
    where shop = ${shop} and bike = any(${these}::uuid[])
    order by bike, standard, figure, at desc, id desc`.execute(tx)
  await sql`update record set latest = not latest
    where shop = ${shop} and bike = any(${these}::uuid[]) and latest <> (id = any(${rows.map(r => r.id)}::uuid[]))`.execute(
    tx,
  )
}
