import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { addStock, cutStock, dropStock, putBack, stock } from './cables'
import { connect, inShop, type Db } from './connect'
import { promisedHere, tookHere } from './minutes'
import { monthView } from './month'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 6)
  // a sheet is written once: only the database's owner can say what it took
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

type Shop = Awaited<ReturnType<typeof testShop>>
const month = (s: Shop, of: string) => inShop(db, s.shop, tx => monthView(tx, s.shop, of))
/** A job handed back at that moment, of that kind, having taken so long. */
async function left(s: Shop, at: string, was: { kind?: string; minutes?: number; how?: 'proven' | 'cancelled' } = {}) {
  const number = await s.take({})
  await s.tap(number, BRAKES_HOLD)
  await s.leave(number, { how: was.how ?? 'proven' }, 'mechanic', new Date(at))
  return inShop(owner, s.shop, async tx => {
    const job = await tx
      .selectFrom('job')
      .select(['id', 'bike'])
      .where('shop', '=', s.shop)
      .where('number', '=', number)
      .executeTakeFirstOrThrow()
    await tx
      .updateTable('sheet')
      .set({ minutes: was.minutes ?? null, work: was.kind ? [was.kind] : [] } as never)
      .where('job', '=', job.id)
      .execute()
    return job
  })
}
/** Something recorded of a bike on a day. */
const recorded = (s: Shop, job: { id: string; bike: string }, figure: string, value: number, at: string) =>
  inShop(db, s.shop, tx =>
    tx
      .insertInto('record')
      .values({
        shop: s.shop,
        id: randomUUID(),
        job: job.id,
        bike: job.bike,
        standard: '10-speed',
        figure,
        value,
        frame: null,
        origin: null,
        at,
      })
      .execute(),
  )

describe('a month', () => {
  test('has the jobs that closed in its own days, by kind with how long they took, and none of another shop', async () => {
    const s = await testShop(db, 'Europe/Berlin')
    const other = await testShop(db, 'Europe/Berlin')
    await left(other, '2026-09-10T10:00:00Z', { kind: 'brakes', minutes: 90 })
    // the last half hour of August and the first of September, by the shop's clock
    await left(s, '2026-08-31T21:59:00Z', { kind: 'brakes', minutes: 10 })
    await left(s, '2026-08-31T22:01:00Z', { kind: 'brakes', minutes: 20 })
    await left(s, '2026-09-10T10:00:00Z', { kind: 'brakes', minutes: 40 })
    await left(s, '2026-09-11T10:00:00Z', { kind: 'brakes', minutes: 30 })
    await left(s, '2026-09-12T10:00:00Z', {})
    await left(s, '2026-09-13T10:00:00Z', { how: 'cancelled', minutes: 5 })
    await left(s, '2026-09-30T22:01:00Z', { kind: 'hub', minutes: 50 })
    const september = await month(s, '2026-09')
    expect(september.month).toBe('2026-09')
    expect(september.kinds).toEqual([
      { kind: 'brakes', jobs: 3, minutes: 90, median: 30 },
      { kind: 'gears', jobs: 1, minutes: null, median: null },
    ])
    expect(september.ends).toEqual([
      { how: 'proven', jobs: 4 },
      { how: 'cancelled', jobs: 1 },
    ])
    expect((await month(s, '2026-10')).kinds).toEqual([{ kind: 'hub', jobs: 1, minutes: 50, median: 50 }])
    expect((await month(s, '2026-08')).kinds).toMatchObject([{ kind: 'brakes', jobs: 1 }])
    const empty = await month(s, '2026-01')
    expect(empty).toMatchObject({ kinds: [], ends: [], right: { jobs: 0, back: 0, young: 0 }, standards: [] })
    expect(empty.fitted).toEqual({ mm: 0, pieces: 0 })
  })

  test('counts as come back what came back of itself within the time it had to hold; the young ones are told apart', async () => {
    const s = await testShop(db)
    const kept = await left(s, '2026-06-05T10:00:00Z')
    const back = await left(s, '2026-06-06T10:00:00Z')
    await recorded(s, back, 'comeback', 1, '2026-06-20T10:00:00Z')
    // long after, and before it was handed back: neither is this hand-back's
    await recorded(s, kept, 'comeback', 1, '2026-12-20T10:00:00Z')
    await recorded(s, kept, 'comeback', 1, '2026-06-01T10:00:00Z')
    await left(s, '2026-06-07T10:00:00Z', { how: 'cancelled' })
    expect((await month(s, '2026-06')).right).toEqual({ jobs: 2, back: 1, young: 0 })
    const yesterday = new Date(Date.now() - 86_400_000)
    await left(s, yesterday.toISOString())
    const again = await left(s, yesterday.toISOString())
    await recorded(s, again, 'comeback', 1, new Date().toISOString())
    const now = await month(s, yesterday.toISOString().slice(0, 7))
    expect(now.right).toEqual({ jobs: 2, back: 1, young: 1 })
  })

  test('has the standards that cost most rounds, the slowest first, and the housing that was fitted', async () => {
    const s = await testShop(db)
    const job = await left(s, '2026-06-05T10:00:00Z')
    await recorded(s, job, 'rounds', 2, '2026-06-05T10:00:00Z')
    await recorded(s, job, 'rounds', 4, '2026-06-05T11:00:00Z')
    await recorded(s, job, 'rounds', 9, '2026-07-05T11:00:00Z')
    await recorded(s, job, 'housing rear', 280, '2026-06-05T11:00:00Z')
    await recorded(s, job, 'housing front', 120, '2026-06-06T11:00:00Z')
    await recorded(s, job, 'housing front', 500, '2026-05-31T23:00:00Z')
    const june = await month(s, '2026-06')
    expect(june.standards).toEqual([{ standard: '10-speed', bikes: 2, rounds: 3, slowest: 4 }])
    expect(june.fitted).toEqual({ mm: 400, pieces: 2 })
  })

  test('has the housing on the wall: what was used of it in the month, rolls apart, and what is left', async () => {
    const s = await testShop(db)
    const hang = (kind: 'shift 4 mm' | 'brake 5 mm', lengthMm: number, usedAt: string | null, roll = false) =>
      inShop(db, s.shop, async tx => {
        const id = await addStock(tx, s.shop, s.person, { kind, lengthMm, roll, label: '' })
        if (usedAt) await dropStock(tx, s.shop, id, new Date(usedAt))
      })
    await hang('shift 4 mm', 300, '2026-06-05T10:00:00Z')
    await hang('shift 4 mm', 220, '2026-06-30T23:59:00Z')
    await hang('shift 4 mm', 900, '2026-07-01T00:00:00Z')
    await hang('shift 4 mm', 800, '2026-05-31T23:59:00Z')
    await hang('shift 4 mm', 20_000, '2026-06-06T10:00:00Z', true)
    await hang('shift 4 mm', 150, null)
    await hang('brake 5 mm', 12_000, null, true)
    const june = await month(s, '2026-06')
    expect(june.housing).toEqual([
      { kind: 'brake 5 mm', usedMm: 0, leftMm: 12_000 },
      { kind: 'shift 4 mm', usedMm: 520, leftMm: 150 },
    ])
    expect(june.learnt).toEqual({ jobs: 0, shares: [] })
    // of a cut, what is left of it is not used; of one that was put back, nothing is
    const brakes = async () => (await month(s, '2026-06')).housing.find(h => h.kind === 'brake 5 mm')
    const [roll] = (await inShop(db, s.shop, tx => stock(tx, s.shop))).filter(x => x.roll)
    const cut = [{ id: roll!.id, lengthMm: 12_000, keptMm: 11_400 }]
    await inShop(db, s.shop, tx => cutStock(tx, s.shop, s.person, cut, undefined, new Date('2026-06-07T10:00:00Z')))
    expect(await brakes()).toEqual({ kind: 'brake 5 mm', usedMm: 600, leftMm: 11_400 })
    await inShop(db, s.shop, tx => putBack(tx, s.shop, [roll!.id], new Date('2026-06-07T11:00:00Z')))
    expect(await brakes()).toEqual({ kind: 'brake 5 mm', usedMm: 0, leftMm: 12_000 })
    const other = await testShop(db)
    expect((await month(other, '2026-06')).housing).toEqual([])
  })
})

describe('how long a job takes here', () => {
  test('is the middle and three of four of each kind, of those that were timed', async () => {
    const s = await testShop(db)
    const at = '2026-06-05T10:00:00Z'
    for (const minutes of [10, 20, 30, 40, 50]) await left(s, at, { kind: 'brakes', minutes })
    await left(s, at, { kind: 'brakes', minutes: 0 })
    await left(s, at, { kind: 'no such kind', minutes: 10 })
    await left(s, at, { minutes: 10 })
    const took = await inShop(db, s.shop, tx => tookHere(tx, s.shop))
    expect(took).toEqual([{ kind: 'brakes', jobs: 5, median: 30, most: 40 }])
    const other = await testShop(db)
    expect(await inShop(db, other.shop, tx => tookHere(tx, other.shop))).toEqual([])
  })

  test('what is promised and still here, the soonest first, and the stands there are', async () => {
    const s = await testShop(db)
    const late = await s.take({ promisedAt: '2026-12-02T12:00:00.000Z', complaint: 'late' })
    const soon = await s.take({ promisedAt: '2026-12-01T12:00:00.000Z', complaint: 'soon' })
    const done = await s.take({ promisedAt: '2026-11-30T12:00:00.000Z' })
    await s.tap(done, BRAKES_HOLD)
    await s.leave(done)
    const { promised, stands } = await inShop(db, s.shop, tx => promisedHere(tx, s.shop))
    expect(promised).toEqual([
      { number: soon, promisedAt: '2026-12-01T12:00:00.000Z', complaint: 'soon' },
      { number: late, promisedAt: '2026-12-02T12:00:00.000Z', complaint: 'late' },
    ])
    expect(stands).toBeGreaterThan(0)
  })
})
