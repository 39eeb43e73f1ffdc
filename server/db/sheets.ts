import { addDays, formatISO } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import { setImmediate as pause } from 'node:timers/promises'
import { considerInSteps } from '#core/advice/advise'
import { adviseFrontInSteps } from '#core/front/advise'
import { frontSetupOf } from '#core/front/setup'
import { EVENT_VERSION, EventId, PersonId, type Stored } from '#core/ledger/events'
import { priorFor } from '#core/ledger/belief'
import { reduce, staysBecause, type JobState } from '#core/ledger/reduce'
import { RECALL_DAYS, Sheet, sheetOf } from '#core/ledger/sheet'
import { inShop, type Db, type ShopTx } from './connect'
import { newId } from './ids'
import { jobByNumber } from './jobs'
import { append, entriesAfter, NoSuchJob } from './ledger'
import { keepRecords, takeRecordsBack } from './records'

/** The bike must stay; the words say what is missing. */
export class MustStay extends Error {}

export async function lastSheet(
  tx: ShopTx,
  shop: string,
  where: { job: string } | { bike: string },
): Promise<Sheet | null> {
  let query = tx.selectFrom('sheet').select('body').where('shop', '=', shop).orderBy('closed_at', 'desc')
  query = 'job' in where ? query.where('job', '=', where.job) : query.where('bike', '=', where.bike)
  const row = await query.executeTakeFirst()
  return row ? Sheet.parse(row.body) : null
}

/** Date of the settle-in recall, in the shop's own days. */
export const recallDate = (at: Date, zone: string): string =>
  formatISO(addDays(new TZDate(at, zone), RECALL_DAYS), { representation: 'date' })

/** The sheet as it would be frozen now. */
export async function draftSheet(
  state: JobState,
  known: Sheet | null,
  at: Date,
  by: string,
  how: 'proven' | 'unridable',
  zone: string,
): Promise<Sheet> {
  const prior = priorFor(state, known)
  // other tablets' taps are answered between the steps
  const consider = (log: typeof state.bench) =>
    state.setup ? considerInSteps(state.setup, log, { prior }, () => pause()) : null
  const considered = await consider(state.bench)
  const firstTurn = state.bench.findIndex(e => e.kind === 'turn' && e.screw === 'barrel')
  const first = firstTurn > 0 ? await consider(state.bench.slice(0, firstTurn)) : considered
  const { front } = state.noted
  const aboutFront =
    front.parts && state.parts && front.log.length
      ? await adviseFrontInSteps(frontSetupOf(front.parts, state.parts.cassette), front.log, () => pause())
      : null
  return sheetOf(
    state,
    first,
    considered,
    at.toISOString(),
    by,
    how,
    how === 'proven' ? recallDate(at, zone) : null,
    aboutFront,
  )
}

/** A job's sheet as it would be frozen now, or null when there is no such job. */
export async function sheetDraft(
  tx: ShopTx,
  shop: string,
  number: number,
  person: string,
  at = new Date(),
): Promise<Sheet | null> {
  const job = await jobByNumber(tx, shop, number)
  if (!job) return null
  const entries = (await entriesAfter(tx, shop, job.id, 0)).filter((e): e is Stored => e !== null)
  const { zone } = await tx.selectFrom('shop').select('zone').where('shop', '=', shop).executeTakeFirstOrThrow()
  const known = job.known_job ? await lastSheet(tx, shop, { job: job.known_job }) : null
  return draftSheet(reduce(entries), known, at, person, 'proven', zone)
}

export type HandBackOrder = { id: string; basedOn: number; how: 'proven' | 'unridable' }

/**
 * Hands a bike back: appends the entry, freezes the sheet, books the recall, frees the tag. All or nothing; asking
 * again with the same id answers with the sheet that was frozen.
 * @throws NoSuchJob, or MustStay when a brake is not proven
 */
export async function handBack(
  db: Db,
  shop: string,
  number: number,
  person: string,
  session: string | null,
  order: HandBackOrder,
  at = new Date(),
): Promise<Sheet> {
  return inShop(db, shop, async tx => {
    const job = await jobByNumber(tx, shop, number)
    if (!job) throw new NoSuchJob()
    const entries = (await entriesAfter(tx, shop, job.id, 0)).filter((e): e is Stored => e !== null)
    if (entries.some(e => e.id === order.id)) return (await lastSheet(tx, shop, { job: job.id }))!
    const state = reduce(entries)
    if (state.handedBack) throw new MustStay('This bike was handed back already: reopen the job to work on it')
    const stays = staysBecause(state)
    if (order.how === 'proven' && stays) throw new MustStay(`The bike stays: ${stays}`)
    const { zone } = await tx.selectFrom('shop').select('zone').where('shop', '=', shop).executeTakeFirstOrThrow()
    const known = job.known_job ? await lastSheet(tx, shop, { job: job.known_job }) : null
    const sheet = await draftSheet(state, known, at, person, order.how, zone)
    await append(tx, shop, number, session, [
      {
        id: EventId.parse(order.id),
        v: EVENT_VERSION,
        at: at.toISOString(),
        basedOn: order.basedOn,
        by: PersonId.parse(person),
        event: { kind: 'handedBack', how: order.how },
        verified: true,
        signedBy: null,
      },
    ])
    await tx
      .insertInto('sheet')
      .values({ shop, id: newId(), job: job.id, bike: job.bike_id, closed_at: at, body: JSON.stringify(sheet) })
      .execute()
    await keepRecords(tx, shop, { id: job.id, bike: job.bike_id, comesBack: job.known_job !== null }, state, at)
    if (sheet.recallOn)
      await tx.insertInto('recall').values({ shop, id: newId(), job: job.id, due_on: sheet.recallOn }).execute()
    await tx
      .updateTable('job')
      .set({ closed_at: at, place: 'door', stand: null })
      .where('shop', '=', shop)
      .where('number', '=', number)
      .execute()
    return sheet
  })
}

/** Opens a closed job again, when the bike comes back or a slip is found; its recall is called off. @throws NoSuchJob, MustStay */
export async function reopen(
  db: Db,
  shop: string,
  number: number,
  person: string,
  session: string | null,
  id: string,
  basedOn: number,
  at = new Date(),
): Promise<void> {
  return inShop(db, shop, async tx => {
    const job = await jobByNumber(tx, shop, number)
    if (!job) throw new NoSuchJob()
    if (!job.closed_at) return
    const clash = await tx
      .selectFrom('job')
      .select('number')
      .where('shop', '=', shop)
      .where('closed_at', 'is', null)
      .where('tag', '=', job.tag)
      .executeTakeFirst()
    if (clash) throw new MustStay(`Tag ${job.tag} now hangs on job ${clash.number}: finish that one first`)
    await append(tx, shop, number, session, [
      {
        id: EventId.parse(id),
        v: EVENT_VERSION,
        at: at.toISOString(),
        basedOn,
        by: PersonId.parse(person),
        event: { kind: 'reopened' },
        verified: true,
        signedBy: null,
      },
    ])
    await tx
      .updateTable('job')
      .set({ closed_at: null, place: 'rack', stand: null })
      .where('shop', '=', shop)
      .where('number', '=', number)
      .execute()
    await takeRecordsBack(tx, shop, job.id)
    await tx
      .deleteFrom('recall')
      .where('shop', '=', shop)
      .where('job', '=', job.id)
      .where('done_at', 'is', null)
      .execute()
  })
}
