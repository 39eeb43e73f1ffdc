import { priorFor } from '#core/ledger/belief'
import { reduce } from '#core/ledger/reduce'
import { adviceBySchools } from '#core/advice/schools'
import { schoolsOf } from '#core/procedure/schools'
import { TABLE_ONLY } from '#core/standards/inForce'
import type { Learnt } from '#core/advice/learnt'
import { moveKey } from '#core/advice/moveKey'
import { EventId, PersonId } from '#core/chapter/ids'
import { addDays, addSeconds, set } from 'date-fns'
import { TZDate } from '@date-fns/tz'
import { advise } from '#core/advice/advise'
import { passClicks, simulatedBench, type SimulatedBench } from '#core/bench/bench'
import { EVENT_VERSION, type LedgerEvent } from '#core/ledger/events'
import type { Hand } from '#core/ledger/gates'
import { arrivalsOf } from '#core/rear/arrivals'
import type { RearOf } from '#core/rear/events'
import { ledgerEventOf } from '#core/rear/fromBench'
import { startOf, step } from '#core/rear/trace'
import type { Move } from '#core/advice/contract'
import { setupOf } from '#core/rear/parts'
import { hashSecret } from '../server/auth/secrets'
import { addStock } from '../server/db/cables'
import { inShop, type Db } from '../server/db/connect'
import { learntHere } from '../server/db/habits'
import { newId } from '../server/db/ids'
import { addNote, jobByNumber, takeIn } from '../server/db/jobs'
import { append, appendJudged, type Signed } from '../server/db/ledger'
import { addPerson, createShop } from '../server/db/people'
import { handBack } from '../server/db/sheets'
import { claim } from '../server/db/standards'
import { stockParts } from '#core/rear/typedParts'
import { hiddenBike } from './bikes'
import type { RearParts } from '#core/rear/parts'
import { DEMO_JOBS, type DemoJob } from './jobs'
import { MEASURED_TURN_MM, pastVisits } from './history'
import { DEMO_PEOPLE, DEMO_SHOP } from './people'
import { DEMO_STOCK, DEMO_VALUES } from './values'

/** How long each step takes at the bench, for plausible times, seconds. */
const STEP_S = 25

type DemoOptions = {
  shop?: { code: string; name: string; zone: string }
  now?: Date
  jobs?: readonly DemoJob[]
  /** Marked as the demo's shop, where stand-ins play. */
  demo?: boolean
  /** With two years of visits behind it. */
  past?: boolean
  say?: (line: string) => void
}

/** The advice is asked as the bench does by the usual schools. */
const AS_ASKED_HERE = adviceBySchools(schoolsOf(TABLE_ONLY))

/** The demo's secrets are published: one hash of each serves every shop that is built of them, as tests build many. */
const hashes = new Map<string, Promise<string>>()
function hashed(secret: string): Promise<string> {
  const known = hashes.get(secret) ?? hashSecret(secret)
  hashes.set(secret, known)
  return known
}

/**
 * Builds a shop as its people would have: through the services the application uses, with what a simulated bench
 * lets them see and hear. @returns the shop's id
 */
export async function buildDemo(db: Db, options: DemoOptions = {}): Promise<string> {
  const { shop: house = DEMO_SHOP, now = new Date(), jobs = DEMO_JOBS, demo = true, say = () => undefined } = options
  const { past = demo } = options
  const shop = newId()
  const [first, ...others] = await Promise.all(
    DEMO_PEOPLE.map(async p => ({
      name: p.name,
      role: p.role,
      passwordHash: p.password ? await hashed(p.password) : null,
      pinHash: await hashed(p.pin),
    })),
  )
  const ids = new Map<string, string>([[first.name, await createShop(db, { id: shop, ...house, demo }, first)]])
  await inShop(db, shop, async tx => {
    for (const p of others) ids.set(p.name, await addPerson(tx, shop, p))
  })
  if (past) {
    await claimValues(db, shop, ids)
    await inShop(db, shop, async tx => {
      for (const item of DEMO_STOCK) await addStock(tx, shop, ids.get('Moss')!, item)
    })
    await buildPast(db, shop, ids, now, say)
  }
  for (const job of jobs) await buildJob(db, shop, house.zone, ids.get(job.by)!, job, now)
  return shop
}

/** What the shop measured of the catalogue, and how it calls things. */
async function claimValues(db: Db, shop: string, people: Map<string, string>): Promise<void> {
  await inShop(db, shop, async tx => {
    for (const { by, ...c } of DEMO_VALUES) await claim(tx, shop, people.get(by)!, [c])
  })
}

/** Two years of visits, each handed back through the same service; the same bike is known again. */
async function buildPast(
  db: Db,
  shop: string,
  people: Map<string, string>,
  now: Date,
  say: (line: string) => void,
): Promise<void> {
  const known = new Map<string, { bike: string; customer: string }>()
  let tag = 0
  const visits = pastVisits()
  for (const [i, visit] of visits.entries()) {
    if (i > 0 && i % 12 === 0) say(`${i} of ${visits.length} past visits`)
    const person = people.get(visit.by)!
    const at = addDays(now, -visit.daysAgo)
    const before = known.get(visit.frameNumber)
    const stock = stockParts(visit.standard)
    const threadMm = MEASURED_TURN_MM[visit.standard]
    const parts: RearParts = threadMm ? { ...stock, barrel: { ...stock.barrel, threadMm, known: 'measured' } } : stock
    const number = await takeIn(
      db,
      shop,
      person,
      null,
      {
        customer: before ? { id: before.customer } : { name: visit.customer, contact: visit.contact },
        bike: before
          ? { id: before.bike }
          : { name: visit.bike, frameNumber: visit.frameNumber, frameKind: visit.frame },
        tag: `P${(tag++ % 40) + 1}`,
        promisedAt: addDays(at, 1).toISOString(),
        complaint: visit.complaint,
        parts,
        sameParts: visit.comesBack,
      },
      addSeconds(at, -3600),
    )
    const proofs = (['front', 'rear'] as const).map(brake => ({ kind: 'proof', brake, holds: true }) as const)
    const entries = [...visit.events, ...proofs].map((event, i) =>
      entryOf(event, person, addSeconds(at, (i - visit.events.length - 3) * STEP_S), i + 1),
    )
    await append(db, shop, number, null, entries)
    await leave(db, shop, number, person, at)
    await collected(db, shop, number, person, addSeconds(at, 3600))
    await inShop(db, shop, async tx => {
      await tx
        .updateTable('recall')
        .set({ done_at: addDays(at, 14), state: 'came' })
        .where('shop', '=', shop)
        .where('due_on', '<', now.toISOString().slice(0, 10))
        .where('done_at', 'is', null)
        .execute()
      const job = await jobByNumber(tx, shop, number)
      const { customer } = await tx
        .selectFrom('bike')
        .select('customer')
        .where('shop', '=', shop)
        .where('id', '=', job!.bike_id)
        .executeTakeFirstOrThrow()
      known.set(visit.frameNumber, { bike: job!.bike_id, customer })
    })
  }
}

async function buildJob(db: Db, shop: string, zone: string, person: string, job: DemoJob, now: Date): Promise<void> {
  const stock = job.standard === null ? null : stockParts(job.standard)
  const parts =
    job.barrelOut === undefined || !stock
      ? stock
      : {
          ...stock,
          barrel: {
            ...stock.barrel,
            turnsOut: job.barrelOut,
            rangeTurns: Math.max(job.barrelOut, stock.barrel.rangeTurns),
            assumed: false,
          },
        }
  const promisedAt = new Date(
    set(addDays(new TZDate(now, zone), job.promisedInDays), {
      hours: job.promisedHour,
      minutes: 0,
      seconds: 0,
      milliseconds: 0,
    }),
  )
  const closedDaysAgo = 'closedDaysAgo' in job.state ? job.state.closedDaysAgo : null
  // work ends a little before now, or on the day it was closed; never in the future
  const end = closedDaysAgo === null ? addSeconds(now, -240) : addDays(addSeconds(now, -3000), -closedDaysAgo)
  const came = job.cameDaysAgo === 0 ? addSeconds(now, -5400) : addDays(addSeconds(now, -7000), -job.cameDaysAgo)
  const number = await takeIn(
    db,
    shop,
    person,
    null,
    {
      customer: { name: job.customer, contact: job.contact },
      bike: { name: job.bike, frameNumber: job.frameNumber },
      tag: job.tag,
      promisedAt: promisedAt.toISOString(),
      complaint: job.complaint,
      parts,
      sameParts: false,
    },
    came,
  )
  if (job.note) {
    const text = job.note
    await inShop(db, shop, async tx =>
      addNote(tx, shop, (await jobByNumber(tx, shop, number))!.id, person, text, newId(), addSeconds(came, 60)),
    )
  }
  const events = [
    ...(job.before ?? []),
    ...(parts && job.state.at !== 'rail' ? play(job, parts, await learntOf(db, shop, number)) : []),
    ...(job.after ?? []),
  ]
  if (job.state.at === 'rail' && !events.length) return
  const begun = addSeconds(end, -(events.length + 4) * STEP_S)
  const placed = job.state.at === 'stand' ? 1 : 0
  const entries = events.map((event, i) => entryOf(event, person, addSeconds(begun, i * STEP_S), i + 1 + placed))
  if (job.state.at === 'rail') return void (await append(db, shop, number, null, entries))
  if (job.state.at === 'stand') {
    const onStand = entryOf({ kind: 'placed', where: 'stand', stand: job.state.stand }, person, begun, 1)
    return judged(db, shop, number, person, [onStand, ...entries])
  }
  const brakes = (['front', 'rear'] as const).map(brake =>
    entryOf({ kind: 'proof', brake, holds: true }, person, addSeconds(end, -STEP_S), 1),
  )
  await append(db, shop, number, null, [...entries, ...brakes])
  await leave(db, shop, number, person, end)
  if (job.state.at === 'gone') await collected(db, shop, number, person, addSeconds(end, 1800))
}

/** The demo's people are at their gates as in the application; here nobody has to type a PIN. */
const handOf = (person: string) => async (): Promise<Hand> => ({
  person: PersonId.parse(person),
  role: 'mechanic',
  fresh: true,
})

const leave = (db: Db, shop: string, number: number, person: string, at: Date) =>
  handBack(db, shop, number, person, null, { id: newId(), basedOn: 1, how: 'proven', fault: null }, handOf(person), at)

/** Entries as the application takes them: each judged on the log. @throws Error naming one that was refused */
async function judged(db: Db, shop: string, number: number, person: string, entries: readonly Signed[]): Promise<void> {
  for (const told of await appendJudged(db, shop, number, null, entries, handOf(person)))
    if (told.outcome !== 'stored')
      throw new Error(`job ${number}: ${told.outcome === 'refused' ? told.refusal.message : told.outcome}`)
}

const collected = (db: Db, shop: string, number: number, person: string, at: Date) =>
  judged(db, shop, number, person, [entryOf({ kind: 'placed', where: 'gone', stand: null }, person, at, 1)])

/** What the shop's closed jobs say of a bike that came, as the bench asks for it. */
const learntOf = (db: Db, shop: string, number: number): Promise<Learnt> =>
  inShop(db, shop, async tx => {
    const job = (await jobByNumber(tx, shop, number))!
    return learntHere(tx, shop, { bike: job.bike_id, known: null })
  })

/** What the mechanic did and heard, following the advice on a simulated bike, until the move the story stops at. */
function play(job: DemoJob, parts: RearParts, learnt: Learnt): LedgerEvent[] {
  const setup = setupOf(parts)
  const bench = simulatedBench(setup, hiddenBike(parts, job.trouble), job.seed)
  const until = job.state.at === 'stand' ? job.state.until : 'done'
  // what was said and sensed before counts here as it does at the stand
  const told = [{ kind: 'arrived', parts } as const, ...(job.before ?? [])]
  const someone = newId()
  const prior = priorFor(reduce(told.map((event, i) => entryOf(event, someone, new Date(0), i + 1))), null, learnt)
  const out: LedgerEvent[] = []
  while (out.length < 60) {
    const advice = advise(setup, [...bench.log], { ...AS_ASKED_HERE, prior })
    const barrel = advice.move.do === 'turn' && advice.move.screw === 'barrel'
    if (advice.move.do === 'done' || (advice.move.do === until && (until !== 'turn' || (barrel && out.length > 4))))
      break
    const advised = {
      move: moveKey(advice.move),
      right: round(advice.right),
      after: null,
      cause: null,
      taken: true,
    }
    if (advice.move.do === 'pass') {
      out.push({ ...wentOf(bench, advice.move), advised })
      continue
    }
    const made = bench.perform(advice.move)
    if (!made || made.kind === 'unclean') break
    out.push(ledgerEventOf(made, advised))
  }
  return out
}

/** A pass on a simulated bike, as it is written down. */
function wentOf(bench: SimulatedBench, { to, back }: Extract<Move, { do: 'pass' }>): RearOf<'went'> {
  const from = bench.log.reduce((trace, e) => step(trace, e, bench.setup), startOf(bench.setup)).lever
  const heard = passClicks(bench, { do: 'pass', to, back })
  const last = heard.at(-1)!
  const { way, to: sprocket } = arrivalsOf(from, to, back)[heard.length - 1]!
  const stop = last.kind === 'shift' && last.heard !== 'clean' ? { sprocket, way, heard: last.heard } : null
  return { kind: 'went', from, to, back, stop }
}

const round = (x: number): number => Math.round(Math.min(1, Math.max(0, x)) * 1000) / 1000

const entryOf = (event: LedgerEvent, person: string, at: Date, basedOn: number): Signed => ({
  id: EventId.parse(newId()),
  v: EVENT_VERSION,
  at: at.toISOString(),
  basedOn,
  by: PersonId.parse(person),
  event,
  verified: true,
  signedBy: null,
})
