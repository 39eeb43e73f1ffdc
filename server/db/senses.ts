import type { Senses } from '#core/advice/learnt'
import { sensesFrom, type Sensed } from '#core/habits/senses'
import type { ShopTx } from './connect'

/** So many of a person's latest jobs say how they hear and see: ears age, and learn. */
const LATEST = 150

/** Keeps what a job says of each person who reported on it. */
export async function keepSenses(
  tx: ShopTx,
  shop: string,
  job: string,
  sensed: ReadonlyMap<string, Sensed>,
  at: Date,
): Promise<void> {
  const values = [...sensed].map(([person, s]) => ({ shop, person, job, at, ...s }))
  if (values.length)
    await tx
      .insertInto('sense')
      .values(values)
      .onConflict(c => c.columns(['shop', 'person', 'job']).doNothing())
      .execute()
}

/** How a person hears and sees, as their own jobs tell; asked for that person alone. Null while too little is known. */
export async function sensesOf(tx: ShopTx, shop: string, person: string): Promise<Senses | null> {
  const rows = await tx
    .selectFrom('sense')
    .select(['reports', 'wrong', 'looks', 'squared'])
    .where('shop', '=', shop)
    .where('person', '=', person)
    .orderBy('at', 'desc')
    .limit(LATEST)
    .execute()
  return sensesFrom(rows)
}

/** A job that is opened again says nothing yet. */
export async function takeSensesBack(tx: ShopTx, shop: string, job: string): Promise<void> {
  await tx.deleteFrom('sense').where('shop', '=', shop).where('job', '=', job).execute()
}

/** Of who leaves nothing is kept: it was theirs. */
export async function forgetSenses(tx: ShopTx, shop: string, person: string): Promise<void> {
  await tx.deleteFrom('sense').where('shop', '=', shop).where('person', '=', person).execute()
}
