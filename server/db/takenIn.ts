import { sql } from 'kysely'
import type { RecordRow } from '#core/exchange/recordRow'
import type { Tell } from '#core/http/progress'
import type { TakenBack, TakenIn } from '#core/http/standards'
import type { ShopClaim } from '#core/standards/shopValues'
import type { ShopTx } from './connect'
import { newId } from './ids'
import { importRecords } from './recordFiles'
import { VISIT } from './records'
import { recount } from './recount'
import { claim } from './standards'

/** Files the page lists. */
const LISTED = 20

/**
 * Takes what a file brings, under a name of its own, so that all of it can be taken back. Nothing where it brings
 * nothing.
 */
export async function takeIn(
  tx: ShopTx,
  shop: string,
  person: string,
  { records, claims }: { records: readonly RecordRow[]; claims: readonly ShopClaim[] },
  tell: Tell = () => {},
): Promise<string | null> {
  if (records.length + claims.length === 0) return null
  const id = newId()
  await tx.insertInto('taken_in').values({ shop, id, person, records: records.length, claims: claims.length }).execute()
  if (claims.length) await claim(tx, shop, person, claims, new Date(), id)
  if (records.length) await importRecords(tx, shop, records, 'from a file', id, tell)
  return id
}

/** The last files that were taken in, the newest first. */
export async function takenIn(tx: ShopTx, shop: string): Promise<TakenIn[]> {
  const rows = await tx
    .selectFrom('taken_in')
    .innerJoin('person', j => j.onRef('person.shop', '=', 'taken_in.shop').onRef('person.id', '=', 'taken_in.person'))
    .select(['taken_in.id', 'taken_in.at', 'person.name as by', 'records', 'claims', 'taken_back_at'])
    .where('taken_in.shop', '=', shop)
    .orderBy('taken_in.at', 'desc')
    .limit(LISTED)
    .execute()
  return rows.map(r => ({
    id: r.id,
    at: r.at.toISOString(),
    by: r.by,
    records: r.records,
    values: r.claims,
    takenBackAt: r.taken_back_at?.toISOString() ?? null,
  }))
}

/**
 * Takes a file back: its records go, and what a bike had before counts again; each value that is still the file's is
 * what it was before it, other files that were taken back left out. A value that was measured or set since stays.
 * @returns what went and what stayed; null where there is no such file, or it was taken back already
 */
export async function takeBack(tx: ShopTx, shop: string, person: string, id: string): Promise<TakenBack | null> {
  const marked = await tx
    .updateTable('taken_in')
    .set({ taken_back_at: new Date() })
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('taken_back_at', 'is', null)
    .executeTakeFirst()
  if (Number(marked.numUpdatedRows) === 0) return null
  const gone = await tx
    .deleteFrom('record')
    .where('shop', '=', shop)
    .where('taken_in', '=', id)
    .returning(['bike', 'figure'])
    .execute()
  await recount(
    tx,
    shop,
    gone.map(g => g.bike),
  )
  const { rows: values } = await sql<{ kind: string; entry: string; figure: string; last: boolean; was: unknown }>`
    select v.kind, v.entry, v.figure,
      not exists (select 1 from shop_value l where l.shop = v.shop and l.kind = v.kind and l.entry = v.entry
        and l.figure = v.figure and l.n > v.n) as last,
      (select b.value from shop_value b where b.shop = v.shop and b.kind = v.kind and b.entry = v.entry
        and b.figure = v.figure and b.n < v.n and not exists (select 1 from taken_in f where f.shop = b.shop
          and f.id = b.taken_in and f.taken_back_at is not null) order by b.n desc limit 1) as was
    from shop_value v where v.shop = ${shop} and v.taken_in = ${id}`.execute(tx)
  const back = values.filter(v => v.last)
  await claim(
    tx,
    shop,
    person,
    back.map(
      v =>
        ({ kind: v.kind, entry: v.entry, figure: v.figure, value: v.was, note: 'a file was taken back' }) as ShopClaim,
    ),
  )
  return {
    records: gone.filter(g => g.figure !== VISIT).length,
    values: back.length,
    stay: values.length - back.length,
  }
}
