import { sql } from 'kysely'
import { withOwner } from './database'

/** What was found of a ledger: how much there is, and where it is not as it was written, each in words. */
export type Verified = { jobs: number; entries: number; broken: string[] }

/** At most so many broken places are told one by one. */
const MOST_TOLD = 50

/**
 * Reads every entry of every shop again: each must follow from the one before it in its job, and none may be missing.
 */
export function verifyLedger(ownerUrl: string): Promise<Verified> {
  return withOwner(ownerUrl, async db => {
    const { rows: counted } = await sql<{ jobs: number; entries: number }>`
      select count(*)::int as entries, count(distinct (shop, job))::int as jobs from event`.execute(db)
    const { rows } = await sql<{ code: string; number: number; seq: number; gap: boolean }>`
      with chain as (
        select e.shop, e.job, e.seq, e.hash, lag(e.seq) over of_job as before_seq,
          event_hash(lag(e.hash) over of_job, e) as should
        from event e window of_job as (partition by e.shop, e.job order by e.seq))
      select s.code, j.number, c.seq, c.seq <> coalesce(c.before_seq, 0) + 1 as gap
      from chain c join shop s on s.shop = c.shop join job j on j.shop = c.shop and j.id = c.job
      where c.hash <> c.should or c.seq <> coalesce(c.before_seq, 0) + 1
      order by s.code, j.number, c.seq limit ${MOST_TOLD}`.execute(db)
    const broken = rows.map(
      r =>
        `shop ${r.code}, job ${r.number}, entry ${r.seq}: ${r.gap ? 'an entry before it is missing' : 'not as it was written'}`,
    )
    return { ...counted[0], broken }
  })
}
