import type { MyPractice, ShownPractice } from '#core/http/practice'
import { PracticeResult } from '#core/practice/results'
import type { ShopTx } from './connect'

/** So many of a person's latest runs are read. */
const LATEST = 300

const read = (rows: readonly { body: unknown }[]): PracticeResult[] =>
  rows.flatMap(r => PracticeResult.safeParse(r.body).data ?? [])

/** What a person practised, the newest first, and whether a mechanic may see it. */
export async function myPractice(tx: ShopTx, shop: string, person: string): Promise<MyPractice> {
  const { shows_practice: shows } = await tx
    .selectFrom('person')
    .select('shows_practice')
    .where('shop', '=', shop)
    .where('id', '=', person)
    .executeTakeFirstOrThrow()
  const rows = await tx
    .selectFrom('practice')
    .select('body')
    .where('shop', '=', shop)
    .where('person', '=', person)
    .orderBy('at', 'desc')
    .limit(LATEST)
    .execute()
  return { shows, results: read(rows) }
}

/** Keeps a run once, however often it is sent. */
export async function keepPractice(tx: ShopTx, shop: string, person: string, result: PracticeResult): Promise<void> {
  await tx
    .insertInto('practice')
    .values({ shop, id: result.id, person, at: result.at, body: JSON.stringify(result) })
    .onConflict(c => c.columns(['shop', 'id']).doNothing())
    .execute()
}

export async function showPractice(tx: ShopTx, shop: string, person: string, shows: boolean): Promise<void> {
  await tx
    .updateTable('person')
    .set({ shows_practice: shows })
    .where('shop', '=', shop)
    .where('id', '=', person)
    .execute()
}

/** Runs of those who show theirs, by person; of one test where it is asked for. */
export async function shownPractice(tx: ShopTx, shop: string, test: number | undefined): Promise<ShownPractice> {
  const people = await tx
    .selectFrom('person')
    .select(['id', 'name'])
    .where('shop', '=', shop)
    .where('active', '=', true)
    .where('shows_practice', '=', true)
    .orderBy('name')
    .execute()
  return {
    people: await Promise.all(
      people.map(async p => {
        const { results } = await myPractice(tx, shop, p.id)
        return { name: p.name, results: test === undefined ? results : results.filter(r => r.test === test) }
      }),
    ),
  }
}

/** Of who leaves nothing is kept: it was theirs. */
export async function forgetPractice(tx: ShopTx, shop: string, person: string): Promise<void> {
  await tx.deleteFrom('practice').where('shop', '=', shop).where('person', '=', person).execute()
}
