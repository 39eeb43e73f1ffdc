import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { connect, inShop, type Db } from './connect'
import { addNote } from './jobs'
import { jobView } from './jobView'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

test('a job as its pages need it: what was written at the door, who works here, its sheet once it left, the last visit’s where it is known', async () => {
  const s = await testShop(db)
  const view = (number: number) => inShop(db, s.shop, tx => jobView(tx, s.shop, number))
  const number = await s.take({
    customer: { name: 'Hob Tarrant', contact: '0555 014' },
    bike: { name: 'Marram quay', frameNumber: 'F-77' },
    tag: '31',
    promisedAt: '2026-12-01T15:30:00.000Z',
    complaint: 'will not climb',
  })
  const open = (await view(number))!
  expect(open).toMatchObject({
    number,
    tag: '31',
    complaint: 'will not climb',
    promisedAt: '2026-12-01T15:30:00.000Z',
    closedAt: null,
    customer: { name: 'Hob Tarrant', contact: '0555 014' },
    bike: { name: 'Marram quay', frameNumber: 'F-77', frameKind: null },
    notes: [],
    known: null,
    sheet: null,
    people: { [s.person]: 'Ishbel' },
    edits: [],
  })
  expect(Date.now() - Date.parse(open.createdAt)).toBeLessThan(60_000)
  await inShop(db, s.shop, async tx => {
    const job = await tx.selectFrom('job').select('id').where('number', '=', number).executeTakeFirstOrThrow()
    await addNote(tx, s.shop, job.id, s.person, 'stop burred', undefined, new Date('2026-11-28T09:00:00.000Z'))
  })
  expect((await view(number))!.notes).toMatchObject([
    { text: 'stop burred', by: 'Ishbel', at: '2026-11-28T09:00:00.000Z' },
  ])
  await s.tap(number, [...BRAKES_HOLD, { kind: 'turn', screw: 'barrel', sixteenths: 4 }])
  await s.leave(number, {}, 'mechanic', new Date('2026-11-29T10:00:00.000Z'))
  const left = (await view(number))!
  expect(left.closedAt).toBe('2026-11-29T10:00:00.000Z')
  expect(left.sheet).toMatchObject({ how: 'proven' })
  expect(left.known).toBeNull()
  // it comes back with the same parts: its last sheet is what is known, and it has none of its own yet
  const { customer } = await inShop(db, s.shop, tx =>
    tx.selectFrom('bike').select('customer').where('id', '=', open.bike.id).executeTakeFirstOrThrow(),
  )
  const again = await s.take({ customer: { id: customer }, bike: { id: open.bike.id }, sameParts: true })
  const back = (await view(again))!
  expect(back.bike.id).toBe(open.bike.id)
  expect(back.known).toEqual(left.sheet)
  expect(back.sheet).toBeNull()
  // nobody's, and another shop's
  expect(await view(9_999)).toBeNull()
  const other = await testShop(db)
  await other.take({})
  expect(Object.keys((await inShop(db, other.shop, tx => jobView(tx, other.shop, 1)))!.people)).toEqual([other.person])
})
