import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { Db } from '../server/db/connect'

/** For tests: one id for each kind of row of a shop. */
export type EarlierIds = Record<'shop' | 'person' | 'session' | 'customer' | 'bike' | 'job', string>

/**
 * A shop at work as the first version kept it, with so many entries of one job; every later version has these tables
 * too.
 */
export async function fillEarlier(db: Db, entries: number): Promise<EarlierIds> {
  const [shop, person, session, customer, bike, job] = Array.from({ length: 6 }, () => randomUUID())
  const rows = [
    sql`insert into shop (shop, code, name, zone) values (${shop}, 'early', 'Early', 'UTC')`,
    sql`insert into person (shop, id, name, role, pin_hash) values (${shop}, ${person}, 'Oona', 'owner', 'x')`,
    sql`insert into session (shop, id, token_hash, device, person)
      values (${shop}, ${session}, 'hash', 'Tablet', ${person})`,
    sql`insert into customer (shop, id, name, contact) values (${shop}, ${customer}, 'Hob', '085')`,
    sql`insert into bike (shop, id, customer, name, frame_number)
      values (${shop}, ${bike}, ${customer}, 'Marram', 'F1')`,
    sql`insert into job (shop, id, number, tag, bike, complaint, promised_at, sprockets)
      values (${shop}, ${job}, 1, '7', ${bike}, 'slow', now(), 10)`,
    sql`insert into note (shop, id, job, person, text)
      values (${shop}, gen_random_uuid(), ${job}, ${person}, 'bring the lock')`,
    sql`insert into recall (shop, id, job, due_on) values (${shop}, gen_random_uuid(), ${job}, '2026-12-01')`,
  ]
  for (const row of rows) await row.execute(db)
  await sql
    .raw((await hasHashes(db)) ? chained(shop, job, person, entries) : plain(shop, job, person, entries))
    .execute(db)
  return { shop, person, session, customer, bike, job } as EarlierIds
}

/*
 * Past the appending function, whose shape changed: entries as a version kept them, each after the one before where
 * they are chained.
 */
const plain = (shop: string, job: string, person: string, entries: number): string => `
  insert into event (shop, id, job, seq, person, verified, v, at, based_on, body)
    select '${shop}', gen_random_uuid(), '${job}', n, '${person}', true, 1, now(), n - 1, '{"kind": "wheelOut", "wheel": "rear"}'
    from generate_series(1, ${entries}) n`
const chained = (shop: string, job: string, person: string, entries: number): string => `
  do $$ declare r event; before bytea; begin
    for n in 1..${entries} loop
      r.shop := '${shop}'; r.id := gen_random_uuid(); r.job := '${job}'; r.seq := n; r.person := '${person}';
      r.verified := true; r.v := 1; r.at := now(); r.based_on := n - 1; r.received_at := now();
      r.body := '{"kind": "wheelOut", "wheel": "rear"}'; r.hash := event_hash(before, r);
      insert into event select r.*;
      before := r.hash;
    end loop;
  end $$`
async function hasHashes(db: Db): Promise<boolean> {
  const { rows } =
    await sql`select 1 from information_schema.columns where table_name = 'event' and column_name = 'hash'`.execute(db)
  return rows.length > 0
}
