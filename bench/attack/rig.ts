import { randomUUID } from 'node:crypto'
import type { LedgerEvent } from '#core/ledger/events'
import { stockParts } from '#core/rear/typedParts'
import { buildDemo } from '../../demo/build'
import { DEMO_ENV, DEMO_PEOPLE } from '../../demo/people'
import { throwawayCluster } from '../../ops/testDatabase'
import { startServer } from '../../ops/server'
import { connect, inShop } from '../../server/db/connect'
import { takeIn } from '../../server/db/jobs'
import { personByName } from '../../server/db/people'

/** One line of the table: what was done how often, and what came of it. `bad` must be none. */
export type Finding = { what: string; tries: number; bad: number; told: string }

/** Prints a finding and keeps it for the table. */
export const findings: Finding[] = []
export function found(finding: Finding): void {
  findings.push(finding)
  const mark = finding.bad === 0 ? 'holds ' : 'BROKEN'
  console.log(`${mark}  ${finding.what}: ${finding.tries} tried, ${finding.bad} bad. ${finding.told}`)
}

/** Numbers that look random and are the same again from the same seed: mulberry32, public domain. */
export function rng(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

export type Caller = {
  cookie: string
  send(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Response>
}
/** Somebody with a session of their own; nobody without one. */
export const caller = (url: string, cookie = ''): Caller => ({
  cookie,
  send: (method, path, body, headers = {}) =>
    fetch(`${url}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        ...(cookie ? { cookie } : {}),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      body:
        body === undefined
          ? undefined
          : typeof body === 'string' || body instanceof Uint8Array
            ? (body as BodyInit)
            : JSON.stringify(body),
    }),
})

export async function signIn(url: string, shop: string, name: string): Promise<Caller> {
  const person = DEMO_PEOPLE.find(p => p.name === name)!
  const opener = person.password ? person : DEMO_PEOPLE[0]
  const answer = await caller(url).send('POST', '/api/sign-in', { shop, name: opener.name, password: opener.password })
  if (!answer.ok) throw new Error(`sign-in as ${name}: ${answer.status} ${await answer.text()}`)
  return caller(url, answer.headers.getSetCookie()[0]!.split(';')[0])
}

/** A shop of the demo's people, made past the server. */
export async function makeShop(appUrl: string, code: string) {
  const db = connect(appUrl, 2)
  const id = await buildDemo(db, { shop: { code, name: `Shop ${code}`, zone: 'UTC' }, jobs: [], demo: false })
  const person = (name: string) => inShop(db, id, async tx => (await personByName(tx, id, name))!.id)
  const owner = await person('Ishbel')
  const take = (tag: string, customer = { name: 'Hob Tarrant', contact: '085 555 0100' }) =>
    takeIn(db, id, owner, null, {
      customer,
      bike: { name: 'Marram quay', frameNumber: `F-${tag}` },
      tag,
      promisedAt: new Date(Date.now() + 86_400_000).toISOString(),
      complaint: 'slow in the middle',
      parts: stockParts('r14-10'),
      sameParts: false,
    })
  return { code, id, db, person, take, close: () => db.destroy() }
}
export type Shop = Awaited<ReturnType<typeof makeShop>>

/** An entry as a tablet sends it. */
export const entryOf = (by: string, event: LedgerEvent, id: string = randomUUID()) => ({
  id,
  v: 1,
  at: new Date().toISOString(),
  basedOn: 1,
  by,
  event,
})

/** A server on a cluster of its own, with two shops; everything gone afterwards. */
export async function rig() {
  const { cluster, remove } = await throwawayCluster()
  const server = await startServer({ appUrl: cluster.appUrl, port: 0, env: DEMO_ENV })
  const [shop, other] = [await makeShop(cluster.appUrl, 'first-shop'), await makeShop(cluster.appUrl, 'other-shop')]
  return {
    cluster,
    server,
    url: server.url,
    shop,
    other,
    async end() {
      await shop.close()
      await other.close()
      await server.stop()
      await remove()
    },
  }
}
export type Rig = Awaited<ReturnType<typeof rig>>

/** Memory of the server's process, in MB. */
export async function memoryMb(pid: number): Promise<number> {
  const { readFileSync } = await import('node:fs')
  const kb = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]
  return Number(kb ?? 0) / 1024
}

/** The value below which so many of a hundred lie. */
export const percentile = (values: readonly number[], of: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor((values.length * of) / 100))] ?? 0
