import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { templateRun } from '#core/cable/templates'
import {
  addStock,
  cutStock,
  dropStock,
  dropTemplate,
  keepTemplate,
  putBack,
  stock,
  StockMoved,
  taken,
  templates,
} from './cables'
import { connect, inShop, type Db } from './connect'
import { createShop } from './people'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

async function newShop() {
  const shop = randomUUID()
  const person = await createShop(
    db,
    { id: shop, code: `c-${shop.slice(0, 8)}`, name: 'A', zone: 'UTC', demo: false },
    { name: 'Ishbel', role: 'owner', passwordHash: null, pinHash: 'x' },
  )
  const add = (lengthMm: number, roll = false) =>
    inShop(db, shop, tx => addStock(tx, shop, person, { kind: 'shift 4 mm', lengthMm, roll, label: 'black' }))
  const wall = async () => (await inShop(db, shop, tx => stock(tx, shop))).map(s => s.lengthMm)
  return { shop, person, add, wall }
}

test('what is cut is used up, what is kept comes back, and half a cut list is never written', async () => {
  const { shop, person, add, wall } = await newShop()
  const [roll, off] = [await add(9000, true), await add(400)]
  await inShop(db, shop, tx =>
    cutStock(tx, shop, person, [
      { id: roll, lengthMm: 9000, keptMm: 8200 },
      { id: off, lengthMm: 400, keptMm: 0 },
    ]),
  )
  expect(await wall()).toEqual([8200])
  const third = await add(700)
  // the second item is not as it was seen: the first stays whole
  await expect(
    inShop(db, shop, tx =>
      cutStock(tx, shop, person, [
        { id: third, lengthMm: 700, keptMm: 0 },
        { id: off, lengthMm: 400, keptMm: 0 },
      ]),
    ),
  ).rejects.toThrow(StockMoved)
  await expect(
    inShop(db, shop, tx => cutStock(tx, shop, person, [{ id: third, lengthMm: 699, keptMm: 0 }])),
  ).rejects.toThrow(StockMoved)
  expect(await wall()).toEqual([8200, 700])
  expect(await inShop(db, shop, tx => dropStock(tx, shop, third))).toBe(true)
  expect(await inShop(db, shop, tx => dropStock(tx, shop, third))).toBe(false)
})

test('an undone cut is put back whole, once, and never over what was cut from what it left', async () => {
  const { shop, person, add, wall } = await newShop()
  const other = await newShop()
  const [roll, off] = [await add(9000, true), await add(400)]
  const cut = (...cuts: { id: string; lengthMm: number; keptMm: number }[]) =>
    inShop(db, shop, tx => cutStock(tx, shop, person, cuts))
  const back = (...ids: string[]) => inShop(db, shop, tx => putBack(tx, shop, ids))
  await cut({ id: roll, lengthMm: 9000, keptMm: 8200 }, { id: off, lengthMm: 400, keptMm: 0 })
  const lately = await inShop(db, shop, tx => taken(tx, shop, new Date(Date.now() - 60_000)))
  expect(lately.map(t => t.items.map(i => i.lengthMm))).toEqual([[400, 9000]])
  // two at once put it back once
  await Promise.all([back(roll, off), back(off, roll)].map(p => p.catch(() => null)))
  await back(roll, off)
  expect((await wall()).sort()).toEqual([400, 9000])
  await cut({ id: roll, lengthMm: 9000, keptMm: 8000 })
  const [left] = (await inShop(db, shop, tx => stock(tx, shop))).filter(s => s.lengthMm === 8000)
  await cut({ id: left!.id, lengthMm: 8000, keptMm: 7000 })
  // refused whole: the offcut that could be put back is not touched either
  await inShop(db, shop, tx => dropStock(tx, shop, off))
  await expect(back(off, roll)).rejects.toThrow(/cut from what was left/)
  expect(await wall()).toEqual([7000])
  await back(left!.id)
  await back(roll, off)
  expect((await wall()).sort()).toEqual([400, 9000])
  await expect(inShop(db, other.shop, tx => putBack(tx, other.shop, [roll]))).rejects.toThrow(StockMoved)
  expect(await inShop(db, other.shop, tx => taken(tx, other.shop, new Date(0)))).toEqual([])
})

test('of two who cut the same offcut at once, one is told to look again', async () => {
  const { shop, person, add, wall } = await newShop()
  const off = await add(600)
  const cut = () => inShop(db, shop, tx => cutStock(tx, shop, person, [{ id: off, lengthMm: 600, keptMm: 300 }]))
  const both = await Promise.allSettled([cut(), cut()])
  expect(both.map(b => b.status).sort()).toEqual(['fulfilled', 'rejected'])
  expect(await wall()).toEqual([300])
})

test('a template of the same name replaces the old one; another shop has neither', async () => {
  const [a, b] = [await newShop(), await newShop()]
  const keep = (name: string, id: string) =>
    inShop(db, a.shop, tx => keepTemplate(tx, a.shop, a.person, name, [templateRun(id, 'rear')]))
  await keep('Parcel', 'external')
  await keep('parcel', 'long')
  const kept = await inShop(db, a.shop, tx => templates(tx, a.shop))
  expect(kept.map(t => [t.name, t.runs[0].pieces.length])).toEqual([['parcel', 5]])
  expect(await inShop(db, b.shop, tx => templates(tx, b.shop))).toEqual([])
  expect(await inShop(db, b.shop, tx => dropTemplate(tx, b.shop, kept[0].id))).toBe(false)
  expect(await inShop(db, a.shop, tx => dropTemplate(tx, a.shop, kept[0].id))).toBe(true)
})
