import { Kysely, PostgresDialect, sql, type Transaction } from 'kysely'
import pg from 'pg'
import type { Database } from './schema'

export type Db = Kysely<Database>
export type ShopTx = Transaction<Database>

// a date without a time is a date: never a moment in the server's zone
pg.types.setTypeParser(pg.types.builtins.DATE, value => value)

/**
 * Opens a pool for a connection address. Errors of idle and of checked-out clients are logged, not thrown at nobody.
 * @param patienceMs how long it is waited for a connection
 */
export function connect(url: string, size = 10, patienceMs = 5000): Db {
  const pool = new pg.Pool({ connectionString: url, max: size, connectionTimeoutMillis: patienceMs })
  const log = (error: Error) => console.error(`database connection lost: ${error.message}`)
  pool.on('error', log)
  pool.on('connect', client => {
    client.on('error', log)
  })
  return new Kysely<Database>({ dialect: new PostgresDialect({ pool }) })
}

/** Runs queries that see one shop and no other: the transaction names it, row-level security holds it. */
export function inShop<T>(db: Db, shop: string, work: (tx: ShopTx) => Promise<T>): Promise<T> {
  return db.transaction().execute(async tx => {
    await sql`select set_config('ocho.shop', ${shop}, true)`.execute(tx)
    return work(tx)
  })
}
