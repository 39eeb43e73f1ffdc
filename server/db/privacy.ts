import type { CustomerKept } from '#core/shop/privacy'
import { sql } from 'kysely'
import type { ShopTx } from './connect'

/** Nobody of that id here. */
export class NoSuchCustomer extends Error {}
/** A bike of theirs is here: their name and number are needed until it left. */
export class StillHere extends Error {}

/** What stands in the place of a name and a complaint that were erased. */
export const ERASED_NAME = 'Erased customer'
const ERASED = 'erased'

const bikesOf = (tx: ShopTx, shop: string, customer: string) =>
  tx
    .selectFrom('bike')
    .select(['id', 'name', 'frame_number', 'merged_into'])
    .where('shop', '=', shop)
    .where('customer', '=', customer)
    .execute()

const jobsOf = (tx: ShopTx, shop: string, bikes: readonly string[]) =>
  tx
    .selectFrom('job')
    .select(['id', 'number', 'tag', 'bike', 'complaint', 'created_at', 'closed_at'])
    .where('shop', '=', shop)
    .where('bike', 'in', bikes.length ? bikes : [sql<string>`null::uuid`])
    .orderBy('number')
    .execute()

async function customerOf(tx: ShopTx, shop: string, id: string) {
  const row = await tx
    .selectFrom('customer')
    .select(['id', 'name', 'contact', 'created_at', 'erased_at'])
    .where('shop', '=', shop)
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst()
  if (!row) throw new NoSuchCustomer('There is no such customer here')
  return row
}

/**
 * Everything that is kept on a customer, as they may ask for it. Photographs are named; their bytes are in the shop's
 * backups.
 * @throws NoSuchCustomer
 */
export async function customerKept(tx: ShopTx, shop: string, id: string): Promise<CustomerKept> {
  const customer = await customerOf(tx, shop, id)
  const bikes = await bikesOf(tx, shop, id)
  const jobs = await jobsOf(
    tx,
    shop,
    bikes.map(b => b.id),
  )
  const of = jobs.map(j => j.id)
  const none = of.length ? of : [sql<string>`null::uuid`]
  const [notes, edits, photos, events, sheets] = await Promise.all([
    tx
      .selectFrom('note')
      .select(['job', 'text', 'created_at'])
      .where('shop', '=', shop)
      .where('job', 'in', none)
      .execute(),
    tx
      .selectFrom('job_edit')
      .select(['job', 'field', 'was', 'made_at'])
      .where('shop', '=', shop)
      .where('job', 'in', none)
      .execute(),
    tx
      .selectFrom('photo')
      .select(['job', 'run', 'made_at', 'size'])
      .where('shop', '=', shop)
      .where('job', 'in', none)
      .where('gone_at', 'is', null)
      .execute(),
    tx
      .selectFrom('event')
      .select(['job', 'seq', 'at', 'body'])
      .where('shop', '=', shop)
      .where('job', 'in', none)
      .orderBy('seq')
      .execute(),
    tx
      .selectFrom('sheet')
      .select(['job', 'closed_at', 'body'])
      .where('shop', '=', shop)
      .where('job', 'in', none)
      .execute(),
  ])
  const messages = await tx
    .selectFrom('message')
    .select(['address', 'body', 'answer', 'state', 'made_at'])
    .where('shop', '=', shop)
    .where('customer', '=', id)
    .orderBy('made_at')
    .execute()
  return {
    messages: messages.map(({ made_at, ...m }) => ({ ...m, at: made_at.toISOString() })),
    customer: { name: customer.name, contact: customer.contact, since: customer.created_at.toISOString() },
    bikes: bikes.map(b => ({
      name: b.name,
      frameNumber: b.frame_number,
      visits: jobs
        .filter(j => j.bike === b.id)
        .map(j => {
          const its = <T extends { job: string }>(rows: readonly T[]) => rows.filter(r => r.job === j.id)
          return {
            number: j.number,
            tag: j.tag,
            complaint: j.complaint,
            cameAt: j.created_at.toISOString(),
            leftAt: j.closed_at?.toISOString() ?? null,
            notes: its(notes).map(n => ({ text: n.text, at: n.created_at.toISOString() })),
            putRight: its(edits).map(e => ({ field: e.field, was: e.was, at: e.made_at.toISOString() })),
            photographs: its(photos).map(p => ({ of: p.run, at: p.made_at.toISOString(), bytes: p.size ?? 0 })),
            ledger: its(events).map(e => ({ at: e.at.toISOString(), entry: e.body })),
            sheets: its(sheets).map(s => ({ at: s.closed_at.toISOString(), sheet: s.body })),
          }
        }),
    })),
  }
}

/**
 * Erases a customer: name, contact, frame numbers, complaints, notes and photographs with their bytes. The ledger,
 * sheets and records keep their figures, which name nobody.
 * @throws NoSuchCustomer, StillHere
 */
export async function eraseCustomer(tx: ShopTx, shop: string, id: string, at = new Date()): Promise<void> {
  const { name } = await customerOf(tx, shop, id)
  const bikes = await bikesOf(tx, shop, id)
  const jobs = await jobsOf(
    tx,
    shop,
    bikes.map(b => b.id),
  )
  const open = jobs.find(j => j.closed_at === null)
  if (open)
    throw new StillHere(`Job ${open.number} of this customer is open: hand the bike back first, then erase them`)
  const of = jobs.map(j => j.id)
  await tx
    .updateTable('customer')
    .set({ name: ERASED_NAME, contact: '', erased_at: at, no_messages: true })
    .where('shop', '=', shop)
    .where('id', '=', id)
    .execute()
  await tx
    .updateTable('message')
    .set({ address: '', body: ERASED, answer: '', trouble: '' })
    .where('shop', '=', shop)
    .where('customer', '=', id)
    .execute()
  await tx
    .updateTable('message')
    .set({ state: 'withdrawn' })
    .where('shop', '=', shop)
    .where('customer', '=', id)
    .where('state', 'in', ['queued', 'sending', 'failed'])
    .execute()
  await tx.updateTable('bike').set({ frame_number: '' }).where('shop', '=', shop).where('customer', '=', id).execute()
  // a bike that was entered twice went over to another customer, with a line that says whose it was
  const into = bikes.flatMap(b => b.merged_into ?? [])
  const elsewhere = (await jobsOf(tx, shop, into)).map(j => j.id)
  if (elsewhere.length)
    await tx
      .updateTable('job_edit')
      .set({ was: ERASED })
      .where('shop', '=', shop)
      .where('job', 'in', elsewhere)
      .where(sql<boolean>`strpos(was, ${name}) > 0`)
      .execute()
  if (!of.length) return
  await tx.updateTable('job').set({ complaint: ERASED }).where('shop', '=', shop).where('id', 'in', of).execute()
  await tx.updateTable('note').set({ text: ERASED }).where('shop', '=', shop).where('job', 'in', of).execute()
  await tx.updateTable('job_edit').set({ was: ERASED }).where('shop', '=', shop).where('job', 'in', of).execute()
  await tx
    .updateTable('photo')
    .set({ bytes: null, gone_at: at })
    .where('shop', '=', shop)
    .where('job', 'in', of)
    .execute()
}
