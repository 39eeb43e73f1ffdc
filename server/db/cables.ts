import { sql, type ExpressionBuilder } from 'kysely'
import { Housing } from '#core/cable/housing'
import { TemplateView, type StockView, type TakenView } from '#core/http/cables'
import type { Run } from '#core/cable/run'
import type { ShopTx } from './connect'
import { newId } from './ids'
import type { Database } from './schema'

/** The stock is not as it was seen: cut or used up meanwhile. */
export class StockMoved extends Error {}

/** Who changes the wall waits for whoever else does, to the end of the transaction: it is done in a moment. */
const holdWall = (tx: ShopTx, shop: string) =>
  sql`select pg_advisory_xact_lock(hashtextextended(${`wall ${shop}`}, 0))`.execute(tx)

/** It came to the shop, or a cut that stands left it: of one that was put back, nothing was ever left. */
const cameToBe = (eb: ExpressionBuilder<Database, 'housing_stock'>) =>
  eb.or([
    eb('cut_from', 'is', null),
    eb.exists(
      eb
        .selectFrom('housing_stock as whole')
        .select('whole.id')
        .whereRef('whole.shop', '=', 'housing_stock.shop')
        .whereRef('whole.id', '=', 'housing_stock.cut_from')
        .whereRef('whole.used_at', '=', 'housing_stock.made_at'),
    ),
  ])

/** What hangs on the wall, rolls first, shortest offcut first. */
export async function stock(tx: ShopTx, shop: string): Promise<StockView[]> {
  const rows = await tx
    .selectFrom('housing_stock')
    .select(['id', 'kind', 'length_mm', 'roll', 'label', 'made_at'])
    .where('shop', '=', shop)
    .where('used_at', 'is', null)
    .orderBy('kind')
    .orderBy('roll', 'desc')
    .orderBy('length_mm')
    .orderBy('made_at')
    .limit(2000)
    .execute()
  return rows.flatMap(r => {
    const kind = Housing.safeParse(r.kind)
    return kind.success
      ? [
          {
            id: r.id,
            kind: kind.data,
            lengthMm: r.length_mm,
            roll: r.roll,
            label: r.label,
            madeAt: r.made_at.toISOString(),
          },
        ]
      : []
  })
}

export async function addStock(
  tx: ShopTx,
  shop: string,
  person: string,
  item: { kind: Housing; lengthMm: number; roll: boolean; label: string },
  id = newId(),
): Promise<string> {
  await tx
    .insertInto('housing_stock')
    .values({
      shop,
      id,
      kind: item.kind,
      length_mm: item.lengthMm,
      roll: item.roll,
      label: item.label,
      cut_from: null,
      person,
    })
    .onConflict(c => c.columns(['shop', 'id']).doNothing()) // the same one again: its answer was lost
    .execute()
  return id
}

/** Takes an item off the wall. @returns false when it is not there */
export async function dropStock(tx: ShopTx, shop: string, id: string, at = new Date()): Promise<boolean> {
  await holdWall(tx, shop)
  const { numUpdatedRows } = await tx
    .updateTable('housing_stock')
    .set({ used_at: at })
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('used_at', 'is', null)
    .executeTakeFirst()
  return Number(numUpdatedRows) === 1
}

/**
 * Writes down a cut list that was cut: every item used up, what is worth keeping back on the wall. All or nothing; the
 * same one again, because its answer was lost, is done already.
 * @throws StockMoved when an item is no longer as it was seen
 */
export async function cutStock(
  tx: ShopTx,
  shop: string,
  person: string,
  cuts: readonly { id: string; lengthMm: number; keptMm: number }[],
  cutId = newId(),
  at = new Date(),
): Promise<void> {
  await holdWall(tx, shop)
  const same = await tx
    .selectFrom('housing_stock')
    .select('id')
    .where('shop', '=', shop)
    .where(
      'id',
      'in',
      cuts.map(c => c.id),
    )
    .where('cut', '=', cutId)
    .executeTakeFirst()
  if (same) return
  for (const cut of cuts) {
    const was = await tx
      .updateTable('housing_stock')
      .set({ used_at: at, cut: cutId })
      .where('shop', '=', shop)
      .where('id', '=', cut.id)
      .where('used_at', 'is', null)
      .where('length_mm', '=', cut.lengthMm)
      .returning(['kind', 'roll', 'label'])
      .executeTakeFirst()
    if (!was) throw new StockMoved('Someone cut from this roll or offcut meanwhile: work the list out again')
    if (cut.keptMm > 0)
      await tx
        .insertInto('housing_stock')
        .values({
          shop,
          id: newId(),
          kind: was.kind,
          length_mm: cut.keptMm,
          roll: was.roll,
          label: was.label,
          cut_from: cut.id,
          person,
          made_at: at,
        })
        .execute()
  }
}

/** Taken off the wall or cut from, at one stroke each, the last first: what could be put back. */
export async function taken(tx: ShopTx, shop: string, since: Date): Promise<TakenView[]> {
  const rows = await tx
    .selectFrom('housing_stock')
    .select(['id', 'kind', 'length_mm', 'used_at'])
    .where('shop', '=', shop)
    .where('used_at', '>=', since)
    .where(cameToBe)
    .orderBy('used_at', 'desc')
    .orderBy('length_mm')
    .limit(200)
    .execute()
  const by = new Map<string, TakenView>()
  for (const r of rows) {
    const kind = Housing.safeParse(r.kind)
    if (!kind.success) continue
    const at = r.used_at!.toISOString()
    const together = by.get(at) ?? { at, items: [] }
    together.items.push({ id: r.id, kind: kind.data, lengthMm: r.length_mm })
    by.set(at, together)
  }
  return [...by.values()]
}

/**
 * Puts rolls and offcuts back as they were before they were cut or taken down, and takes off what had been left of
 * them. All or nothing; one that hangs there already stays.
 * @throws StockMoved when what was left has been cut from since, or there is, or was, no such item
 */
export async function putBack(tx: ShopTx, shop: string, ids: readonly string[], at = new Date()): Promise<void> {
  await holdWall(tx, shop)
  const set = (id: string, to: { used_at: Date | null; cut: null }) =>
    tx.updateTable('housing_stock').set(to).where('shop', '=', shop).where('id', '=', id).execute()
  for (const id of ids) {
    const was = await tx
      .selectFrom('housing_stock')
      .select(['used_at'])
      .where('shop', '=', shop)
      .where('id', '=', id)
      .where(cameToBe)
      .executeTakeFirst()
    if (!was) throw new StockMoved('There is no such roll or offcut: look at the wall again')
    if (was.used_at === null) continue
    const left = await tx
      .selectFrom('housing_stock')
      .select(['id', 'used_at'])
      .where('shop', '=', shop)
      .where('cut_from', '=', id)
      .where('made_at', '=', was.used_at)
      .executeTakeFirst()
    if (left && left.used_at !== null)
      throw new StockMoved('Somebody cut from what was left since: put that back first, or hang up what is there')
    if (left) await set(left.id, { used_at: at, cut: null })
    await set(id, { used_at: null, cut: null })
  }
}

export async function templates(tx: ShopTx, shop: string): Promise<TemplateView[]> {
  const rows = await tx
    .selectFrom('run_template')
    .select(['id', 'name', 'runs'])
    .where('shop', '=', shop)
    .where('gone_at', 'is', null)
    .orderBy('name')
    .execute()
  return rows.flatMap(r => {
    const read = TemplateView.safeParse(r)
    return read.success ? [read.data] : []
  })
}

/** Keeps a template; one of the same name is replaced, its row kept. */
export async function keepTemplate(
  tx: ShopTx,
  shop: string,
  person: string,
  name: string,
  runs: readonly Run[],
  at = new Date(),
): Promise<void> {
  await tx
    .updateTable('run_template')
    .set({ gone_at: at })
    .where('shop', '=', shop)
    .where(eb => eb(eb.fn('lower', ['name']), '=', name.toLowerCase()))
    .where('gone_at', 'is', null)
    .execute()
  await tx
    .insertInto('run_template')
    .values({ shop, id: newId(), name, runs: JSON.stringify(runs), person, made_at: at })
    .execute()
}

export async function dropTemplate(tx: ShopTx, shop: string, id: string, at = new Date()): Promise<boolean> {
  const { numUpdatedRows } = await tx
    .updateTable('run_template')
    .set({ gone_at: at })
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('gone_at', 'is', null)
    .executeTakeFirst()
  return Number(numUpdatedRows) === 1
}
