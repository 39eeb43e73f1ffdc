import { sql } from 'kysely'
import type { Db } from './connect'

/**
 * Takes one try of a key, in one statement, so that of any number at once each gets a number of its own. The count begins anew when
 * its time is over.
 * @returns which try this was, and when the count ends
 */
export async function takeTry(db: Db, key: string, minutes: number): Promise<{ tries: number; endsAt: Date }> {
  const { rows } = await sql<{ tries: number; ends_at: Date }>`
    insert into gate.attempt as a (key, tries, ends_at) values (${key}, 1, now() + make_interval(mins => ${minutes}))
    on conflict (key) do update set
      tries = case when a.ends_at <= now() then 1 else least(a.tries + 1, 1000000) end,
      ends_at = case when a.ends_at <= now() then excluded.ends_at else a.ends_at end
    returning tries, ends_at`.execute(db)
  const { tries, ends_at: endsAt } = rows[0]!
  // the first of a count sweeps what is long over
  if (tries === 1) await sql`delete from gate.attempt where ends_at < now() - interval '1 day'`.execute(db)
  return { tries, endsAt }
}

/** Gives back one try of a key, or all. */
export async function giveBack(db: Db, key: string, how: 'one' | 'all'): Promise<void> {
  if (how === 'all') await sql`delete from gate.attempt where key = ${key}`.execute(db)
  else await sql`update gate.attempt set tries = greatest(tries - 1, 0) where key = ${key}`.execute(db)
}
