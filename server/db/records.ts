import type { LikeHere, PointsAsked, RecordPoint, RecordsOfStandard, StandardCount } from '#core/http/records'
import {
  COMEBACK,
  faultFigures,
  faultsOf,
  FRICTION,
  RECORD_RULES,
  recordRule,
  recordsOf,
  ROUNDS,
  standardsOf,
} from '#core/records/chapters'
import { differenceInCalendarDays } from 'date-fns'
import { sql } from 'kysely'
import { keeping, type FaultFound, type RecordFigure } from '#core/chapter/records'
import type { Sheet } from '#core/ledger/sheet'
import { standardOf } from '#core/rear/records'
import type { RecordRow } from '#core/exchange/recordRow'
import { FrameKind } from '#core/records/frames'
import { reduce, type JobState } from '#core/ledger/reduce'
import type { Seen } from '#core/records/question'
import type { ShopTx } from './connect'
import { newId } from './ids'
import { entriesAfter } from './ledger'
import { chunks } from './standards'

/** A visit leaves one row of this figure, whatever was measured: it counts bikes. */
export const VISIT = 'visit'

/** Writes what a visit leaves for the records; the newest of each figure of a bike is the one that medians count. */
export async function keepRecords(
  tx: ShopTx,
  shop: string,
  job: { id: string; bike: string; comesBack: boolean },
  state: JobState,
  sheet: Pick<Sheet, 'frictionMm'> | null,
  at: Date,
): Promise<void> {
  // what was tried on a job that was none is no record
  if (state.job.handedBack?.how === 'cancelled') return
  const { frame_kind: frame } = await tx
    .selectFrom('bike')
    .select('frame_kind')
    .where('shop', '=', shop)
    .where('id', '=', job.bike)
    .executeTakeFirstOrThrow()
  const standards = standardsOf(state)
  const faults = faultsOf(state)
  const figures = [
    ...standards.map(standard => ({ standard, figure: VISIT, value: 1 })),
    ...recordsOf(state, job.comesBack),
    ...faultFigures(faults),
    ...ofVisit(state, sheet),
    ...(await comebacks(tx, shop, job.bike, faults, at)),
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

/** What the visit as a whole leaves of its drivetrain. */
function ofVisit({ rear }: JobState, sheet: Pick<Sheet, 'frictionMm'> | null): RecordFigure[] {
  const { keep, kept } = keeping()
  if (!rear.parts) return kept
  const standard = standardOf(rear.parts)
  keep(standard, FRICTION, sheet?.frictionMm)
  const rounds = rear.bench.filter(e => e.kind === 'turn' || e.kind === 'edge').length
  keep(standard, ROUNDS, rounds || null)
  return kept
}

/** Back within so many days with a fault on the same part is a comeback; later it is wear. `practice` */
const COMEBACK_DAYS = 60
async function comebacks(
  tx: ShopTx,
  shop: string,
  bike: string,
  faults: readonly FaultFound[],
  at: Date,
): Promise<RecordFigure[]> {
  // a run that settled is wound in once: that is the recall, not a comeback
  const wrong = [...new Set(faults.filter(f => f.fault !== 'tension').map(f => f.standard))]
  if (!wrong.length) return []
  const rows = await tx
    .selectFrom('record')
    .select(['standard', eb => eb.fn.max('at').as('at')])
    .where('shop', '=', shop)
    .where('bike', '=', bike)
    .where('figure', '=', VISIT)
    .where('standard', 'in', wrong)
    .where('at', '<', at)
    .groupBy('standard')
    .execute()
  return rows
    .map(r => ({ standard: r.standard, figure: COMEBACK, value: differenceInCalendarDays(at, r.at) }))
    .filter(r => r.value <= COMEBACK_DAYS)
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
  standard: string
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
export const recordsOfStandard = async (tx: ShopTx, shop: string, standard: string): Promise<RecordsOfStandard> => ({
  ...summaryOf(standard, (await summaryQuery(shop, [standard]).execute(tx)).rows),
  faults: await faultsOfStandard(tx, shop, standard),
})

/** A cure is judged after so many days, or when the same fault is back before. `practice` */
const HELD_DAYS = 60
async function faultsOfStandard(tx: ShopTx, shop: string, standard: string): Promise<RecordsOfStandard['faults']> {
  const { rows } = await sql<RecordsOfStandard['faults'][number]>`
    select figure as fault, count(*)::int as found, count(*) filter (where cured)::int as cured,
      count(*) filter (where cured and (days > ${HELD_DAYS} or (days is null and at < now() - make_interval(days => ${HELD_DAYS}))))::int as held,
      count(*) filter (where cured and days <= ${HELD_DAYS})::int as back
    from (select figure, at, value = 1 as cured,
      extract(epoch from lead(at) over (partition by bike, figure order by at) - at) / 86400 as days
      from record where shop = ${shop} and standard = ${standard} and figure like 'fault %') f
    group by figure order by found desc, figure`.execute(tx)
  return rows
}

function summaryOf(standard: string, all: readonly SeenRow[]): RecordsOfStandard {
  const rows = all.filter(r => r.standard === standard)
  const figures = rows
    .filter(r => r.together && recordRule(r.figure))
    .map(r => ({
      figure: r.figure,
      seen: seenOf(r),
      frames: rows
        .filter(x => !x.together && x.figure === r.figure)
        .map(x => ({ frame: FrameKind.nullable().catch(null).parse(x.frame), seen: seenOf(x) })),
    }))
  return { standard, bikes: rows.find(r => r.together && r.figure === VISIT)?.bikes ?? 0, figures, faults: [] }
}

/** The query of the page, also measured and explained in docs/records.md. */
export const summaryQuery = (shop: string, standards: readonly string[]) => sql<SeenRow>`
  select standard, figure, frame, grouping(frame) = 1 as together, count(*)::int as bikes, min(value) as least, max(value) as most,
    percentile_cont(array[0.25, 0.5, 0.75]) within group (order by value) as quartiles
  from record where shop = ${shop} and standard = any(${standards}) and latest
  group by grouping sets ((standard, figure, frame), (standard, figure)) order by standard, figure, frame`

/** Figures that a kind of frame decides. */
const BY_FRAME = RECORD_RULES.filter(r => r.byFrame).map(r => r.key)
/** So many of the latest are enough to say what is usual of any such part. */
const WIDE = 400

/** What was seen on bikes like one: of its standards, and on its kind of frame whatever hangs there. */
export async function likeHere(
  tx: ShopTx,
  shop: string,
  standards: readonly string[],
  frame: FrameKind | null,
): Promise<LikeHere> {
  const { rows } = await summaryQuery(shop, standards).execute(tx)
  const any = frame
    ? await sql<SeenRow>`
        select f.figure, count(*)::int as bikes, min(v.value) as least, max(v.value) as most,
          percentile_cont(array[0.25, 0.5, 0.75]) within group (order by v.value) as quartiles
        from unnest(${BY_FRAME}::text[]) f(figure) cross join lateral (
          select value from record where shop = ${shop} and figure = f.figure and frame = ${frame} and latest
          order by at desc limit ${WIDE}) v group by f.figure order by f.figure`.execute(tx)
    : { rows: [] }
  return {
    standards: standards.map(s => summaryOf(s, rows)).filter(s => s.figures.length > 0),
    any: any.rows.map(r => ({ figure: r.figure, seen: seenOf(r) })),
  }
}

/** Points of one figure, newest first, each with the job it comes from. */
export async function pointsOf(
  tx: ShopTx,
  shop: string,
  standard: string,
  figure: string,
  asked: PointsAsked = {},
  limit = 400,
): Promise<RecordPoint[]> {
  const { zone } = await tx.selectFrom('shop').select('zone').where('shop', '=', shop).executeTakeFirstOrThrow()
  const day = sql<string>`(record.at at time zone ${zone})::date`
  const like = `%${(asked.q ?? '').toLowerCase().replace(/[\\%_]/g, c => `\\${c}`)}%`
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
    .$if(asked.from !== undefined, q => q.where(day, '>=', asked.from!))
    .$if(asked.to !== undefined, q => q.where(day, '<=', asked.to!))
    .$if(Boolean(asked.q), q =>
      q.where(eb =>
        eb.or([
          eb('bike.name', 'ilike', like),
          eb('bike.frame_number', 'ilike', like),
          sql<boolean>`job.tag_key = lower(${asked.q!})`,
          sql<boolean>`job.number::text = ${asked.q!}`,
        ]),
      ),
    )
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
    .where('record.figure', 'in', KEPT)
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

/** Figures that have a rule: what is told in a file. Bikes counted and faults stay inside. */
const KEPT = RECORD_RULES.map(r => r.key)

/** All rows of a shop in the open format, oldest first; of one standard where it is named. */
export async function exportRecords(tx: ShopTx, shop: string, standard?: string): Promise<RecordRow[]> {
  const rows = await tx
    .selectFrom('record')
    .select(['id', 'standard', 'figure', 'frame', 'value', 'bike', 'at'])
    .where('shop', '=', shop)
    .where('figure', 'in', KEPT)
    .$if(standard !== undefined, q => q.where('standard', '=', standard!))
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
  await countImported(tx, shop, rows, origin, takenIn)
  // a bike known already keeps one row that counts
  await sql`update record r set latest = false where shop = ${shop} and latest and exists (
    select 1 from record n where n.shop = r.shop and n.bike = r.bike and n.standard = r.standard and n.figure = r.figure and n.latest and (n.at, n.id) > (r.at, r.id))
    and r.bike = any(${rows.map(r => r.bike ?? r.id)}::uuid[])`.execute(tx)
}

/** Bikes of a file count as bikes of their standards, so that a standard known from files alone is in the list too. */
async function countImported(
  tx: ShopTx,
  shop: string,
  rows: readonly RecordRow[],
  origin: string,
  takenIn: string | null,
): Promise<void> {
  const visits = new Map<string, RecordRow>()
  for (const r of rows) {
    const key = `${r.bike ?? r.id}/${r.standard}`
    const was = visits.get(key)
    if (!was || was.at < r.at) visits.set(key, r)
  }
  for (const some of chunks([...visits.values()]))
    await tx
      .insertInto('record')
      .values(
        some.map(r => ({
          shop,
          id: newId(),
          job: null,
          bike: r.bike ?? r.id,
          standard: r.standard,
          figure: VISIT,
          frame: r.frame,
          value: 1,
          at: r.at,
          latest: true,
          origin,
          taken_in: takenIn,
        })),
      )
      .execute()
}

/** Forgets what visits left, so that it can be written anew; rows from files stay. */
export async function dropRecordsOfJobs(tx: ShopTx, shop: string): Promise<void> {
  await tx.deleteFrom('record').where('shop', '=', shop).where('job', 'is not', null).execute()
}

/** Writes the records of closed jobs that have none: those handed back before records were kept. @returns how many */
export async function fillRecords(
  tx: ShopTx,
  shop: string,
  sheetOf: (job: string) => Promise<Sheet | null>,
): Promise<number> {
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
      await sheetOf(job.id),
      job.closed_at!,
    )
  }
  return jobs.length
}
