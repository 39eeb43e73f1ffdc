import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { NightStatus } from '#core/shop/nights'
import type { Addresses } from './cluster'
import { statusFile, statusIn } from '../server/nights/status'
import { backUp } from './backup'
import { writeWhole } from '../server/beside'
import { inScratch } from './restore'

/** The hour of the machine's day at which the night's backup is made, when the machine is on. */
const HOUR = 2
export const DAYS_KEPT = 14
export const MONTHS_KEPT = 12

const dayOf = (at: Date): string =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()].map(n => String(n).padStart(2, '0')).join('-')

/**
 * Is the night's backup still to be made? Once a day from its hour on, and at once when there was none for a day.
 * @param lastTried when one was last tried; before the first, when the data's first day was
 */
export function isDue(now: Date, lastTried: Date): boolean {
  if (now.getTime() - lastTried.getTime() > 24 * 3600_000) return true
  return now.getHours() >= HOUR && dayOf(lastTried) !== dayOf(now)
}

/** Which files of a folder of backups go: all but the newest of each of the last days and of the last months. */
export function tooOld(files: readonly string[]): string[] {
  const dated = files.filter(f => /^ocho-\d{4}-\d\d-\d\d\.backup$/.test(f)).sort()
  const days = dated.slice(-DAYS_KEPT)
  const months = [...new Map(dated.map(f => [f.slice(5, 12), f])).values()].slice(-MONTHS_KEPT)
  const kept = new Set([...days, ...months])
  return dated.filter(f => !kept.has(f))
}

/**
 * The night's backup: written, proven by restoring it, copied to a second folder when one is named, and old ones taken
 * away. What failed is kept in the folder's status, for the Floor to say.
 */
export async function backUpNight(
  cluster: Addresses,
  folder: string,
  how: { passphrase: string | null; second?: string; now?: Date; say(line: string): void },
): Promise<NightStatus> {
  const now = how.now ?? new Date()
  const own = join(folder, 'backups')
  const name = `ocho-${dayOf(now)}.backup`
  const before = statusIn(folder)
  let status: NightStatus = { ...before, triedAt: now.toISOString() }
  try {
    mkdirSync(own, { recursive: true, mode: 0o700 })
    // under another name until it is proven: a bad one never takes the place of a good one
    const unproven = join(own, `${name}.unproven`)
    const bytes = await backUp(cluster, unproven, how.passphrase)
    const held = await inScratch(cluster, unproven, how.passphrase, async (_, h) => h)
    renameSync(unproven, join(own, name))
    clear(own)
    if (how.second) copyTo(how.second, join(own, name), name)
    status = { ...status, goodAt: now.toISOString(), bytes, trouble: null }
    how.say(`backup proven: ${join(own, name)}, ${(bytes / 1024).toFixed(0)} kB, ${held.events} entries`)
  } catch (error) {
    status = { ...status, trouble: (error as Error).message.split('\n')[0] }
    how.say(`backup failed: ${status.trouble}`)
  }
  try {
    writeWhole(statusFile(folder), JSON.stringify(status), 0o644)
  } catch (error) {
    // a disk without room for this line is said on the Floor by its room; the shop goes on
    how.say(`the night’s status could not be written: ${(error as Error).message}`)
  }
  return status
}

function copyTo(second: string, file: string, name: string): void {
  if (!existsSync(second)) throw new Error(`the second folder ${second} is not there: is its disk mounted?`)
  const part = join(second, `${name}.part`)
  copyFileSync(file, part)
  renameSync(part, join(second, name))
  clear(second)
}

function clear(folder: string): void {
  for (const old of tooOld(readdirSync(folder))) rmSync(join(folder, old))
}
