import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { SameBike } from '#core/http/job'
import { bikeView } from './bikes'
import { connect, inShop, type Db } from './connect'
import { findBikes } from './floor'
import { CannotTakeIn } from './jobs'
import { jobView } from './jobView'
import { NoSuchJob } from './ledger'
import { mergeBike } from './merge'
import { recallDesk } from './recalls'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 6)
})
afterAll(async () => {
  await db.destroy()
})

type Shop = Awaited<ReturnType<typeof testShop>>
const merge = (s: Shop, number: number, bike: string, id: string = randomUUID()) =>
  mergeBike(db, s.shop, number, s.person, null, SameBike.parse({ id, basedOn: 1, bike }))
const view = (s: Shop, number: number) => inShop(db, s.shop, async tx => (await jobView(tx, s.shop, number))!)
const found = (s: Shop, words: string) => inShop(db, s.shop, tx => findBikes(tx, s.shop, words))

/** A bike that was here and left, and the same one entered again. */
async function twice(s: Shop) {
  const first = await s.take({
    customer: { name: 'Hob', contact: '085 1' },
    bike: { name: 'Marram', frameNumber: 'F1' },
  })
  await s.tap(first, BRAKES_HOLD)
  await s.leave(first)
  await inShop(db, s.shop, tx => tx.updateTable('job').set({ place: 'gone' }).where('number', '=', first).execute())
  const again = await s.take({ customer: { name: 'Hobb', contact: '' }, bike: { name: 'Maram', frameNumber: '' } })
  return { first, again, real: (await view(s, first)).bike.id }
}

describe('a bike that was entered twice', () => {
  test('becomes one: this job, its visits and its page; what stood here is kept, and found no more', async () => {
    const s = await testShop(db)
    const { first, again, real } = await twice(s)
    const wrong = (await view(s, again)).bike.id
    await merge(s, again, real)
    const now = await view(s, again)
    expect(now.bike).toMatchObject({ id: real, name: 'Marram', frameNumber: 'F1' })
    expect(now.customer.name).toBe('Hob')
    expect(now.edits).toMatchObject([{ field: 'bike', was: 'Maram, Hobb' }])
    expect(await found(s, 'Maram')).toEqual([])
    const page = (await inShop(db, s.shop, tx => bikeView(tx, s.shop, wrong)))!
    expect(page.id).toBe(real)
    expect(page.visits.map(v => v.number)).toEqual([again, first])
  })

  test('asked twice it is done once; into itself, into nobody, into one that is here: refused, nothing written', async () => {
    const s = await testShop(db)
    const { again, real } = await twice(s)
    const own = (await view(s, again)).bike.id
    await expect(merge(s, again, own)).rejects.toThrow('That is this bike already')
    await expect(merge(s, again, randomUUID())).rejects.toThrow(CannotTakeIn)
    const third = await s.take({ customer: { name: 'Tarn', contact: '' }, bike: { name: 'Petrel', frameNumber: '' } })
    await expect(merge(s, again, (await view(s, third)).bike.id)).rejects.toThrow('cancel one of the two jobs first')
    expect((await view(s, again)).edits).toEqual([])
    const id = randomUUID()
    await merge(s, again, real, id)
    await merge(s, again, real, id)
    expect((await view(s, again)).edits).toHaveLength(1)
    await expect(merge(s, third, own)).rejects.toThrow('not known here') // it is no bike of its own any more
  })

  test('another shop’s bike is nobody, and another shop’s job is none', async () => {
    const s = await testShop(db)
    const other = await testShop(db)
    const { again, real } = await twice(s)
    const theirs = await other.take({})
    await expect(merge(s, again, (await view(other, theirs)).bike.id)).rejects.toThrow('not known here')
    await expect(
      mergeBike(db, other.shop, 9999, other.person, null, { id: randomUUID(), basedOn: 1, bike: real }),
    ).rejects.toThrow(NoSuchJob)
  })

  test('is not asked back: it is here', async () => {
    const s = await testShop(db)
    const { again, real } = await twice(s)
    const states = async () =>
      (await inShop(db, s.shop, tx => recallDesk(tx, s.shop))).recalls.map(r => [r.bike.id, r.state])
    expect(await states()).toEqual([[real, 'due']])
    await merge(s, again, real)
    expect(await states()).toEqual([[real, 'came']])
  })

  test('of two histories the newest of each figure counts', async () => {
    const s = await testShop(db)
    const { again, real } = await twice(s)
    const dropped = (await view(s, again)).bike.id
    const put = (bike: string, value: number, at: string) =>
      inShop(db, s.shop, tx =>
        tx
          .insertInto('record')
          .values({
            shop: s.shop,
            id: randomUUID(),
            job: null,
            bike,
            standard: 'r14-10',
            figure: 'inner',
            frame: null,
            value,
            at,
            origin: null,
          })
          .execute(),
      )
    await put(real, 2000, '2026-01-01T10:00:00Z')
    await put(dropped, 2100, '2026-05-01T10:00:00Z')
    await merge(s, again, real)
    const rows = await inShop(db, s.shop, tx =>
      tx
        .selectFrom('record')
        .select(['value', 'latest'])
        .where('shop', '=', s.shop)
        .where('bike', '=', real)
        .where('figure', '=', 'inner')
        .orderBy('at')
        .execute(),
    )
    expect(rows.map(r => [Number(r.value), r.latest])).toEqual([
      [2000, false],
      [2100, true],
    ])
  })
})
