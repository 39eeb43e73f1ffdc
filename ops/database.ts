import { sql } from 'kysely'
import { connect, inShop, type Db } from '../server/db/connect'
import { migrate, pendingMigrations, settleOwners } from '../server/db/migrations/index'
import { dropRecordsOfJobs, fillRecords } from '../server/db/records'
import { lastSheet } from '../server/db/sheets'
import { DATABASE, type Addresses } from './cluster'

/** Being made: dropped at the next start when a kill came before it was whole. */
const MAKING = 'ocho_making'
/** Restored, whole and judged; takes the place of the one in use. */
export const RESTORED = 'ocho_restored'

type Steps = {
  /** What a new database is filled with before it is there for anybody. */
  fill?(appUrl: string): Promise<void>
  /** Asked of the one that is there, before anything else. */
  beforeAll?(): Promise<void>
  /** Asked before a database that holds something is migrated: a backup. */
  beforeMigrating?(pending: readonly string[]): Promise<void>
}

/**
 * Makes the database, or brings the one that is there to this version. A new one is made aside and renamed when it is
 * whole, so that a kill at any moment leaves either none or all of it; migrations are one transaction.
 * @returns the migrations that were run on a database that was there
 */
export async function openDatabase(cluster: Addresses, steps: Steps = {}): Promise<string[]> {
  await withPostgres(cluster, async run => {
    const there = await databases(run)
    // a restore that was cut short: finished when the old one is out of the way already, else as if it had never been
    if (there.includes(RESTORED)) {
      if (there.includes(DATABASE)) await run(`drop database ${RESTORED} with (force)`)
      else await run(`alter database ${RESTORED} rename to ${DATABASE}`)
    }
    for (const left of there.filter(d => d === MAKING || d.startsWith('ocho_scratch')))
      await run(`drop database ${left} with (force)`)
    if ((await databases(run)).includes(DATABASE)) {
      // shut while a restore was about to take its place
      await run(`alter database ${DATABASE} with allow_connections true`)
      return
    }
    await run(`create database ${MAKING}`)
    await bringUpToDate(cluster.of(MAKING))
    await steps.fill?.(cluster.of(MAKING, 'app'))
    await run(`alter database ${MAKING} rename to ${DATABASE}`)
  })
  await steps.beforeAll?.()
  const pending = await withOwner(cluster.ownerUrl, db => pendingMigrations(db))
  if (pending.length) await steps.beforeMigrating?.(pending)
  return bringUpToDate(cluster.ownerUrl)
}

/** Brings a database to this version, by its owner. */
export async function bringUpToDate(ownerUrl: string): Promise<string[]> {
  return withOwner(ownerUrl, async owner => {
    const done = await migrate(owner)
    await settleOwners(owner)
    // visits from before their records were kept so leave theirs now, shop by shop: a kill in between goes on at the
    // next start
    const { rows } = await sql<{ shop: string }>`select shop from shop where records_stale`.execute(owner)
    for (const { shop } of rows)
      await inShop(owner, shop, async tx => {
        await dropRecordsOfJobs(tx, shop)
        await fillRecords(tx, shop, job => lastSheet(tx, shop, { job }))
        await tx.updateTable('shop').set({ records_stale: false }).where('shop', '=', shop).execute()
      })
    return done
  })
}

type Run = (statement: string) => Promise<Record<string, unknown>[]>
/** Statements about databases themselves: asked in none of them. */
export async function withPostgres<T>(cluster: Addresses, work: (run: Run) => Promise<T>): Promise<T> {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: cluster.of('postgres') })
  await client.connect()
  try {
    return await work(async statement => (await client.query<Record<string, unknown>>(statement)).rows)
  } finally {
    await client.end()
  }
}

export const databases = async (run: Run): Promise<string[]> =>
  (await run(`select datname from pg_database where datname like 'ocho%'`)).map(r => String(r.datname))

/** How many shops there are: asked by the owner, since no role of the application can. */
export async function countShops(ownerUrl: string): Promise<number> {
  return withOwner(ownerUrl, async db => {
    const { rows } = await sql<{ count: number }>`select count(*)::int as count from shop`.execute(db)
    return rows[0].count
  })
}

export async function withOwner<T>(ownerUrl: string, work: (db: Db) => Promise<T>): Promise<T> {
  const db = connect(ownerUrl, 2)
  try {
    return await work(db)
  } finally {
    await db.destroy()
  }
}
