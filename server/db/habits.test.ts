import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import { connect, inShop, type Db } from './connect'
import { habitsOf } from './habits'
import { jobView } from './jobView'
import { addPerson, changePerson } from './people'
import { keepSenses, sensesOf } from './senses'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

const LOOKS: LedgerEvent[] = [
  { kind: 'sight', at: 'L', offsetMm: -0.2 },
  { kind: 'shift', from: 0, to: 1, heard: 'slow' },
  { kind: 'turn', screw: 'barrel', sixteenths: 4 },
  { kind: 'shift', from: 1, to: 2, heard: 'clean' },
]
const NEW_CABLE: LedgerEvent = { kind: 'replace', part: 'cable' }

/** Hands a bike back on which something was heard and put right. */
async function closed(s: Awaited<ReturnType<typeof testShop>>, ...events: LedgerEvent[]) {
  const number = await s.take()
  await s.put(number, ...LOOKS, ...events, ...BRAKES_HOLD)
  await s.leave(number)
  return number
}

describe('what closed jobs show', () => {
  test('is kept once at hand-back, taken back as the job is opened again, and is no other shop’s', async () => {
    const [s, other] = [await testShop(db), await testShop(db)]
    const number = await closed(s, NEW_CABLE)
    const habits = () => inShop(db, s.shop, tx => habitsOf(tx, s.shop))
    expect(await habits()).toMatchObject([{ back: false, cableDays: null, found: ['friction'] }])
    await s.leave(number)
    expect(await habits()).toHaveLength(1)
    expect(await inShop(db, other.shop, tx => habitsOf(tx, s.shop))).toEqual([])
    await s.open(number)
    expect(await habits()).toEqual([])
    // renewed before anything was heard: asked for, and no fault of the bike
    const wished = await s.take()
    await s.put(wished, NEW_CABLE, ...LOOKS, ...BRAKES_HOLD)
    await s.leave(wished)
    expect((await habits()).map(h => h.found)).toEqual([[]])
    await s.open(wished)
    const cancelled = await s.take()
    await s.put(cancelled, ...LOOKS)
    await s.leave(cancelled, { how: 'cancelled' })
    expect(await habits()).toEqual([])
  })

  test('five of a kind reach the next bike’s page, and its sheet starts from the same', async () => {
    const s = await testShop(db)
    const learnt = async (number: number) => (await inShop(db, s.shop, tx => jobView(tx, s.shop, number)))!.learnt
    for (let i = 0; i < 4; i++) await closed(s, NEW_CABLE)
    const next = await s.take()
    expect(await learnt(next)).toEqual({ jobs: 4, odds: {}, usual: {} })
    await closed(s, NEW_CABLE)
    const now = await learnt(next)
    expect(now.jobs).toBe(5)
    expect(now.odds.friction).toBeGreaterThan(1.5)
    expect(now.odds.hanger).toBeLessThan(1)
    expect(now.odds.stops).toBeUndefined()
  })

  test('how old a cable is counts from when it was renewed here', async () => {
    const s = await testShop(db)
    await closed(s, NEW_CABLE)
    const { bike, customer } = await inShop(db, s.shop, tx =>
      tx.selectFrom('bike').select(['id as bike', 'customer']).executeTakeFirstOrThrow(),
    )
    const again = await s.take({ customer: { id: customer }, bike: { id: bike }, sameParts: true })
    await s.put(again, ...LOOKS, ...BRAKES_HOLD)
    await s.leave(again, {}, 'mechanic', new Date(Date.now() + 400 * 86_400_000))
    const [later] = await inShop(db, s.shop, tx => habitsOf(tx, s.shop))
    expect(later!.cableDays).toBe(400)
  })
})

describe('a person’s ear and eye', () => {
  test('are learnt from their own reports alone, and taken back with the job', async () => {
    const s = await testShop(db)
    const number = await closed(s)
    const rows = () => inShop(db, s.shop, tx => tx.selectFrom('sense').selectAll().execute())
    expect(await rows()).toMatchObject([{ person: s.person, reports: 2 }])
    expect((await rows())[0]!.wrong).toBeLessThan(1)
    expect(await inShop(db, s.shop, tx => sensesOf(tx, s.shop, s.person))).toBeNull()
    await s.open(number)
    expect(await rows()).toEqual([])
  })

  test('reach nobody else’s view, and go with who leaves', async () => {
    const s = await testShop(db)
    const number = await closed(s)
    const other = await inShop(db, s.shop, tx =>
      addPerson(tx, s.shop, { name: 'Corin', role: 'mechanic', passwordHash: null, pinHash: 'x' }),
    )
    const job = await inShop(db, s.shop, tx => tx.selectFrom('job').select('id').executeTakeFirstOrThrow())
    const bad = new Map([[other, { reports: 200, wrong: 40, looks: 0, squared: 0 }]])
    await inShop(db, s.shop, tx => keepSenses(tx, s.shop, job.id, bad, new Date()))
    const of = (person: string) => inShop(db, s.shop, tx => sensesOf(tx, s.shop, person))
    expect((await of(other))!.wrongReports).toBeGreaterThan(0.1)
    expect(await of(s.person)).toBeNull()
    expect(await of(randomUUID())).toBeNull()
    const view = await inShop(db, s.shop, tx => jobView(tx, s.shop, number))
    expect(JSON.stringify(view)).not.toContain('wrongReports')
    await inShop(db, s.shop, tx => changePerson(tx, s.shop, other, { leaves: true }))
    expect(await of(other)).toBeNull()
  })
})
