import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { RecordRow } from '#core/exchange/recordRow'
import { connect, inShop, type Db } from './connect'
import { exportRecords, importRecords, knownRecords } from './recordFiles'
import { testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

const row = (over: Partial<RecordRow>): RecordRow => ({
  id: randomUUID(),
  bike: randomUUID(),
  standard: 'r14-10',
  figure: 'gap',
  frame: null,
  value: 6,
  unit: 'mm',
  at: '2026-03-01T09:00:00.000Z',
  ...over,
})
const day = (n: number) => `2026-03-${String(n).padStart(2, '0')}T09:00:00.000Z`

describe('records from a file', () => {
  test('leave as they came: oldest first, with their units, of one standard where it is named, and no other shop’s', async () => {
    const { shop } = await testShop(db)
    const other = await testShop(db)
    const [bike, alone] = [randomUUID(), randomUUID()]
    const rows = [
      row({ bike, at: day(3), value: 5 }),
      row({ bike, at: day(1), figure: 'housing last loop', frame: 'internal', value: 285 }),
      row({ bike: null, at: day(2), standard: 'm11', value: 7 }),
      // two of one moment: by their ids
      row({ id: '00000000-0000-4000-8000-00000000000b', bike: alone, at: day(5) }),
      row({ id: '00000000-0000-4000-8000-00000000000a', bike: alone, at: day(5), figure: 'hanger', unit: 'mm' }),
    ]
    await inShop(db, shop, tx => importRecords(tx, shop, rows, 'a file'))
    const out = await inShop(db, shop, tx => exportRecords(tx, shop))
    const [third, first, second, b, a] = rows as [RecordRow, RecordRow, RecordRow, RecordRow, RecordRow]
    expect(out.map(r => r.id)).toEqual([first, second, third, a, b].map(r => r.id))
    // one without a bike stands for a bike of its own
    expect(out.slice(0, 3)).toEqual([first, { ...second, bike: second.id }, third])
    const named = await inShop(db, shop, tx => exportRecords(tx, shop, 'm11'))
    expect(named.map(r => r.id)).toEqual([second.id])
    expect(await inShop(db, other.shop, tx => exportRecords(tx, other.shop))).toEqual([])
    const asked = [first.id, randomUUID(), third.id]
    expect(await inShop(db, shop, tx => knownRecords(tx, shop, asked))).toEqual(new Set([first.id, third.id]))
    expect(await inShop(db, other.shop, tx => knownRecords(tx, other.shop, asked))).toEqual(new Set())
  })

  test('of a bike’s figure the newest counts, wherever it stands in the file; each bike is counted once a standard', async () => {
    const { shop } = await testShop(db)
    const bike = randomUUID()
    const rows = [
      row({ bike, at: day(2), value: 5 }),
      row({ bike, at: day(9), value: 6, frame: 'open' }),
      row({ bike, at: day(4), value: 7 }),
      row({ bike, at: day(1), figure: 'housing last loop', value: 285, frame: 'internal' }),
      row({ at: day(3) }),
    ]
    const told: number[] = []
    await inShop(db, shop, tx => importRecords(tx, shop, rows, 'a file', null, share => void told.push(share)))
    const kept = await inShop(db, shop, tx =>
      tx.selectFrom('record').selectAll().where('shop', '=', shop).orderBy('at').execute(),
    )
    const of = (figure: string) => kept.filter(r => r.figure === figure)
    expect(of('gap').map(r => [r.bike === bike, r.value, r.latest])).toEqual([
      [true, 5, false],
      [false, 6, true],
      [true, 7, false],
      [true, 6, true],
    ])
    expect(of('housing last loop').map(r => r.latest)).toEqual([true])
    // at its newest figure, with that one's frame
    expect(of('visit').map(r => [r.bike === bike, r.at.toISOString(), r.frame, r.value, r.latest])).toEqual([
      [false, day(3), null, 1, true],
      [true, day(9), 'open', 1, true],
    ])
    expect(kept.every(r => r.origin === 'a file' && r.job === null)).toBe(true)
    // how far it is grows up to the whole
    expect(told).toEqual([...told].sort((a, b) => a - b))
    expect(told[0]).toBeCloseTo(0.6, 9)
    expect(told.at(-1)).toBeCloseTo(1, 9)
  })
})
