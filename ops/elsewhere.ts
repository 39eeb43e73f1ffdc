import { setTimeout as sleep } from 'node:timers/promises'
import { pendingMigrations } from '../server/db/migrations/index'
import { oneTimeCode } from '../server/auth/secrets'
import { prepareRoles } from './cluster'
import { bringUpToDate, countShops, withOwner } from './database'
import { ClusterTrouble } from './postgres'
import { startServer, type RunningServer } from './server'
import { keepRunning } from './supervise'

/**
 * Brings a database that runs elsewhere to this version: its roles, then its migrations, under a lock of the migrating
 * package, so that several servers may do it at once.
 * @param appUrl the application's way in; its user must be `ocho_app`, which is made with that password where it is
 *   missing
 * @throws ClusterTrouble where the owner may not do what migrations need
 */
export async function prepareElsewhere(ownerUrl: string, appUrl: string): Promise<string[]> {
  const app = new URL(appUrl)
  if (app.username !== 'ocho_app')
    throw new ClusterTrouble('OCHO_DATABASE_URL must name the user ocho_app: to no other are the shop’s tables granted')
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: ownerUrl, connectionTimeoutMillis: 10_000 })
  try {
    await client.connect()
    const { rows } = await client.query<{ may: boolean }>(
      'select rolsuper or (rolbypassrls and rolcreaterole) as may from pg_roles where rolname = current_user',
    )
    if (!rows[0]?.may)
      throw new ClusterTrouble(
        'the user of OCHO_OWNER_URL must be a superuser, or may create roles and pass by row-level security (createrole bypassrls): migrations read every shop',
      )
  } catch (error) {
    if (error instanceof ClusterTrouble) throw error
    throw new ClusterTrouble(`the database of OCHO_OWNER_URL does not answer: ${(error as Error).message}`)
  } finally {
    await client.end().catch(() => undefined)
  }
  await prepareRoles(ownerUrl, { app: decodeURIComponent(app.password), backup: null })
  return bringUpToDate(ownerUrl)
}

/**
 * A server of this code on a database that runs elsewhere: its backups and its being up are its keeper's. Ends with the
 * process.
 */
export async function runElsewhere(port: number, say: (line: string) => void): Promise<void> {
  const appUrl = process.env.OCHO_DATABASE_URL!
  const ownerUrl = process.env.OCHO_OWNER_URL
  let firstRunCode: string | undefined
  if (ownerUrl) {
    const done = await prepareElsewhere(ownerUrl, appUrl)
    if (done.length) say(`migrated: ${done.join(', ')}`)
    const left = await withOwner(ownerUrl, db => pendingMigrations(db))
    if (left.length) throw new ClusterTrouble(`not brought up to this version: ${left.join(', ')}`)
    if ((await countShops(ownerUrl)) === 0) firstRunCode = oneTimeCode()
  }
  let stopping = false
  let server: RunningServer | undefined
  const stop = async () => {
    if (stopping) return
    stopping = true
    await server?.stop()
    say('stopped')
    process.exit(0)
  }
  process.on('SIGINT', () => void stop())
  process.on('SIGTERM', () => void stop())
  const serve = async () => {
    server = await startServer({ appUrl, port, firstRunCode, host: process.env.OCHO_HOST ?? '127.0.0.1' })
  }
  await serve()
  say(`Ocho is at ${server!.url}, on a database that runs elsewhere: its backups are made there`)
  if (firstRunCode) say(`first run: open it and type the code ${firstRunCode}`)
  say('Ctrl-C stops it')
  const gaveUp = await keepRunning(
    { name: 'the server', ended: async () => `code ${(await server!.ended) ?? 'none: it was killed'}`, again: serve },
    { say, stopping: () => stopping, sleep },
  )
  if (gaveUp === null) return
  console.error(`ocho: ${gaveUp}`)
  process.exit(1)
}
