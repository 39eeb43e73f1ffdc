import { addDays, differenceInCalendarDays, format, formatISO } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import type { UpdateObject } from 'kysely'
import { EventId, PersonId } from '#core/chapter/ids'
import type { MessageView, RecallAct, RecallDesk, RecallView } from '#core/http/recalls'
import { RIDER_WORDS } from '#core/job/events'
import { EVENT_VERSION } from '#core/ledger/events'
import { Sheet } from '#core/ledger/sheet'
import { fromSixteenths } from '#core/quantity/turns'
import { addressOf, Desk, isQuiet, sayMessage, sayWhy, USUAL_DESK } from '#core/recall/desk'
import type { ShopTx } from './connect'
import type { Database } from './schema'
import { append, lockJob } from './ledger'
import { keepTold } from './settling'

/** What cannot be done with a recall or a message, in words. */
export class CannotRecall extends Error {
  constructor(
    message: string,
    readonly field = 'do',
  ) {
    super(message)
  }
}

/** Days ahead whose free places are shown, and how far back recalls that are settled still show. */
const AHEAD = 28
const SETTLED_DAYS = 7
const MOST = 300

export async function shopDesk(tx: ShopTx, shop: string): Promise<{ desk: Desk; zone: string; name: string }> {
  const row = await tx
    .selectFrom('shop')
    .select(['desk', 'zone', 'name'])
    .where('shop', '=', shop)
    .executeTakeFirstOrThrow()
  return { desk: Desk.catch(USUAL_DESK).parse(row.desk ?? {}), zone: row.zone, name: row.name }
}

const dayIn = (zone: string, at: Date): string => formatISO(new TZDate(at, zone), { representation: 'date' })
const sayDay = (day: string): string => format(new Date(`${day}T12:00:00`), 'EEEE d MMMM')

const rowsOf = (tx: ShopTx, shop: string) =>
  tx
    .selectFrom('recall')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'recall.shop').onRef('job.id', '=', 'recall.job'))
    .innerJoin('bike', j => j.onRef('bike.shop', '=', 'job.shop').onRef('bike.id', '=', 'job.bike'))
    .innerJoin('customer', j => j.onRef('customer.shop', '=', 'bike.shop').onRef('customer.id', '=', 'bike.customer'))
    .where('recall.shop', '=', shop)
    .select([
      'recall.id',
      'recall.due_on',
      'recall.first_due_on',
      'recall.state',
      'recall.report',
      'recall.expected',
      'job.number',
      'job.tag',
      'job.closed_at',
      'bike.id as bike_id',
      'bike.name as bike',
      'customer.id as customer_id',
      'customer.name as customer',
      'customer.contact',
      'customer.no_messages',
      'customer.erased_at',
    ])

/** The recall desk: who is due, why, what to say, what was written; and how many bikes each day takes. */
export async function recallDesk(tx: ShopTx, shop: string, now = new Date()): Promise<Omit<RecallDesk, 'gateway'>> {
  const { desk, zone, name } = await shopDesk(tx, shop)
  const today = dayIn(zone, now)
  const rows = await rowsOf(tx, shop)
    .where(eb => eb.or([eb('recall.state', '=', 'due'), eb('recall.done_at', '>', addDays(now, -SETTLED_DAYS))]))
    .orderBy('recall.due_on')
    .orderBy('job.number')
    .limit(MOST)
    .execute()
  const messages = rows.length
    ? await tx
        .selectFrom('message')
        .selectAll()
        .where('shop', '=', shop)
        .where(
          'recall',
          'in',
          rows.map(r => r.id),
        )
        .orderBy('made_at')
        .execute()
    : []
  const calendars = await tx
    .selectFrom('calendar')
    .innerJoin('person', j => j.onRef('person.shop', '=', 'calendar.shop').onRef('person.id', '=', 'calendar.person'))
    .select(['calendar.id', 'person.name as by', 'calendar.made_at', 'calendar.seen_at'])
    .where('calendar.shop', '=', shop)
    .where('calendar.revoked_at', 'is', null)
    .orderBy('calendar.made_at')
    .execute()
  const first = new Date(`${today}T12:00:00Z`)
  return {
    today,
    desk,
    recalls: rows.map((r): RecallView => {
      const why = sayWhy({
        bike: r.bike,
        settle: Sheet.shape.settle.catch(null).parse(r.expected),
        daysSince: Math.max(0, differenceInCalendarDays(now, r.closed_at ?? now)),
      })
      const to = r.no_messages || r.erased_at ? null : addressOf(r.contact)
      return {
        id: r.id,
        dueOn: r.due_on,
        firstDueOn: r.first_due_on,
        state: r.state,
        job: { number: r.number, tag: r.tag, closedAt: (r.closed_at ?? now).toISOString() },
        bike: { id: r.bike_id, name: r.bike },
        customer: { id: r.customer_id, name: r.customer, contact: r.contact, noMessages: r.no_messages },
        why,
        message: to && sayMessage({ shop: name, why, day: sayDay(r.due_on < today ? today : r.due_on) }),
        report: r.report,
        messages: messages.filter(m => m.recall === r.id).map(viewOf),
      }
    }),
    days: Array.from({ length: AHEAD }, (_, i) => {
      const day = formatISO(addDays(first, i), { representation: 'date' })
      const due = rows.filter(r => r.state === 'due' && (r.due_on === day || (i === 0 && r.due_on < day)))
      return { day, due: due.length }
    }),
    calendars: calendars.map(c => ({
      id: c.id,
      by: c.by,
      madeAt: c.made_at.toISOString(),
      seenAt: c.seen_at?.toISOString() ?? null,
    })),
  }
}

const viewOf = (m: {
  id: string
  way: string
  address: string
  body: string
  state: MessageView['state']
  not_before: Date
  trouble: string
  answer: string
  made_at: Date
}): MessageView => ({
  id: m.id,
  way: m.way,
  address: m.address,
  body: m.body,
  state: m.state,
  notBefore: m.not_before.toISOString(),
  trouble: m.trouble,
  answer: m.answer,
  at: m.made_at.toISOString(),
})

type Hand = { shop: string; person: string; session: string | null }

/**
 * What becomes of a recall. Asked twice it is done once: a message and a rider's report carry ids of their own.
 * @throws CannotRecall where there is no such recall, or it cannot be
 */
export async function actOnRecall(tx: ShopTx, hand: Hand, id: string, act: RecallAct, now = new Date()): Promise<void> {
  const { shop } = hand
  const row = await tx
    .selectFrom('recall')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'recall.shop').onRef('job.id', '=', 'recall.job'))
    .select(['recall.id', 'recall.due_on', 'recall.first_due_on', 'recall.state', 'job.number', 'job.bike'])
    .where('recall.shop', '=', shop)
    .where('recall.id', '=', id)
    .forUpdate('recall')
    .executeTakeFirst()
  if (!row) throw new CannotRecall('That recall is not there any more: the job was opened again')
  const set = (values: UpdateObject<Database, 'recall'>) =>
    tx.updateTable('recall').set(values).where('shop', '=', shop).where('id', '=', id).execute()
  switch (act.do) {
    case 'postpone': {
      const { zone } = await shopDesk(tx, shop)
      if (act.to < dayIn(zone, now)) throw new CannotRecall('That day is past: choose one from today on', 'to')
      if (act.to > dayIn(zone, addDays(now, 366))) throw new CannotRecall('Choose a day within a year', 'to')
      if (row.state !== 'due') throw new CannotRecall('This one is settled: bring it back first')
      await set({ due_on: act.to, first_due_on: row.first_due_on ?? row.due_on })
      return
    }
    case 'due': {
      const why = row.state === 'due' ? null : await notAskedBack(tx, shop, row.bike)
      if (why) throw new CannotRecall(why)
      await set({ state: 'due', done_at: null })
      return
    }
    case 'done':
    case 'came':
    case 'notneeded':
      await set({ state: act.do, done_at: now })
      return withdrawUnsent(tx, shop, id)
    case 'write':
      return write(tx, hand, id, act, now)
    case 'reported':
      return reported(tx, hand, id, row.number, act, now)
  }
}

/** Why a bike is asked back no second time: it is here, or it is asked already. Null when it may be. */
async function notAskedBack(tx: ShopTx, shop: string, bike: string): Promise<string | null> {
  const here = await tx
    .selectFrom('job')
    .select('tag')
    .where('shop', '=', shop)
    .where('bike', '=', bike)
    .where('closed_at', 'is', null)
    .executeTakeFirst()
  if (here) return `This bike is here, under tag ${here.tag}: handing it back books it anew`
  const asked = await dueOf(tx, shop, bike).select('recall.due_on').executeTakeFirst()
  return asked ? `This bike is asked back already, for ${sayDay(asked.due_on)}` : null
}

const dueOf = (tx: ShopTx, shop: string, bike: string) =>
  tx
    .selectFrom('recall')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'recall.shop').onRef('job.id', '=', 'recall.job'))
    .where('recall.shop', '=', shop)
    .where('job.bike', '=', bike)
    .where('recall.state', '=', 'due')

/** Nobody is asked for a bike that has come, or need not. */
async function withdrawUnsent(tx: ShopTx, shop: string, recall: string): Promise<void> {
  await tx
    .updateTable('message')
    .set({ state: 'withdrawn' })
    .where('shop', '=', shop)
    .where('recall', '=', recall)
    .where('state', 'in', ['queued', 'failed'])
    .execute()
}

/** A job that is opened again asks nobody back: what waits to be sent for its recalls is not. */
export async function callOff(tx: ShopTx, shop: string, job: string): Promise<void> {
  const open = await tx.selectFrom('recall').select('id').where('shop', '=', shop).where('job', '=', job).execute()
  for (const { id } of open) await withdrawUnsent(tx, shop, id)
}

/** A bike that is taken in is not asked back any more. */
export async function cameBack(tx: ShopTx, shop: string, bike: string, at: Date): Promise<void> {
  const due = await dueOf(tx, shop, bike).select('recall.id').execute()
  for (const { id } of due) {
    await tx
      .updateTable('recall')
      .set({ state: 'came', done_at: at })
      .where('shop', '=', shop)
      .where('id', '=', id)
      .execute()
    await withdrawUnsent(tx, shop, id)
  }
}

/** A bike that was taken in by mistake, or went as it came, is asked back as it was before. */
export async function neverCame(tx: ShopTx, shop: string, job: { bike: string; takenIn: Date }): Promise<void> {
  if (await dueOf(tx, shop, job.bike).select('recall.id').executeTakeFirst()) return
  await tx
    .updateTable('recall')
    .set({ state: 'due', done_at: null })
    .where('shop', '=', shop)
    .where('state', '=', 'came')
    .where('done_at', '=', job.takenIn)
    .where('job', 'in', eb => eb.selectFrom('job').select('id').where('shop', '=', shop).where('bike', '=', job.bike))
    .execute()
}

async function write(
  tx: ShopTx,
  { shop, person }: Hand,
  recall: string,
  { id, text }: Extract<RecallAct, { do: 'write' }>,
  now: Date,
): Promise<void> {
  const said = await tx
    .selectFrom('message')
    .select(['id', 'recall'])
    .where('shop', '=', shop)
    .where('id', '=', id)
    .executeTakeFirst()
  if (said) {
    if (said.recall === recall) return
    throw new CannotRecall('That message was written before: write it once more')
  }
  const to = await rowsOf(tx, shop).where('recall.id', '=', recall).executeTakeFirstOrThrow()
  if (to.no_messages) throw new CannotRecall('This customer wants no messages: phone them, or leave it')
  const address = to.erased_at ? null : addressOf(to.contact)
  if (!address) throw new CannotRecall('No e-mail address and no number stands here: put the contact right first')
  if (to.state !== 'due') throw new CannotRecall('This one is settled: bring it back first')
  const { desk, zone } = await shopDesk(tx, shop)
  await tx
    .insertInto('message')
    .values({
      shop,
      id,
      recall,
      customer: to.customer_id,
      ...address,
      body: text,
      person,
      not_before: notBefore(desk, zone, now),
      made_at: now,
    })
    .execute()
}

/** When a message may go: now, or once the quiet hours are over. */
export function notBefore(desk: Desk, zone: string, now: Date): Date {
  const local = new TZDate(now, zone)
  for (let hours = 0; hours < 24; hours++) {
    const at = new TZDate(local.getFullYear(), local.getMonth(), local.getDate(), local.getHours() + hours, 0, 0, zone)
    if (!isQuiet(desk, at.getHours())) return hours === 0 ? now : new Date(at.getTime())
  }
  return now
}

/**
 * What the rider told goes into the ledger of the job it left by, and the slack they took up teaches how runs settle.
 */
async function reported(
  tx: ShopTx,
  { shop, person, session }: Hand,
  recall: string,
  number: number,
  act: Extract<RecallAct, { do: 'reported' }>,
  now: Date,
): Promise<void> {
  const job = await lockJob(tx, shop, number)
  if (!job.closed) throw new CannotRecall('This bike is here again: note it at its bench')
  const [stored] = await append(
    tx,
    shop,
    number,
    session,
    [
      {
        id: EventId.parse(act.id),
        v: EVENT_VERSION,
        at: now.toISOString(),
        basedOn: 1,
        by: PersonId.parse(person),
        event: { kind: 'riderSaid', says: act.says, sixteenths: act.sixteenths },
        verified: true,
        signedBy: null,
      },
    ],
    true,
  )
  if (stored?.outcome === 'held') return
  if (stored?.outcome !== 'stored') throw new CannotRecall('That report was used before: tell it once more', 'id')
  await tx
    .updateTable('recall')
    .set({ report: RIDER_WORDS[act.says], turns: act.sixteenths === null ? null : fromSixteenths(act.sixteenths) })
    .where('shop', '=', shop)
    .where('id', '=', recall)
    .execute()
  // a barrel nobody turned tells nothing of how far the run went slack
  if (!act.sixteenths || act.says === 'wrong') return
  await keepTold(tx, shop, job.id, act.sixteenths, now)
}

/** Whether a customer wants messages; those that wait are not sent to one who does not. */
export async function leaveAlone(tx: ShopTx, shop: string, customer: string, noMessages: boolean): Promise<boolean> {
  const done = await tx
    .updateTable('customer')
    .set({ no_messages: noMessages })
    .where('shop', '=', shop)
    .where('id', '=', customer)
    .executeTakeFirst()
  if (noMessages)
    await tx
      .updateTable('message')
      .set({ state: 'withdrawn' })
      .where('shop', '=', shop)
      .where('customer', '=', customer)
      .where('state', 'in', ['queued', 'failed'])
      .execute()
  return Number(done.numUpdatedRows) > 0
}
