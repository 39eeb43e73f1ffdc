import { sql } from 'kysely'
import type { LikeHere, PointsAsked, RecordPoint, RecordsOfStandard, StandardCount } from '#core/http/records'
import { HELD_DAYS, RECORD_RULES } from '#core/records/chapters'
import { FrameKind } from '#core/standards/frames'
import { LATEST_BIKES, type Seen } from '#core/records/question'
import type { ShopTx } from './connect'
import { holding } from './holding'
import { KEPT, VISIT } from './records'

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
const seenOf = (r: Omit<SeenRow, 'figure' | 'frame' | 'together'>): Seen => ({
  bikes: r.bikes,
  least: r.least,
  quarter: r.quartiles[0],
  median: r.quartiles[1],
  threeQuarters: r.quartiles[2],
  most: r.most,
})

/**
 * Medians and spread of everything recorded under a standard, over the latest of each bike, by kind of frame and
 * together.
 */
export async function recordsOfStandard(tx: ShopTx, shop: string, standard: string): Promise<RecordsOfStandard> {
  const { rows } = await summaryQuery(shop, [standard]).execute(tx)
  const { bikes } = await tx
    .selectFrom('record')
    .select(sql<number>`count(*)::int`.as('bikes'))
    .where('shop', '=', shop)
    .where('standard', '=', standard)
    .where('figure', '=', VISIT)
    .where('latest', '=', true)
    .executeTakeFirstOrThrow()
  return { standard, bikes, figures: figuresOf(standard, rows), faults: await faultsOfStandard(tx, shop, standard) }
}

/**
 * A cure is judged after two months, or when the same fault is back before. Which faults there are is told by going
 * along the index from figure to figure: all that was recorded of the standard is not read for it.
 */
async function faultsOfStandard(tx: ShopTx, shop: string, standard: string): Promise<RecordsOfStandard['faults']> {
  const next = sql`select figure from record where shop = ${shop} and standard = ${standard}`
  const { rows } = await sql<RecordsOfStandard['faults'][number]>`
    with recursive figures(figure) as (
      (${next} order by figure limit 1)
      union all
      select (${next} and record.figure > figures.figure order by figure limit 1) from figures where figures.figure is not null
    )
    select figure as fault, count(*)::int as found, count(*) filter (where cured)::int as cured,
      count(*) filter (where cured and (days > ${HELD_DAYS}
        or (days is null and at < now() - make_interval(days => ${HELD_DAYS}))))::int as held,
      count(*) filter (where cured and days <= ${HELD_DAYS})::int as back
    from figures cross join lateral (select at, value = 1 as cured,
      extract(epoch from lead(at) over (partition by bike order by at) - at) / 86400 as days
      from record where shop = ${shop} and standard = ${standard} and record.figure = figures.figure) f
    where starts_with(figure, 'fault ')
    group by figure order by found desc, figure`.execute(tx)
  return rows
}

function figuresOf(standard: string, all: readonly SeenRow[]): RecordsOfStandard['figures'] {
  const rows = all.filter(r => r.standard === standard)
  return rows
    .filter(r => r.together)
    .map(r => ({
      figure: r.figure,
      seen: seenOf(r),
      frames: rows
        .filter(x => !x.together && x.figure === r.figure)
        .map(x => ({ frame: FrameKind.nullable().catch(null).parse(x.frame), seen: seenOf(x) })),
    }))
}

/**
 * The query of the page, also measured and explained in docs/records.md: of each figure the latest bikes, so that it
 * takes no longer in a shop that has seen many.
 */
export const summaryQuery = (shop: string, standards: readonly string[]) => sql<SeenRow>`
  select s.standard, f.figure, r.frame, grouping(r.frame) = 1 as together, count(*)::int as bikes,
    min(r.value) as least, max(r.value) as most,
    percentile_cont(array[0.25, 0.5, 0.75]) within group (order by r.value) as quartiles
  from unnest(${standards}::text[]) s(standard) cross join unnest(${KEPT}::text[]) f(figure) cross join lateral (
    select frame, value from record where shop = ${shop} and standard = s.standard and figure = f.figure and latest
    order by at desc limit ${LATEST_BIKES}) r
  group by grouping sets ((s.standard, f.figure, r.frame), (s.standard, f.figure)) order by s.standard, f.figure, r.frame`

/** Figures that a kind of frame decides. */
const BY_FRAME = RECORD_RULES.filter(r => r.byFrame).map(r => r.key)

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
          order by at desc limit ${LATEST_BIKES}) v group by f.figure order by f.figure`.execute(tx)
    : { rows: [] }
  return {
    standards: standards.map(s => ({ standard: s, figures: figuresOf(s, rows) })).filter(s => s.figures.length > 0),
    any: any.rows.map(r => ({ figure: r.figure, seen: seenOf(r) })),
  }
}

/** What was measured of one figure under each of these standards, over the latest of each bike, and when last. */
export async function seenOfFigure(tx: ShopTx, shop: string, figure: string, standards: readonly string[]) {
  const { rows } = await sql<Omit<SeenRow, 'figure' | 'frame' | 'together'> & { at: Date }>`
    select s.standard, count(*)::int as bikes, min(r.value) as least, max(r.value) as most, max(r.at) as at,
      percentile_cont(array[0.25, 0.5, 0.75]) within group (order by r.value) as quartiles
    from unnest(${standards}::text[]) s(standard) cross join lateral (
      select value, at from record where shop = ${shop} and standard = s.standard and figure = ${figure} and latest
      order by at desc limit ${LATEST_BIKES}) r
    group by s.standard`.execute(tx)
  return rows.map(r => ({ standard: r.standard, seen: seenOf(r), at: r.at.toISOString() }))
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
  const like = holding(asked.q ?? '')
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
