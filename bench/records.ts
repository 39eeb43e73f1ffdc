import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { throwawayCluster } from '../ops/testDatabase'
import { connect, inShop, type Db } from '../server/db/connect'
import { bikeView } from '../server/db/bikes'
import { countsByStandard, likeHere, pointsOf, recordsOfStandard, summaryQuery } from '../server/db/recordViews'
import { DRIVETRAIN_STANDARDS } from '#core/standards/drivetrains'

/** Records of a shop with a hundred thousand visits: the pages' queries, and their plan. npm run bench records */
const JOBS = 100_000
const BIKES = 40_000
const FIGURES = ['barrel', 'barrel-out', 'L', 'B', 'gap', 'hanger', 'housing last loop', 'inner'] as const
const TARGET_MS = 100
const RUNS = 15

/** Bikes are not spread evenly: the commonest standard has about a fifth of them. */
const SHARES = DRIVETRAIN_STANDARDS.map((_, i) => 0.8 ** i)

async function generate(owner: Db, shop: string): Promise<void> {
  const total = SHARES.reduce((s, x) => s + x, 0)
  let sum = 0
  const bounds = SHARES.map(x => (sum += x) / total)
  const standard = (u: string) =>
    `case ${DRIVETRAIN_STANDARDS.map((s, i) => `when ${u} < ${bounds[i].toFixed(6)} then '${s.id}'`).join(' ')} else '${DRIVETRAIN_STANDARDS[0].id}' end`
  await sql
    .raw(
      `
    insert into shop (shop, code, name, zone) values ('${shop}', 'many', 'Many', 'UTC');
    insert into customer (shop, id, name, contact) values ('${shop}', '${shop}', 'A', '');
    create temp table b as select gen_random_uuid() id, random() u, (array['open','internal','long','suspension'])[1 + (i % 4)] frame, i from generate_series(1, ${BIKES}) i;
    insert into bike (shop, id, customer, name, frame_number, frame_kind) select '${shop}', id, '${shop}', 'B' || i, '', frame from b;
    create temp table j as select gen_random_uuid() id, v.i, b.id bike, b.u, b.frame, now() - (${JOBS} - v.i) * interval '10 minutes' as at from generate_series(1, ${JOBS}) v(i) join b on b.i = 1 + (v.i * 7919) % ${BIKES};
    insert into job (shop, id, number, tag, bike, complaint, promised_at, sprockets, place, created_at, closed_at) select '${shop}', id, i, 't' || i, bike, 'c', at, 10, 'gone', at, at from j;
    insert into record (shop, id, job, bike, standard, figure, frame, value, at, latest)
      select '${shop}', gen_random_uuid(), j.id, j.bike, ${standard('j.u')}, f, j.frame, case when f = 'visit' then 1 else 100 + 50 * random() + j.i % 7 end, j.at,
        row_number() over (partition by j.bike, f order by j.at desc) = 1
      from j cross join unnest(array['visit', ${FIGURES.map(f => `'${f}'`).join(', ')}]) f;
    analyze job; analyze bike;`,
    )
    .execute(owner)
  // as autovacuum leaves it within minutes of a day's work
  await sql.raw('vacuum analyze record').execute(owner)
}

const quantile = (values: number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]

async function timed(work: () => Promise<unknown>): Promise<string> {
  const times: number[] = []
  for (let i = 0; i < RUNS; i++) {
    const start = performance.now()
    await work()
    times.push(performance.now() - start)
  }
  return `p50 ${quantile(times, 0.5).toFixed(0)} ms, p95 ${quantile(times, 0.95).toFixed(0)} ms, first ${times[0].toFixed(0)} ms`
}

/** A parameter as it is written in a statement. */
const literal = (value: unknown): string =>
  Array.isArray(value)
    ? `array[${value.map(literal).join(', ')}]`
    : typeof value === 'number'
      ? `${value}`
      : `'${String(value)}'`

export async function recordFigures(): Promise<void> {
  const { cluster, remove } = await throwawayCluster()
  const [owner, db] = [connect(cluster.ownerUrl, 1), connect(cluster.appUrl, 2)]
  try {
    const shop = randomUUID()
    const start = performance.now()
    await generate(owner, shop)
    const {
      rows: [size],
    } = await sql<{ rows: string }>`select count(*) as rows from record`.execute(owner)
    console.log(
      `\nrecords: ${JOBS} visits of ${BIKES} bikes, ${size.rows} rows, made in ${((performance.now() - start) / 1000).toFixed(0)} s (target ${TARGET_MS} ms)`,
    )
    const [common, , rare] = [DRIVETRAIN_STANDARDS[0].id, '', DRIVETRAIN_STANDARDS[9].id]
    const like = () => inShop(db, shop, tx => likeHere(tx, shop, [common, rare, 'run hub', 'run front'], 'open'))
    console.log(`  bikes like this, of a common and a rare standard and any on such a frame: ${await timed(like)}`)
    const {
      rows: [{ id: bike }],
    } = await sql<{ id: string }>`select id from bike limit 1`.execute(owner)
    console.log(`  a bike's history: ${await timed(() => inShop(db, shop, tx => bikeView(tx, shop, bike)))}`)
    for (const id of [common, rare]) {
      const { bikes } = await inShop(db, shop, tx => recordsOfStandard(tx, shop, id))
      console.log(
        `  summary of ${id}, ${bikes} bikes: ${await timed(() => inShop(db, shop, tx => recordsOfStandard(tx, shop, id)))}`,
      )
    }
    console.log(`  bikes of every standard: ${await timed(() => inShop(db, shop, tx => countsByStandard(tx, shop)))}`)
    console.log(
      `  points of one figure: ${await timed(() => inShop(db, shop, tx => pointsOf(tx, shop, common, 'gap')))}`,
    )
    if (process.argv.includes('--plan')) {
      const query = summaryQuery(shop, [common]).compile(db)
      const plan = await inShop(db, shop, tx =>
        sql<{
          'QUERY PLAN': string
        }>`explain (analyze, buffers, costs off, timing off) ${sql.raw(query.sql.replace(/\$(\d+)/g, (_, i: string) => literal(query.parameters[Number(i) - 1])))}`.execute(
          tx,
        ),
      )
      console.log(plan.rows.map(r => r['QUERY PLAN']).join('\n'))
    }
  } finally {
    await owner.destroy()
    await db.destroy()
    await remove()
  }
}
