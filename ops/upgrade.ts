import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { sql } from 'kysely'
import { z } from 'zod'
import { readBeside, writeWhole } from '../server/beside'
import { backUp } from './backup'
import { LAUNCHER } from './bundle'
import { until, type Addresses } from './cluster'
import { openIfThere } from './data'
import { withOwner } from './database'
import { takeFolder } from './folder'
import { freePort } from './ports'
import { ClusterTrouble } from './postgres'
import { restore } from './restore'
import { isHealthy, ROOT } from './server'
import { serviceRuns, turnService, type Whose } from './service'
import { swapFolders } from './swapFolders'
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
 * port of its own before it takes the place of the old; what fails, or is cut short at any moment, leaves code and data
 * as they were, or all of it exchanged.
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
 * Unpacks beside the installed folder, so that the two can be exchanged. @throws ClusterTrouble for what is no archive
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

async function exchange(how: Exchange): Promise<void> {
  const { root, next, from, to, data, passphrase, say, withDatabase } = how
  const hasData = existsSync(join(data, 'cluster'))
  if (hasData) {
    const backup = join(data, 'backups', `before-upgrade-${from.version}-${Date.now()}.backup`)
    const had = await withDatabase(async cluster => {
      await openIfThere(cluster)
      await settleUpgrade(cluster, data, passphrase, say)
      await backUp(cluster, backup, passphrase)
      return migrationsIn(cluster)
    })
    say(`a backup before the upgrade: ${backup}`)
    writeWhole(begunFile(data), JSON.stringify({ from: from.version, backup, had } satisfies Begun))
  }
  say(`trying ${to.version} (${to.commit})`)
  // beside the old code, which stays where it is until the new one has answered
  const trouble = await rehearsed(next)
  if (trouble === null) {
    const before = `${root}.before`
    rmSync(before, { recursive: true, force: true })
    swapFolders(root, next)
    rmSync(begunFile(data), { force: true })
    renameSync(next, before)
    say(`${from.version} became ${to.version}. What was before is kept in ${before}`)
    return
  }
  const restored = hasData ? await withDatabase(cluster => settleUpgrade(cluster, data, passphrase)) : false
  const words = restored ? 'The data is as it was in the backup' : 'The data was not touched'
  throw new ClusterTrouble(`${to.version} does not start (${trouble}): ${from.version} is in use as before. ${words}`)
}

/** An upgrade that is under way: which version it began from, and how the data then was. */
const Begun = z.object({ from: z.string(), backup: z.string(), had: z.array(z.string()) })
type Begun = z.infer<typeof Begun>
const begunFile = (data: string): string => join(data, 'upgrading.json')

/**
 * The data back as it was before an upgrade that failed or was cut short, where the version that it began from is the
 * one in use. Nobody was sent to the new one, so nothing was kept in between.
 * @returns whether there was anything to put back
 * @throws ClusterTrouble when the backup cannot be read: it is asked again at the next start
 */
export async function settleUpgrade(
  cluster: Addresses,
  data: string,
  passphrase: string | null,
  say?: (line: string) => void,
  version = versionHere().version,
): Promise<boolean> {
  const begun = readBeside(Begun, begunFile(data))
  const changed = begun?.from === version && String(await migrationsIn(cluster)) !== String(begun.had)
  if (changed) {
    say?.('an upgrade was cut short: the data is put back as it was before it')
    await restore(cluster, { file: begun.backup, passphrase, demo: false })
  }
  rmSync(begunFile(data), { force: true })
  return changed
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
    // it ends when this process does, however that ends
    stdio: ['pipe', 'pipe', 'pipe'],
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
