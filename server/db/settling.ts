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
    .select(['housing_mm', 'bedded', 'days', 'turns'])
    .where('shop', '=', shop)
    .orderBy('at', 'desc')
    .limit(LATEST)
    .execute()
  return rows.map(r => ({ housingMm: r.housing_mm, bedded: r.bedded, days: r.days, turns: r.turns }))
}

/** Keeps what a return teaches: its run was renewed on the visit before, and its barrel tells how far it went slack since. */
export async function keepSettled(
  tx: ShopTx,
  shop: string,
  job: { id: string; known: string | null },
  { rear, job: { arrived, handedBack } }: JobState,
  at: Date,
): Promise<void> {
  if (!job.known || !arrived || handedBack?.how === 'cancelled') return
  if (rear.renewed.includes('cable') || rear.restarted.has('barrel')) return
  const row = await tx
    .selectFrom('sheet')
    .select(['body', 'closed_at'])
    .where('shop', '=', shop)
    .where('job', '=', job.known)
    .orderBy('closed_at', 'desc')
    .executeTakeFirst()
  const left = row && Sheet.parse(row.body)
  if (!left?.settle) return
  const days = differenceInHours(new Date(arrived.at), row!.closed_at) / 24
  if (days <= 0 || days > MOST_DAYS) return
  await tx
    .insertInto('settling')
    .values({
      shop,
      id: newId(),
      job: job.id,
      housing_mm: left.settle.housingMm,
      bedded: left.settle.bedded,
      days,
      turns: Math.max(0, fromSixteenths(rear.net.barrel)),
      at,
    })
    .execute()
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
