import { Housing } from '#core/cable/housing'
import { TemplateView, type StockView } from '#core/http/cables'
import type { Run } from '#core/cable/run'
import type { ShopTx } from './connect'
import { newId } from './ids'

/** The stock is not as it was seen: cut or used up meanwhile. */
export class StockMoved extends Error {}

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
): Promise<string> {
  const id = newId()
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
    .execute()
  return id
}

/** Takes an item off the wall. @returns false when it is not there */
export async function dropStock(tx: ShopTx, shop: string, id: string, at = new Date()): Promise<boolean> {
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
 * Writes down a cut list that was cut: every item used up, what is worth keeping back on the wall. All or nothing.
 * @throws StockMoved when an item is no longer as it was seen
 */
export async function cutStock(
  tx: ShopTx,
  shop: string,
  person: string,
  cuts: readonly { id: string; lengthMm: number; keptMm: number }[],
  at = new Date(),
): Promise<void> {
  for (const cut of cuts) {
    const was = await tx
      .updateTable('housing_stock')
      .set({ used_at: at })
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
