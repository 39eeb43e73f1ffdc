import { sql } from 'kysely'
import { JOIN_MINUTES, MOST_JOIN_CODES } from '#core/http/joining'
import type { Db, ShopTx } from './connect'
import { newId } from './ids'

/** What keeps a code from being made or taken, in words. */
export class CannotJoin extends Error {}

/** Which shop a code is of, by its hash. */
export async function shopOfJoining(db: Db, codeHash: string): Promise<string | null> {
  const { rows } = await sql<{ shop: string }>`select * from shop_of_joining(${codeHash})`.execute(db)
  return rows[0]?.shop ?? null
}

/** Keeps a new code of a shop. @throws CannotJoin when too many are open */
export async function openJoining(
  tx: ShopTx,
  shop: string,
  madeBy: string,
  codeHash: string,
): Promise<{ id: string; expiresAt: Date }> {
  // the shop's row is the lock: as many as may be open, however many are asked for at once
  await tx.selectFrom('shop').select('shop').where('shop', '=', shop).forUpdate().execute()
  const { open } = await tx
    .selectFrom('joining')
    .select(({ fn }) => fn.countAll<string>().as('open'))
    .where('shop', '=', shop)
    .where('used_at', 'is', null)
    .where('expires_at', '>', sql<Date>`now()`)
    .executeTakeFirstOrThrow()
  if (Number(open) >= MOST_JOIN_CODES)
    throw new CannotJoin(`${MOST_JOIN_CODES} codes are open already: use one of them, or wait ${JOIN_MINUTES} minutes`)
  const id = newId()
  const expiresAt = new Date(Date.now() + JOIN_MINUTES * 60_000)
  await tx
    .insertInto('joining')
    .values({ shop, id, code_hash: codeHash, made_by: madeBy, expires_at: expiresAt })
    .execute()
  return { id, expiresAt }
}

/**
 * Takes a code for a session: of many at once, one has it. @throws CannotJoin when it was used, is over, or its maker
 * has left
 */
export async function takeJoining(tx: ShopTx, shop: string, codeHash: string, session: string): Promise<void> {
  const taken = await tx
    .updateTable('joining')
    .set({ used_at: new Date(), session })
    .where('shop', '=', shop)
    .where('code_hash', '=', codeHash)
    .where('used_at', 'is', null)
    .where('expires_at', '>', sql<Date>`now()`)
    .where(({ exists, selectFrom }) =>
      exists(
        selectFrom('person')
          .select('person.id')
          .whereRef('person.shop', '=', 'joining.shop')
          .whereRef('person.id', '=', 'joining.made_by')
          .where('person.role', '=', 'owner')
          .where('person.active', '=', true),
      ),
    )
    .executeTakeFirst()
  if (Number(taken.numUpdatedRows) === 1) return
  const row = await joiningBy(tx, shop, codeHash)
  throw new CannotJoin(
    row?.used_at
      ? 'That code was used already: make a new one on the shop’s page'
      : 'That code no longer counts: it lives ten minutes. Make a new one on the shop’s page',
  )
}

export const joiningBy = (tx: ShopTx, shop: string, codeHash: string) =>
  tx.selectFrom('joining').selectAll().where('shop', '=', shop).where('code_hash', '=', codeHash).executeTakeFirst()

/** What became of a code, and of which device. */
export async function joiningState(tx: ShopTx, shop: string, id: string) {
  const row = await tx
    .selectFrom('joining')
    .leftJoin('session', j => j.onRef('session.shop', '=', 'joining.shop').onRef('session.id', '=', 'joining.session'))
    .select(['joining.used_at', 'joining.expires_at', 'session.device'])
    .where('joining.shop', '=', shop)
    .where('joining.id', '=', id)
    .executeTakeFirst()
  if (!row) return null
  const is = row.used_at
    ? ('used' as const)
    : row.expires_at.getTime() > Date.now()
      ? ('open' as const)
      : ('over' as const)
  return { is, device: row.device }
}
