import { sql } from 'kysely'
import { JOB_KINDS, type JobKind, type Took } from '#core/job/minutes'
import type { ShopTx } from './connect'

/** So many of the latest closed jobs tell how long one takes here. */
const LATEST = 400

/** What closed jobs of each kind took here: the middle, and what three of four stay under. Jobs, never people. */
export async function tookHere(tx: ShopTx, shop: string): Promise<Took[]> {
  const { rows } = await sql<{ kind: string; jobs: number; q: [number, number] }>`
    select work[1] as kind, count(*)::int as jobs, percentile_cont(array[0.5, 0.75]) within group (order by minutes) as q
    from (select work, minutes from sheet where shop = ${shop} and minutes > 0 order by closed_at desc limit ${LATEST}) s
    where work[1] is not null group by work[1]`.execute(tx)
  return rows
    .filter(r => JOB_KINDS.some(k => k === r.kind))
    .map(r => ({ kind: r.kind as JobKind, jobs: r.jobs, median: Math.round(r.q[0]), most: Math.round(r.q[1]) }))
}

/** What is promised and not yet done, and at how many stands it is worked on. */
export async function promisedHere(
  tx: ShopTx,
  shop: string,
): Promise<{ promised: { number: number; promisedAt: string; complaint: string }[]; stands: number }> {
  const { stands } = await tx.selectFrom('shop').select('stands').where('shop', '=', shop).executeTakeFirstOrThrow()
  const rows = await tx
    .selectFrom('job')
    .select(['number', 'promised_at', 'complaint'])
    .where('shop', '=', shop)
    .where('closed_at', 'is', null)
    .orderBy('promised_at')
    .limit(300)
    .execute()
  return {
    stands,
    promised: rows.map(r => ({ number: r.number, promisedAt: r.promised_at.toISOString(), complaint: r.complaint })),
  }
}
