import { sql } from 'kysely'
import type { ShopTx } from './connect'

/** A name alone suffices this long after a person's last tap on a device. */
export const FRESH_MINUTES = 15

export async function openSession(
  tx: ShopTx,
  s: { shop: string; id: string; tokenHash: string; device: string; person: string | null; openedBy?: string },
): Promise<void> {
  await tx
    .insertInto('session')
    .values({
      shop: s.shop,
      id: s.id,
      token_hash: s.tokenHash,
      device: s.device,
      person: s.person,
      opened_by: s.openedBy ?? s.person,
      // by the password just now
      ...(s.person === null ? {} : { confirmed_at: new Date() }),
    })
    .execute()
  if (s.person !== null) await markTap(tx, s.shop, s.id, s.person)
}

/** That a device was used is written down at most this often. */
const SEEN_EVERY_MS = 3_600_000
/** A device that nobody used for so long is signed out, and any after so long. */
const IDLE_DAYS = 30
const MOST_DAYS = 180

/** Signs out every device that a person's password opened, but for the one that asks. */
export async function endSessionsOf(tx: ShopTx, shop: string, person: string, but: string | null): Promise<void> {
  await tx
    .updateTable('session')
    .set({ revoked_at: new Date() })
    .where('shop', '=', shop)
    .where('opened_by', '=', person)
    .where('revoked_at', 'is', null)
    .$if(but !== null, q => q.where('id', '<>', but!))
    .execute()
}

/** A session in force, with who works and who was unlocked on it. */
export async function sessionByToken(tx: ShopTx, shop: string, tokenHash: string) {
  const session = await tx
    .selectFrom('session')
    .selectAll()
    .where('shop', '=', shop)
    .where('token_hash', '=', tokenHash)
    .where('revoked_at', 'is', null)
    .where('last_seen_at', '>', sql<Date>`now() - make_interval(days => ${IDLE_DAYS})`)
    .where('created_at', '>', sql<Date>`now() - make_interval(days => ${MOST_DAYS})`)
    .executeTakeFirst()
  if (!session) return null
  if (Date.now() - session.last_seen_at.getTime() > SEEN_EVERY_MS)
    await tx
      .updateTable('session')
      .set({ last_seen_at: new Date() })
      .where('shop', '=', shop)
      .where('id', '=', session.id)
      .execute()
  const unlocked = await tx
    .selectFrom('unlock')
    .select(['person', 'last_tap_at'])
    .where('shop', '=', shop)
    .where('session', '=', session.id)
    .execute()
  const { code } = await tx.selectFrom('shop').select('code').where('shop', '=', shop).executeTakeFirstOrThrow()
  return { session, unlocked, code }
}

/** Was there such a session, and was it signed out? One that only ended by itself was not. */
export async function wasRevoked(tx: ShopTx, shop: string, tokenHash: string): Promise<boolean> {
  const row = await tx
    .selectFrom('session')
    .select('id')
    .where('shop', '=', shop)
    .where('token_hash', '=', tokenHash)
    .where('revoked_at', 'is not', null)
    .executeTakeFirst()
  return row !== undefined
}

/** Who works on a session at this moment, and when a person last tapped there; null when it was signed out. */
export async function sessionNow(
  tx: ShopTx,
  shop: string,
  session: string,
  person: string,
): Promise<{ person: string | null; lastTap: Date | null } | null> {
  const row = await tx
    .selectFrom('session')
    .leftJoin('unlock', j =>
      j
        .onRef('unlock.shop', '=', 'session.shop')
        .onRef('unlock.session', '=', 'session.id')
        .on('unlock.person', '=', person),
    )
    .select(['session.person', 'unlock.last_tap_at'])
    .where('session.shop', '=', shop)
    .where('session.id', '=', session)
    .where('session.revoked_at', 'is', null)
    .executeTakeFirst()
  return row ? { person: row.person, lastTap: row.last_tap_at } : null
}

export async function setPerson(tx: ShopTx, shop: string, session: string, person: string | null): Promise<void> {
  await tx
    .updateTable('session')
    .set({
      person,
      last_seen_at: new Date(),
      // whoever works now has not typed a password here, unless it is who did
      confirmed_at: sql`case when person = ${person}::uuid then confirmed_at end`,
    })
    .where('shop', '=', shop)
    .where('id', '=', session)
    .execute()
  if (person) await markTap(tx, shop, session, person)
}

/** The password was typed once more on a device by who works there. */
export async function markConfirmed(tx: ShopTx, shop: string, session: string): Promise<void> {
  await tx
    .updateTable('session')
    .set({ confirmed_at: new Date() })
    .where('shop', '=', shop)
    .where('id', '=', session)
    .execute()
}

export async function markTap(tx: ShopTx, shop: string, session: string, person: string): Promise<void> {
  await tx
    .insertInto('unlock')
    .values({ shop, session, person })
    .onConflict(c => c.columns(['shop', 'session', 'person']).doUpdateSet({ last_tap_at: sql`now()` }))
    .execute()
}

export async function revokeSession(tx: ShopTx, shop: string, session: string): Promise<boolean> {
  const done = await tx
    .updateTable('session')
    .set({ revoked_at: new Date() })
    .where('shop', '=', shop)
    .where('id', '=', session)
    .where('revoked_at', 'is', null)
    .executeTakeFirst()
  return Number(done.numUpdatedRows) > 0
}

export const devices = (tx: ShopTx, shop: string) =>
  tx
    .selectFrom('session')
    .leftJoin('person', j => j.onRef('person.shop', '=', 'session.shop').onRef('person.id', '=', 'session.person'))
    .select(['session.id', 'session.device', 'session.created_at', 'session.last_seen_at', 'person.name as person'])
    .where('session.shop', '=', shop)
    .where('revoked_at', 'is', null)
    .orderBy('session.last_seen_at', 'desc')
    .execute()
