import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { sql } from 'kysely'
import { backUp } from './backup'
import { LAUNCHER } from './bundle'
import { until, type Addresses } from './cluster'
import { withOwner } from './database'
import { takeFolder } from './folder'
import { freePort } from './ports'
import { ClusterTrouble } from './postgres'
import { restore } from './restore'
import { isHealthy, ROOT } from './server'
import { serviceRuns, turnService, type Whose } from './service'
import { isEarlier, isPacked, Version, VERSION_FILE, versionHere } from './version'

/** As long as a new version may take for its first start, its migrations with it. */
const START_MS = 10 * 60_000
/** What an archive must hold to be one of Ocho's. */
const MUST_HOLD = ['ocho', LAUNCHER, join('.output', 'server', 'index.mjs'), VERSION_FILE]

type Upgrade = {
  archive: string
  data: string
  passphrase: string | null
  whose: Whose
  say(line: string): void
  /** The database of the shop, started for the work where it does not run. */
  withDatabase<T>(work: (cluster: Addresses) => Promise<T>): Promise<T>
  root?: string
}

/**
 * Puts the code of an archive in the place of what runs: a backup first; the new code starts, migrates and answers at a
 * port of its own before anybody is sent to it; what fails leaves code and data as they were.
 * @throws ClusterTrouble with why, and how all stands
 */
export async function upgrade(how: Upgrade): Promise<void> {
  const { archive, say } = how
  const root = how.root ?? ROOT
  if (!isPacked(root))
    throw new ClusterTrouble(
      'this Ocho is a checkout of the code: take the new code in (git pull) and start it; it makes a backup and migrates by itself',
    )
  const next = unpack(archive, root)
  try {
    const [from, to] = [versionHere(root), versionHere(next)]
    if (isEarlier(to.version, from.version))
      throw new ClusterTrouble(
        `that is version ${to.version}, and ${from.version} runs here: an older one cannot read newer data`,
      )
    const service = serviceRuns(how.whose)
    if (service) turnService(how.whose, 'stop')
    try {
      const release = existsSync(how.data) ? await takeFolder(how.data) : () => undefined
      if (!release)
        throw new ClusterTrouble('Ocho runs in a terminal: stop it there (Ctrl-C), then upgrade, then start it again')
      release()
      await exchange({ ...how, root, next, from, to })
    } finally {
      if (service) turnService(how.whose, 'start')
    }
    say(service ? 'the service is started again' : 'start it: ./ocho start')
  } finally {
    rmSync(dirname(next), { recursive: true, force: true })
  }
}

/**
 * Unpacks beside the installed folder, so that one rename exchanges them. @throws ClusterTrouble for what is no archive
 * of Ocho's
 */
function unpack(archive: string, root: string): string {
  if (!existsSync(archive)) throw new ClusterTrouble(`there is no file ${archive}`)
  const no = (why: string) =>
    new ClusterTrouble(`${basename(archive)} is no archive of Ocho's (${why}): nothing was changed`)
  let names: string[]
  try {
    names = execFileSync('tar', ['-tzf', archive], { encoding: 'utf8', stdio: 'pipe', maxBuffer: 64 << 20 }).split('\n')
  } catch {
    throw no('it cannot be unpacked')
  }
  const top = names[0]?.split('/')[0] ?? ''
  if (!top || names.some(n => n && (!n.startsWith(`${top}/`) || n.split('/').includes('..'))))
    throw no('it holds other paths')
  const missing = MUST_HOLD.find(f => !names.includes(`${top}/${f}`))
  if (missing) throw no(`${missing} is missing`)
  const aside = mkdtempSync(join(dirname(root), '.ocho-next-'))
  try {
    execFileSync('tar', ['-xzf', archive, '-C', aside, '--no-same-owner'], { stdio: 'pipe' })
    Version.parse(JSON.parse(readFileSync(join(aside, top, VERSION_FILE), 'utf8')))
  } catch (error) {
    rmSync(aside, { recursive: true, force: true })
    throw no((error as Error).message.split('\n')[0])
  }
  return join(aside, top)
}

type Exchange = Upgrade & { root: string; next: string; from: Version; to: Version }

async function exchange({ root, next, from, to, data, passphrase, say, withDatabase }: Exchange): Promise<void> {
  const hasData = existsSync(join(data, 'cluster'))
  const backup = join(data, 'backups', `before-upgrade-${from.version}-${Date.now()}.backup`)
  const had = hasData
    ? await withDatabase(async cluster => {
        await backUp(cluster, backup, passphrase)
        return migrationsIn(cluster)
      })
    : []
  if (hasData) say(`a backup before the upgrade: ${backup}`)
  const before = `${root}.before`
  rmSync(before, { recursive: true, force: true })
  renameSync(root, before)
  renameSync(next, root)
  say(`trying ${to.version} (${to.commit})`)
  const trouble = await rehearsed(root)
  if (trouble === null) {
    say(`${from.version} became ${to.version}. What was before is kept in ${before}`)
    return
  }
  // the code back, and the data too where the new code had changed how it is kept
  rmSync(root, { recursive: true, force: true })
  renameSync(before, root)
  let restored = ''
  if (hasData)
    restored = await withDatabase(async cluster => {
      if (String(await migrationsIn(cluster)) === String(had)) return ' The data was not touched.'
      await restore(cluster, { file: backup, passphrase, demo: false })
      return ' The data is as it was in the backup.'
    })
  throw new ClusterTrouble(`${to.version} does not start (${trouble}): ${from.version} is back.${restored}`)
}

const migrationsIn = (cluster: Addresses): Promise<string[]> =>
  withOwner(cluster.ownerUrl, async db => {
    const { rows } = await sql<{ name: string }>`select name from kysely_migration order by name`.execute(db)
    return rows.map(r => r.name)
  })

/**
 * Starts code at a port nobody knows, waits until it would keep a tap, and stops it. @returns why it did not; null when
 * it did
 */
async function rehearsed(root: string): Promise<string | null> {
  const port = await freePort()
  const child = spawn(join(root, 'ocho'), ['start'], {
    cwd: root,
    env: { ...process.env, OCHO_PORT: String(port), OCHO_REHEARSAL: '1' },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString()).slice(-4_000)
    })
  let gone = false
  const ended = new Promise<void>(resolve =>
    child.once('close', () => {
      gone = true
      resolve()
    }),
  )
  try {
    await until(async () => gone || (await isHealthy(`http://127.0.0.1:${port}`)), START_MS, 'it does not answer')
    return gone ? (said.trim().split('\n').at(-1) ?? 'it ended without a word') : null
  } catch (error) {
    return (error as Error).message
  } finally {
    if (!gone) process.kill(child.pid!, 'SIGTERM')
    await ended
  }
}

/** Folders that an upgrade cut short left beside the installed one. */
export function sweepUpgrades(root = ROOT): void {
  if (!isPacked(root)) return
  for (const left of readdirSync(dirname(root)).filter(f => f.startsWith('.ocho-next-')))
    rmSync(join(dirname(root), left), { recursive: true, force: true })
}
