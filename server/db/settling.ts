import { differenceInHours } from 'date-fns'
import type { JobState } from '#core/ledger/reduce'
import { Sheet } from '#core/ledger/sheet'
import { fromSixteenths } from '#core/quantity/turns'
import type { Settled } from '#core/standards/settled'
import type { ShopTx } from './connect'
import { newId } from './ids'

/** So many of the latest returns tell how a shop's runs settle. */
const LATEST = 120
/** Later than this it is wear and weather that is found, not settling. `practice` */
const MOST_DAYS = 90

/** How renewed runs had settled when they came back, the latest first. */
export async function settledOf(tx: ShopTx, shop: string): Promise<Settled[]> {
  const rows = await tx
    .selectFrom('settling')
    .select(['housing_mm', 'bedded', 'riding', 'days', 'turns'])
    .where('shop', '=', shop)
    .orderBy('at', 'desc')
    .limit(LATEST)
    .execute()
  return rows.map(({ housing_mm: housingMm, ...r }) => ({ housingMm, ...r }))
}

/**
 * Keeps what a return teaches: its run was renewed on the visit before, and its barrel tells how far it went slack
 * since.
 */
export async function keepSettled(
  tx: ShopTx,
  shop: string,
  job: { id: string; known: string | null },
  { rear, job: { arrived, handedBack } }: JobState,
  at: Date,
): Promise<void> {
  if (!job.known || !arrived || handedBack?.how === 'cancelled') return
  if (rear.renewed.includes('cable') || rear.restarted.has('barrel')) return
  const row = await sheetBefore(tx, shop, job.known)
  const left = row?.sheet
  if (!left?.settle) return
  const days = differenceInHours(new Date(arrived.at), row!.closedAt) / 24
  if (days <= 0 || days > MOST_DAYS) return
  // what its rider took up and told before is part of the same slack
  const told = await tx
    .deleteFrom('settling')
    .where('shop', '=', shop)
    .where('job', '=', job.known)
    .returning('turns')
    .executeTakeFirst()
  const turns = Math.max(0, fromSixteenths(rear.net.barrel)) + (told?.turns ?? 0)
  await keep(tx, shop, job.id, left.settle, { days, turns, at })
}

/** Keeps what its rider took up themselves and told, once: a run that settled before the bike comes. */
export async function keepTold(tx: ShopTx, shop: string, job: string, sixteenths: number, at: Date): Promise<void> {
  const row = await sheetBefore(tx, shop, job)
  if (!row?.sheet.settle) return
  const days = (at.getTime() - row.closedAt.getTime()) / 86_400_000
  if (days <= 0 || days > MOST_DAYS) return
  await keep(tx, shop, job, row.sheet.settle, { days, turns: Math.max(0, fromSixteenths(sixteenths)), at })
}

async function keep(
  tx: ShopTx,
  shop: string,
  job: string,
  settle: NonNullable<Sheet['settle']>,
  seen: { days: number; turns: number; at: Date },
): Promise<void> {
  await tx
    .insertInto('settling')
    .values({
      shop,
      id: newId(),
      job,
      housing_mm: settle.housingMm,
      bedded: settle.bedded,
      riding: settle.riding,
      ...seen,
    })
    .onConflict(c => c.columns(['shop', 'job']).doNothing())
    .execute()
}

async function sheetBefore(tx: ShopTx, shop: string, job: string): Promise<{ sheet: Sheet; closedAt: Date } | null> {
  const row = await tx
    .selectFrom('sheet')
    .select(['body', 'closed_at'])
    .where('shop', '=', shop)
    .where('job', '=', job)
    .orderBy('closed_at', 'desc')
    .executeTakeFirst()
  return row ? { sheet: Sheet.parse(row.body), closedAt: row.closed_at } : null
}

/** A visit that is opened again has not taught yet. */
export async function takeSettledBack(tx: ShopTx, shop: string, job: string): Promise<void> {
  await tx.deleteFrom('settling').where('shop', '=', shop).where('job', '=', job).execute()
}

/** Books the look after a hand-back on the day its sheet says. */
export async function bookRecall(tx: ShopTx, shop: string, job: string, sheet: Sheet): Promise<void> {
  await tx
    .insertInto('recall')
    .values({
      shop,
      id: newId(),
      job,
      due_on: sheet.recallOn!,
      why: sheet.settle ? 'settle' : 'look',
      expected: sheet.settle && JSON.stringify(sheet.settle),
    })
    .execute()
}
