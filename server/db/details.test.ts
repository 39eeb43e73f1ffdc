import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { Details } from '#core/http/job'
import { connect, inShop, type Db } from './connect'
import { changeDetails } from './details'
import { floor } from './floor'
import { CannotTakeIn } from './jobs'
import { jobView } from './jobView'
import { JobClosed, NoSuchJob } from './ledger'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 6)
})
afterAll(async () => {
  await db.destroy()
})

type Shop = Awaited<ReturnType<typeof testShop>>
const change = (s: Shop, number: number, changes: Partial<Details>, id: string = randomUUID()) =>
  changeDetails(db, s.shop, number, s.person, null, Details.parse({ id, basedOn: 1, ...changes }))
const view = (s: Shop, number: number) => inShop(db, s.shop, async tx => (await jobView(tx, s.shop, number))!)

describe('what was written at the door', () => {
  test('is put right field by field, with what stood there before, by whom; the ledger says which and not the words', async () => {
    const s = await testShop(db)
    const number = await s.take({ customer: { name: 'Hob', contact: '085 1' } })
    const before = await view(s, number)
    const fields = await change(s, number, {
      customer: 'Hob Tarrant',
      contact: '085 555 0100',
      bike: 'Marram quay',
      frameNumber: 'F9',
      complaint: 'skips',
      promisedAt: '2026-12-01T10:00:00.000Z',
      tag: 'Z9',
    })
    expect(fields).toEqual(['customer', 'contact', 'bike', 'frameNumber', 'complaint', 'promisedAt', 'tag'])
    const after = await view(s, number)
    expect(after).toMatchObject({
      customer: { name: 'Hob Tarrant', contact: '085 555 0100' },
      bike: { name: 'Marram quay', frameNumber: 'F9' },
      complaint: 'skips',
      promisedAt: '2026-12-01T10:00:00.000Z',
      tag: 'Z9',
    })
    expect(Object.fromEntries(after.edits.map(e => [e.field, e.was]))).toEqual({
      customer: 'Hob',
      contact: '085 1',
      bike: 'Marram',
      frameNumber: 'F1',
      complaint: 'slow',
      promisedAt: before.promisedAt,
      tag: before.tag,
    })
    expect(after.edits.every(e => e.by === 'Ishbel')).toBe(true)
    expect((await s.log(number)).at(-1)!.event).toEqual({ kind: 'edited', fields })
  })
  test('what does not differ is not written; asked twice it is done once', async () => {
    const s = await testShop(db)
    const number = await s.take()
    const { complaint, promisedAt } = await view(s, number)
    expect(await change(s, number, { complaint, promisedAt })).toEqual([])
    const id = randomUUID()
    await Promise.all([1, 2, 3].map(() => change(s, number, { complaint: 'clicks' }, id)))
    expect((await view(s, number)).edits).toHaveLength(1)
    expect(await s.log(number)).toHaveLength(2)
  })
  test('a tag that hangs on another bike is refused whole, also by two at once; upper and lower case are one', async () => {
    const s = await testShop(db)
    const [one, two] = [await s.take({ tag: 'A1' }), await s.take({ tag: 'B1' })]
    await expect(change(s, two, { tag: 'a1', complaint: 'lost' })).rejects.toThrow(CannotTakeIn)
    expect((await view(s, two)).complaint).toBe('slow')
    expect((await view(s, two)).edits).toEqual([])
    await change(s, one, { tag: 'a1' }) // its own tag, written otherwise
    const both = await Promise.allSettled([change(s, one, { tag: 'C1' }), change(s, two, { tag: 'c1' })])
    expect(both.filter(b => b.status === 'fulfilled')).toHaveLength(1)
  })
  test('of a closed job stays until it is reopened; of another shop it is not there; another request’s id is refused', async () => {
    const [s, other] = [await testShop(db), await testShop(db)]
    const number = await s.take({ parts: null })
    await expect(change(other, number, { complaint: 'x' })).rejects.toThrow(NoSuchJob)
    const id = (await s.tap(number, [{ kind: 'waits', for: 'parts' }]))[0]!.id
    await expect(change(s, number, { complaint: 'x' }, id)).rejects.toThrow(/used before/)
    expect((await view(s, number)).complaint).toBe('slow')
    await s.tap(number, BRAKES_HOLD)
    await s.leave(number)
    await expect(change(s, number, { complaint: 'x' })).rejects.toThrow(JobClosed)
  })
  test.each<[string, object]>([
    ['an empty name', { customer: ' ' }],
    ['a tag of nine letters', { tag: 'ABCDEFGHI' }],
    ['a promise in words', { promisedAt: 'tomorrow' }],
    ['a complaint of 401 characters', { complaint: 'x'.repeat(401) }],
    ['a field there is not', { price: 5 }],
  ])('%s is refused', (_, changes) => {
    expect(Details.safeParse({ id: randomUUID(), basedOn: 0, ...changes }).success).toBe(false)
  })
})

describe('ways a job ends without its work', () => {
  test('fetched unrepaired it is by the door, unproven on its sheet, with no recall; cancelled it is gone, and leaves no records', async () => {
    const s = await testShop(db)
    const [fetched, cancelled] = [await s.take(), await s.take()]
    await s.put(cancelled, { kind: 'gap', gapMm: 5, how: 'measured', at: 'stand' })
    expect(await s.leave(fetched, { how: 'unrepaired' })).toMatchObject({ how: 'unrepaired', recallOn: null })
    await s.leave(cancelled, { how: 'cancelled' })
    const { jobs, recalls } = await inShop(db, s.shop, tx => floor(tx, s.shop))
    expect(jobs.map(j => [j.number, j.place, j.unridable])).toEqual([[fetched, 'door', true]])
    expect(recalls).toEqual([])
    const kept = await inShop(db, s.shop, tx => tx.selectFrom('record').select('bike').execute())
    const { bike } = await view(s, cancelled)
    expect(kept.filter(r => r.bike === bike.id)).toEqual([])
    await expect(s.leave(fetched, { how: 'cancelled' })).rejects.toThrow(/in another way/)
    await s.open(cancelled)
    expect((await view(s, cancelled)).closedAt).toBeNull()
  })
  test('what a job waits for is on the Floor until it goes on', async () => {
    const s = await testShop(db)
    const number = await s.take()
    const waits = async () => (await inShop(db, s.shop, tx => floor(tx, s.shop))).jobs[0]!.waits
    expect(await waits()).toBeNull()
    await s.tap(number, [{ kind: 'waits', for: 'word' }], 'trainee')
    expect(await waits()).toBe('word')
    await s.tap(number, [{ kind: 'waits', for: null }])
    expect(await waits()).toBeNull()
  })
})
