import { BARREL_TURN } from '#core/rear/records'
import { threadsLearnt } from '#core/records/threads'
import { catalogueInForce, ShopValue, type ShopClaim } from '#core/standards/shopValues'
import type { ShopTx } from './connect'
import { newId } from './ids'
import { seenOfFigure } from './recordViews'

/** Every claim of a shop about the catalogue, oldest first. One that a later version wrote is left out. */
export async function shopValues(tx: ShopTx, shop: string): Promise<ShopValue[]> {
  const rows = await tx
    .selectFrom('shop_value')
    .innerJoin('person', j =>
      j.onRef('person.shop', '=', 'shop_value.shop').onRef('person.id', '=', 'shop_value.person'),
    )
    .select([
      'shop_value.kind',
      'shop_value.entry',
      'shop_value.figure',
      'shop_value.value',
      'shop_value.note',
      'shop_value.at',
      'person.name as by',
    ])
    .where('shop_value.shop', '=', shop)
    .orderBy('shop_value.n')
    .execute()
  return rows.flatMap(r => {
    const read = ShopValue.safeParse({ ...r, at: r.at.toISOString() })
    return read.success ? [read.data] : []
  })
}

/**
 * The shop's own figures as they count: what its closed jobs measured of barrels, and over it what somebody noted.
 */
export async function valuesInForce(tx: ShopTx, shop: string): Promise<ShopValue[]> {
  const noted = await shopValues(tx, shop)
  const derailleurs = catalogueInForce(noted).filter(e => e.kind === 'derailleur')
  const seen = await seenOfFigure(
    tx,
    shop,
    BARREL_TURN,
    derailleurs.map(e => e.id),
  )
  return [...threadsLearnt(seen), ...noted]
}

/** Keeps claims in the order given; nothing that was said before is changed. */
export async function claim(
  tx: ShopTx,
  shop: string,
  person: string,
  claims: readonly ShopClaim[],
  at = new Date(),
  takenIn: string | null = null,
): Promise<void> {
  for (const some of chunks(claims))
    await tx
      .insertInto('shop_value')
      .values(
        some.map(c => ({
          shop,
          id: newId(),
          kind: c.kind,
          entry: c.entry,
          figure: c.figure,
          value: c.value === null ? null : JSON.stringify(c.value),
          note: c.note,
          person,
          at,
          taken_in: takenIn,
        })),
      )
      .execute()
}

/** Rows an insert takes at once: PostgreSQL has room for 65,535 parameters. */
const AT_ONCE = 4000
export function* chunks<T>(list: readonly T[]): Generator<readonly T[]> {
  for (let i = 0; i < list.length; i += AT_ONCE) yield list.slice(i, i + AT_ONCE)
}
