import { existsSync, statfsSync } from 'node:fs'
import { sql } from 'kysely'
import { secureOrigin, type RunningNow } from '#core/shop/reach'
import { statusIn } from '../server/nights/status'
import { reachIn, runningIn } from '../server/reach/status'
import { addressesOf, answers } from './cluster'
import { withOwner } from './database'
import { lastPort, readSecrets, takeFolder } from './folder'
import { serviceState, type Whose } from './service'
import { versionHere } from './version'

export type OchoStatus = {
  version: string
  running: RunningNow | null
  database: boolean
  tablets: { address: string | null; trouble: string | null }
  /** Devices signed in, and seen within the hour. */
  devices: { signedIn: number; seen: number } | null
  backup: { goodAt: string | null; trouble: string | null }
  freeBytes: number | null
  service: string | null
  data: string
}

/** How an Ocho stands, asked from outside: whether it runs, who reaches it, its tablets, its nights and its disk. */
export async function statusOf(folder: string, whose: Whose): Promise<OchoStatus> {
  const { version } = versionHere()
  const secrets = readSecrets(folder)
  const release = existsSync(folder) ? await takeFolder(folder) : () => undefined
  release?.()
  const runs = release === null
  const port = lastPort(folder)
  const addresses = secrets && port ? addressesOf(port, secrets) : null
  const database = addresses !== null && (await answers(addresses.ownerUrl))
  const reach = reachIn(folder)
  const night = statusIn(folder)
  return {
    version,
    running: runs ? runningIn(folder) : null,
    database,
    tablets: { address: runs && reach.lan ? secureOrigin(reach) : null, trouble: runs ? reach.trouble : null },
    devices: database ? await devicesOf(addresses!.ownerUrl) : null,
    backup: { goodAt: night.goodAt, trouble: night.trouble },
    freeBytes: existsSync(folder) ? Number(statfsSync(folder).bavail) * statfsSync(folder).bsize : null,
    service: serviceState(whose),
    data: folder,
  }
}

const devicesOf = (ownerUrl: string): Promise<OchoStatus['devices']> =>
  withOwner(ownerUrl, async db => {
    const { rows } = await sql<{ signedIn: number; seen: number }>`
      select count(*)::int as "signedIn",
        count(*) filter (where last_seen_at > now() - interval '1 hour')::int as seen
      from session where revoked_at is null`.execute(db)
    return rows[0]
  })

/** The same in lines for a terminal. */
export function statusLines(s: OchoStatus): string[] {
  const when = (iso: string) => new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
  const line = (what: string, words: string) => `${what.padEnd(18)}${words}`
  return [
    s.running
      ? `Ocho ${s.running.version} runs since ${when(s.running.since)}`
      : `Ocho ${s.version} does not run: ./ocho start`,
    ...(s.running ? [line('on this machine', s.running.url)] : []),
    line('for tablets', s.tablets.trouble ?? s.tablets.address ?? 'shut: ./ocho start --lan, or on the shop’s page'),
    line(
      'devices',
      s.devices
        ? `${s.devices.signedIn} signed in, ${s.devices.seen} seen within the hour`
        : 'not known: the database does not answer',
    ),
    line(
      'last good backup',
      s.backup.trouble
        ? `the last try failed: ${s.backup.trouble}`
        : s.backup.goodAt
          ? when(s.backup.goodAt)
          : 'none yet',
    ),
    line('room on the disk', s.freeBytes === null ? 'not known' : `${(s.freeBytes / 1024 ** 3).toFixed(1)} GB`),
    line('service', s.service ?? 'none: ./ocho service install'),
    line('data', s.data),
  ]
}
