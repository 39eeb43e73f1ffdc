import { join } from 'node:path'
import { ReachStatus, ReachWish, RunningNow, type ReachView } from '#core/shop/reach'
import { readBeside, writeWhole } from '../beside'

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
export const wishIn = (folder: string): ReachWish =>
  readBeside(ReachWish, wishFile(folder)) ?? { lan: false, name: null }
export const reachIn = (folder: string): ReachStatus => readBeside(ReachStatus, reachFile(folder)) ?? NOWHERE

export const runningIn = (folder: string): RunningNow | null => readBeside(RunningNow, runningFile(folder))

/** All of it, where a launcher started this server; null elsewhere. */
export function reachNow(): ReachView | null {
  const folder = process.env.OCHO_DATA_FOLDER
  return folder ? { wish: wishIn(folder), status: reachIn(folder), running: runningIn(folder) } : null
}

/** Says to the launcher who should reach this machine. */
export const keepWish = (folder: string, wish: ReachWish): void => writeWhole(wishFile(folder), JSON.stringify(wish))

/** Keeps what an owner wishes. @returns false where no launcher would hear of it */
export function wishReach(wish: ReachWish): boolean {
  const folder = process.env.OCHO_DATA_FOLDER
  if (!folder) return false
  keepWish(folder, wish)
  return true
}
