import { createHash, randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, realpathSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { writeWhole } from '../server/beside'
import { freePort, isFree } from './ports'
import { ClusterTrouble } from './postgres'

/** Passwords of the database's roles: its owner, the application, and the backups. */
export type Secrets = { owner: string; app: string; backup: string }

/**
 * Takes a data folder for this process. The kernel holds the name and lets it go when its holder ends, however it ends:
 * no file is left that could lie.
 * @returns null when another process has it; else how to let it go
 */
export async function takeFolder(folder: string): Promise<(() => void) | null> {
  mkdirSync(folder, { recursive: true })
  const name = '\0ocho-' + createHash('sha256').update(realpathSync(folder)).digest('hex').slice(0, 32)
  const lock = createServer(socket => socket.destroy())
  return new Promise((resolve, reject) => {
    lock.once('error', (error: NodeJS.ErrnoException) => (error.code === 'EADDRINUSE' ? resolve(null) : reject(error)))
    lock.listen(name, () => {
      lock.unref()
      resolve(() => lock.close())
    })
  })
}

/** The same for a start: the second on one folder ends. @throws ClusterTrouble */
export async function takeFolderForStart(folder: string): Promise<() => void> {
  const release = await takeFolder(folder)
  if (release) return release
  throw new ClusterTrouble(`Ocho runs on ${folder} already: use that one, or end it first with Ctrl-C where it runs`)
}

/** Passwords that are kept beside the cluster; null when there are none, or when the file cannot be read any more. */
export function readSecrets(folder: string): Secrets | null {
  try {
    const read = JSON.parse(readFileSync(join(folder, 'secrets.json'), 'utf8')) as Partial<Secrets>
    const good = (s: unknown): s is string => typeof s === 'string' && /^[0-9a-f]{48}$/.test(s)
    if (!good(read.owner) || !good(read.app)) return null
    return { owner: read.owner, app: read.app, backup: good(read.backup) ? read.backup : '' }
  } catch {
    return null
  }
}

/** Those that are kept, with what an earlier version did not have yet; all anew where none can be read. */
export function makeSecrets(folder: string): Secrets {
  const fresh = () => randomBytes(24).toString('hex')
  const kept = readSecrets(folder)
  if (kept?.backup) return kept
  const secrets = kept ? { ...kept, backup: fresh() } : { owner: fresh(), app: fresh(), backup: fresh() }
  writeWhole(join(folder, 'secrets.json'), JSON.stringify(secrets))
  return secrets
}

/** The database's port of last time, when the file says one. */
export function lastPort(folder: string): number | null {
  const file = join(folder, 'port')
  const port = existsSync(file) ? Number(readFileSync(file, 'utf8').trim()) : NaN
  return Number.isInteger(port) && port > 1023 && port < 65_536 ? port : null
}

/** The port of last time while it is free, so that what reconnects finds it. */
export async function portFor(folder: string): Promise<number> {
  const last = lastPort(folder)
  const port = last && (await isFree(last)) ? last : await freePort()
  writeWhole(join(folder, 'port'), String(port), 0o644)
  return port
}

/** The command line of a running process, or null. A number that is none, or of nobody, is nobody. */
export function commandOf(pid: number): string[] | null {
  if (!Number.isInteger(pid) || pid < 2) return null
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').slice(0, -1)
  } catch {
    return null
  }
}

/**
 * The process that a file names, when it is what we started; a file that lies is taken away, and nobody is ended for
 * it.
 */
export function ownProcess(file: string, isOurs: (command: readonly string[]) => boolean): number | null {
  if (!existsSync(file)) return null
  const pid = Number(readFileSync(file, 'utf8').split('\n')[0])
  const command = commandOf(pid)
  if (command && isOurs(command)) return pid
  rmSync(file, { force: true })
  return null
}
