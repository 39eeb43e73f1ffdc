import { timingSafeEqual } from 'node:crypto'
import { db } from '../db/shared'
import type { ShopTx } from '../db/connect'
import { tokenHash } from './secrets'

/** Used at any server: known for good once it was seen. */
let used = false

const wanted = (): string => process.env.OCHO_FIRST_RUN_CODE ?? ''

/**
 * The launcher gives a one-time code when there is no shop yet; it counts once, whichever of several servers it is told
 * to.
 */
export async function firstRunOpen(): Promise<boolean> {
  if (!wanted() || used) return false
  const row = await db()
    .selectFrom('gate.first_run')
    .select('used_at')
    .where('code_hash', '=', tokenHash(wanted()))
    .executeTakeFirst()
  used = row !== undefined
  return !used
}

export function firstRunCodeMatches(code: string): boolean {
  const [right, given] = [Buffer.from(wanted()), Buffer.from(code.trim())]
  return right.length > 0 && right.length === given.length && timingSafeEqual(right, given)
}

/** Uses the code up, in the transaction that makes the shop. @returns false when another had it first */
export async function useFirstRun(tx: ShopTx): Promise<boolean> {
  const done = await tx
    .insertInto('gate.first_run')
    .values({ code_hash: tokenHash(wanted()) })
    .onConflict(c => c.doNothing())
    .executeTakeFirst()
  return Number(done.numInsertedOrUpdatedRows) === 1
}
