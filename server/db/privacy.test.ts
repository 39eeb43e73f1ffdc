import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { AUDIT_WORDS, type AuditWhat } from '#core/shop/audit'
import { audit, auditTrail } from './audit'
import { awayWords } from './away'
import { connect, inShop, type Db } from './connect'
import { changeDetails } from './details'
import { addPhoto, dropPhoto, photo } from './photos'
import { customerKept, eraseCustomer, ERASED_NAME, NoSuchCustomer, StillHere } from './privacy'
import { mergeBike } from './merge'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 3)
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

/** A customer with a visit that is over, and everything personal that can be left of one. */
async function visited() {
  const shop = await testShop(db)
  const number = await shop.take({
    customer: { name: 'Wilhelmina Sedge', contact: '085 555 0199' },
    bike: { name: 'Marram', frameNumber: 'SEDGE-77' },
    complaint: 'Sedge says it skips',
  })
  await shop.put(number, ...BRAKES_HOLD)
  await changeDetails(db, shop.shop, number, shop.person, null, {
    id: randomUUID(),
    basedOn: 1,
    complaint: 'skips, says W. Sedge',
  })
  const job = await inShop(db, shop.shop, tx =>
    tx.selectFrom('job').selectAll().where('shop', '=', shop.shop).executeTakeFirstOrThrow(),
  )
  await inShop(db, shop.shop, async tx => {
    await tx
      .insertInto('note')
      .values({ shop: shop.shop, id: randomUUID(), job: job.id, person: shop.person, text: 'Sedge calls at six' })
      .execute()
    await addPhoto(tx, shop.shop, job.id, shop.person, {
      of: 'bike',
      mime: 'image/jpeg',
      bytes: Buffer.from('SEDGE-PICTURE'),
    })
  })
  const customer = await inShop(db, shop.shop, tx =>
    tx.selectFrom('customer').select('id').where('shop', '=', shop.shop).executeTakeFirstOrThrow(),
  )
  const close = () =>
    inShop(db, shop.shop, tx =>
      tx.updateTable('job').set({ closed_at: new Date() }).where('shop', '=', shop.shop).execute(),
    )
  return { shop, job, customer: customer.id, close }
}

/** Does any table hold a word of theirs, in any column? Asked of the database itself. */
async function foundAnywhere(shop: string): Promise<string[]> {
  const { rows: tables } = await sql<{ name: string }>`
    select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'shop'`.execute(
    owner,
  )
  const found: string[] = []
  for (const { name } of tables) {
    const { rows } = await sql<{ row: string }>`
      select t::text || coalesce(encode(convert_to(t::text, 'UTF8'), 'escape'), '') as row from ${sql.table(name)} t where shop = ${shop}`.execute(
      owner,
    )
    const bytes = Buffer.from('SEDGE-PICTURE').toString('hex')
    // with the gap: four digits alone stand in an id or a hash now and then
    if (rows.some(r => /sedge|555 0199/i.test(r.row) || r.row.includes(bytes))) found.push(name)
  }
  return found.sort()
}

test('what is kept on a customer is told, all of it; and erased, none of it is anywhere', async () => {
  const { shop, customer, close } = await visited()
  expect(await foundAnywhere(shop.shop)).toEqual(['bike', 'customer', 'job', 'job_edit', 'note', 'photo'])
  const kept = await inShop(db, shop.shop, tx => customerKept(tx, shop.shop, customer))
  expect(kept.customer).toMatchObject({ name: 'Wilhelmina Sedge', contact: '085 555 0199' })
  const [visit] = kept.bikes[0]!.visits
  expect(visit).toMatchObject({ complaint: 'skips, says W. Sedge', notes: [{ text: 'Sedge calls at six' }] })
  expect(visit!.putRight).toMatchObject([{ field: 'complaint', was: 'Sedge says it skips' }])
  expect(visit!.photographs).toMatchObject([{ of: 'bike', bytes: 13 }])
  expect(visit!.ledger.length).toBeGreaterThan(2)

  const erase = () => inShop(db, shop.shop, tx => eraseCustomer(tx, shop.shop, customer))
  await expect(erase()).rejects.toThrow(StillHere)
  await close()
  const before = visit!.ledger.length
  await erase()
  expect(await foundAnywhere(shop.shop)).toEqual([])
  const after = await inShop(db, shop.shop, tx => customerKept(tx, shop.shop, customer))
  expect(after.customer.name).toBe(ERASED_NAME)
  expect(after.bikes[0]!.visits[0]!.ledger).toHaveLength(before)
  await erase() // a second time changes nothing
})

test('a bike that was entered twice leaves no name of theirs at the customer it went over to', async () => {
  const { shop, close } = await visited()
  await close()
  const first = await inShop(db, shop.shop, tx => tx.selectFrom('bike').select('id').executeTakeFirstOrThrow())
  const number = await shop.take({ customer: { name: 'Sedge the Younger', contact: '' } })
  await mergeBike(db, shop.shop, number, shop.person, null, { id: randomUUID(), basedOn: 1, bike: first.id })
  await inShop(db, shop.shop, tx =>
    tx.updateTable('job').set({ closed_at: new Date() }).where('shop', '=', shop.shop).execute(),
  )
  const names = () =>
    inShop(db, shop.shop, async tx => ({
      edits: (await tx.selectFrom('job_edit').select('was').execute()).filter(e => e.was.includes('the Younger'))
        .length,
      younger: await tx.selectFrom('customer').select('id').where('name', '=', 'Sedge the Younger').execute(),
    }))
  const { edits, younger } = await names()
  expect(edits).toBe(1)
  await inShop(db, shop.shop, tx => eraseCustomer(tx, shop.shop, younger[0]!.id))
  expect(await names()).toEqual({ edits: 0, younger: [] })
})

test('another shop’s customer is nobody here', async () => {
  const { customer } = await visited()
  const other = await testShop(db)
  for (const ask of [customerKept, eraseCustomer])
    await expect(inShop(db, other.shop, tx => ask(tx, other.shop, customer) as Promise<unknown>)).rejects.toThrow(
      NoSuchCustomer,
    )
})

test('a photograph that is taken off leaves no bytes', async () => {
  const { shop, job } = await visited()
  const id = await inShop(db, shop.shop, tx =>
    addPhoto(tx, shop.shop, job.id, shop.person, { of: 'bike', mime: 'image/jpeg', bytes: Buffer.from('gone soon') }),
  )
  expect((await inShop(db, shop.shop, tx => photo(tx, shop.shop, job.id, id)))!.bytes.toString()).toBe('gone soon')
  expect(await inShop(db, shop.shop, tx => dropPhoto(tx, shop.shop, job.id, id))).toBe(true)
  const { rows } = await sql<{ bytes: Buffer | null }>`select bytes from photo where id = ${id}`.execute(owner)
  expect(rows).toEqual([{ bytes: null }])
})

test('the trail says who did what, the last first; it is only added to', async () => {
  const shop = await testShop(db)
  const hand = { shop: shop.shop, session: null, person: shop.person }
  await inShop(db, shop.shop, async tx => {
    for (const what of Object.keys(AUDIT_WORDS) as AuditWhat[]) await audit(tx, hand, what, 'of the bench')
  })
  const trail = await inShop(db, shop.shop, tx => auditTrail(tx, shop.shop))
  expect(trail.map(t => t.words)).toEqual(Object.values(AUDIT_WORDS).reverse())
  expect(trail[0]).toMatchObject({ person: 'Ishbel', detail: 'of the bench' })
  await expect(inShop(db, shop.shop, tx => sql`update audit set what = 'nothing'`.execute(tx))).rejects.toThrow()
  await expect(sql`delete from audit`.execute(owner)).rejects.toThrow(/only be appended/)
  const other = await testShop(db)
  expect(await inShop(db, other.shop, tx => auditTrail(tx, other.shop))).toEqual([])
})

test.each([
  ['53100', /disk .* full/],
  ['57P01', /does not answer/],
  ['08006', /does not answer/],
  ['57014', /does not answer/],
  ['23505', null],
  ['22P02', null],
])('an error of code %s', (code, words) => {
  const error = new Error('outer', { cause: Object.assign(new Error('inner'), { code }) })
  const told = awayWords(error)
  if (words) expect(told).toMatch(words)
  else expect(told).toBeNull()
})

test('a database that is not there, and a question that takes too long, are told as away', async () => {
  const nowhere = connect('postgres://nobody:x@127.0.0.1:9/ocho', 1)
  const unreached = await sql`select 1`.execute(nowhere).catch((e: unknown) => e)
  expect(awayWords(unreached)).toMatch(/does not answer/)
  await nowhere.destroy()
  const slow = await db
    .transaction()
    .execute(async tx => {
      await sql`set local statement_timeout = 50`.execute(tx)
      await sql`select pg_sleep(5)`.execute(tx)
    })
    .catch((e: unknown) => e)
  expect(awayWords(slow)).toMatch(/does not answer/)
  const { rows } = await sql<{ statement_timeout: string }>`show statement_timeout`.execute(db)
  expect(rows).toEqual([{ statement_timeout: '15s' }])
})
