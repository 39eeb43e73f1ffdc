import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
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

test('the same cut sent again, its answer lost, is cut once; another of the same pieces is refused', async () => {
  const { shop, person, add, wall } = await newShop()
  const [roll, off] = [await add(9000, true), await add(400)]
  const cuts = [
    { id: roll, lengthMm: 9000, keptMm: 8200 },
    { id: off, lengthMm: 400, keptMm: 0 },
  ]
  const cut = (id: string) => inShop(db, shop, tx => cutStock(tx, shop, person, cuts, id))
  const mine = randomUUID()
  await Promise.all([cut(mine), cut(mine), cut(mine)])
  expect(await wall()).toEqual([8200])
  await expect(cut(randomUUID())).rejects.toThrow(StockMoved)
  expect(await wall()).toEqual([8200])
  // put back, it is cut anew
  await inShop(db, shop, tx => putBack(tx, shop, [roll, off]))
  await cut(mine)
  expect(await wall()).toEqual([8200])
})

test('what a cut had left is not put back beside the roll that was: whatever is cut, taken and put back, no housing grows', async () => {
  const { shop, person, add } = await newShop()
  const hung = [await add(9000, true), await add(700), await add(400)]
  const all = () =>
    inShop(db, shop, tx =>
      tx
        .selectFrom('housing_stock')
        .select(['id', 'length_mm', 'cut_from', 'used_at'])
        .where('shop', '=', shop)
        .execute(),
    )
  const first = (of: Awaited<ReturnType<typeof all>>, id: string): string => {
    const from = of.find(x => x.id === id)!.cut_from
    return from === null ? id : first(of, from)
  }
  let done = 0
  const act = fc.tuple(fc.constantFrom('cut', 'cut', 'drop', 'back', 'back', 'lately'), fc.nat(), fc.nat(300))
  const story = fc.array(act, { minLength: 60, maxLength: 60 })
  const [acts] = fc.sample(story, 1)
  for (const [what, which, mm] of acts!) {
    const rows = await all()
    const { id, length_mm } = rows[which % rows.length]!
    const lately = await inShop(db, shop, tx => taken(tx, shop, new Date(0)))
    await inShop(db, shop, async tx => {
      if (what === 'cut')
        await cutStock(tx, shop, person, [{ id, lengthMm: length_mm, keptMm: Math.max(0, length_mm - 1 - mm) }])
      else if (what === 'drop') await dropStock(tx, shop, id)
      else await putBack(tx, shop, what === 'back' ? [id] : (lately[which % lately.length]?.items.map(i => i.id) ?? []))
      done++
    }).catch((error: unknown) => expect(error, `${what} ${which} ${mm}`).toBeInstanceOf(StockMoved))
    const there = (await all()).filter(x => x.used_at === null)
    const roots = there.map(x => first(rows.concat(there), x.id))
    expect(new Set(roots).size, JSON.stringify(acts)).toBe(roots.length)
    expect(roots.every(r => hung.includes(r))).toBe(true)
  }
  expect(done).toBeGreaterThan(10)
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
