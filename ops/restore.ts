import { randomBytes } from 'node:crypto'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import type { Db } from '../server/db/connect'
import { MIGRATION_NAMES } from '../server/db/migrations/index'
import { DATABASE, type Addresses } from './cluster'
import { decipher, isEnciphered } from './cipher'
import { bringUpToDate, databases, RESTORED, withOwner, withPostgres } from './database'
import { ClusterTrouble, programAddress, runProgram } from './postgres'

/** What a backup holds, told by what was restored of it. */
export type Held = { shops: number; demoShops: number; jobs: number; events: number; latest: string | null }
/** Replaced data is kept aside under such names, so many times. */
const BEFORE = 'ocho_before_'
const KEPT_ASIDE = 2

/**
 * Restores a backup into a database of its own, judges it, and gives it to `work`; then it is gone. Nothing that is in
 * use is touched.
 * @throws ClusterTrouble when the file is none of ours, not whole, of a later version, or under another passphrase
 */
export async function inScratch<T>(
  cluster: Addresses,
  file: string,
  passphrase: string | null,
  work: (database: string, held: Held) => Promise<T>,
): Promise<T> {
  if (!existsSync(file)) throw new ClusterTrouble(`there is no file ${file}`)
  const aside = mkdtempSync(join(tmpdir(), 'ocho-restore-'))
  const database = `ocho_scratch_${randomBytes(4).toString('hex')}`
  try {
    const plain = await plainFile(file, passphrase, aside)
    const list = attempt(file, () => runProgram('pg_restore', ['--list', plain]))
    const ours = ['shop', 'event', 'kysely_migration'].every(t => list.includes(` TABLE public ${t} `))
    if (!ours) throw new ClusterTrouble(`${file} is a backup of something else: nothing was changed`)
    await withPostgres(cluster, run => run(`create database ${database}`))
    const { args, env } = programAddress(cluster.of(database))
    const how = ['--no-owner', '--exit-on-error', '--single-transaction']
    attempt(file, () => runProgram('pg_restore', [...how, ...args, plain], { env }))
    const held = await withOwner(cluster.of(database), async db => {
      const { rows } = await sql<{ name: string }>`select name from kysely_migration`.execute(db)
      const later = rows.filter(r => !MIGRATION_NAMES.includes(r.name))
      if (later.length)
        throw new ClusterTrouble(
          `${file} was made by a later version of Ocho: upgrade this one first. Nothing was changed`,
        )
      return holds(db)
    })
    return await work(database, held)
  } finally {
    await withPostgres(cluster, run => run(`drop database if exists ${database} with (force)`)).catch(() => undefined)
    rmSync(aside, { recursive: true, force: true })
  }
}

async function plainFile(file: string, passphrase: string | null, aside: string): Promise<string> {
  if (!isEnciphered(file)) return file
  if (!passphrase)
    throw new ClusterTrouble(`${file} is under a passphrase: name its file in OCHO_BACKUP_PASSPHRASE_FILE`)
  const plain = join(aside, 'plain')
  await decipher(file, plain, passphrase)
  return plain
}

function attempt<T>(file: string, work: () => T): T {
  try {
    return work()
  } catch (error) {
    throw new ClusterTrouble(
      `${file} is no whole backup (${(error as Error).message.slice(0, 120)}): nothing was changed`,
    )
  }
}

async function holds(db: Parameters<Parameters<typeof withOwner>[1]>[0]): Promise<Held> {
  const { rows } = await sql<Held>`
    select (select count(*)::int from shop) as shops, (select count(*)::int from shop where demo) as "demoShops",
      (select count(*)::int from job) as jobs, count(*)::int as events, max(received_at)::text as latest from event`.execute(
    db,
  )
  return rows[0]
}

export type RestoreAsk = { file: string; passphrase: string | null; demo: boolean; shop?: string }

/**
 * Puts a backup in the place of what is in use, which is kept aside. @throws ClusterTrouble: then nothing was changed
 */
export async function restore(cluster: Addresses, ask: RestoreAsk): Promise<Held> {
  return inScratch(cluster, ask.file, ask.passphrase, async (database, held) => {
    if (held.demoShops > 0 && !ask.demo)
      throw new ClusterTrouble('That is a backup of the demo, whose passwords are published: restore it with --demo')
    if (held.shops > held.demoShops && ask.demo)
      throw new ClusterTrouble("That is a backup of a shop: restore it without --demo, apart from the demo's data")
    await bringUpToDate(cluster.of(database))
    if (ask.shop !== undefined) await restoreShop(cluster, database, ask.shop)
    else {
      await keepRevoked(cluster, database)
      await swap(cluster, database)
    }
    return held
  })
}

/** A device that was signed out since, or never was here, is signed out in what is restored too. */
async function keepRevoked(cluster: Addresses, database: string, shop?: string): Promise<void> {
  const inForce = await withOwner(cluster.ownerUrl, async db => {
    const { rows } = await sql<{ id: string }>`select id from session where revoked_at is null`.execute(db)
    return rows.map(r => r.id)
  }).catch(() => [])
  await withOwner(cluster.of(database), db =>
    db
      .updateTable('session')
      .set({ revoked_at: new Date() })
      .where('revoked_at', 'is', null)
      .$if(inForce.length > 0, q => q.where('id', 'not in', inForce))
      .$if(shop !== undefined, q => q.where('shop', '=', shop!))
      .execute(),
  )
}

/** Three renames; a kill between them is put right at the next start. */
async function swap(cluster: Addresses, database: string): Promise<void> {
  await withPostgres(cluster, async run => {
    const there = await databases(run)
    const stamp = new Date().toISOString().replace(/\D/g, '')
    await run(`alter database ${database} rename to ${RESTORED}`)
    if (there.includes(DATABASE)) {
      await run(`alter database ${DATABASE} with allow_connections false`)
      try {
        await run(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${DATABASE}'`)
        await run(`alter database ${DATABASE} rename to ${BEFORE}${stamp}`)
      } catch (error) {
        // the shop goes on with what it has
        await run(`alter database ${DATABASE} with allow_connections true`)
        await run(`drop database ${RESTORED} with (force)`)
        throw error
      }
      await run(`alter database ${BEFORE}${stamp} with allow_connections true`)
    }
    await run(`alter database ${RESTORED} rename to ${DATABASE}`)
    const old = there.filter(d => d.startsWith(BEFORE)).sort()
    for (const d of old.slice(0, Math.max(0, old.length + 1 - KEPT_ASIDE))) await run(`drop database ${d} with (force)`)
  })
}

/** One shop out of a backup of many takes the place of what is here of it; the other shops are not touched. */
async function restoreShop(cluster: Addresses, database: string, code: string): Promise<void> {
  const shop = await withOwner(cluster.of(database), async db => {
    const { rows } = await sql<{ shop: string }>`select shop from shop where code = ${code.toLowerCase()}`.execute(db)
    return rows[0]?.shop
  })
  if (!shop) throw new ClusterTrouble(`That backup holds no shop with the code ${code}: nothing was changed`)
  await keepRevoked(cluster, database, shop)
  await withOwner(cluster.of(database), from =>
    withOwner(cluster.ownerUrl, to =>
      to.transaction().execute(async tx => {
        const clash = await sql`select 1 from shop where code = ${code.toLowerCase()} and shop <> ${shop}`.execute(tx)
        if (clash.rows.length) throw new ClusterTrouble(`Another shop here has the code ${code}: nothing was changed`)
        // keys between the rows of one shop hold again when all are there; the ledger's trigger lets nobody else pass
        await sql`set local session_replication_role = replica`.execute(tx)
        const tables = (await tablesOfShops(tx)).filter(t => t !== 'shop')
        for (const table of [...tables, 'shop'])
          await sql`delete from ${sql.table(table)} where shop = ${shop}`.execute(tx)
        for (const table of ['shop', ...tables]) {
          const columns = sql.join((await keptColumns(tx, table)).map(c => sql.ref(c)))
          await inParts(
            from,
            sql`select to_jsonb(t) as row from ${sql.table(table)} t where shop = ${shop}`,
            async rows => {
              const all = JSON.stringify(rows.map(r => r.row))
              await sql`insert into ${sql.table(table)} (${columns}) overriding system value
              select ${columns} from jsonb_populate_recordset(null::${sql.table(table)}, ${all}::jsonb)`.execute(tx)
            },
          )
        }
      }),
    ),
  )
}

/** Reads what may be much in parts, by a cursor: once through, however much it is. */
async function inParts(
  from: Db,
  query: ReturnType<typeof sql>,
  take: (rows: { row: unknown }[]) => Promise<void>,
): Promise<void> {
  await from.transaction().execute(async tx => {
    await sql`declare rows no scroll cursor for ${query}`.execute(tx)
    for (;;) {
      const { rows } = await sql<{ row: unknown }>`fetch 500 from rows`.execute(tx)
      if (rows.length === 0) return
      await take(rows)
    }
  })
}

/** Columns that are written; those the database reckons from others are none. */
async function keptColumns(tx: Parameters<Parameters<typeof withOwner>[1]>[0], table: string): Promise<string[]> {
  const { rows } = await sql<{ name: string }>`
    select column_name as name from information_schema.columns
    where table_schema = 'public' and table_name = ${table} and is_generated = 'NEVER' order by ordinal_position`.execute(
    tx,
  )
  return rows.map(r => r.name)
}

async function tablesOfShops(tx: Parameters<Parameters<typeof withOwner>[1]>[0]): Promise<string[]> {
  const { rows } = await sql<{ name: string }>`
    select c.relname as name from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attname = 'shop'
    where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition order by 1`.execute(
    tx,
  )
  return rows.map(r => r.name)
}
