import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import { stockParts } from '#core/rear/typedParts'
import { connect, type Db } from './connect'
import { sheetDraft } from './sheets'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(async () => {
  await db.destroy()
})

const STOPS: LedgerEvent[] = [
  { kind: 'sight', at: 'L', offsetMm: 0 },
  { kind: 'sight', at: 'H', offsetMm: 0 },
]
const HEARD: LedgerEvent[] = [
  { kind: 'shift', from: 0, to: 1, heard: 'clean' },
  { kind: 'shift', from: 1, to: 2, heard: 'clean' },
]

test('a sheet says how clean the gears are of a bike whose gears were heard, and of no other', async () => {
  const s = await testShop(db)
  const stock = stockParts('r14-10')
  const friction = { ...stock, shifter: { ...stock.shifter, friction: true as const } }
  const saidOf = async (parts: typeof stock, events: readonly LedgerEvent[]) => {
    const number = await s.take({ parts })
    await s.tap(number, [...BRAKES_HOLD, ...events])
    const sheet = (await sheetDraft(db, s.shop, number, s.person))!
    return { right: sheet.right, said: sheet.left.some(f => f.what === 'Every gear clean') }
  }
  // in for its brakes: what is believed of its gears is what is believed of any bike
  expect(await saidOf(stock, [])).toEqual({ right: null, said: false })
  expect(await saidOf(stock, STOPS)).toEqual({ right: null, said: false })
  expect(await saidOf(stock, [...STOPS, ...HEARD])).toEqual({ right: expect.any(Number) as number, said: true })
  // a lever without clicks has no index, whatever was tapped before it was said
  expect(await saidOf(friction, [...STOPS, ...HEARD])).toEqual({ right: null, said: false })
})
