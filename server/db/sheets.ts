import { addDays, formatISO } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import { setImmediate as pause } from 'node:timers/promises'
import { considerInSteps } from '#core/advice/advise'
import { asSensed } from '#core/advice/asSensed'
import type { Learnt, Senses } from '#core/advice/learnt'
import type { Refusal } from '#core/chapter/chapter'
import { EventId, PersonId } from '#core/chapter/ids'
import { adviseFrontInSteps } from '#core/front/advise'
import { frontSetupOf } from '#core/front/setup'
import { sensedBy, type Sensed } from '#core/habits/senses'
import type { HandBack } from '#core/http/job'
import { EVENT_VERSION, type LedgerEvent } from '#core/ledger/events'
import { UNPROVEN } from '#core/job/events'
import { kindOfJob, minutesOf } from '#core/job/minutes'
import { workedOn } from '#core/ledger/parts'
import { mayHandBack, mayLeave, type Hand } from '#core/ledger/gates'
import { priorFor } from '#core/ledger/belief'
import { reduce, type JobState } from '#core/ledger/reduce'
import { Sheet, sheetOf, type Believed, type Leaving } from '#core/ledger/sheet'
import { recallDays } from '#core/rear/newRun'
import { setupToIndex } from '#core/rear/toIndex'
import { ownFigures, standardsWith, type Standards } from '#core/standards/inForce'
import { inShop, type Db, type ShopTx } from './connect'
import { keepHabit, learntHere, takeHabitBack } from './habits'
import { newId } from './ids'
import { jobByNumber } from './jobs'
import { append, entriesAfter, lockJob, NoSuchJob, type Outcome, type Signed } from './ledger'
import { callOff, cameBack, neverCame } from './recalls'
import { keepRecords, takeRecordsBack } from './records'
import { keepSenses, sensesOf, takeSensesBack } from './senses'
import { bookRecall, keepSettled, settledOf, takeSettledBack } from './settling'
import { shopValues } from './standards'

/** The bike must stay, or the job as it is; the words say why and what to do. */
export class MustStay extends Error {
  constructor(
    message: string,
    readonly field = 'how',
  ) {
    super(message)
  }
}
const stayUnless = (refusal: Refusal | null): void => {
  if (refusal) throw new MustStay(refusal.message, refusal.field)
}

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
const recallDate = (at: Date, zone: string, days: number): string =>
  formatISO(addDays(new TZDate(at, zone), days), { representation: 'date' })

/** A job as its sheet is worked out from: read at one moment. */
type Snapshot = {
  job: NonNullable<Awaited<ReturnType<typeof jobByNumber>>>
  state: JobState
  entries: number
  known: Sheet | null
  zone: string
  standards: Standards
  /** What the advice starts from here, and how who asks hears and sees. */
  learnt: Learnt
  hands: { person: string; senses: Senses | null }
}

async function snapshot(tx: ShopTx, shop: string, number: number, person: string): Promise<Snapshot | null> {
  const job = await jobByNumber(tx, shop, number)
  if (!job) return null
  const log = await entriesAfter(tx, shop, job.id, 0)
  const { zone } = await tx.selectFrom('shop').select('zone').where('shop', '=', shop).executeTakeFirstOrThrow()
  return {
    job,
    state: reduce(log),
    entries: log.length,
    known: job.known_job ? await lastSheet(tx, shop, { job: job.known_job }) : null,
    zone,
    standards: standardsWith(ownFigures(await shopValues(tx, shop)), await settledOf(tx, shop)),
    learnt: await learntHere(tx, shop, { bike: job.bike_id, known: job.known_job }),
    hands: { person, senses: await sensesOf(tx, shop, person) },
  }
}

/**
 * What the beliefs say of a job. Worked out in steps, so that other tablets' taps are answered between them; never
 * inside a transaction.
 */
async function believe({ state, known, standards: s, learnt, hands }: Snapshot): Promise<Believed> {
  const prior = priorFor(state, known, learnt)
  const { parts, benchBy } = state.rear
  const setup = setupToIndex(state.rear)
  const bench = asSensed(state.rear.bench, benchBy, hands.person, hands.senses)
  const consider = (log: typeof bench) => (setup ? considerInSteps(setup, log, { prior }, () => pause()) : null)
  const rear = await consider(bench)
  const firstTurn = bench.findIndex(e => e.kind === 'turn' && e.screw === 'barrel')
  const first = firstTurn > 0 ? await consider(bench.slice(0, firstTurn)) : rear
  const { front } = state
  const judged = front.parts && parts && front.log.length
  return {
    first,
    rear,
    front: judged
      ? await adviseFrontInSteps(frontSetupOf(front.parts!, parts.cassette, s), front.log, () => pause())
      : null,
  }
}

/**
 * What a job says of each person who reported on it, taken by usual ears and eyes, whoever hands it back: so that a
 * person's figure does not feed on itself. Cancelled jobs and bikes without a belief say nothing.
 */
async function sensedOn({ state, known, learnt }: Snapshot): Promise<Map<string, Sensed>> {
  const { bench, benchBy } = state.rear
  const setup = setupToIndex(state.rear)
  if (!setup || !bench.length) return new Map()
  const { posterior } = await considerInSteps(setup, bench, { prior: priorFor(state, known, learnt) }, () => pause())
  return sensedBy(posterior, benchBy)
}

async function draft(from: Snapshot, leaving: Omit<Leaving, 'recallOn'>, at: Date): Promise<Sheet> {
  const believed = await believe(from)
  const { rear, cable } = from.state
  const days = recallDays(rear, cable, believed.rear?.advice.windowTurns ?? null, from.standards)
  const recallOn = UNPROVEN.has(leaving.how) ? null : recallDate(at, from.zone, days)
  return sheetOf(from.state, believed, { ...leaving, recallOn }, from.standards)
}

/** A job's sheet as it would be frozen now, or null when there is no such job. */
export async function sheetDraft(
  db: Db,
  shop: string,
  number: number,
  person: string,
  at = new Date(),
): Promise<Sheet | null> {
  const from = await inShop(db, shop, tx => snapshot(tx, shop, number, person))
  return from && draft(from, { at: at.toISOString(), by: person, how: 'proven', fault: null }, at)
}

/** The log grew again and again while the sheet was worked out: so often it is tried anew. */
const TRIES = 8

/**
 * Hands a bike back: appends the entry, freezes the sheet, books the recall, frees the tag. All or nothing, and once:
 * asked several times or by several tablets, all get the one sheet. The sheet is worked out beside the lock; under it
 * the gate is asked on the log as it then stands, and a log that grew meanwhile is worked out anew.
 * @param handFor whose hand it is, read inside the same transaction
 * @throws NoSuchJob, or MustStay when it may not leave so
 */
export async function handBack(
  db: Db,
  shop: string,
  number: number,
  person: string,
  session: string | null,
  order: HandBack,
  handFor: (tx: ShopTx) => Promise<Hand>,
  at = new Date(),
): Promise<Sheet> {
  for (let tries = 0; tries < TRIES; tries++) {
    const from = await inShop(db, shop, tx => snapshot(tx, shop, number, person))
    if (!from) throw new NoSuchJob()
    const leaving = { at: at.toISOString(), by: person, how: order.how, fault: order.fault }
    const open = !from.state.job.handedBack && mayLeave(from.state, order.how, order.fault) === null
    const sheet = open ? await draft(from, leaving, at) : null
    const sensed = open ? await sensedOn(from) : new Map<string, Sensed>()
    const done = await inShop(db, shop, async tx => {
      const job = await lockJob(tx, shop, number)
      const log = await entriesAfter(tx, shop, job.id, 0)
      const state = reduce(log)
      const was = await alreadyBack(tx, shop, job.id, state, order)
      if (was) return was
      const hand = await handFor(tx)
      stayUnless(mayHandBack(hand.role, order.how))
      if (order.how !== 'proven' && !hand.fresh)
        throw new MustStay('It is a while since you tapped here: choose your name and type your PIN first', 'sign')
      stayUnless(mayLeave(state, order.how, order.fault))
      if (!sheet || log.length !== from.entries) return null
      await freeze(tx, shop, number, session, from, state, sheet, order, person, at)
      await keepSenses(tx, shop, job.id, sensed, at)
      return sheet
    })
    if (done) return done
  }
  throw new MustStay('Other tablets are still tapping on this bike: hand it back when they have finished')
}

/**
 * The sheet that was frozen when the bike had left already, by this request or another like it; null while it is here.
 */
async function alreadyBack(
  tx: ShopTx,
  shop: string,
  job: string,
  state: JobState,
  order: HandBack,
): Promise<Sheet | null> {
  const { handedBack } = state.job
  if (handedBack) {
    if (handedBack.how === order.how && handedBack.fault === order.fault) return lastSheet(tx, shop, { job })
    throw new MustStay('This bike was handed back already, in another way: reopen the job to change it')
  }
  if (state.inForce.some(t => t.id === order.id))
    throw new MustStay('This job was reopened since: look at it again, then hand it back')
  return null
}

async function freeze(
  tx: ShopTx,
  shop: string,
  number: number,
  session: string | null,
  { job, learnt }: Snapshot,
  state: JobState,
  sheet: Sheet,
  order: HandBack,
  person: string,
  at: Date,
): Promise<void> {
  const event: LedgerEvent = { kind: 'handedBack', how: order.how, ...(order.fault ? { fault: order.fault } : {}) }
  const [stored] = await append(tx, shop, number, session, [ownEntry(order, person, at, event)], true)
  stayUnless(usedBefore(stored))
  await tx
    .insertInto('sheet')
    .values({
      shop,
      id: newId(),
      job: job.id,
      bike: job.bike_id,
      closed_at: at,
      entry: order.id,
      body: JSON.stringify(sheet),
      minutes: order.how === 'cancelled' ? null : minutesOf(state.inForce),
      work: [kindOfJob(job.complaint), ...workedOn(state)],
    })
    .execute()
  const handedBack = { how: order.how, fault: order.fault, by: PersonId.parse(person), at: at.toISOString() }
  const left = { ...state, job: { ...state.job, handedBack } }
  await keepRecords(tx, shop, { id: job.id, bike: job.bike_id, comesBack: job.known_job !== null }, left, sheet, at)
  await keepSettled(tx, shop, { id: job.id, known: job.known_job }, left, at)
  await keepHabit(tx, shop, { id: job.id, bike: job.bike_id, known: job.known_job }, left, sheet, learnt, at)
  if (sheet.recallOn) await bookRecall(tx, shop, job.id, sheet)
  if (order.how === 'cancelled') await neverCame(tx, shop, { bike: job.bike_id, takenIn: job.created_at })
  await tx
    .updateTable('job')
    .set({ closed_at: at, place: order.how === 'cancelled' ? 'gone' : 'door', stand: null, waits: null })
    .where('shop', '=', shop)
    .where('number', '=', number)
    .execute()
}

/** The id of a request is the id of its entry: one that stands elsewhere already is another's. */
const usedBefore = ({ outcome }: Outcome): Refusal | null =>
  outcome === 'stored' ? null : { field: 'id', message: 'That request was used before: ask once more' }

const ownEntry = (order: { id: string; basedOn: number }, person: string, at: Date, event: LedgerEvent): Signed => ({
  id: EventId.parse(order.id),
  v: EVENT_VERSION,
  at: at.toISOString(),
  basedOn: order.basedOn,
  by: PersonId.parse(person),
  event,
  verified: true,
  signedBy: null,
})

/**
 * Opens a closed job again, when the bike comes back or a slip is found; its recall is called off. It proves nothing.
 * @throws NoSuchJob, MustStay
 */
export async function reopen(
  db: Db,
  shop: string,
  number: number,
  person: string,
  session: string | null,
  order: { id: string; basedOn: number },
  at = new Date(),
): Promise<void> {
  return inShop(db, shop, async tx => {
    const { closed } = await lockJob(tx, shop, number)
    if (!closed) return
    const job = (await jobByNumber(tx, shop, number))!
    const clash = await tx
      .selectFrom('job')
      .select('number')
      .where('shop', '=', shop)
      .where('closed_at', 'is', null)
      .where('tag', '=', job.tag)
      .executeTakeFirst()
    if (clash) throw new MustStay(`Tag ${job.tag} now hangs on job ${clash.number}: finish that one first`)
    const [stored] = await append(tx, shop, number, session, [ownEntry(order, person, at, { kind: 'reopened' })], true)
    stayUnless(usedBefore(stored))
    await tx
      .updateTable('job')
      .set({ closed_at: null, place: 'rack', stand: null, call: null })
      .where('shop', '=', shop)
      .where('number', '=', number)
      .execute()
    await takeRecordsBack(tx, shop, job.id)
    await takeSettledBack(tx, shop, job.id)
    await takeHabitBack(tx, shop, job.id)
    await takeSensesBack(tx, shop, job.id)
    await callOff(tx, shop, job.id)
    await tx
      .deleteFrom('recall')
      .where('shop', '=', shop)
      .where('job', '=', job.id)
      .where('done_at', 'is', null)
      .execute()
    // nor is it asked back after another visit: it is here
    await cameBack(tx, shop, job.bike_id, at)
  })
}
