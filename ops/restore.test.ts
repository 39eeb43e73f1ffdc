import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { connect, inShop, type Db } from '../server/db/connect'
import { addPhoto, dropPhoto, photo, photosOf } from '../server/db/photos'
import { openSession, revokeSession } from '../server/db/sessions'
import { BRAKES_HOLD, testShop } from '../server/db/testShop'
import { migrate, MIGRATION_NAMES } from '../server/db/migrations/index'
import { backUp } from './backup'
import type { Cluster } from './cluster'
import { countShops, databases, openDatabase, RESTORED, withOwner, withPostgres } from './database'
import { commandOf, readSecrets } from './folder'
import { statusIn } from '../server/nights/status'
import { backUpNight } from './nightly'
import { postgresPrograms, programAddress } from './postgres'
import { inScratch, restore } from './restore'
import { throwawayCluster } from './testDatabase'
import { fillEarlier } from './testEarlier'
import { settleUpgrade } from './upgrade'
import { verifyLedger } from './verify'

/* Real backups of a real cluster, and what is refused of them. */

let cluster: Cluster
let remove: () => Promise<void>
let folder: string
let db: Db
beforeAll(async () => {
  ;({ cluster, remove } = await throwawayCluster())
  folder = mkdtempSync(join(tmpdir(), 'ocho-backups-'))
  db = connect(cluster.appUrl, 3)
}, 120_000)
afterAll(async () => {
  await db.destroy()
  await remove()
  rmSync(folder, { recursive: true, force: true })
})

const jobs = (shop: string) =>
  inShop(db, shop, async tx => (await sql<{ n: number }>`select count(*)::int as n from job`.execute(tx)).rows[0]!.n)
const plain = { passphrase: null, demo: false }

async function filledShop() {
  const shop = await testShop(db)
  const number = await shop.take()
  await shop.put(number, ...BRAKES_HOLD)
  return shop
}

describe('a backup', () => {
  test('is made while the shop works, is for its owner’s eyes, and comes back whole; what was there is kept aside', async () => {
    const shop = await filledShop()
    const file = join(folder, 'one.backup')
    expect(await backUp(cluster, file, null)).toBe(statSync(file).size)
    expect(statSync(file).mode & 0o777).toBe(0o600)
    await shop.take()
    expect(await jobs(shop.shop)).toBe(2)
    const held = await restore(cluster, { ...plain, file })
    expect(held.jobs).toBeGreaterThan(0)
    expect(await jobs(shop.shop)).toBe(1)
    // the application may append, and may not do more than before
    const number = await shop.take()
    await shop.put(number, ...BRAKES_HOLD)
    await expect(inShop(db, shop.shop, tx => sql`delete from event`.execute(tx))).rejects.toThrow(/permission denied/)
    expect((await verifyLedger(cluster.ownerUrl)).broken).toEqual([])
    expect((await withPostgres(cluster, databases)).filter(d => d.startsWith('ocho_before_'))).toHaveLength(1)
  }, 60_000)

  test('a device that was signed out since is not signed in by it', async () => {
    const shop = await filledShop()
    const [stays, goes] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222']
    for (const id of [stays, goes])
      await inShop(db, shop.shop, tx =>
        openSession(tx, { shop: shop.shop, id, tokenHash: id, device: 'Tablet', person: shop.person }),
      )
    const file = join(folder, 'sessions.backup')
    await backUp(cluster, file, null)
    await inShop(db, shop.shop, tx => revokeSession(tx, shop.shop, goes))
    await restore(cluster, { ...plain, file })
    const { rows } = await inShop(db, shop.shop, tx =>
      sql<{ id: string }>`select id from session where revoked_at is null`.execute(tx),
    )
    expect(rows.map(r => r.id)).toEqual([stays])
  }, 60_000)

  test('under a passphrase it is refused without, and with another; with it, it is restored', async () => {
    const shop = await filledShop()
    const file = join(folder, 'secret.backup')
    await backUp(cluster, file, 'kettle plum harbour')
    await expect(restore(cluster, { ...plain, file })).rejects.toThrow(/under a passphrase/)
    await expect(restore(cluster, { ...plain, file, passphrase: 'plum kettle' })).rejects.toThrow(/does not fit/)
    await restore(cluster, { ...plain, file, passphrase: 'kettle plum harbour' })
    expect(await jobs(shop.shop)).toBe(1)
  }, 60_000)

  test('garbage, a cut file, another program’s, a later version’s, a demo’s: refused, nothing touched', async () => {
    const shop = await filledShop()
    const whole = join(folder, 'whole.backup')
    await backUp(cluster, whole, null)
    const bytes = readFileSync(whole)
    const other = await anotherDatabase()
    const bad: [string, Buffer, RegExp][] = [
      ['garbage', Buffer.from('no backup at all'), /no whole backup/],
      ['empty', Buffer.alloc(0), /no whole backup/],
      ['cut', bytes.subarray(0, Math.floor(bytes.length * 0.8)), /no whole backup/],
      ['foreign', other, /of something else/],
    ]
    for (const [name, content, words] of bad) {
      const file = join(folder, `bad-${name}`)
      writeFileSync(file, content)
      await expect(restore(cluster, { ...plain, file }), name).rejects.toThrow(words)
    }
    await expect(restore(cluster, { ...plain, file: join(folder, 'nowhere') })).rejects.toThrow(/there is no file/)
    await expect(restore(cluster, { ...plain, demo: true, file: whole })).rejects.toThrow(/without --demo/)

    await withOwner(cluster.ownerUrl, o => sql`insert into kysely_migration values ('9999_later', '')`.execute(o))
    const later = join(folder, 'later.backup')
    await backUp(cluster, later, null)
    await withOwner(cluster.ownerUrl, o => sql`delete from kysely_migration where name = '9999_later'`.execute(o))
    await expect(restore(cluster, { ...plain, file: later })).rejects.toThrow(/later version/)

    await withOwner(cluster.ownerUrl, o => sql`update shop set demo = true where shop = ${shop.shop}`.execute(o))
    const demo = join(folder, 'demo.backup')
    await backUp(cluster, demo, null)
    await withOwner(cluster.ownerUrl, o => sql`update shop set demo = false where shop = ${shop.shop}`.execute(o))
    await expect(restore(cluster, { ...plain, file: demo })).rejects.toThrow(/backup of the demo/)

    expect(await jobs(shop.shop)).toBe(1)
    expect((await withPostgres(cluster, databases)).filter(d => d.startsWith('ocho_scratch'))).toEqual([])
  }, 90_000)

  test('one shop out of a file of many: the others stay as they are', async () => {
    const [one, other] = [await filledShop(), await filledShop()]
    const code = (await inShop(db, one.shop, tx => tx.selectFrom('shop').select('code').executeTakeFirstOrThrow())).code
    const job = await inShop(db, one.shop, tx => tx.selectFrom('job').select('id').executeTakeFirstOrThrow())
    const photos = () => inShop(db, one.shop, tx => photosOf(tx, one.shop, job.id))
    await inShop(db, one.shop, tx =>
      addPhoto(tx, one.shop, job.id, one.person, { of: 'bike', mime: 'image/jpeg', bytes: Buffer.from('a picture') }),
    )
    const [kept] = await photos()
    const file = join(folder, 'many.backup')
    await backUp(cluster, file, null)
    await inShop(db, one.shop, tx => dropPhoto(tx, one.shop, job.id, kept!.id))
    const gone = await one.take()
    await one.put(gone, ...BRAKES_HOLD)
    await other.take()
    await restore(cluster, { ...plain, file, shop: code })
    expect([await jobs(one.shop), await jobs(other.shop)]).toEqual([1, 2])
    expect(await photos()).toEqual([kept])
    expect((await inShop(db, one.shop, tx => photo(tx, one.shop, job.id, kept!.id)))!.bytes.toString()).toBe(
      'a picture',
    )
    const number = await one.take()
    await one.put(number, ...BRAKES_HOLD)
    expect((await verifyLedger(cluster.ownerUrl)).broken).toEqual([])
    await expect(restore(cluster, { ...plain, file, shop: 'nobody' })).rejects.toThrow(/holds no shop/)
  }, 60_000)

  test('of an earlier version: it is brought up to this one, and its ledger chained', async () => {
    await withPostgres(cluster, run => run('create database earlier'))
    await withOwner(cluster.of('earlier'), async o => {
      await migrate(o, '0009_days')
      await fillEarlier(o, 30)
    })
    const file = join(folder, 'earlier.backup')
    writeFileSync(file, dumpOf('earlier'))
    await withPostgres(cluster, run => run('drop database earlier'))
    expect(await restore(cluster, { ...plain, file })).toMatchObject({ shops: 1, jobs: 1, events: 30 })
    expect(await verifyLedger(cluster.ownerUrl)).toEqual({ jobs: 1, entries: 30, broken: [] })
    // the device it remembers is signed out: nothing here says that it may still be
    const { rows } = await withOwner(cluster.ownerUrl, o =>
      sql`select 1 from session where revoked_at is null`.execute(o),
    )
    expect(rows).toEqual([])
  }, 60_000)

  test('the night’s is proven and copied; one that fails leaves the good one and says so', async () => {
    const [own, second] = [mkdtempSync(join(folder, 'own-')), mkdtempSync(join(folder, 'second-'))]
    const now = new Date('2026-11-28T02:00:00')
    const said: string[] = []
    const how = { passphrase: null, say: (l: string) => said.push(l) }
    const status = await backUpNight(cluster, own, { ...how, second, now })
    expect(status).toMatchObject({ trouble: null, goodAt: now.toISOString() })
    expect(
      readFileSync(join(second, 'ocho-2026-11-28.backup')).equals(
        readFileSync(join(own, 'backups', 'ocho-2026-11-28.backup')),
      ),
    ).toBe(true)
    const next = new Date('2026-11-29T02:00:00')
    const bad = await backUpNight(cluster, own, { ...how, second: join(folder, 'unplugged'), now: next })
    expect(bad).toMatchObject({ goodAt: now.toISOString(), triedAt: next.toISOString() })
    expect(bad.trouble).toMatch(/not there: is its disk mounted/)
    expect(statusIn(own)).toEqual(bad)
    const unreachable = { ...cluster, backupUrl: cluster.backupUrl.replace(/:[^:@/]+@/, ':wrong@') }
    expect((await backUpNight(unreachable, own, { ...how, now: next })).trouble).toMatch(
      /password authentication failed/,
    )
  }, 60_000)
})

describe('a kill between the steps', () => {
  test('of a restore: before the swap it never was, in the midst of it is finished at the next start', async () => {
    const shop = await filledShop()
    await db.destroy()
    const makeRestored = () => withPostgres(cluster, run => run(`create database ${RESTORED} template ocho`))
    await makeRestored()
    await withPostgres(cluster, run => run('alter database ocho with allow_connections false'))
    await openDatabase(cluster)
    expect(await withPostgres(cluster, databases)).not.toContain(RESTORED)
    expect(await countShops(cluster.ownerUrl)).toBeGreaterThan(0)
    await makeRestored()
    await withPostgres(cluster, run => run('alter database ocho rename to ocho_before_now'))
    await openDatabase(cluster)
    db = connect(cluster.appUrl, 3)
    expect(await jobs(shop.shop)).toBe(1)
  }, 60_000)

  test('of an upgrade: what the version that was only tried migrated is put back, by the one it began from alone', async () => {
    const shop = await filledShop()
    const file = join(folder, 'upgrade.backup')
    await backUp(cluster, file, null)
    const begun = join(folder, 'upgrading.json')
    const migrations = () =>
      withOwner(cluster.ownerUrl, async o => {
        const { rows } = await sql<{ name: string }>`select name from kysely_migration order by name`.execute(o)
        return rows.map(r => r.name)
      })
    const had = await migrations()
    const begin = (more: object = {}) =>
      writeFileSync(begun, JSON.stringify({ from: '1.0.0', backup: file, had, ...more }))
    const tryMigration = () =>
      withOwner(cluster.ownerUrl, o =>
        sql`insert into kysely_migration (name, timestamp) values ('9999_later', now()::text)`.execute(o),
      )
    const settle = (version: string) => settleUpgrade(cluster, folder, null, undefined, version)
    // nothing begun, nothing changed yet, or cut short when it was done already: nothing is put back
    await shop.take()
    expect(await settle('1.0.0')).toBe(false)
    begin()
    expect(await settle('1.0.0')).toBe(false)
    expect(existsSync(begun)).toBe(false)
    begin()
    await tryMigration()
    expect(await settle('1.1.0')).toBe(false)
    expect(existsSync(begun)).toBe(false)
    expect(await jobs(shop.shop)).toBe(2)
    // a backup that is gone: said, and asked again at the next start
    begin({ backup: join(folder, 'gone.backup') })
    await expect(settle('1.0.0')).rejects.toThrow(/there is no file/)
    expect(existsSync(begun)).toBe(true)
    await db.destroy()
    begin()
    expect(await settle('1.0.0')).toBe(true)
    db = connect(cluster.appUrl, 3)
    expect(existsSync(begun)).toBe(false)
    expect(await migrations()).toEqual(had)
    expect(await jobs(shop.shop)).toBe(1)
  }, 60_000)

  test('of a first start: what was half made is gone, and the next is whole', async () => {
    await withPostgres(cluster, async run => {
      await run('create database ocho_making')
      await run('create database ocho_scratch_feed')
    })
    let filled = 0
    await openDatabase(cluster, { fill: async () => void filled++ })
    expect(filled).toBe(0) // there was one already
    const there = await withPostgres(cluster, databases)
    expect(there).not.toContain('ocho_making')
    expect(there).not.toContain('ocho_scratch_feed')
  }, 60_000)
})

test('the database’s passwords stand in one file, and in no argument of a program that runs', async () => {
  const secrets = Object.values(readSecrets(cluster.folder)!)
  const found = readdirSync(cluster.folder, { recursive: true, encoding: 'utf8' }).filter(f => {
    const path = join(cluster.folder, f)
    if (!statSync(path, { throwIfNoEntry: false })?.isFile()) return false
    const bytes = readFileSync(path)
    return secrets.some(s => bytes.includes(s))
  })
  expect(found).toEqual(['secrets.json'])
  expect(statSync(join(cluster.folder, 'secrets.json')).mode & 0o777).toBe(0o600)
  const running = readdirSync('/proc').flatMap(pid => commandOf(Number(pid))?.join(' ') ?? [])
  expect(running.filter(command => secrets.some(s => command.includes(s)))).toEqual([])
})

test('an upgrade is told of before anything of it is done', async () => {
  await db.destroy()
  await withPostgres(cluster, run => run('alter database ocho rename to ocho_aside'))
  await withPostgres(cluster, run => run('create database ocho'))
  await withOwner(cluster.ownerUrl, o => migrate(o, '0009_days'))
  const seen: unknown[] = []
  const done = await openDatabase(cluster, {
    beforeMigrating: async pending => {
      const { rows } = await withOwner(cluster.ownerUrl, o =>
        sql<{ n: number }>`select count(*)::int as n from kysely_migration`.execute(o),
      )
      seen.push([...pending], rows[0]!.n)
      await backUp(cluster, join(folder, 'before.backup'), null)
    },
  })
  const pending = MIGRATION_NAMES.slice(9)
  expect(pending[0]).toBe('0010_attempts')
  expect(seen).toEqual([pending, 9])
  expect(done).toEqual(pending)
  // and once it is up, nothing is asked
  await openDatabase(cluster, { beforeMigrating: async () => expect.unreachable() })
  await withPostgres(cluster, async run => {
    await run('drop database ocho with (force)')
    await run('alter database ocho_aside rename to ocho')
  })
  db = connect(cluster.appUrl, 3)
}, 60_000)

describe('the ledger', () => {
  test('an entry that was changed, taken out or added beside the appending function is found', async () => {
    const shop = await filledShop()
    const number = await shop.take()
    await shop.put(number, ...BRAKES_HOLD)
    expect((await verifyLedger(cluster.ownerUrl)).broken).toEqual([])
    const forge = (statement: ReturnType<typeof sql>) =>
      withOwner(cluster.ownerUrl, o =>
        o.transaction().execute(async tx => {
          await sql`set local session_replication_role = replica`.execute(tx)
          await statement.execute(tx)
        }),
      )
    const at = sql`shop = ${shop.shop} and job = (select id from job where shop = ${shop.shop} and number = ${number})`
    await forge(sql`update event set verified = false where ${at} and seq = 2`)
    expect((await verifyLedger(cluster.ownerUrl)).broken.join()).toMatch(/entry 2: not as it was written/)
    await forge(sql`update event set verified = true where ${at} and seq = 2`)
    expect((await verifyLedger(cluster.ownerUrl)).broken).toEqual([])
    await forge(sql`delete from event where ${at} and seq = 2`)
    expect((await verifyLedger(cluster.ownerUrl)).broken.join()).toMatch(/entry 3: an entry before it is missing/)
  }, 60_000)

  test('the application cannot append past the function, nor for another shop than it named', async () => {
    const [one, other] = [await filledShop(), await filledShop()]
    const forged = sql`insert into event (shop, id, job, seq, person, verified, v, at, based_on, body, hash)
      select shop, gen_random_uuid(), job, 99, person, true, 1, now(), 1, body, hash from event limit 1`
    await expect(inShop(db, one.shop, tx => forged.execute(tx))).rejects.toThrow(/permission denied/)
    await expect(
      inShop(db, one.shop, tx =>
        sql`select * from append_events(${other.shop}, 1, null, '[]'::jsonb, true)`.execute(tx),
      ),
    ).rejects.toThrow(/another shop/)
  })
})

/** A whole dump of a database. */
function dumpOf(database: string): Buffer {
  const { args, env } = programAddress(cluster.of(database))
  return execFileSync(join(postgresPrograms(), 'pg_dump'), ['--format=custom', '--no-owner', ...args], {
    env: { ...process.env, ...env },
    maxBuffer: 1 << 26,
  })
}

/** The same of one that is none of ours. */
async function anotherDatabase(): Promise<Buffer> {
  await withPostgres(cluster, run => run('create database stranger'))
  await withOwner(cluster.of('stranger'), o => sql`create table recipe (soup text)`.execute(o))
  const dump = dumpOf('stranger')
  await withPostgres(cluster, run => run('drop database stranger'))
  return dump
}

test('a scratch database is gone afterwards, whatever was done in it', async () => {
  await filledShop()
  const file = join(folder, 'scratch.backup')
  await backUp(cluster, file, null)
  await expect(
    inScratch(cluster, file, null, async () => {
      throw new Error('in the midst')
    }),
  ).rejects.toThrow('in the midst')
  expect((await withPostgres(cluster, databases)).filter(d => d.startsWith('ocho_scratch'))).toEqual([])
}, 60_000)
