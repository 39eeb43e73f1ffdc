import { randomUUID } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { sql } from 'kysely'
import { readStored, type Entry } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import { TEST_SHEET } from '#core/ledger/testSheet'
import { DRIVETRAIN_STANDARDS } from '#core/standards/drivetrains'
import { buildDemo } from '../demo/build'
import { DEMO_PEOPLE } from '../demo/people'
import { ROOT, startServer, type RunningServer } from '../ops/server'
import { throwawayCluster } from '../ops/testDatabase'
import { connect, inShop, type Db } from '../server/db/connect'
import { personByName } from '../server/db/people'

/**
 * `npm run scale`: a shop of a million entries beside one of a sixteenth, both on one server and one database of this
 * machine; two hundred tablets at once; and whether memory grows. Writes the table of docs/scale.md. `npm run scale
 * short` is a tenth, and writes nothing.
 */
const short = process.argv.includes('short')
/** The pages alone. */
const pagesOnly = process.argv.includes('pages')
const BIG = short ? 2_000 : 20_000
const SMALL = BIG / 16
const PER_JOB = 50
const LONG = 5_000
const TABLETS = 200
const TAP_EVERY_MS = 5_000
const TAP_FOR_MS = short ? 15_000 : 60_000
const APPENDS = short ? 20_000 : 200_000

const rows: string[][] = []
function told(what: string, measured: string, wanted: string): void {
  rows.push([what, measured, wanted])
  console.log(`${what}: ${measured} (wanted: ${wanted})`)
}
const quantile = (values: number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]!
const ms = (v: number) => `${v < 10 ? v.toFixed(1) : v.toFixed(0)} ms`

/** A shop with so many visits, as years would leave it: most long gone, sixty in the house, one job very long. */
async function grow(owner: Db, shop: string, person: string, jobs: number): Promise<void> {
  const sheet = JSON.stringify(TEST_SHEET).replaceAll("'", "''")
  const standards = DRIVETRAIN_STANDARDS.slice(0, 12).map(s => `'${s.id}'`)
  const [customers, bikes, closed] = [Math.ceil(jobs / 4), Math.ceil(jobs / 2), jobs - 60]
  const steps = [
    `create temp table c as select gen_random_uuid() id, i from generate_series(1, ${customers}) i`,
    `insert into customer (shop, id, name, contact)
      select '${shop}', id,
        (array['Hob','Marit','Eamon','Orla','Brid'])[1 + i % 5] || ' '
          || (array['Tarrant','Skerry','Harrow','Blackwater'])[1 + i % 4] || ' ' || i,
        '085 ' || (5550000 + i)
      from c`,
    `create temp table b as select gen_random_uuid() id, c.id customer, g.n
      from generate_series(1, ${bikes}) g(n) join c on c.i = 1 + g.n % ${customers}`,
    `insert into bike (shop, id, customer, name, frame_number, frame_kind)
      select '${shop}', id, customer, 'Gannet ' || n, 'F-' || n, 'open' from b`,
    `create temp table j as
      select gen_random_uuid() id, v.i, b.id bike, now() - (${jobs} - v.i) * interval '2 hours' as at
      from generate_series(1, ${jobs}) v(i) join b on b.n = 1 + (v.i * 7919) % ${bikes}`,
    `insert into job (shop, id, number, tag, bike, complaint, promised_at, sprockets, place, created_at, closed_at)
      select '${shop}', id, i, 't' || i, bike, 'slow in the middle', at, 10,
        case when i > ${closed} then 'rack' else 'gone' end, at, case when i <= ${closed} then at end
      from j`,
    // else what is asked of each entry's key goes by how few there were before
    'analyze customer, bike, job',
    `update shop set next_job = ${jobs} + 1 where shop = '${shop}'`,
    `insert into event (shop, id, job, seq, person, verified, v, at, based_on, received_at, body, hash)
      select '${shop}', gen_random_uuid(), j.id, s, '${person}', true, 1, j.at, s - 1, j.at,
        '{"kind": "turn", "screw": "barrel", "sixteenths": 1}', sha256('bench')
      from j cross join lateral generate_series(1, case when j.i = ${jobs} then ${LONG} else ${PER_JOB} end) s`,
    `insert into sheet (shop, id, job, bike, closed_at, body)
      select '${shop}', gen_random_uuid(), id, bike, at, '${sheet}' from j where i <= ${closed}`,
    `insert into recall (shop, id, job, due_on)
      select '${shop}', gen_random_uuid(), id, (at + interval '14 days')::date
      from j where i <= ${closed} and i > ${closed - 200}`,
    `insert into record (shop, id, job, bike, standard, figure, frame, value, at, latest)
      select '${shop}', gen_random_uuid(), j.id, j.bike, (array[${standards.join(', ')}])[1 + j.i % 12], f, 'open',
        case when f = 'visit' then 1 else 100 + 50 * random() end, j.at,
        row_number() over (partition by j.bike, f, j.i % 12 order by j.at desc) = 1
      from j cross join unnest(array['visit', 'barrel', 'barrel-out', 'gap', 'hanger', 'inner']) f
      where j.i <= ${closed}`,
    'drop table c, b, j',
  ]
  for (const step of steps) await sql.raw(step).execute(owner)
}

const { cluster, remove } = await throwawayCluster()
const [owner, db] = [connect(cluster.ownerUrl, 1), connect(cluster.appUrl, 4)]
let server: RunningServer | undefined
try {
  const shops = new Map<string, { id: string; person: string; jobs: number }>()
  for (const [code, jobs] of [
    ['small', SMALL],
    ['big', BIG],
  ] as const) {
    const id = await buildDemo(db, { shop: { code, name: code, zone: 'UTC' }, jobs: [], demo: false })
    const person = await inShop(db, id, async tx => (await personByName(tx, id, 'Ishbel'))!.id)
    const start = performance.now()
    await grow(owner, id, person, jobs)
    console.log(
      `${code}: ${jobs} jobs, ${jobs * PER_JOB} entries, made in ${((performance.now() - start) / 1000).toFixed(0)} s`,
    )
    shops.set(code, { id, person, jobs })
  }
  // as autovacuum leaves it
  for (const table of ['event', 'record', 'job', 'bike', 'customer', 'sheet', 'recall'])
    await sql.raw(`vacuum analyze ${table}`).execute(owner)
  // what the making left to be written would be written while it is measured
  await sql.raw('checkpoint').execute(owner)
  const {
    rows: [size],
  } = await sql<{ event: string; all: string }>`
    select pg_size_pretty(sum(pg_total_relation_size(i.inhrelid))) as event, pg_size_pretty(pg_database_size(current_database())) as all
    from pg_inherits i where i.inhparent = 'event'::regclass`.execute(owner)
  const {
    rows: [bytes],
  } = await sql<{ bytes: string }>`
    select (sum(pg_total_relation_size(i.inhrelid)) / ${(BIG + SMALL) * PER_JOB + 2 * LONG})::int as bytes from pg_inherits i where i.inhparent = 'event'::regclass`.execute(
    owner,
  )
  told(
    'room on the disk for an entry, with its indexes',
    `${bytes!.bytes} bytes; the ledger ${size!.event}, all ${size!.all}`,
    'said',
  )

  server = await startServer({ appUrl: cluster.appUrl, port: 0 })
  const { url, pid } = server
  const signIn = async (shop: string): Promise<string> => {
    const entered = await fetch(`${url}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ shop, name: 'Ishbel', password: DEMO_PEOPLE[0].password }),
    })
    return entered.headers.getSetCookie()[0]!.split(';')[0]!
  }
  const cookies = new Map([...shops.keys()].map(code => [code, signIn(code)]))
  const asked = async (code: string, path: (i: number) => string, times = 60): Promise<number[]> => {
    const cookie = (await cookies.get(code))!
    const took: number[] = []
    for (let i = 0; i < times + 5; i++) {
      const start = performance.now()
      const answer = await fetch(url + path(i), { headers: { cookie } })
      await answer.arrayBuffer()
      if (!answer.ok) throw new Error(`${path(i)} answered ${answer.status}`)
      if (i >= 5) took.push(performance.now() - start)
    }
    return took
  }
  const pages: [string, (jobs: number) => (i: number) => string][] = [
    ['the Floor', () => () => '/api/floor'],
    ['search by name', () => i => `/api/bikes?q=${['skerry', 'tarrant 1', 'orla h', 'black'][i % 4]}`],
    ['search by phone, tag and frame number', () => i => `/api/bikes?q=${['0855550', 't11', 'F-77', '55501'][i % 4]}`],
    ['records of a standard', () => () => `/api/standards/records/${DRIVETRAIN_STANDARDS[0].id}`],
    ['a job and its log', jobs => i => `/api/jobs/${1 + ((i * 17) % (jobs - 70))}/events`],
    ['a job’s page with its sheet', jobs => i => `/api/jobs/${1 + ((i * 17) % (jobs - 70))}`],
  ]
  for (const [what, path] of pages) {
    const [small, big] = [await asked('small', path(SMALL)), await asked('big', path(BIG))]
    told(
      `${what}: p95 (median)`,
      `${ms(quantile(big, 0.95))} (${ms(quantile(big, 0.5))}); in the shop a sixteenth as large ${ms(quantile(small, 0.95))} (${ms(quantile(small, 0.5))})`,
      '≤ 50 ms, growing no faster than the logarithm',
    )
  }
  const long = await asked('big', () => `/api/jobs/${BIG}/events`, 20)
  const log = (
    (await (
      await fetch(`${url}/api/jobs/${BIG}/events`, { headers: { cookie: (await cookies.get('big'))! } })
    ).json()) as { entries: unknown[] }
  ).entries
  const stored = log.map(e => readStored(e))
  const folds = Array.from({ length: 10 }, () => {
    const start = performance.now()
    reduce(stored)
    return performance.now() - start
  })
  told(
    `a job of ${LONG.toLocaleString('en')} entries: asked for, and reduced`,
    `${ms(quantile(long, 0.95))} and ${ms(quantile(folds, 0.95))} (p95)`,
    'together ≤ 300 ms',
  )

  if (!pagesOnly) {
    // a file of twenty thousand rows, taken in and taken back, while the Floor is asked
    const cookieBig = (await cookies.get('big'))!
    const file = ['id,standard,figure,frame,value,unit,bike,at']
    for (let i = 0; i < 20_000; i++)
      file.push(`${randomUUID()},r14-10,gap,,${5 + (i % 20) / 10},mm,${randomUUID()},2026-01-01T00:00:00.000Z`)
    const timed = async (path: string, body?: string): Promise<[number, unknown]> => {
      const start = performance.now()
      const answer = await fetch(url + path, {
        method: 'POST',
        headers: { cookie: cookieBig, ...(body ? { 'content-type': 'text/csv' } : {}) },
        body,
      })
      const told: unknown = await answer.json()
      if (!answer.ok) throw new Error(`${path} answered ${answer.status} ${JSON.stringify(told)}`)
      return [performance.now() - start, told]
    }
    const [looked] = await timed('/api/standards/import?take=look&kind=csv', file.join('\n'))
    const [taken] = await timed('/api/standards/import?take=all&kind=csv', file.join('\n'))
    const list = (await (await fetch(`${url}/api/standards/taken-in`, { headers: { cookie: cookieBig } })).json()) as {
      id: string
    }[]
    const [back, wasBack] = await timed(`/api/standards/taken-in/${list[0]!.id}/back`)
    told(
      'a file of 20,000 rows: looked at, taken, taken back',
      `${(looked / 1000).toFixed(1)} s, ${(taken / 1000).toFixed(1)} s, ${(back / 1000).toFixed(1)} s (${(wasBack as { records: number }).records} records went)`,
      'seconds',
    )

    // two hundred tablets, each on a job of its own among sixty, a tap every five seconds
    const taps: number[] = []
    const turn = (): Entry => ({
      id: randomUUID() as Entry['id'],
      v: 1,
      at: new Date().toISOString(),
      basedOn: 1,
      by: shops.get('big')!.person as Entry['by'],
      event: { kind: 'turn', screw: 'barrel', sixteenths: 1 },
    })
    const cookie = (await cookies.get('big'))!
    const post = async (number: number, entries: Entry[]): Promise<void> => {
      const answer = await fetch(`${url}/api/jobs/${number}/events`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify({ entries }),
      })
      const { answers } = (await answer.json()) as { answers: { is: string }[] }
      const bad = answers.find(a => a.is !== 'stored')
      if (bad) throw new Error(`an entry was ${bad.is}`)
    }
    const count = async () =>
      Number(
        (await sql<{ n: string }>`select count(*) as n from event where shop = ${shops.get('big')!.id}`.execute(owner))
          .rows[0]!.n,
      )
    const before = await count()
    const until = performance.now() + TAP_FOR_MS
    await Promise.all(
      Array.from({ length: TABLETS }, async (_, tablet) => {
        await sleep((tablet / TABLETS) * TAP_EVERY_MS)
        while (performance.now() < until) {
          const start = performance.now()
          await post(BIG - 1 - (tablet % 58), [turn()])
          const took = performance.now() - start
          taps.push(took)
          await sleep(TAP_EVERY_MS - took)
        }
      }),
    )
    told(
      `${TABLETS} tablets, a tap every 5 s for ${TAP_FOR_MS / 1000} s: append p95`,
      `${ms(quantile(taps, 0.95))} (median ${ms(quantile(taps, 0.5))}, worst ${ms(Math.max(...taps))}); ${taps.length} acknowledged, ${(await count()) - before - taps.length} missing`,
      '≤ 100 ms, none missing',
    )

    // memory over many appends, in batches as an outbox sends them
    const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024
    const seen: number[] = []
    const kept = await count()
    const start = performance.now()
    for (let sent = 0; sent < APPENDS; sent += 200) {
      await Promise.all(
        Array.from({ length: 4 }, (_, k) => post(BIG - 1 - ((sent / 200 + k) % 58), Array.from({ length: 50 }, turn))),
      )
      if (sent % (APPENDS / 10) === 0) seen.push(memory())
    }
    const perSecond = APPENDS / ((performance.now() - start) / 1000)
    told(
      `memory of the server over ${APPENDS.toLocaleString('en')} appends`,
      `${seen[2]!.toFixed(0)} MB after a fifth, ${memory().toFixed(0)} MB at the end; ${perSecond.toFixed(0)} entries a second; ${(await count()) - kept - APPENDS} missing`,
      'flat',
    )
  }
  if (!short && !pagesOnly) writeTable()
} finally {
  await server?.kill()
  await owner.destroy()
  await db.destroy()
  await remove()
}

function writeTable(): void {
  const file = join(ROOT, 'docs', 'scale.md')
  const text = readFileSync(file, 'utf8')
  const [begin, end] = ['<!-- scale: begin -->', '<!-- scale: end -->']
  const table = [
    `Made by \`npm run scale\` on ${new Date().toISOString().slice(0, 10)}: ${BIG.toLocaleString('en')} jobs and ${(BIG * PER_JOB).toLocaleString('en')} entries in one shop, ${cpus().length} cores for the database, the server and the tablets together, Node.js ${process.versions.node}.`,
    '',
    '| What | Measured | Wanted |',
    '| --- | --- | --- |',
    ...rows.map(r => `| ${r.join(' | ')} |`),
  ].join('\n')
  writeFileSync(
    file,
    `${text.slice(0, text.indexOf(begin) + begin.length)}\n\n${table}\n\n${text.slice(text.indexOf(end))}`,
  )
}
