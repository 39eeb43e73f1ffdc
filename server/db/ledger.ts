import type { PersonId } from '#core/chapter/ids'
import { sql } from 'kysely'
import type { Refusal } from '#core/chapter/chapter'
import { readStored, type Entry, type Stored } from '#core/ledger/events'
import { callCustomer, mayAppend, mustReopen, type Hand } from '#core/ledger/gates'
import { reduce, type JobState } from '#core/ledger/reduce'
import { sprocketsNeeded } from '#core/ledger/say'
import { sharedGears } from '#core/rear/parts'
import { inShop, type Db, type ShopTx } from './connect'

/** An entry with what only the server knows of it. */
export type Signed = Entry & { verified: boolean; signedBy: PersonId | null }
/**
 * What became of an entry: new, already held, known with other content, outside the bike's sprockets (then `seq` is how
 * many it has), of a closed job and so to be judged first, or refused on the log as it stands.
 */
export type Outcome = {
  id: string
  outcome: 'stored' | 'held' | 'conflict' | 'outside' | 'closed'
  seq: number | null
  receivedAt: Date | null
}
export type Judged = Outcome | { id: string; outcome: 'refused'; refusal: Refusal }

/** No job of that number in this shop. */
export class NoSuchJob extends Error {}
/** The job is closed: what belongs to it is added or taken off once it is open again. */
export class JobClosed extends Error {
  readonly field: string
  constructor({ field, message }: Refusal) {
    super(message)
    this.field = field
  }
}

/**
 * Appends entries at a job's end in one round trip; the answer is per entry.
 * @param judged whether the log was read for them under this job's lock; else nothing is kept on a closed job
 * @throws NoSuchJob
 */
export async function append(
  db: Db | ShopTx,
  shop: string,
  number: number,
  session: string | null,
  entries: readonly Signed[],
  judged = false,
): Promise<Outcome[]> {
  const sent = entries.map(e => ({ ...e, needs: sprocketsNeeded(e.event) }))
  try {
    const { rows } = await sql<{
      id: string
      outcome: Outcome['outcome']
      seq: number | null
      received_at: Date | null
    }>`
      select * from append_events(${shop}, ${number}, ${session}, ${JSON.stringify(sent)}::jsonb, ${judged})`.execute(
      db,
    )
    return rows.map(r => ({ id: r.id, outcome: r.outcome, seq: r.seq, receivedAt: r.received_at }))
  } catch (error) {
    if ((error as { code?: string }).code === 'P0002') throw new NoSuchJob()
    throw error
  }
}

/** Holds a job against everyone else until the transaction ends, as every append does. @throws NoSuchJob */
export async function lockJob(tx: ShopTx, shop: string, number: number): Promise<{ id: string; closed: boolean }> {
  const found = await tx
    .selectFrom('job')
    .select('id')
    .where('shop', '=', shop)
    .where('number', '=', number)
    .executeTakeFirst()
  if (!found) throw new NoSuchJob()
  await sql`select pg_advisory_xact_lock(hashtextextended(${found.id}, 0))`.execute(tx)
  // read again: who held it before may have closed it
  const now = await tx
    .selectFrom('job')
    .select('closed_at')
    .where('shop', '=', shop)
    .where('id', '=', found.id)
    .executeTakeFirstOrThrow()
  return { id: found.id, closed: now.closed_at !== null }
}

/**
 * The same for what is added to a job or taken off it: only while it is open. @returns its id @throws NoSuchJob,
 * JobClosed
 */
export async function lockOpenJob(tx: ShopTx, shop: string, number: number): Promise<string> {
  const { id, closed } = await lockJob(tx, shop, number)
  const refusal = mustReopen(closed)
  if (refusal) throw new JobClosed(refusal)
  return id
}

/**
 * Judges entries one by one on the log as it stands under the job's lock, appends those that may be, and lets the job's
 * row follow: where the bike is, how many sprockets it has, whether its customer must be called. All or nothing.
 * @param handFor whose hand it is, read inside the same transaction
 * @throws NoSuchJob
 */
export function appendJudged(
  db: Db,
  shop: string,
  number: number,
  session: string | null,
  entries: readonly Signed[],
  handFor: (tx: ShopTx) => Promise<Hand>,
): Promise<Judged[]> {
  return inShop(db, shop, async tx => {
    const job = await lockJob(tx, shop, number)
    const hand = await handFor(tx)
    const before = await entriesAfter(tx, shop, job.id, 0)
    const log: (Signed | Stored | null)[] = [...before]
    const held = new Set(log.map(e => e?.id))
    const refused = new Map<string, Refusal>()
    let state: JobState | null = null
    for (const entry of entries) {
      if (held.has(entry.id)) continue // told before: its first answer stands
      state ??= reduce(log)
      const refusal = mayAppend(log, state, entry, hand)
      if (refusal) {
        refused.set(entry.id, refusal)
        continue
      }
      log.push(entry)
      held.add(entry.id)
      state = null
    }
    const taken = entries.filter(e => !refused.has(e.id))
    const outcomes = taken.length ? await append(tx, shop, number, session, taken, true) : []
    const by = new Map(outcomes.map(o => [o.id, o]))
    // nobody else can have added to it under this lock: it need not be read again
    const added = taken.flatMap(e => {
      const kept = by.get(e.id)
      return kept?.outcome === 'stored' && kept.seq !== null ? [{ ...e, seq: kept.seq }] : []
    })
    if (added.length) await followLog(tx, shop, job.id, reduce([...before, ...added]))
    return entries.map(e => by.get(e.id) ?? { id: e.id, outcome: 'refused' as const, refusal: refused.get(e.id)! })
  })
}

/** Lets a job's row say what its log says, for lists that never read logs. */
async function followLog(tx: ShopTx, shop: string, job: string, state: JobState): Promise<void> {
  const { where, stand } = state.job.place
  const { parts } = state.rear
  await tx
    .updateTable('job')
    .set({
      place: where,
      stand,
      call: callCustomer(state),
      waits: state.job.waits,
      ...(parts ? { sprockets: sharedGears(parts), drivetrain: parts.shifter.standard } : {}),
    })
    .where('shop', '=', shop)
    .where('id', '=', job)
    .execute()
}

/** A job's entries after a place, in order. One written by a later version comes as null: "reload to update". */
export async function entriesAfter(tx: ShopTx, shop: string, job: string, after: number): Promise<(Stored | null)[]> {
  const rows = await tx
    .selectFrom('event')
    // named: the hash of each is made into bytes for nobody
    .select(['id', 'v', 'at', 'based_on', 'person', 'body', 'seq', 'received_at', 'verified', 'signed_by'])
    .where('shop', '=', shop)
    .where('job', '=', job)
    .where('seq', '>', after)
    .orderBy('seq')
    .execute()
  return rows.map(r =>
    readStored({
      id: r.id,
      v: r.v,
      at: r.at.toISOString(),
      basedOn: r.based_on,
      by: r.person,
      event: r.body,
      seq: r.seq,
      receivedAt: r.received_at.toISOString(),
      verified: r.verified,
      signedBy: r.signed_by,
    }),
  )
}
