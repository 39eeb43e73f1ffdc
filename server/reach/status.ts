import { readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ReachStatus, ReachWish, RunningNow, type ReachView } from '#core/shop/reach'

export const HTTPS_PORT = 8443
export const JOIN_PORT = 8480

/** Written by the server when an owner chooses; read by the launcher, which does it. */
export const wishFile = (folder: string): string => join(folder, 'reach.json')
/** Written by the launcher; read by the server for the shop's page. */
export const reachFile = (folder: string): string => join(folder, 'reach.now.json')
/** Written by a launcher while it runs, and taken away when it stops. */
export const runningFile = (folder: string): string => join(folder, 'running.json')

const NOWHERE: ReachStatus = {
  lan: false,
  names: [],
  name: null,
  httpsPort: HTTPS_PORT,
  joinPort: JOIN_PORT,
  fingerprint: null,
  words: [],
  until: null,
  trouble: null,
}

/** What was wished; closed where nothing, or nothing readable, says otherwise. */
export const wishIn = (folder: string): ReachWish => readBy(ReachWish, wishFile(folder)) ?? { lan: false, name: null }
export const reachIn = (folder: string): ReachStatus => readBy(ReachStatus, reachFile(folder)) ?? NOWHERE

export const runningIn = (folder: string): RunningNow | null => readBy(RunningNow, runningFile(folder))

/** All of it, where a launcher started this server; null elsewhere. */
export function reachNow(): ReachView | null {
  const folder = process.env.OCHO_DATA_FOLDER
  return folder ? { wish: wishIn(folder), status: reachIn(folder), running: runningIn(folder) } : null
}

/** Keeps what an owner wishes. @returns false where no launcher would hear of it */
export function wishReach(wish: ReachWish): boolean {
  const folder = process.env.OCHO_DATA_FOLDER
  if (!folder) return false
  writeAside(wishFile(folder), wish)
  return true
}

export function writeAside(file: string, value: unknown): void {
  const aside = `${file}.${process.pid}.part`
  writeFileSync(aside, JSON.stringify(value, null, 2), { mode: 0o600 })
  renameSync(aside, file)
}

function readBy<T>(schema: { parse(value: unknown): T }, file: string): T | null {
  try {
    return schema.parse(JSON.parse(readFileSync(file, 'utf8')))
  } catch {
    return null
  }
}
