import { sql } from 'kysely'
import { readStored, sprocketsNeeded, type Entry, type PersonId, type Stored } from '#core/ledger/events'
import type { Db, ShopTx } from './connect'

/** An entry with what only the server knows of it. */
export type Signed = Entry & { verified: boolean; signedBy: PersonId | null }
export type Outcome = {
  id: string
  outcome: 'stored' | 'held' | 'conflict' | 'outside'
  seq: number | null
  receivedAt: Date | null
}

/** No job of that number in this shop. */
export class NoSuchJob extends Error {}

/**
 * Appends entries at a job's end in one round trip; the answer is per entry: new, already held, known with other
 * content, or outside the bike's sprockets (then `seq` is how many it has).
 * @throws NoSuchJob
 */
export async function append(
  db: Db | ShopTx,
  shop: string,
  number: number,
  session: string | null,
  entries: readonly Signed[],
): Promise<Outcome[]> {
  const sent = entries.map(e => ({ ...e, needs: sprocketsNeeded(e.event) }))
  try {
    const { rows } = await sql<{
      id: string
      outcome: Outcome['outcome']
      seq: number | null
      received_at: Date | null
    }>`
      select * from append_events(${shop}, ${number}, ${session}, ${JSON.stringify(sent)}::jsonb)`.execute(db)
    return rows.map(r => ({ id: r.id, outcome: r.outcome, seq: r.seq, receivedAt: r.received_at }))
  } catch (error) {
    if ((error as { code?: string }).code === 'P0002') throw new NoSuchJob()
    throw error
  }
}

/** A job's entries after a place, in order. One written by a later version comes as null: "reload to update". */
export async function entriesAfter(tx: ShopTx, shop: string, job: string, after: number): Promise<(Stored | null)[]> {
  const rows = await tx
    .selectFrom('event')
    .selectAll()
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
