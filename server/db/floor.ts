import { addDays, formatISO } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import { sql } from 'kysely'
import type { FloorView } from '#core/http/floor'
import type { FoundBike } from '#core/http/door'
import { UNPROVEN, WAITS } from '#core/job/events'
import { Seen } from '#core/job/seen'
import { FrameKind } from '#core/standards/frames'
import { DECLINABLE } from '#core/job/declined'
import { briefOf, Sheet } from '#core/ledger/sheet'
import type { ShopTx } from './connect'
import { holding } from './holding'
import { tookHere } from './minutes'

/** Days of recalls the Floor shows. */
const FORTNIGHT = 14

/** Everything the Floor shows, from rows alone: no log is reduced here. */
export async function floor(tx: ShopTx, shop: string, now = new Date()): Promise<Omit<FloorView, 'warnings'>> {
  const { zone, stands } = await tx
    .selectFrom('shop')
    .select(['zone', 'stands'])
    .where('shop', '=', shop)
    .executeTakeFirstOrThrow()
  const today = formatISO(new TZDate(now, zone), { representation: 'date' })
  const jobs = await tx
    .selectFrom('job')
    // one by one, by its key: for the sixty in the house nobody reads through every bike of the years
    .innerJoinLateral(
      eb =>
        eb
          .selectFrom('bike')
          .select(['bike.name', 'bike.customer'])
          .whereRef('bike.shop', '=', 'job.shop')
          .whereRef('bike.id', '=', 'job.bike')
          .limit(1)
          .as('bike'),
      j => j.onTrue(),
    )
    .innerJoin('customer', j => j.onRef('customer.shop', '=', 'job.shop').onRef('customer.id', '=', 'bike.customer'))
    .leftJoin('recall', j =>
      j.onRef('recall.shop', '=', 'job.shop').onRef('recall.job', '=', 'job.id').on('recall.done_at', 'is', null),
    )
    .leftJoinLateral(
      eb =>
        eb
          .selectFrom('sheet')
          .select('sheet.body')
          .whereRef('sheet.shop', '=', 'job.shop')
          .whereRef('sheet.job', '=', 'job.id')
          .orderBy('sheet.closed_at', 'desc')
          .limit(1)
          .as('last'),
      j => j.onTrue(),
    )
    .leftJoinLateral(
      eb =>
        eb
          .selectFrom('event')
          .select('event.person')
          // named, not followed: the ledger's part is known before it is looked into
          .where('event.shop', '=', shop)
          .whereRef('event.job', '=', 'job.id')
          .orderBy('event.seq', 'desc')
          .limit(1)
          .as('hand'),
      j => j.onTrue(),
    )
    // after the last entry is found: joined before, every entry of the job is read for it
    .leftJoin('person', j => j.onRef('person.shop', '=', 'job.shop').onRef('person.id', '=', 'hand.person'))
    .select([
      'hand.person as hand',
      'person.name as hand_name',
      'job.number',
      'job.tag',
      'job.complaint',
      'job.promised_at',
      'job.place',
      'job.stand',
      'job.sprockets',
      'job.closed_at',
      'job.call',
      'job.waits',
      'bike.name as bike',
      'customer.name as customer',
      'recall.due_on',
      'last.body',
    ])
    .where('job.shop', '=', shop)
    // a bike that left and failed since is shown until its customer was called and it is back
    .where(eb => eb.or([eb('job.place', '<>', 'gone'), eb('job.call', 'is not', null)]))
    .orderBy('job.promised_at')
    .orderBy('job.number')
    .execute()
  const until = formatISO(addDays(new TZDate(now, zone), FORTNIGHT), { representation: 'date' })
  const recalls = await tx
    .selectFrom('recall')
    // by their keys, as above
    .innerJoinLateral(
      eb =>
        eb
          .selectFrom('job')
          .innerJoin('bike', j => j.onRef('bike.shop', '=', 'job.shop').onRef('bike.id', '=', 'job.bike'))
          .select(['job.number', 'job.tag', 'bike.name as bike'])
          .whereRef('job.shop', '=', 'recall.shop')
          .whereRef('job.id', '=', 'recall.job')
          .limit(1)
          .as('job'),
      j => j.onTrue(),
    )
    .select(['job.number', 'job.tag', 'job.bike', 'recall.due_on', 'recall.done_at'])
    .where('recall.shop', '=', shop)
    .where('recall.due_on', '<', until)
    .where(eb => eb.or([eb('recall.done_at', 'is', null), eb('recall.due_on', '>=', today)]))
    .orderBy('recall.due_on')
    .limit(200)
    .execute()
  return {
    today,
    stands,
    took: await tookHere(tx, shop),
    jobs: jobs.map(j => {
      const sheet = j.closed_at && j.body ? Sheet.parse(j.body) : null
      return {
        number: j.number,
        tag: j.tag,
        bike: j.bike,
        customer: j.customer,
        complaint: j.complaint,
        promisedAt: j.promised_at.toISOString(),
        place: j.place,
        stand: j.stand,
        derailleur: j.sprockets > 0,
        summary: sheet ? briefOf(sheet) : null,
        unridable: sheet !== null && UNPROVEN.has(sheet.how),
        waits: WAITS.find(w => w === j.waits) ?? null,
        declined: sheet?.fault ? DECLINABLE[sheet.fault].words : null,
        by: j.hand,
        byName: j.hand_name,
        call: j.call,
        closedAt: j.closed_at?.toISOString() ?? null,
        recallOn: j.due_on,
      }
    }),
    recalls: recalls.map(r => ({
      number: r.number,
      tag: r.tag,
      bike: r.bike,
      dueOn: r.due_on,
      done: r.done_at !== null,
    })),
  }
}

/** Bikes a search shows. */
const SHOWN = 12
/**
 * Of more bikes than a few, those of so many latest jobs are looked at, as long as they fill the list: it shows the
 * last seen first.
 */
const FEW = 300
const LATELY = 800

/**
 * Bikes by customer, phone, bike name, tag or frame number; a whole tag of an open job first, open jobs, then the last
 * seen.
 */
export async function findBikes(tx: ShopTx, shop: string, words: string): Promise<FoundBike[]> {
  const like = holding(words)
  const digits = words.replace(/[^0-9]/g, '')
  const byDigits = digits.length >= 4 ? sql<boolean>`customer.digits like ${`%${digits}%`}` : sql<boolean>`false`
  // which bikes it could be, before anything is looked up of each
  const hits = sql<{ id: string }>`
    with hits as materialized (
      select id from bike where shop = ${shop} and words like lower(${like})
      union select bike.id from customer join bike on bike.shop = customer.shop and bike.customer = customer.id
        where customer.shop = ${shop} and (customer.words like lower(${like}) or ${byDigits})
      union select job.bike from job where job.shop = ${shop} and job.tag_key = lower(${words})
    ), lately as (
      select id from hits where id in (
        select bike from (select bike from job where shop = ${shop} order by number desc limit ${LATELY}) j
        union select bike from job where shop = ${shop} and closed_at is null)
    )
    select id from hits where (select count(*) from hits) <= ${FEW} or (select count(*) from lately) < ${SHOWN}
    union select id from lately`
  const rows = await tx
    .selectFrom('bike')
    .innerJoin('customer', j => j.onRef('customer.shop', '=', 'bike.shop').onRef('customer.id', '=', 'bike.customer'))
    .where('bike.id', 'in', sql<string>`(${hits})`)
    .leftJoinLateral(
      eb =>
        eb
          .selectFrom('job')
          .select(['job.number', 'job.tag'])
          .whereRef('job.shop', '=', 'bike.shop')
          .whereRef('job.bike', '=', 'bike.id')
          .where('job.closed_at', 'is', null)
          .limit(1)
          .as('open'),
      j => j.onTrue(),
    )
    .leftJoinLateral(
      eb =>
        eb
          .selectFrom('sheet')
          .innerJoin('job', j => j.onRef('job.shop', '=', 'sheet.shop').onRef('job.id', '=', 'sheet.job'))
          .select(['job.number', 'job.tag', 'sheet.closed_at', 'sheet.body'])
          .whereRef('sheet.shop', '=', 'bike.shop')
          .whereRef('sheet.bike', '=', 'bike.id')
          .orderBy('sheet.closed_at', 'desc')
          .limit(1)
          .as('last'),
      j => j.onTrue(),
    )
    .select([
      'bike.id',
      'bike.name',
      'bike.frame_number',
      'bike.frame_kind',
      'bike.seen',
      'customer.id as customer_id',
      'customer.name as customer_name',
      'customer.contact',
      'open.number as open_number',
      'open.tag as open_tag',
      'last.number as last_number',
      'last.closed_at',
      'last.body',
    ])
    .where('bike.shop', '=', shop)
    .where('bike.merged_into', 'is', null)
    .where(eb =>
      eb.or([
        eb('customer.name', 'ilike', like),
        eb('bike.name', 'ilike', like),
        eb('bike.frame_number', 'ilike', like),
        byDigits,
        sql<boolean>`lower(open.tag) = lower(${words})`,
        sql<boolean>`lower(last.tag) = lower(${words})`,
      ]),
    )
    // the tag of a bike that is here, whole, before anything that only holds these letters
    .orderBy(sql`coalesce(lower(open.tag) = lower(${words}), false) desc`)
    .orderBy(sql`open.number is null`)
    .orderBy(sql`last.closed_at desc nulls last`)
    .limit(SHOWN)
    .execute()
  return rows.map(r => ({
    bike: {
      id: r.id,
      name: r.name,
      frameNumber: r.frame_number,
      frameKind: FrameKind.safeParse(r.frame_kind).data ?? null,
      seen: Seen.safeParse(r.seen).data ?? null,
    },
    customer: { id: r.customer_id, name: r.customer_name, contact: r.contact },
    open: r.open_number !== null ? { number: r.open_number, tag: r.open_tag! } : null,
    last:
      r.last_number !== null
        ? { number: r.last_number, closedAt: r.closed_at!.toISOString(), sheet: Sheet.parse(r.body) }
        : null,
  }))
}
