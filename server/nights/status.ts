import { existsSync, statfsSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { NightStatus, nightWarnings, type NightsView } from '#core/shop/nights'
import { readBeside } from '../beside'

/** What the launcher keeps beside the data of its nights; null where no launcher started this server. */
export function nightsNow(now = new Date()): NightsView | null {
  const folder = process.env.OCHO_DATA_FOLDER
  if (!folder) return null
  const { bavail, bsize } = statfsSync(folder)
  const status = statusIn(folder)
  const since = firstDay(folder)
  const freeBytes = bavail * bsize
  const demo = process.env.OCHO_DEMO_SIGN_IN !== undefined
  return {
    status,
    freeBytes,
    asked: existsSync(askFile(folder)),
    // nobody backs a demo up
    warnings: nightWarnings(status, { now, since: demo ? now : since, freeBytes }),
  }
}

/** Asks the launcher for a backup now. @returns false where there is no launcher to ask */
export function askForBackup(): boolean {
  const folder = process.env.OCHO_DATA_FOLDER
  if (!folder) return false
  writeFileSync(askFile(folder), new Date().toISOString())
  return true
}

/** Written when an owner asks for a backup; the launcher makes it and takes the file away. */
export const askFile = (folder: string): string => join(folder, 'backup.asked')
/** When the data was begun: when its secrets were first written, as far as the disk remembers. */
export function firstDay(folder: string): Date {
  const { birthtimeMs, mtime, birthtime } = statSync(join(folder, 'secrets.json'))
  return birthtimeMs > 0 ? birthtime : mtime
}
export const statusFile = (folder: string): string => join(folder, 'nights.json')

/** What the last nights left behind; nothing yet where no file says so. */
export function statusIn(folder: string): NightStatus {
  return readBeside(NightStatus, statusFile(folder)) ?? { triedAt: null, goodAt: null, bytes: null, trouble: null }
}
