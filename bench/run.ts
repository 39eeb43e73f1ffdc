import { EventId, PersonId } from '#core/chapter/ids'
import { partsOf } from '#core/standards/partsOfShop'
import type { BenchEvent } from '#core/rear/benchEvents'
import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { advise, forgetBeliefs } from '#core/advice/advise'
import { seededBike, simulatedBench } from '#core/bench/bench'
import { startOf, step } from '#core/rear/trace'
import { EVENT_VERSION, type Entry } from '#core/ledger/events'
import { stockParts } from '#core/rear/typedParts'
import type { RearSetup } from '#core/response/setup'
import { identify } from '#core/standards/identify'
import { catalogueInForce } from '#core/standards/shopValues'
import { matrixOf } from '#core/rear/trio'
import { buildDemo } from '../demo/build'
import { DEMO_PEOPLE } from '../demo/people'
import { throwawayCluster } from '../ops/testDatabase'
import { startServer } from '../ops/server'
import { connect, inShop, type Db } from '../server/db/connect'
import { takeIn } from '../server/db/jobs'
import { append } from '../server/db/ledger'
import { personByName } from '../server/db/people'
import { recordFigures } from './records'

/** Figures with a target, as medians and ratios of one run on this machine. Not a test: npm run bench. */
const quantile = (values: number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]
const ms = (value: number): string => `${value.toFixed(1)} ms`

/** A log of so many events as the advice itself makes them, cut or gone on with by shifts. */
function logOf(seed: number, events: number): { setup: RearSetup; log: BenchEvent[] } {
  const { setup, hidden } = seededBike(seed)
  const bench = simulatedBench(setup, hidden, seed)
  while (bench.log.length < events) {
    const { move } = advise(setup, [...bench.log])
    if (!bench.perform(move)) bench.perform({ do: 'shift', to: 1 + (bench.log.length % (setup.teeth.length - 2)) })
  }
  return { setup, log: [...bench.log] }
}

function timed(work: () => void): number {
  const start = performance.now()
  work()
  return performance.now() - start
}

/** Where the last entry stands, before the last few, without which the log is still a possible one. */
function undoable(setup: RearSetup, log: readonly BenchEvent[]): number {
  for (let i = log.length - 6; i >= 0; i--)
    try {
      log.filter((_, k) => k !== i).reduce((trace, event) => step(trace, event, setup), startOf(setup))
      return i
    } catch (impossible) {
      if (!(impossible instanceof RangeError)) throw impossible
    }
  throw new Error('no entry of this log can be undone')
}

function adviceFigures(): void {
  console.log('\nadvise: one call, over 12 bikes (median, 95th percentile)')
  for (const events of [10, 40, 60]) {
    const warm: number[] = [],
      cold: number[] = [],
      undone: number[] = []
    for (let seed = 40; seed < 52; seed++) {
      const { setup, log } = logOf(seed, events)
      forgetBeliefs()
      cold.push(timed(() => advise(setup, log)))
      for (let k = log.length - 8; k < log.length; k++) {
        advise(setup, log.slice(0, k))
        warm.push(timed(() => advise(setup, log.slice(0, k + 1))))
      }
      // an undo of an entry in the middle: the log from there on is another one
      const undo = undoable(setup, log)
      undone.push(
        timed(() =>
          advise(
            setup,
            log.filter((_, i) => i !== undo),
          ),
        ),
      )
    }
    const say = (name: string, values: number[]) =>
      `${name} ${ms(quantile(values, 0.5))}, ${ms(quantile(values, 0.95))}`
    console.log(`  ${events} events: ${say('warm', warm)}; ${say('cold', cold)}; ${say('after an undo', undone)}`)
  }
}

const turn = (by: string): Entry => ({
  id: EventId.parse(randomUUID()),
  v: EVENT_VERSION,
  at: new Date().toISOString(),
  basedOn: 1,
  by: PersonId.parse(by),
  event: { kind: 'turn', screw: 'barrel', sixteenths: 1 },
})

async function databaseRatio(db: Db, shop: string, person: string, number: number): Promise<void> {
  await inShop(db, shop, tx => sql`select 1`.execute(tx))
  const ours: number[] = [],
    bare: number[] = []
  for (let i = 0; i < 400; i++) {
    const a = performance.now()
    await append(db, shop, number, null, [{ ...turn(person), verified: true, signedBy: null }])
    const b = performance.now()
    await sql`insert into bare_insert (id, body) values (${randomUUID()}, ${JSON.stringify(turn(person))}::jsonb)`.execute(
      db,
    )
    const c = performance.now()
    if (i >= 50) {
      ours.push(b - a)
      bare.push(c - b)
    }
  }
  console.log(
    `\nappend, database path ÷ bare insert through the same pool: p50 ${(quantile(ours, 0.5) / quantile(bare, 0.5)).toFixed(2)}, p95 ${(quantile(ours, 0.95) / quantile(bare, 0.95)).toFixed(2)} (target p95 ≤ 1.5; ${ms(quantile(ours, 0.95))} and ${ms(quantile(bare, 0.95))})`,
  )
}

/** Requests one after another on each of so many kept connections; each one's time, ms. */
async function load(
  url: string,
  cookie: string,
  clients: number,
  each: number,
  path: (client: number) => string,
  body: () => string,
): Promise<number[]> {
  const times: number[] = []
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      for (let i = 0; i < each; i++) {
        const start = performance.now()
        const answer = await fetch(url + path(client), {
          method: 'POST',
          headers: { cookie, 'content-type': 'application/json' },
          body: body(),
        })
        await answer.arrayBuffer()
        if (!answer.ok) throw new Error(`${path(client)} answered ${answer.status}`)
        times.push(performance.now() - start)
      }
    }),
  )
  return times
}

async function httpRatio(url: string, cookie: string, numbers: number[], person: string): Promise<void> {
  const body = () => JSON.stringify({ entries: [turn(person)] })
  for (const clients of [1, 16]) {
    const ours: number[] = [],
      bare: number[] = []
    // in turns, so that both see the same machine; the first round warms up
    for (let round = 0; round < 6; round++) {
      const each = clients === 1 ? 300 : 60
      const a = await load(url, cookie, clients, each, c => `/api/jobs/${numbers[c % numbers.length]}/events`, body)
      const b = await load(url, cookie, clients, each, () => '/api/bench/bare', body)
      if (round > 0) {
        ours.push(...a)
        bare.push(...b)
      }
    }
    const ratio = (share: number) => (quantile(ours, share) / quantile(bare, share)).toFixed(2)
    console.log(
      `append over HTTP ÷ bare insert over HTTP, ${clients} client(s): p50 ${ratio(0.5)}, p95 ${ratio(0.95)} (target p95 ≤ 1.5; ${ms(quantile(ours, 0.95))} and ${ms(quantile(bare, 0.95))})`,
    )
  }
}

/** The whole matrix of a derailleur, as the worker works it out: the first one and those after. */
function matrixFigures(): void {
  const parts = partsOf(catalogueInForce([]))
  const times = parts.derailleurs.map(d => timed(() => matrixOf(d, parts)))
  console.log(
    `\nmatrix of ${parts.shifters.length} × ${parts.cassettes.length}: first ${ms(times[0])}, then median ${ms(quantile(times.slice(1), 0.5))}, worst ${ms(Math.max(...times.slice(1)))} (target 100 ms)`,
  )
  const readings = {
    clicks: { values: [9], sd: 0 },
    cableAllMm: { values: [25.2], sd: 0.5 },
    stackMm: { values: [37.2], sd: 0.1 },
    pulleyMm: { values: [28.1], sd: 0.5 },
    pulledMm: { values: [20], sd: 0.5 },
  }
  const asked = Array.from({ length: 30 }, () => timed(() => identify(parts, readings)))
  console.log(
    `identify from five measurements: first ${ms(asked[0])}, then median ${ms(quantile(asked.slice(1), 0.5))}`,
  )
}

/** `npm run bench` measures all; `npm run bench advice`, `append`, `matrix` or `records` one of them. */
async function main(only = process.argv[2]): Promise<void> {
  if (!only || only === 'matrix') matrixFigures()
  if (!only || only === 'advice') adviceFigures()
  if (!only || only === 'records') await recordFigures()
  if (only && only !== 'append') return
  const { cluster, remove } = await throwawayCluster()
  const owner = connect(cluster.ownerUrl, 1)
  await sql`create table bare_insert (id uuid primary key, body jsonb not null, at timestamptz not null default now())`.execute(
    owner,
  )
  await sql`grant insert on bare_insert to ocho_app`.execute(owner)
  await owner.destroy()
  const db = connect(cluster.appUrl)
  const shop = await buildDemo(db, { shop: { code: 'bench', name: 'Bench', zone: 'UTC' }, jobs: [], demo: false })
  const person = await inShop(db, shop, async tx => (await personByName(tx, shop, 'Ishbel'))!.id)
  const numbers: number[] = []
  for (let i = 0; i < 16; i++)
    numbers.push(
      await takeIn(db, shop, person, null, {
        customer: { name: 'A', contact: '' },
        bike: { name: 'B', frameNumber: '' },
        tag: `${i}`,
        promisedAt: new Date().toISOString(),
        complaint: 'c',
        parts: stockParts('r14-10'),
        sameParts: false,
      }),
    )
  await databaseRatio(db, shop, person, numbers[0])
  const server = await startServer({ appUrl: cluster.appUrl, port: 0, env: { OCHO_BENCH: '1' } })
  const entered = await fetch(`${server.url}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ shop: 'bench', name: 'Ishbel', password: DEMO_PEOPLE[0].password }),
  })
  await httpRatio(server.url, entered.headers.getSetCookie()[0].split(';')[0], numbers, person)
  await server.stop()
  await db.destroy()
  await remove()
}
await main()
