import type { RecordPoint, RecordsOfStandard, StandardCount } from '#core/http/records'
import { recordRule, recordsOf, standardsOf } from '#core/records/chapters'
import { sql } from 'kysely'
import type { RecordRow } from '#core/exchange/recordRow'
import { FrameKind } from '#core/records/frames'
import { reduce, type JobState } from '#core/ledger/reduce'
import type { Seen } from '#core/records/question'
import type { ShopTx } from './connect'
import { newId } from './ids'
import { entriesAfter } from './ledger'
import { chunks } from './standards'

/** A visit leaves one row of this figure, whatever was measured: it counts bikes. */
const VISIT = 'visit'

/** Writes what a visit leaves for the records; the newest of each figure of a bike is the one that medians count. */
export async function keepRecords(
  tx: ShopTx,
  shop: string,
  job: { id: string; bike: string; comesBack: boolean },
  state: JobState,
  at: Date,
): Promise<void> {
  const { frame_kind: frame } = await tx
    .selectFrom('bike')
    .select('frame_kind')
    .where('shop', '=', shop)
    .where('id', '=', job.bike)
    .executeTakeFirstOrThrow()
  const figures = [
    ...standardsOf(state).map(standard => ({ standard, figure: VISIT, value: 1 })),
    ...recordsOf(state, job.comesBack),
  ]
  if (!figures.length) return
  await tx
    .updateTable('record')
    .set({ latest: false })
    .where('shop', '=', shop)
    .where('bike', '=', job.bike)
    .where('latest', '=', true)
    .where(eb => eb.or(figures.map(f => eb.and([eb('standard', '=', f.standard), eb('figure', '=', f.figure)]))))
    .execute()
  await tx
    .insertInto('record')
    .values(figures.map(f => ({ shop, id: newId(), job: job.id, bike: job.bike, frame, at, origin: null, ...f })))
    .execute()
}

/** Takes a visit's records back, as its job is opened again; what the bike left before counts once more. */
export async function takeRecordsBack(tx: ShopTx, shop: string, job: string): Promise<void> {
  const gone = await tx
    .deleteFrom('record')
    .where('shop', '=', shop)
    .where('job', '=', job)
    .returning(['bike', 'standard', 'figure', 'latest'])
    .execute()
  for (const { bike, standard, figure, latest } of gone) {
    if (!latest) continue
    await sql`update record set latest = true where shop = ${shop} and id = (
      select id from record where shop = ${shop} and bike = ${bike} and standard = ${standard} and figure = ${figure} order by at desc limit 1)`.execute(
      tx,
    )
  }
}

/** How many bikes each standard has been seen on, most first. */
export async function countsByStandard(tx: ShopTx, shop: string): Promise<StandardCount[]> {
  return tx
    .selectFrom('record')
    .select(['standard', sql<number>`count(*)::int`.as('bikes')])
    .where('shop', '=', shop)
    .where('figure', '=', VISIT)
    .where('latest', '=', true)
    .groupBy('standard')
    .orderBy('bikes', 'desc')
    .orderBy('standard')
    .execute()
}

type SeenRow = {
  figure: string
  frame: string | null
  together: boolean
  bikes: number
  least: number
  most: number
  quartiles: [number, number, number]
}
const seenOf = (r: SeenRow): Seen => ({
  bikes: r.bikes,
  least: r.least,
  quarter: r.quartiles[0],
  median: r.quartiles[1],
  threeQuarters: r.quartiles[2],
  most: r.most,
})

/** Medians and spread of everything recorded under a standard, over the latest of each bike, by kind of frame and together. */
export async function recordsOfStandard(tx: ShopTx, shop: string, standard: string): Promise<RecordsOfStandard> {
  const { rows } = await summaryQuery(shop, standard).execute(tx)
  const figures = rows
    .filter(r => r.together && recordRule(r.figure))
    .map(r => ({
      figure: r.figure,
      seen: seenOf(r),
      frames: rows
        .filter(x => !x.together && x.figure === r.figure)
        .map(x => ({ frame: FrameKind.nullable().catch(null).parse(x.frame), seen: seenOf(x) })),
    }))
  return { standard, bikes: rows.find(r => r.together && r.figure === VISIT)?.bikes ?? 0, figures }
}

/** The query of the page, also measured and explained in docs/records.md. */
export const summaryQuery = (shop: string, standard: string) => sql<SeenRow>`
  select figure, frame, grouping(frame) = 1 as together, count(*)::int as bikes, min(value) as least, max(value) as most,
    percentile_cont(array[0.25, 0.5, 0.75]) within group (order by value) as quartiles
  from record where shop = ${shop} and standard = ${standard} and latest
  group by grouping sets ((figure, frame), (figure)) order by figure, frame`

/** Points of one figure, newest first, each with the job it comes from. */
export async function pointsOf(
  tx: ShopTx,
  shop: string,
  standard: string,
  figure: string,
  limit = 400,
): Promise<RecordPoint[]> {
  const rows = await tx
    .selectFrom('record')
    .leftJoin('job', j => j.onRef('job.shop', '=', 'record.shop').onRef('job.id', '=', 'record.job'))
    .leftJoin('bike', j => j.onRef('bike.shop', '=', 'record.shop').onRef('bike.id', '=', 'record.bike'))
    .select([
      'record.id',
      'record.value',
      'record.at',
      'record.frame',
      'record.latest',
      'record.origin',
      'job.number',
      'job.tag',
      'bike.name as bike',
      'record.bike as bike_id',
    ])
    .where('record.shop', '=', shop)
    .where('record.standard', '=', standard)
    .where('record.figure', '=', figure)
    .orderBy('record.at', 'desc')
    .limit(limit)
    .execute()
  return rows.map(r => ({
    id: r.id,
    value: r.value,
    at: r.at.toISOString(),
    frame: FrameKind.nullable().catch(null).parse(r.frame),
    latest: r.latest,
    origin: r.origin,
    job: r.number === null ? null : { number: r.number, tag: r.tag! },
    bike: r.bike === null ? null : { id: r.bike_id, name: r.bike },
  }))
}

/** Everything recorded of one bike over its visits, newest first. */
export async function recordsOfBike(tx: ShopTx, shop: string, bike: string) {
  const rows = await tx
    .selectFrom('record')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'record.shop').onRef('job.id', '=', 'record.job'))
    .select(['record.standard', 'record.figure', 'record.value', 'record.at', 'job.number', 'job.tag'])
    .where('record.shop', '=', shop)
    .where('record.bike', '=', bike)
    .where('record.figure', '<>', VISIT)
    .orderBy('record.at', 'desc')
    .limit(2000)
    .execute()
  return rows.map(r => ({
    standard: r.standard,
    figure: r.figure,
    value: r.value,
    at: r.at.toISOString(),
    job: { number: r.number, tag: r.tag },
  }))
}

/** All rows of a shop in the open format, oldest first. */
export async function exportRecords(tx: ShopTx, shop: string): Promise<RecordRow[]> {
  const rows = await tx
    .selectFrom('record')
    .select(['id', 'standard', 'figure', 'frame', 'value', 'bike', 'at'])
    .where('shop', '=', shop)
    .where('figure', '<>', VISIT)
    .orderBy('at')
    .orderBy('id')
    .execute()
  return rows.map(r => ({
    ...r,
    frame: FrameKind.nullable().catch(null).parse(r.frame),
    unit: recordRule(r.figure)?.unit ?? '',
    at: r.at.toISOString(),
  }))
}

/** Which of these records the shop has already. */
export async function knownRecords(tx: ShopTx, shop: string, ids: readonly string[]): Promise<Set<string>> {
  const { rows } = await sql<{
    id: string
  }>`select id from record where shop = ${shop} and id = any(${ids}::uuid[])`.execute(tx)
  return new Set(rows.map(r => r.id))
}

/** Takes in records from a file; the newest of a bike's figure is the one that counts. */
export async function importRecords(
  tx: ShopTx,
  shop: string,
  rows: readonly RecordRow[],
  origin: string,
  takenIn: string | null = null,
): Promise<void> {
  const newest = new Map<string, RecordRow>()
  const key = (r: RecordRow) => `${r.bike ?? r.id}/${r.standard}/${r.figure}`
  for (const r of rows) if (!newest.has(key(r)) || newest.get(key(r))!.at < r.at) newest.set(key(r), r)
  for (const some of chunks(rows))
    await tx
      .insertInto('record')
      .values(
        some.map(r => ({
          shop,
          id: r.id,
          job: null,
          bike: r.bike ?? r.id,
          standard: r.standard,
          figure: r.figure,
          frame: r.frame,
          value: r.value,
          at: r.at,
          latest: newest.get(key(r)) === r,
          origin,
          taken_in: takenIn,
        })),
      )
      .execute()
  // a bike known already keeps one row that counts
  await sql`update record r set latest = false where shop = ${shop} and latest and exists (
    select 1 from record n where n.shop = r.shop and n.bike = r.bike and n.standard = r.standard and n.figure = r.figure and n.latest and (n.at, n.id) > (r.at, r.id))
    and r.bike = any(${rows.map(r => r.bike ?? r.id)}::uuid[])`.execute(tx)
}

/** Writes the records of closed jobs that have none: those handed back before records were kept. @returns how many */
export async function fillRecords(tx: ShopTx, shop: string): Promise<number> {
  const jobs = await tx
    .selectFrom('job')
    .select(['id', 'bike', 'known_job', 'closed_at'])
    .where('shop', '=', shop)
    .where('closed_at', 'is not', null)
    .where(eb =>
      eb.not(
        eb.exists(
          eb
            .selectFrom('record')
            .select('record.id')
            .whereRef('record.shop', '=', 'job.shop')
            .whereRef('record.job', '=', 'job.id'),
        ),
      ),
    )
    .orderBy('closed_at')
    .execute()
  for (const job of jobs) {
    const log = await entriesAfter(tx, shop, job.id, 0)
    await keepRecords(
      tx,
      shop,
      { id: job.id, bike: job.bike, comesBack: job.known_job !== null },
      reduce(log),
      job.closed_at!,
    )
  }
  return jobs.length
}
