import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { UNSEEN } from '#core/job/seen'
import { stockParts } from '#core/rear/typedParts'
import { addStock, stock } from './cables'
import { connect, inShop, type Db, type ShopTx } from './connect'
import { addNote, CannotTakeIn, drivetrainsUsed, jobByNumber, nextTag, notesOf, openJobByTag, tagFree } from './jobs'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 8)
})
afterAll(async () => {
  await db.destroy()
})

type Shop = Awaited<ReturnType<typeof testShop>>
const within = <T>(s: Shop, work: (tx: ShopTx) => Promise<T>) => inShop(db, s.shop, work)
const job = (s: Shop, number: number) => within(s, async tx => (await jobByNumber(tx, s.shop, number))!)
/** Handed back and fetched, on a day of its own. */
async function gone(s: Shop, number: number, at: string) {
  await s.tap(number, BRAKES_HOLD)
  await s.leave(number, {}, 'mechanic', new Date(at))
  await within(s, tx => tx.updateTable('job').set({ place: 'gone' }).where('number', '=', number).execute())
}

describe('asked again by the same id, since its answer was lost', () => {
  test('a take-in is the same job, one after the other or at once, whatever its tag is by now', async () => {
    const s = await testShop(db)
    const id = randomUUID()
    const again = () => s.takeAs(id, { tag: 'Rot 9' })
    const number = await again()
    expect(await again()).toBe(number)
    expect(new Set(await Promise.all(Array.from({ length: 6 }, again)))).toEqual(new Set([number]))
    const twice = randomUUID()
    const both = await Promise.all([1, 2, 3].map(() => s.takeAs(twice, { tag: 'Rot 10' })))
    expect(new Set(both).size).toBe(1)
    const left = await within(s, tx => tx.selectFrom('job').select('number').where('tag', 'like', 'Rot %').execute())
    expect(left).toHaveLength(2)
    expect(await within(s, tx => notesOf(tx, s.shop, id))).toEqual([])
    // what came with it is written down with it, once
    const noted = randomUUID()
    for (let i = 0; i < 2; i++) await s.takeAs(noted, { tag: 'Rot 11', note: 'From its code, left 2026-11-25' })
    expect((await within(s, tx => notesOf(tx, s.shop, noted))).map(n => n.text)).toEqual([
      'From its code, left 2026-11-25',
    ])
    // another order on that tag is another
    await expect(s.takeAs(randomUUID(), { tag: 'Rot 9' })).rejects.toBeInstanceOf(CannotTakeIn)
    // and the id is no other shop's
    const other = await testShop(db)
    expect(await other.takeAs(id, { tag: 'Rot 9' })).toBe(1)
  })
  test('a note and a roll are there once', async () => {
    const s = await testShop(db)
    const number = await s.take({ tag: '5' })
    const { id: of } = await job(s, number)
    const id = randomUUID()
    const roll = { kind: 'shift 4 mm', lengthMm: 5000, roll: true, label: '' } as const
    for (let i = 0; i < 2; i++)
      await within(s, async tx => {
        await addNote(tx, s.shop, of, s.person, 'bell put on', id)
        await addStock(tx, s.shop, s.person, roll, id)
      })
    expect(await within(s, tx => notesOf(tx, s.shop, of))).toHaveLength(1)
    expect(await within(s, tx => stock(tx, s.shop))).toHaveLength(1)
  })
})

describe('a tag', () => {
  test('hangs on one open job, however it is written; that job itself may keep it', async () => {
    const s = await testShop(db)
    const number = await s.take({ tag: 'Rot 7' })
    await expect(s.take({ tag: 'rot 7' })).rejects.toThrow(`Tag rot 7 hangs on open job ${number}: use another`)
    const { id } = await job(s, number)
    await within(s, tx => tagFree(tx, s.shop, 'ROT 7', id))
    await expect(within(s, tx => tagFree(tx, s.shop, 'ROT 7'))).rejects.toBeInstanceOf(CannotTakeIn)
    expect(await within(s, tx => openJobByTag(tx, s.shop, 'rOT 7'))).toEqual({ number })
    // another shop has its own
    const other = await testShop(db)
    await other.take({ tag: 'Rot 7' })
    await gone(s, number, '2026-11-20T10:00:00Z')
    expect(await within(s, tx => openJobByTag(tx, s.shop, 'rot 7'))).toBeUndefined()
    await s.take({ tag: 'rot 7' })
  })

  test('taken by two tablets in the same moment goes to one; the other is told, and leaves nothing behind', async () => {
    const s = await testShop(db)
    for (let round = 0; round < 6; round++) {
      const tag = `Both ${round}`
      const name = `Twin ${round}`
      const taken = await Promise.allSettled(
        ['a', 'b', 'c'].map(who =>
          s.take({ tag, customer: { name: `${name} ${who}`, contact: '' }, bike: { name, frameNumber: '' } }),
        ),
      )
      const refused = taken.filter(t => t.status === 'rejected').map(t => t.reason as unknown)
      expect(refused).toHaveLength(2)
      for (const r of refused) {
        expect(r).toBeInstanceOf(CannotTakeIn)
        expect(r).toMatchObject({ field: 'tag' })
      }
      const left = await within(s, tx => tx.selectFrom('bike').select('id').where('name', '=', name).execute())
      expect(left).toHaveLength(1)
    }
  })

  test('that is proposed: 1 in a new shop, one more than the highest, the longest free before that', async () => {
    const s = await testShop(db)
    const next = () => within(s, tx => nextTag(tx, s.shop))
    expect(await next()).toBe('1')
    const [four, nine] = [await s.take({ tag: '4' }), await s.take({ tag: '9' })]
    await s.take({ tag: 'blue' })
    await s.take({ tag: '1234567' })
    expect(await next()).toBe('10')
    // at the door it still hangs on the bike, though the job is closed
    await s.tap(nine, BRAKES_HOLD)
    await s.leave(nine, {}, 'mechanic', new Date('2026-11-18T10:00:00Z'))
    expect(await next()).toBe('10')
    await within(s, tx => tx.updateTable('job').set({ place: 'gone' }).where('number', '=', nine).execute())
    expect(await next()).toBe('9')
    await gone(s, four, '2026-11-20T10:00:00Z')
    expect(await next()).toBe('9')
    await s.take({ tag: '9' })
    expect(await next()).toBe('4')
  })
})

describe('taking a bike in', () => {
  const seen = { ...UNSEEN, rings: 2, front: 'cantilever', rear: 'none' } as const

  test('what was seen of its brakes starts their benches; that there is none is said there, by name', async () => {
    const s = await testShop(db)
    const number = await s.take({ seen })
    const events = (await s.log(number)).map(e => e!.event as { kind: string; parts?: { brake?: string } })
    expect(events.map(e => e.kind)).toEqual(['arrived', 'seen', 'brakeParts'])
    expect(events[2]!.parts).toMatchObject({ brake: 'front', kind: 'cantilever', lever: null })
    const plain = await s.take({})
    expect((await s.log(plain)).map(e => e!.event.kind)).toEqual(['arrived'])
  })

  test('a known bike keeps its customer, is known better after, and is in the house once', async () => {
    const s = await testShop(db)
    const first = await job(s, await s.take({ bike: { name: 'Dunlin', frameNumber: 'D1', frameKind: 'long' } }))
    expect(first).toMatchObject({ bike_name: 'Dunlin', frame_kind: 'long', known_job: null })
    const again = { id: first.bike_id, frameKind: 'open' as const }
    await expect(s.take({ tag: 'X1', bike: again })).rejects.toThrow(`That bike is here already, tag ${first.tag}`)
    await gone(s, first.number, '2026-11-20T10:00:00Z')
    const back = await job(s, await s.take({ tag: 'X1', bike: again, sameParts: true, seen }))
    expect(back).toMatchObject({ bike_id: first.bike_id, customer_id: first.customer_id, frame_kind: 'open' })
    expect(back.known_job).toBe(first.id)
    const stored = await within(s, tx =>
      tx.selectFrom('bike').select('seen').where('id', '=', first.bike_id).executeTakeFirstOrThrow(),
    )
    expect(stored.seen).toEqual(seen)
  })

  test('not started from its last sheet, it knows none; nothing new said of it, nothing is forgotten', async () => {
    const s = await testShop(db)
    const first = await job(s, await s.take({ bike: { name: 'Dunlin', frameNumber: 'D1', frameKind: 'open' } }))
    await gone(s, first.number, '2026-11-20T10:00:00Z')
    const back = await job(s, await s.take({ tag: 'X1', bike: { id: first.bike_id } }))
    expect(back).toMatchObject({ known_job: null, frame_kind: 'open' })
  })

  test('a known customer brings another bike; one of another shop, or nobody, is not known here', async () => {
    const s = await testShop(db)
    const other = await testShop(db)
    const mine = await job(s, await s.take({}))
    const theirs = await job(other, await other.take({}))
    const more = await job(
      s,
      await s.take({ customer: { id: mine.customer_id }, bike: { name: 'Second', frameNumber: '' } }),
    )
    expect(more).toMatchObject({ customer_id: mine.customer_id, bike_name: 'Second' })
    const count = () => within(s, tx => tx.selectFrom('bike').select('id').where('shop', '=', s.shop).execute())
    const before = (await count()).length
    for (const id of [theirs.customer_id, randomUUID()])
      await expect(s.take({ customer: { id } })).rejects.toThrow('That customer is not known here')
    for (const id of [theirs.bike_id, randomUUID()])
      await expect(s.take({ bike: { id } })).rejects.toThrow('That bike is not known here')
    expect((await count()).length).toBe(before)
    // a number is not used up by what was refused
    const next = await s.take({})
    expect(next).toBe(more.number + 1)
  })

  test('how often each drivetrain was here is counted in this shop alone', async () => {
    const s = await testShop(db)
    const other = await testShop(db)
    await other.take({ parts: stockParts('r14-10') })
    await s.take({ parts: stockParts('r14-10') })
    await s.take({ parts: stockParts('r14-10') })
    await s.take({ parts: stockParts('r17-10') })
    await s.take({ parts: null })
    expect(await within(s, tx => drivetrainsUsed(tx, s.shop))).toEqual({ 'r14-10': 2, 'r17-10': 1 })
  })
})

test('notes of a job come in the order they were made, each by its person', async () => {
  const s = await testShop(db)
  const { id } = await job(s, await s.take({}))
  const { id: another } = await job(s, await s.take({}))
  await within(s, tx => addNote(tx, s.shop, id, s.person, 'second', randomUUID(), new Date('2026-11-26T10:00:00Z')))
  await within(s, tx => addNote(tx, s.shop, id, s.person, 'first', randomUUID(), new Date('2026-11-25T10:00:00Z')))
  await within(s, tx => addNote(tx, s.shop, another, s.person, 'elsewhere'))
  const notes = await within(s, tx => notesOf(tx, s.shop, id))
  expect(notes.map(n => [n.text, n.by])).toEqual([
    ['first', 'Ishbel'],
    ['second', 'Ishbel'],
  ])
})
