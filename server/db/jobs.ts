import { EventId, PersonId } from '#core/chapter/ids'
import { sql } from 'kysely'
import { BRAKES } from '#core/brake/kinds'
import type { TakeIn } from '#core/http/door'
import { EVENT_VERSION, type LedgerEvent } from '#core/ledger/events'
import { sharedGears } from '#core/rear/parts'
import { inShop, type Db, type ShopTx } from './connect'
import { newId } from './ids'
import { cameBack } from './recalls'
import { append } from './ledger'

/** Something a person can put right; the route answers with the field and the words. */
export class CannotTakeIn extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message)
  }
}

/**
 * Takes a bike in: customer and bike when new, the job, its first entries and its note. All or nothing. Asked again by
 * the same `id`, because the answer was lost, it is the same job. @throws CannotTakeIn
 */
export function takeIn(
  db: Db,
  shop: string,
  person: string,
  session: string | null,
  order: TakeIn,
  at = new Date(),
  id = newId(),
): Promise<number> {
  return inShop(db, shop, async tx => {
    // one take-in of a shop at a time: its next number is taken below
    await tx.selectFrom('shop').select('shop').where('shop', '=', shop).forUpdate().execute()
    const before = await tx
      .selectFrom('job')
      .select('number')
      .where('shop', '=', shop)
      .where('id', '=', id)
      .executeTakeFirst()
    if (before) return before.number
    await tagFree(tx, shop, order.tag)
    const bike = await bikeFor(tx, shop, order)
    const known = order.sameParts
      ? await tx
          .selectFrom('sheet')
          .select('job')
          .where('shop', '=', shop)
          .where('bike', '=', bike)
          .orderBy('closed_at', 'desc')
          .executeTakeFirst()
      : undefined
    const { next_job: number } = await tx
      .updateTable('shop')
      .set({ next_job: sql`next_job + 1` })
      .where('shop', '=', shop)
      .returning(sql<number>`next_job - 1`.as('next_job'))
      .executeTakeFirstOrThrow()
    await tx
      .insertInto('job')
      .values({
        shop,
        id,
        number,
        tag: order.tag,
        bike,
        complaint: order.complaint,
        promised_at: order.promisedAt,
        sprockets: order.parts ? sharedGears(order.parts) : 0,
        drivetrain: order.parts?.shifter.standard ?? null,
        stand: null,
        known_job: known?.job ?? null,
        created_at: at,
      })
      .execute()
    const by = PersonId.parse(person)
    await append(
      tx,
      shop,
      number,
      session,
      firstEntries(order).map(event => ({
        id: EventId.parse(newId()),
        v: EVENT_VERSION,
        at: at.toISOString(),
        basedOn: 0,
        by,
        event,
        verified: true,
        signedBy: null,
      })),
    )
    if (order.note) await addNote(tx, shop, id, person, order.note, newId(), at)
    // a bike that is here needs not be asked back any more
    await cameBack(tx, shop, bike, at)
    return number
  }).catch((error: { code?: string; constraint?: string }) => {
    // two tablets took the same tag in the same moment
    if (error.code === '23505' && error.constraint === 'job_open_tag')
      throw new CannotTakeIn('tag', `Tag ${order.tag} was just taken: use another`)
    throw error
  })
}

/** What a job's log starts with: the bike, what was seen of it, and the brakes that were seen. */
function firstEntries({ parts, seen }: TakeIn): LedgerEvent[] {
  const brakes = BRAKES.flatMap((brake): LedgerEvent[] => {
    const kind = seen?.[brake] ?? null
    // that there is none needs its reason and a name: it is said at the brake's bench
    return kind === null || kind === 'none'
      ? []
      : [{ kind: 'brakeParts', parts: { brake, kind, lever: null, leverSide: null } }]
  })
  return [{ kind: 'arrived', parts }, ...(seen ? [{ kind: 'seen' as const, seen }] : []), ...brakes]
}

/** The tag that has hung here before and is free the longest, else one more than the highest; the first is 1. */
export async function nextTag(tx: ShopTx, shop: string): Promise<string> {
  const free = await tx
    .selectFrom('job')
    .select('tag')
    .where('shop', '=', shop)
    .groupBy('tag')
    .having(sql<boolean>`bool_and(closed_at is not null and place = 'gone')`)
    .orderBy(sql`max(closed_at)`)
    .limit(1)
    .executeTakeFirst()
  if (free) return free.tag
  const { highest } = await tx
    .selectFrom('job')
    .select(sql<number | null>`max(case when tag ~ '^[0-9]{1,6}$' then tag::int end)`.as('highest'))
    .where('shop', '=', shop)
    .executeTakeFirstOrThrow()
  return String((highest ?? 0) + 1)
}

/** How many jobs here had each stock drivetrain. */
export async function drivetrainsUsed(tx: ShopTx, shop: string): Promise<Record<string, number>> {
  const rows = await tx
    .selectFrom('job')
    .select(['drivetrain', sql<number>`count(*)::int`.as('jobs')])
    .where('shop', '=', shop)
    .where('drivetrain', 'is not', null)
    .groupBy('drivetrain')
    .execute()
  return Object.fromEntries(rows.map(r => [r.drivetrain!, r.jobs]))
}

/** A tag hangs on one open job. @param job which may have it already @throws CannotTakeIn */
export async function tagFree(tx: ShopTx, shop: string, tag: string, job: string | null = null): Promise<void> {
  let query = tx
    .selectFrom('job')
    .select('number')
    .where('shop', '=', shop)
    .where('closed_at', 'is', null)
    .where(sql<boolean>`lower(tag) = lower(${tag})`)
  if (job !== null) query = query.where('id', '<>', job)
  const taken = await query.executeTakeFirst()
  if (taken) throw new CannotTakeIn('tag', `Tag ${tag} hangs on open job ${taken.number}: use another`)
}

async function bikeFor(tx: ShopTx, shop: string, order: TakeIn): Promise<string> {
  if ('id' in order.bike) {
    const bike = await tx
      .selectFrom('bike')
      .select('id')
      .where('shop', '=', shop)
      .where('merged_into', 'is', null)
      .where('id', '=', order.bike.id)
      .executeTakeFirst()
    if (!bike) throw new CannotTakeIn('bike', 'That bike is not known here: search again')
    const open = await tx
      .selectFrom('job')
      .select('tag')
      .where('shop', '=', shop)
      .where('bike', '=', bike.id)
      .where('closed_at', 'is', null)
      .executeTakeFirst()
    if (open) throw new CannotTakeIn('bike', `That bike is here already, tag ${open.tag}`)
    const now = {
      ...(order.bike.frameKind ? { frame_kind: order.bike.frameKind } : {}),
      ...(order.seen ? { seen: JSON.stringify(order.seen) } : {}),
    }
    if (Object.keys(now).length)
      await tx.updateTable('bike').set(now).where('shop', '=', shop).where('id', '=', bike.id).execute()
    return bike.id
  }
  let customer: string
  if ('id' in order.customer) {
    const found = await tx
      .selectFrom('customer')
      .select('id')
      .where('shop', '=', shop)
      .where('id', '=', order.customer.id)
      .executeTakeFirst()
    if (!found) throw new CannotTakeIn('customer', 'That customer is not known here: search again')
    customer = found.id
  } else {
    customer = newId()
    await tx
      .insertInto('customer')
      .values({ shop, id: customer, name: order.customer.name, contact: order.customer.contact })
      .execute()
  }
  const id = newId()
  await tx
    .insertInto('bike')
    .values({
      shop,
      id,
      customer,
      name: order.bike.name,
      frame_number: order.bike.frameNumber,
      frame_kind: order.bike.frameKind ?? null,
      seen: order.seen ? JSON.stringify(order.seen) : null,
    })
    .execute()
  return id
}

/** A job with its bike, customer and notes, by its number. */
export async function jobByNumber(tx: ShopTx, shop: string, number: number) {
  return tx
    .selectFrom('job')
    .innerJoin('bike', j => j.onRef('bike.shop', '=', 'job.shop').onRef('bike.id', '=', 'job.bike'))
    .innerJoin('customer', j => j.onRef('customer.shop', '=', 'bike.shop').onRef('customer.id', '=', 'bike.customer'))
    .select([
      'job.id',
      'job.number',
      'job.tag',
      'job.complaint',
      'job.promised_at',
      'job.created_at',
      'job.closed_at',
      'job.known_job',
      'job.place',
      'job.call',
      'bike.id as bike_id',
      'bike.name as bike_name',
      'bike.frame_number',
      'bike.frame_kind',
      'customer.id as customer_id',
      'customer.name as customer_name',
      'customer.contact',
    ])
    .where('job.shop', '=', shop)
    .where('job.number', '=', number)
    .executeTakeFirst()
}

export const openJobByTag = (tx: ShopTx, shop: string, tag: string) =>
  tx
    .selectFrom('job')
    .select('number')
    .where('shop', '=', shop)
    .where('closed_at', 'is', null)
    .where(sql<boolean>`lower(tag) = lower(${tag})`)
    .executeTakeFirst()

export const notesOf = (tx: ShopTx, shop: string, job: string) =>
  tx
    .selectFrom('note')
    .innerJoin('person', j => j.onRef('person.shop', '=', 'note.shop').onRef('person.id', '=', 'note.person'))
    .select(['note.id', 'note.text', 'person.name as by', 'note.created_at'])
    .where('note.shop', '=', shop)
    .where('note.job', '=', job)
    .orderBy('note.created_at')
    .execute()

/** Writes what was done in one line. */
export async function addNote(
  tx: ShopTx,
  shop: string,
  job: string,
  person: string,
  text: string,
  id = newId(),
  at = new Date(),
): Promise<string> {
  // the same one again: its answer was lost
  await tx
    .insertInto('note')
    .values({ shop, id, job, person, text, created_at: at })
    .onConflict(c => c.columns(['shop', 'id']).doNothing())
    .execute()
  return id
}
