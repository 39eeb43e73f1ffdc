import { spawn } from 'node:child_process'
import {
  closeSync,
  createWriteStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Addresses } from './cluster'
import { encipher } from './cipher'
import { ClusterTrouble, postgresPrograms, programAddress } from './postgres'

/**
 * The passphrase of backups, from the file that OCHO_BACKUP_PASSPHRASE_FILE names: never from an argument. @throws
 * ClusterTrouble
 */
export function backupPassphrase(env: NodeJS.ProcessEnv = process.env): string | null {
  const file = env.OCHO_BACKUP_PASSPHRASE_FILE
  if (!file) return null
  if (!existsSync(file)) throw new ClusterTrouble(`There is no file ${file} with the backups' passphrase`)
  const passphrase = readFileSync(file, 'utf8').trim()
  if (passphrase.length < 12)
    throw new ClusterTrouble(`The passphrase in ${file} is too short: use 12 characters or more`)
  return passphrase
}

/**
 * Writes everything to a file only its owner may read, while the shop works on. Whole or not at all: it is written
 * aside, forced to the disk and renamed.
 * @returns its size in bytes
 * @throws ClusterTrouble
 */
export async function backUp(cluster: Addresses, to: string, passphrase: string | null): Promise<number> {
  const file = resolve(to)
  mkdirSync(dirname(file), { recursive: true })
  const part = `${file}.part`
  rmSync(part, { force: true })
  const { args, env } = programAddress(cluster.backupUrl)
  const dump = spawn(join(postgresPrograms(), 'pg_dump'), ['--format=custom', '--no-owner', ...args], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let told = ''
  dump.stderr.on('data', (chunk: Buffer) => {
    told = (told + chunk.toString()).slice(-2000)
  })
  const code = new Promise<number | null>(end => dump.once('close', end))
  const out = createWriteStream(part, { mode: 0o600 })
  try {
    await (passphrase ? encipher(dump.stdout, out, passphrase) : pipeline(dump.stdout, out))
    if ((await code) !== 0) throw new ClusterTrouble(`The backup failed: ${told.trim().split('\n').at(-1)}`)
    toDisk(part)
    renameSync(part, file)
    toDisk(dirname(file))
  } catch (error) {
    dump.kill()
    rmSync(part, { force: true })
    const { code: why } = error as NodeJS.ErrnoException
    throw why === 'ENOSPC' ? new ClusterTrouble(`No room for a backup in ${dirname(file)}: make some`) : error
  }
  return statSync(file).size
}

function toDisk(path: string): void {
  const of = openSync(path, 'r')
  fsyncSync(of)
  closeSync(of)
}
