import { addMinutes } from 'date-fns'
import { sql } from 'kysely'
import { asksToStop, RETRY_MINUTES } from '#core/recall/desk'
import type { MessageAct } from '#core/http/recalls'
import type { ShopTx } from './connect'
import { CannotRecall, leaveAlone } from './recalls'

/** A message as a gateway gets it. */
export type Outgoing = { id: string; way: 'mail' | 'text'; address: string; body: string; tries: number }

/** How long a message may be on its way before another server takes it up again, minutes: whoever had it was killed. */
const LOST_AFTER = 5

/**
 * Calls off what is to go now and is asked no more: one that was on its way as its bike came, and did not get through.
 */
async function callOffUnasked(tx: ShopTx, shop: string, now: Date): Promise<void> {
  await sql`update message m set state = 'withdrawn'
    where m.shop = ${shop} and m.state in ('queued', 'sending') and m.not_before <= ${now} and not (
      exists (select 1 from recall r where r.shop = m.shop and r.id = m.recall and r.state = 'due')
      and exists (select 1 from customer c where c.shop = m.shop and c.id = m.customer and not c.no_messages
        and c.erased_at is null))`.execute(tx)
}

/** Takes up what may go now, each for one server alone. */
export async function takeWaiting(tx: ShopTx, shop: string, now: Date, most = 20): Promise<Outgoing[]> {
  await callOffUnasked(tx, shop, now)
  const rows = await tx
    .selectFrom('message')
    .select(['id', 'way', 'address', 'body', 'tries'])
    .where('shop', '=', shop)
    .where('state', 'in', ['queued', 'sending'])
    .where('not_before', '<=', now)
    .orderBy('not_before')
    .limit(most)
    .forUpdate()
    .skipLocked()
    .execute()
  if (rows.length)
    await tx
      .updateTable('message')
      .set({ state: 'sending', not_before: addMinutes(now, LOST_AFTER) })
      .where('shop', '=', shop)
      .where(
        'id',
        'in',
        rows.map(r => r.id),
      )
      .execute()
  return rows.map(r => ({ ...r, way: r.way === 'mail' ? 'mail' : 'text' }))
}

/** How sending went: gone, refused for good, or to be tried again. */
export type Went = { is: 'sent' } | { is: 'refused'; why: string } | { is: 'later'; why: string }

export async function noteWent(tx: ShopTx, shop: string, message: Outgoing, went: Went, now: Date): Promise<void> {
  const again = RETRY_MINUTES[message.tries]
  const later = went.is === 'later' && again !== undefined
  await tx
    .updateTable('message')
    .set(
      went.is === 'sent'
        ? { state: 'sent', sent_at: now, trouble: '', tries: message.tries + 1 }
        : {
            state: later ? 'queued' : 'failed',
            trouble: went.why.slice(0, 300),
            tries: message.tries + 1,
            ...(later ? { not_before: addMinutes(now, again) } : {}),
          },
    )
    .where('shop', '=', shop)
    .where('id', '=', message.id)
    .where('state', '=', 'sending')
    .execute()
}

/** An answer that came, or a message called off or tried once more. @throws CannotRecall */
export async function actOnMessage(
  tx: ShopTx,
  shop: string,
  id: string,
  act: MessageAct,
  now = new Date(),
): Promise<void> {
  const row = await tx
    .selectFrom('message')
    .select(['state', 'customer'])
    .where('shop', '=', shop)
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst()
  if (!row) throw new CannotRecall('There is no such message here')
  const set = (values: object) =>
    tx
      .updateTable('message')
      .set(values as never)
      .where('shop', '=', shop)
      .where('id', '=', id)
      .execute()
  if (act.do === 'answered') {
    if (row.state !== 'sent' && row.state !== 'answered') throw new CannotRecall('Only what was sent is answered')
    await set({ state: 'answered', answer: act.text, answered_at: now })
    if (asksToStop(act.text)) await leaveAlone(tx, shop, row.customer, true)
    return
  }
  if (act.do === 'withdraw') {
    if (row.state !== 'queued' && row.state !== 'failed') throw new CannotRecall('It is on its way already')
    await set({ state: 'withdrawn' })
    return
  }
  if (row.state !== 'failed') throw new CannotRecall('Only what failed is sent once more')
  await set({ state: 'queued', tries: 0, trouble: '', not_before: now })
}

/** Whether anything is still to be sent, now or later. */
export async function anyWait(tx: ShopTx, shop: string): Promise<boolean> {
  const row = await tx
    .selectFrom('message')
    .select('id')
    .where('shop', '=', shop)
    .where('state', 'in', ['queued', 'sending'])
    .limit(1)
    .executeTakeFirst()
  return row !== undefined
}
