import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { makeSecrets, ownProcess, portFor, readSecrets, type Secrets } from './folder'
import { ClusterTrouble, postgresPrograms, runProgram, serverUser, urlOf, type User } from './postgres'

type Role = 'owner' | 'app' | 'backup'
/**
 * Where a cluster is reached: by its owner, by the application, and by backups; `of` leads to another database of it.
 */
export type Addresses = {
  port: number
  ownerUrl: string
  appUrl: string
  backupUrl: string
  of(database: string, role?: Role): string
}

/** A private PostgreSQL cluster in a folder of its own, on loopback and a port of its own. */
export type Cluster = Addresses & {
  folder: string
  /** Resolves when the server that runs now has ended, whoever ended it, with its last words. */
  ended(): Promise<string>
  /** Starts it again on the same port after it ended by itself. */
  again(): Promise<void>
  stop(): Promise<void>
}

export const DATABASE = 'ocho'
const APP_ROLE = 'ocho_app'
const BACKUP_ROLE = 'ocho_backup'
const LEDGER_ROLE = 'ocho_ledger'
const OWNER = 'ocho_owner'

export function addressesOf(port: number, secrets: Secrets): Addresses {
  const roles = { owner: OWNER, app: APP_ROLE, backup: BACKUP_ROLE }
  const of = (database: string, role: Role = 'owner') => urlOf(port, roles[role], secrets[role], database)
  return { port, of, ownerUrl: of(DATABASE), appUrl: of(DATABASE, 'app'), backupUrl: of(DATABASE, 'backup') }
}

/**
 * Makes the cluster when there is none, starts it when it does not run, and waits until it answers. @throws
 * ClusterTrouble
 */
export async function startCluster(folder: string, say: (line: string) => void): Promise<Cluster> {
  const user = serverUser()
  mkdirSync(folder, { recursive: true })
  const data = join(folder, 'cluster')
  if (user) {
    chmodSync(folder, 0o711)
    checkReachable(folder, user)
  }
  // what a kill left half-made
  for (const left of readdirSync(folder).filter(f => f.startsWith('cluster.making-')))
    rmSync(join(folder, left), { recursive: true, force: true })
  const whole = existsSync(join(data, 'PG_VERSION'))
  const known = readSecrets(folder)
  const secrets = makeSecrets(folder)
  if (!whole) {
    say('making a database cluster')
    rmSync(data, { recursive: true, force: true })
    makeCluster(folder, data, user, secrets.owner)
  }
  await stopLeftOver(data)
  if (whole && !known) {
    say('secrets.json was lost: the database gets new passwords of its own')
    setOwnerPassword(data, secrets.owner)
  }
  const addresses = addressesOf(await portFor(folder), secrets)
  let running = await launch(data, user, addresses)
  await prepareRoles(addresses.of('postgres'), secrets)
  return {
    ...addresses,
    folder,
    ended: () => running.ended,
    async again() {
      await stopLeftOver(data)
      running = await launch(data, user, addresses)
    },
    async stop() {
      if (running.gone()) return
      running.child.kill('SIGINT')
      await until(async () => running.gone(), 20_000, 'PostgreSQL did not stop within 20 s')
    },
  }
}

/**
 * In a folder aside, renamed when it is whole. The password is set through a pipe: none is ever in a file or an
 * argument.
 */
function makeCluster(folder: string, data: string, user: User, password: string): void {
  const making = mkdtempSync(join(folder, 'cluster.making-'))
  const first = join(making, 'first')
  const inside = join(making, 'cluster')
  mkdirSync(inside, { mode: 0o700 })
  // asked for by initdb, and used by nobody
  writeFileSync(first, randomBytes(24).toString('hex'), { mode: 0o600 })
  if (user) for (const path of [making, inside, first]) chownSync(path, user.uid, user.gid)
  const how = ['-U', OWNER, '-A', 'scram-sha-256', `--pwfile=${first}`, '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync']
  runProgram('initdb', ['-D', inside, ...how], { asServer: true })
  setOwnerPassword(inside, password)
  renameSync(inside, data)
  rmSync(making, { recursive: true, force: true })
}

/** By the server without a network, which asks nobody for a password: for who may write the folder anyway. */
function setOwnerPassword(data: string, password: string): void {
  const input = `alter role ${OWNER} password '${password}'\n`
  runProgram('postgres', ['--single', '-D', data, '-c', 'log_min_error_statement=panic', 'postgres'], {
    input,
    asServer: true,
  })
}

type Running = { child: ChildProcess; ended: Promise<string>; gone(): boolean }

async function launch(data: string, user: User, addresses: Addresses): Promise<Running> {
  const set = {
    log_min_messages: 'warning',
    // a statement can hold what nobody should read in a log
    log_min_error_statement: 'panic',
    max_connections: '60',
  }
  const child = spawn(
    join(postgresPrograms(), 'postgres'),
    [
      ...['-D', data, '-h', '127.0.0.1', '-p', String(addresses.port), '-k', ''],
      ...Object.entries(set).flatMap(([name, value]) => ['-c', `${name}=${value}`]),
    ],
    { ...(user ?? {}), cwd: '/', detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
  )
  let log = ''
  child.stderr!.on('data', (chunk: Buffer) => {
    log = (log + chunk.toString()).slice(-4000)
  })
  let gone = false
  const ended = new Promise<string>(resolve =>
    child.once('exit', () => {
      gone = true
      resolve(log.trim().split('\n').at(-1) || 'no message')
    }),
  )
  await until(
    async () => {
      if (gone) throw new ClusterTrouble(`PostgreSQL did not start: ${await ended}`)
      return answers(addresses.of('postgres'))
    },
    60_000,
    'PostgreSQL did not answer within a minute',
  )
  return { child, ended, gone: () => gone }
}

function checkReachable(folder: string, user: NonNullable<User>): void {
  try {
    execFileSync('test', ['-x', folder], { ...user, cwd: '/' })
  } catch {
    throw new ClusterTrouble(
      `The user postgres cannot reach ${folder}: choose another with OCHO_DATA, such as /var/lib/ocho`,
    )
  }
}

/** A launcher that was killed leaves its server behind: it is stopped, so that this start owns the one that runs. */
async function stopLeftOver(data: string): Promise<void> {
  const ours = (command: readonly string[]) => command.includes('-D') && command.includes(data)
  await until(
    async () => {
      const pid = ownProcess(join(data, 'postmaster.pid'), ours)
      if (pid === null) return true
      process.kill(pid, 'SIGINT')
      await sleep(200)
      return false
    },
    20_000,
    'A database server left over from before did not stop',
  )
}

export async function until(done: () => Promise<boolean>, limitMs: number, words: string): Promise<void> {
  const end = Date.now() + limitMs
  while (!(await done())) {
    if (Date.now() > end) throw new ClusterTrouble(words)
    await sleep(100)
  }
}

/** Does a database answer there? */
export async function answers(url: string): Promise<boolean> {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 1000 })
  client.on('error', () => undefined)
  try {
    await client.connect()
    await client.query('select 1')
    return true
  } catch {
    return false
  } finally {
    await client.end().catch(() => undefined)
  }
}

/**
 * The application's role owns nothing, cannot pass by row-level security and cannot hold others up for long; the role
 * of backups reads everything and changes nothing. Their passwords are those beside the cluster; where a database runs
 * elsewhere, its keeper makes the backups, and there is no role for them.
 */
export async function prepareRoles(
  url: string,
  { app, backup }: { app: string; backup: string | null },
): Promise<void> {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  const has = async (role: string) =>
    Boolean((await client.query('select 1 from pg_roles where rolname = $1', [role])).rowCount)
  const settle = async (role: string, walls: string, password: string) => {
    const secret = client.escapeLiteral(password)
    await client.query(
      `${(await has(role)) ? 'alter' : 'create'} role ${role} login nosuperuser nocreatedb nocreaterole ${walls} password ${secret}`,
    )
  }
  try {
    // one at a time, of any number of servers that start at once
    await client.query("select pg_advisory_lock(hashtextextended('ocho roles', 0))")
    if (backup === null) {
      if (!(await has(APP_ROLE))) await settle(APP_ROLE, '', app)
    } else {
      await settle(APP_ROLE, 'nobypassrls', app)
      await settle(BACKUP_ROLE, 'bypassrls', backup)
      await client.query(`grant pg_read_all_data to ${BACKUP_ROLE}`)
    }
    // nobody signs in as this one: it owns the function that appends, and may do no more
    if (!(await has(LEDGER_ROLE))) await client.query(`create role ${LEDGER_ROLE} nologin`)
    if (backup === null) await client.query(`grant ${LEDGER_ROLE} to current_user`)
    const settings = {
      statement_timeout: '15s',
      lock_timeout: '10s',
      idle_in_transaction_session_timeout: '20s',
      // what is asked here takes milliseconds: compiling it first would take longer
      jit: 'off',
    }
    for (const [name, value] of Object.entries(settings))
      await client.query(`alter role ${APP_ROLE} set ${name} = '${value}'`)
  } finally {
    await client.end()
  }
}
