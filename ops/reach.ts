import { rmSync } from 'node:fs'
import type { Server } from 'node:http'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { networkInterfaces } from 'node:os'
import { secureOrigin, type ReachStatus, type ReachWish } from '#core/shop/reach'
import { writeWhole } from '../server/beside'
import { HTTPS_PORT, JOIN_PORT, reachFile, wishIn } from '../server/reach/status'
import { authorityOf, leafOf, type Authority, type Leaf } from './authority'
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

type Said = Omit<ReachStatus, 'httpsPort' | 'joinPort'>
const CLOSED: Said = { lan: false, names: [], name: null, fingerprint: null, words: [], until: null, trouble: null }

/**
 * Keeps the shop's network as its owner wishes it: a second server of the same code on every address, over HTTPS with a
 * certificate of the shop's own authority, and the plain page that leads tablets to trust it. A certificate that runs
 * out or an address that changed is renewed by itself. What cannot be had is said in the status, and never ends the
 * launcher.
 */
export function keepReach(options: ReachOptions): { stop(): Promise<void> } {
  const { folder, say } = options
  const ports = options.ports ?? { https: HTTPS_PORT, join: JOIN_PORT }
  let on: Open | null = null
  let toldTrouble: string | null = null
  let toldStatus = ''
  let stopped = false

  const close = async () => {
    const was = on
    on = null
    await was?.close()
  }
  /** Opens, closes or leaves as it is. @returns how it stands then */
  const settle = async (): Promise<Said> => {
    const wish = wishIn(folder)
    if (!wish.lan) {
      if (on) say('tablets can no longer reach this machine')
      await close()
      return CLOSED
    }
    const gaveUp = on?.gaveUp()
    if (gaveUp) throw new Error(gaveUp)
    const means = await meansOf(options)
    if (on && !isSpokenFor(on.means, means)) {
      say('tablets: the machine’s addresses or its certificate changed: opened anew')
      await close()
    }
    on ??= await open(means, options, ports)
    return { ...on.status(wish), trouble: means.outside }
  }
  const look = async () => {
    const status = await settle().catch((error: Error): Said => ({
      ...CLOSED,
      trouble: error.message.split('\n')[0],
    }))
    const { trouble } = status
    if (trouble !== null && trouble !== toldTrouble) say(`tablets: ${trouble}`)
    toldTrouble = trouble
    const text = JSON.stringify({ ...status, httpsPort: ports.https, joinPort: ports.join } satisfies ReachStatus)
    if (text === toldStatus) return
    try {
      writeWhole(reachFile(folder), text)
      toldStatus = text
    } catch (error) {
      // on a full disk, say: tried again at the next look
      say(`tablets: what the shop's page says of them could not be written: ${(error as Error).message}`)
    }
  }
  const looking = (async () => {
    while (!stopped && !options.ended()) {
      await look()
      await sleep(LOOK_MS, undefined, { ref: false })
    }
  })()
  return {
    async stop() {
      stopped = true
      await close()
      rmSync(reachFile(folder), { force: true })
      void looking.then(close) // one that was just being opened
    },
  }
}

/** With what it speaks: names, authority and certificate, as they are at a moment. */
type Means = { names: string[]; authority: Authority; leaf: Leaf; outside: string | null }

async function meansOf({ folder, machine = thisMachine, given = namesGiven() }: ReachOptions): Promise<Means> {
  const now = machine()
  const names = namesOf(now, given)
  const authority = await authorityOf(folder, firstLabel(now.host), given)
  const leaf = await leafOf(folder, authority, [...names, ...LOOPBACK])
  const unspoken = leaf.outside.filter(n => given.includes(n))
  const outside = `the shop's authority may not speak for ${unspoken.join(', ')}: it was made before that name. Move ${join(
    folder,
    'tls',
  )} away and start again; each tablet then trusts the new one`
  return {
    names: names.filter(n => leaf.names.includes(n)),
    authority,
    leaf,
    outside: unspoken.length ? outside : null,
  }
}

const isSpokenFor = (open: Means, now: Means): boolean =>
  open.leaf.serial === now.leaf.serial && String(open.names) === String(now.names)

type Open = {
  means: Means
  gaveUp(): string | null
  status(wish: ReachWish): Said
  close(): Promise<void>
}

/**
 * Opens both: what tablets use, and the page by which they come to trust it. @throws Error with what stands in the way
 */
async function open(means: Means, options: ReachOptions, ports: { https: number; join: number }): Promise<Open> {
  const { names, authority, leaf } = means
  const host = hasIpv6() ? '::' : '0.0.0.0'
  const nameBy = (wish: ReachWish) => (wish.name !== null && names.includes(wish.name) ? wish.name : (names[0] ?? null))
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
  options.say(`tablets reach this machine at ${secureOrigin({ name: names[0] ?? null, httpsPort: ports.https })}`)
  return {
    means,
    gaveUp: () => gaveUp,
    status: wish => ({
      lan: true,
      names,
      name: nameBy(wish),
      fingerprint: authority.fingerprint,
      words: authority.words,
      until: leaf.until.toISOString(),
      trouble: null,
    }),
    async close() {
      closing = true
      plain.closeAllConnections()
      await new Promise(resolve => plain.close(resolve))
      await server.stop()
    },
  }
}

const hasIpv6 = (): boolean =>
  Object.values(networkInterfaces()).some(of => of?.some(a => (a.family as string) === 'IPv6'))
