import { sql } from 'kysely'
import type { RecordRow } from '#core/exchange/recordRow'
import { partOf, type Tell } from '#core/http/progress'
import { recordRule } from '#core/records/chapters'
import { FrameKind } from '#core/standards/frames'
import type { ShopTx } from './connect'
import { newId } from './ids'
import { recount } from './recount'
import { KEPT, VISIT } from './records'
import { chunks } from './standards'

/** All rows of a shop in the open format, oldest first; of one standard where it is named. */
export async function exportRecords(tx: ShopTx, shop: string, standard?: string): Promise<RecordRow[]> {
  const rows = await tx
    .selectFrom('record')
    .select(['id', 'standard', 'figure', 'frame', 'value', 'bike', 'at'])
    .where('shop', '=', shop)
    .where('figure', 'in', KEPT)
    .$if(standard !== undefined, q => q.where('standard', '=', standard!))
    .orderBy('at')
    .orderBy('id')
    .execute()
  return rows.map(r => ({
    ...r,
    frame: FrameKind.nullable().catch(null).parse(r.frame),
    unit: recordRule(r.figure)?.unit ?? '',
    at: r.at.toISOString(),
  }))
}

/** Which of these records the shop has already. */
export async function knownRecords(tx: ShopTx, shop: string, ids: readonly string[]): Promise<Set<string>> {
  const { rows } = await sql<{
    id: string
  }>`select id from record where shop = ${shop} and id = any(${ids}::uuid[])`.execute(tx)
  return new Set(rows.map(r => r.id))
}

/** How much of the time the rows themselves take; the rest goes to counting their bikes. */
const WRITTEN_SHARE = 0.6

/** Takes in records from a file; the newest of a bike's figure is the one that counts. */
export async function importRecords(
  tx: ShopTx,
  shop: string,
  rows: readonly RecordRow[],
  origin: string,
  takenIn: string | null = null,
  tell: Tell = () => {},
): Promise<void> {
  let written = 0
  for (const some of chunks(rows)) {
    await tx
      .insertInto('record')
      .values(
        some.map(r => ({
          shop,
          id: r.id,
          job: null,
          bike: r.bike ?? r.id,
          standard: r.standard,
          figure: r.figure,
          frame: r.frame,
          value: r.value,
          at: r.at,
          latest: true, // most are; which are not is counted below
          origin,
          taken_in: takenIn,
        })),
      )
      .execute()
    written += some.length
    tell((WRITTEN_SHARE * written) / rows.length)
  }
  await countImported(tx, shop, rows, origin, takenIn, partOf(tell, WRITTEN_SHARE, 1))
  await recount(
    tx,
    shop,
    rows.map(r => r.bike ?? r.id),
  )
}

/** Bikes of a file count as bikes of their standards, so that a standard known from files alone is in the list too. */
async function countImported(
  tx: ShopTx,
  shop: string,
  rows: readonly RecordRow[],
  origin: string,
  takenIn: string | null,
  tell: Tell,
): Promise<void> {
  const visits = new Map<string, RecordRow>()
  for (const r of rows) {
    const key = `${r.bike ?? r.id}/${r.standard}`
    const was = visits.get(key)
    if (!was || was.at < r.at) visits.set(key, r)
  }
  let counted = 0
  for (const some of chunks([...visits.values()])) {
    await tx
      .insertInto('record')
      .values(
        some.map(r => ({
          shop,
          id: newId(),
          job: null,
          bike: r.bike ?? r.id,
          standard: r.standard,
          figure: VISIT,
          frame: r.frame,
          value: 1,
          at: r.at,
          latest: true,
          origin,
          taken_in: takenIn,
        })),
      )
      .execute()
    counted += some.length
    tell(counted / visits.size)
  }
}
