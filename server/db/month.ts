import { sql } from 'kysely'
import type { MonthView } from '#core/http/month'
import { sharesHere } from '#core/habits/learn'
import { HELD_DAYS } from '#core/records/chapters'
import type { ShopTx } from './connect'
import { habitsOf } from './habits'

/** A shop's month in its own days: jobs, not people. @param month yyyy-mm */
export async function monthView(tx: ShopTx, shop: string, month: string): Promise<MonthView> {
  const { zone } = await tx.selectFrom('shop').select('zone').where('shop', '=', shop).executeTakeFirstOrThrow()
  const from = sql`(${`${month}-01`}::timestamp at time zone ${zone})`
  const to = sql`((${`${month}-01`}::timestamp + interval '1 month') at time zone ${zone})`
  const inMonth = sql`s.shop = ${shop} and s.closed_at >= ${from} and s.closed_at < ${to}`
  const { rows: kinds } = await sql<{ kind: string; jobs: number; minutes: number | null; median: number | null }>`
    select coalesce(s.work[1], 'gears') as kind, count(*)::int as jobs, sum(s.minutes)::float as minutes,
      percentile_cont(0.5) within group (order by s.minutes) as median
    from sheet s where ${inMonth} and s.body->>'how' <> 'cancelled' group by 1 order by jobs desc, kind`.execute(tx)
  const { rows: ends } = await sql<{ how: string; jobs: number }>`
    select s.body->>'how' as how, count(*)::int as jobs from sheet s where ${inMonth} group by 1 order by 2 desc`.execute(
    tx,
  )
  const {
    rows: [right],
  } = await sql<{ jobs: number; back: number; young: number }>`
    select count(*)::int as jobs,
      count(*) filter (where exists (select 1 from record r join job j on j.shop = r.shop and j.id = r.job
        where r.shop = s.shop and r.bike = s.bike and r.figure = 'comeback' and r.at > s.closed_at
          and r.at < s.closed_at + make_interval(days => ${HELD_DAYS})))::int as back,
      count(*) filter (where s.closed_at > now() - make_interval(days => ${HELD_DAYS}) and not exists (select 1 from record r
        where r.shop = s.shop and r.bike = s.bike and r.figure = 'comeback' and r.at > s.closed_at))::int as young
    from sheet s where ${inMonth} and s.body->>'how' in ('proven', 'declined')`.execute(tx)
  const { rows: standards } = await sql<{ standard: string; bikes: number; rounds: number; slowest: number }>`
    select r.standard, count(*)::int as bikes, avg(r.value)::float as rounds, max(r.value)::float as slowest
    from record r where r.shop = ${shop} and r.figure = 'rounds' and r.job is not null and r.at >= ${from} and r.at < ${to}
    group by r.standard order by rounds desc, bikes desc limit 8`.execute(tx)
  const { rows: housing } = await sql<{ kind: string; used_mm: number; left_mm: number }>`
    select h.kind, coalesce(sum(h.length_mm - coalesce(l.length_mm, 0)) filter (
        where h.used_at >= ${from} and h.used_at < ${to} and (not h.roll or l.id is not null or h.cut is not null)
          and (h.cut_from is null or exists (select 1 from housing_stock w
            where w.shop = h.shop and w.id = h.cut_from and w.used_at = h.made_at))), 0)::float as used_mm,
      coalesce(sum(h.length_mm) filter (where h.used_at is null), 0)::float as left_mm
    from housing_stock h left join housing_stock l on l.shop = h.shop and l.cut_from = h.id and l.made_at = h.used_at
    where h.shop = ${shop} group by h.kind order by h.kind`.execute(tx)
  const { rows: lengths } = await sql<{ mm: number; pieces: number }>`
    select coalesce(sum(r.value), 0)::float as mm, count(*)::int as pieces from record r
    where r.shop = ${shop} and r.figure like 'housing %' and r.job is not null and r.at >= ${from} and r.at < ${to}`.execute(
    tx,
  )
  const habits = await habitsOf(tx, shop)
  return {
    month,
    kinds: kinds.map(k => ({ kind: k.kind, jobs: k.jobs, minutes: k.minutes, median: k.median })),
    ends,
    right: { jobs: right?.jobs ?? 0, back: right?.back ?? 0, young: right?.young ?? 0 },
    standards,
    housing: housing.map(h => ({ kind: h.kind, usedMm: h.used_mm, leftMm: h.left_mm })),
    learnt: { jobs: habits.length, shares: sharesHere(habits) },
    fitted: { mm: lengths[0]?.mm ?? 0, pieces: lengths[0]?.pieces ?? 0 },
  }
}
