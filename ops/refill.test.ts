import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { connect, inShop, type Db } from '../server/db/connect'
import { habitsOf } from '../server/db/habits'
import { BRAKES_HOLD, testShop } from '../server/db/testShop'
import { bringUpToDate } from './database'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 2)
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

test('visits from before this version leave their records and habits at the next start', async () => {
  const s = await testShop(db)
  const number = await s.take()
  await s.put(
    number,
    { kind: 'shift', from: 0, to: 1, heard: 'slow' },
    { kind: 'replace', part: 'cable' },
    ...BRAKES_HOLD,
  )
  await s.leave(number)
  const records = () =>
    inShop(db, s.shop, async tx => (await tx.selectFrom('record').select('figure').execute()).map(r => r.figure).sort())
  const before = await records()
  expect(before).toContain('fault friction')
  for (const table of ['habit', 'record'] as const) await owner.deleteFrom(table).where('shop', '=', s.shop).execute()
  await owner.updateTable('shop').set({ records_stale: true }).where('shop', '=', s.shop).execute()
  await bringUpToDate(inject('ownerUrl'))
  expect(await records()).toEqual(before)
  expect(await inShop(db, s.shop, tx => habitsOf(tx, s.shop))).toMatchObject([{ found: ['friction'] }])
})
