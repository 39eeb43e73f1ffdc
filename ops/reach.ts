import type { Server } from 'node:http'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { networkInterfaces } from 'node:os'
import { secureOrigin, type ReachStatus, type ReachWish } from '#core/shop/reach'
import { HTTPS_PORT, JOIN_PORT, reachFile, wishIn, writeAside } from '../server/reach/status'
import { authorityOf, leafOf, type Leaf } from './authority'
import { serveJoinPage } from './joinPage'
import { firstLabel, LOOPBACK, namesOf, thisMachine, type Machine } from './machineNames'
import { startServer, type RunningServer } from './server'
import { keepRunning } from './supervise'

const LOOK_MS = 2_000

export type ReachOptions = {
  folder: string
  appUrl: string
  /** Handed to the server beside what it needs for HTTPS. */
  env: Record<string, string>
  say(line: string): void
  ended(): boolean
  started(pid: number): void
  /** How this machine is called at this moment; asked again and again, since a router may give it another address. */
  machine?: () => Machine
  ports?: { https: number; join: number }
  /** Names besides the machine's own; those of OCHO_NAMES where left out. */
  given?: readonly string[]
}

/** Names besides the machine's own that Ocho goes by, as they were given. */
const namesGiven = (): string[] =>
  (process.env.OCHO_NAMES ?? '')
    .split(',')
    .map(n => n.trim().toLowerCase())
    .filter(Boolean)

/**
 * Keeps the shop's network as its owner wishes it: a second server of the same code on every address, over HTTPS with a
 * certificate of the shop's own authority, and the plain page that leads tablets to trust it. A certificate that runs out or an
 * address that changed is renewed by itself. What cannot be had is said in the status, and never ends the launcher.
 */
export async function keepReach(options: ReachOptions): Promise<{ stop(): Promise<void> }> {
  const { folder, say } = options
  const ports = options.ports ?? { https: HTTPS_PORT, join: JOIN_PORT }
  let on: Open | null = null
  let toldTrouble: string | null = null
  const tell = (status: Omit<ReachStatus, 'httpsPort' | 'joinPort'>) =>
    writeAside(reachFile(folder), { ...status, httpsPort: ports.https, joinPort: ports.join })
  const closed = { lan: false, names: [], name: null, fingerprint: null, words: [], until: null }
  const look = async () => {
    const wish = wishIn(folder)
    const trouble = async (words: string | null) => {
      if (words !== null && words !== toldTrouble) say(`tablets: ${words}`)
      toldTrouble = words
    }
    if (!wish.lan) {
      if (on) {
        await on.close()
        on = null
        say('tablets can no longer reach this machine')
      }
      await trouble(null)
      return tell({ ...closed, trouble: null })
    }
    try {
      const gaveUp = on?.gaveUp() ?? null
      if (gaveUp !== null) throw new Error(gaveUp)
      on = await opened(on, options, ports)
      await trouble(on.outside)
      tell({ ...on.status(wish), trouble: on.outside })
    } catch (error) {
      const words = (error as Error).message.split('\n')[0]
      await trouble(words)
      tell({ ...closed, trouble: words })
    }
  }
  await look()
  let stopped = false
  const looking = (async () => {
    while (!stopped && !options.ended()) {
      await sleep(LOOK_MS, undefined, { ref: false })
      if (!stopped && !options.ended()) await look()
    }
  })()
  return {
    async stop() {
      stopped = true
      await on?.close()
      void looking
      tell({ ...closed, trouble: null })
    },
  }
}

type Open = {
  leaf: Leaf
  names: string[]
  outside: string | null
  gaveUp(): string | null
  status(wish: ReachWish): Omit<ReachStatus, 'httpsPort' | 'joinPort' | 'trouble'>
  close(): Promise<void>
}

/** What is open, as long as it speaks for all of this machine's names; else opened anew with a certificate that does. */
async function opened(
  before: Open | null,
  options: ReachOptions,
  ports: { https: number; join: number },
): Promise<Open> {
  const machine = (options.machine ?? thisMachine)()
  const named = options.given ?? namesGiven()
  const names = namesOf(machine, named)
  const authority = await authorityOf(options.folder, firstLabel(machine.host), named)
  const leaf = await leafOf(options.folder, authority, [...names, ...LOOPBACK])
  if (before && before.leaf.serial === leaf.serial && String(before.names) === String(spoken(names, leaf)))
    return before
  if (before) {
    options.say('tablets: the machine’s addresses or its certificate changed: opened anew')
    await before.close()
  }
  const host = hasIpv6() ? '::' : '0.0.0.0'
  const mine = spoken(names, leaf)
  const nameBy = (wish: ReachWish) => (wish.name !== null && mine.includes(wish.name) ? wish.name : (mine[0] ?? null))
  let closing = false
  let gaveUp: string | null = null
  const start = () =>
    startServer({
      appUrl: options.appUrl,
      port: ports.https,
      host,
      tls: authority.pem,
      started: options.started,
      env: {
        ...options.env,
        OCHO_HTTPS: '1',
        OCHO_NAMES: leaf.names.join(','),
        NITRO_SSL_CERT: leaf.cert,
        NITRO_SSL_KEY: leaf.key,
      },
    })
  let server: RunningServer = await start()
  let plain: Server
  try {
    plain = await serveJoinPage({
      port: ports.join,
      host,
      authority,
      secure: () => secureOrigin({ name: nameBy(wishIn(options.folder)), httpsPort: ports.https }),
    })
  } catch (error) {
    await server.stop()
    throw (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
      ? new Error(`port ${ports.join} is taken by another program: end that one, or name another with OCHO_JOIN_PORT`)
      : error
  }
  void keepRunning(
    {
      name: 'the tablets’ server',
      ended: async () => `code ${(await server.ended) ?? 'none: it was killed'}`,
      again: async () => {
        server = await start()
      },
    },
    { say: options.say, stopping: () => closing || options.ended(), sleep },
  ).then(words => {
    gaveUp = words
  })
  const given = leaf.outside.filter(n => named.includes(n))
  options.say(`tablets reach this machine at ${secureOrigin({ name: mine[0] ?? null, httpsPort: ports.https })}`)
  return {
    leaf,
    names: mine,
    outside: given.length
      ? `the shop's authority may not speak for ${given.join(', ')}: it was made before that name. Move ${join(options.folder, 'tls')} away and start again; each tablet then trusts the new one`
      : null,
    gaveUp: () => gaveUp,
    status: wish => ({
      lan: true,
      names: mine,
      name: nameBy(wish),
      fingerprint: authority.fingerprint,
      words: authority.words,
      until: leaf.until.toISOString(),
    }),
    async close() {
      closing = true
      plain.closeAllConnections()
      await new Promise(resolve => plain.close(resolve))
      await server.stop()
    },
  }
}

const spoken = (names: readonly string[], leaf: Leaf): string[] => names.filter(n => leaf.names.includes(n))
const hasIpv6 = (): boolean =>
  Object.values(networkInterfaces()).some(of => of?.some(a => (a.family as string) === 'IPv6'))
