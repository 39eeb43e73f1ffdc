import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import type { RecordRow } from '#core/exchange/recordRow'
import type { ShopClaim } from '#core/standards/shopValues'
import { connect, inShop, type Db } from './connect'
import { recordsOfStandard } from './recordViews'
import { claim, shopValues } from './standards'
import { takeBack, takeIn, takenIn } from './takenIn'
import { testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

const record = (bike: string, value: number, at: string): RecordRow =>
  ({ id: randomUUID(), bike, standard: 'r14-10', figure: 'gap', frame: null, value, at }) as RecordRow
const value = (n: number): ShopClaim =>
  ({ kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: n, note: '' }) as unknown as ShopClaim
const inForce = async (shop: string) =>
  (await inShop(db, shop, tx => shopValues(tx, shop))).findLast(v => v.figure === 'pullMm')?.value ?? null

test('a file taken back leaves what was there before it, counted as before, and says what it took', async () => {
  const { shop, person } = await testShop(db)
  const bike = randomUUID()
  const seen = async () => (await inShop(db, shop, tx => recordsOfStandard(tx, shop, 'r14-10'))).figures[0]?.seen
  await inShop(db, shop, tx => claim(tx, shop, person, [value(2.3)]))
  await inShop(db, shop, tx =>
    takeIn(tx, shop, person, { records: [record(bike, 5, '2026-01-01T00:00:00.000Z')], claims: [] }),
  )
  expect(await seen()).toMatchObject({ bikes: 1, median: 5 })
  const id = (await inShop(db, shop, tx =>
    takeIn(tx, shop, person, {
      records: [record(bike, 9, '2026-02-01T00:00:00.000Z'), record(randomUUID(), 9, '2026-02-01T00:00:00.000Z')],
      claims: [value(2.9)],
    }),
  ))!
  expect(await seen()).toMatchObject({ bikes: 2, median: 9 })
  expect(await inForce(shop)).toBe(2.9)
  expect(await inShop(db, shop, tx => takeBack(tx, shop, person, id))).toEqual({ records: 2, values: 1, stay: 0 })
  expect(await seen()).toMatchObject({ bikes: 1, median: 5 })
  expect(await inForce(shop)).toBe(2.3)
  // a second time, at another shop, or of nothing: nothing
  expect(await inShop(db, shop, tx => takeBack(tx, shop, person, id))).toBeNull()
  const other = await testShop(db)
  expect(await inShop(db, other.shop, tx => takeBack(tx, other.shop, other.person, id))).toBeNull()
  const [last, first] = await inShop(db, shop, tx => takenIn(tx, shop))
  expect(last).toMatchObject({ id, records: 2, values: 1, by: 'Ishbel' })
  expect(last!.takenBackAt).not.toBeNull()
  expect(first!.takenBackAt).toBeNull()
  expect(await inShop(db, shop, tx => takeIn(tx, shop, person, { records: [], claims: [] }))).toBeNull()
})

test('a value that was measured since stays; one that stood in no shop’s word before goes back to the table', async () => {
  const { shop, person } = await testShop(db)
  const id = (await inShop(db, shop, tx => takeIn(tx, shop, person, { records: [], claims: [value(2.9)] })))!
  await inShop(db, shop, tx => claim(tx, shop, person, [value(2.7)]))
  expect(await inShop(db, shop, tx => takeBack(tx, shop, person, id))).toEqual({ records: 0, values: 0, stay: 1 })
  expect(await inForce(shop)).toBe(2.7)
  const fresh = await testShop(db)
  const only = (await inShop(db, fresh.shop, tx =>
    takeIn(tx, fresh.shop, fresh.person, { records: [], claims: [value(2.9)] }),
  ))!
  await inShop(db, fresh.shop, tx => takeBack(tx, fresh.shop, fresh.person, only))
  expect(await inForce(fresh.shop)).toBeNull()
})

test('two files over each other, the first taken back first: neither’s value comes back', async () => {
  const { shop, person } = await testShop(db)
  await inShop(db, shop, tx => claim(tx, shop, person, [value(2.3)]))
  const file = async (n: number) =>
    (await inShop(db, shop, tx => takeIn(tx, shop, person, { records: [], claims: [value(n)] })))!
  const [first, second] = [await file(2.9), await file(3.1)]
  expect(await inShop(db, shop, tx => takeBack(tx, shop, person, first))).toMatchObject({ stay: 1 })
  expect(await inForce(shop)).toBe(3.1)
  await inShop(db, shop, tx => takeBack(tx, shop, person, second))
  expect(await inForce(shop)).toBe(2.3)
})

test('of ten who take the same file back at once, one does', async () => {
  const { shop, person } = await testShop(db)
  const records = Array.from({ length: 500 }, (_, i) => record(randomUUID(), i, '2026-01-01T00:00:00.000Z'))
  const id = (await inShop(db, shop, tx => takeIn(tx, shop, person, { records, claims: [] })))!
  const all = await Promise.all(
    Array.from({ length: 10 }, () => inShop(db, shop, tx => takeBack(tx, shop, person, id))),
  )
  expect(all.filter(a => a !== null)).toEqual([{ records: 500, values: 0, stay: 0 }])
})
