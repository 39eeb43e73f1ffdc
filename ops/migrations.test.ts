import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { bringUpToDate } from './database'
import { fillEarlier } from './testEarlier'
import { verifyLedger } from './verify'
import { connect, type Db } from '../server/db/connect'
import { MIGRATION_NAMES, migrate } from '../server/db/migrations/index'

/* A shop that stopped at any earlier version comes up with everything it had. */

const ownerUrl = inject('ownerUrl')
let admin: Db
beforeAll(() => {
  admin = connect(ownerUrl, 2)
})
afterAll(() => admin.destroy())

const of = (database: string) => ownerUrl.replace(/\/ocho$/, `/${database}`)

/** Rows as the tables that a later version brought took them: filled by those from it on. */
const ROWS: Record<string, string> = {
  '0003_cables': `
    insert into housing_stock (shop, id, kind, length_mm, roll, person) values (:shop, gen_random_uuid(), 'shift', 900, false, :person);`,
  '0004_photos': `
    insert into photo (shop, id, job, run, mime, bytes, person) values (:shop, gen_random_uuid(), :job, 'rear', 'image/jpeg', 'abc', :person);
    insert into photo (shop, id, job, run, mime, bytes, person, gone_at)
      values (:shop, gen_random_uuid(), :job, 'rear', 'image/jpeg', 'abcd', :person, now());`,
  '0006_details': `
    insert into job_edit (shop, id, job, field, was, person) values (:shop, gen_random_uuid(), :job, 'tag', '6', :person);`,
}
describe.each(MIGRATION_NAMES.slice(0, -1))('from %s', version => {
  const database = `from_${version}`
  test('with a shop at work in it', async () => {
    await sql`drop database if exists ${sql.id(database)} with (force)`.execute(admin)
    await sql`create database ${sql.id(database)}`.execute(admin)
    const db = connect(of(database), 1)
    try {
      await migrate(db, version)
      const ids: Record<string, string> = await fillEarlier(db, 40)
      const named = (text: string) => text.replace(/:(\w+)\b/g, (_, name: string) => `'${ids[name]}'`)
      const had = MIGRATION_NAMES.slice(0, MIGRATION_NAMES.indexOf(version) + 1)
      for (const name of had) if (ROWS[name]) await sql.raw(named(ROWS[name])).execute(db)
      const counts = async () => {
        const { rows } = await sql<Record<string, number>>`select ${sql.raw(
          ['shop', 'person', 'session', 'customer', 'bike', 'job', 'note', 'event', 'recall']
            .map(t => `(select count(*)::int from "${t}") as "${t}"`)
            .join(', '),
        )}`.execute(db)
        return rows[0]
      }
      const before = await counts()
      expect(await bringUpToDate(of(database))).toEqual(MIGRATION_NAMES.slice(MIGRATION_NAMES.indexOf(version) + 1))
      expect(await counts()).toEqual(before)
      expect(await verifyLedger(of(database))).toEqual({ jobs: 1, entries: 40, broken: [] })
      expect(await bringUpToDate(of(database))).toEqual([])
      const { rows: photos } = await sql<{ gone: boolean; size: number | null }>`
        select gone_at is not null as gone, size from photo order by 1`.execute(db)
      if (had.includes('0004_photos'))
        expect(photos).toEqual([
          { gone: false, size: 3 },
          // bytes that were left when it was removed go with 0011; since then removing takes them
          { gone: true, size: had.includes('0011_nights') ? 4 : null },
        ])
    } finally {
      await db.destroy()
      await sql`drop database ${sql.id(database)} with (force)`.execute(admin)
    }
  }, 60_000)
})

test('a migration that fails leaves all as it was', async () => {
  await sql`create database from_failing`.execute(admin)
  const db = connect(of('from_failing'), 1)
  try {
    await migrate(db, '0009_days')
    // what the next ones would make is there already
    await sql`create table audit (other int)`.execute(db)
    await expect(bringUpToDate(of('from_failing'))).rejects.toThrow(/already exists/)
    const { rows } = await sql<{ name: string }>`select name from kysely_migration order by 1`.execute(db)
    expect(rows.at(-1)!.name).toBe('0009_days')
    const { rows: gate } = await sql`select 1 from information_schema.schemata where schema_name = 'gate'`.execute(db)
    expect(gate).toEqual([])
  } finally {
    await db.destroy()
    await sql`drop database from_failing with (force)`.execute(admin)
  }
})
