import { randomBytes, randomUUID } from 'node:crypto'
import { addDays, subDays } from 'date-fns'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import { bikeView } from './bikes'
import { connect, inShop, type Db } from './connect'
import { jobByNumber } from './jobs'
import { addPhoto } from './photos'
import { keepTold, settledOf } from './settling'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 6)
})
afterAll(async () => {
  await db.destroy()
})

const NEW_CABLE: LedgerEvent = { kind: 'replace', part: 'cable' }
const barrel = (turns: number): LedgerEvent => ({ kind: 'turn', screw: 'barrel', sixteenths: 16 * turns })

/** A shop with one bike that comes and goes. */
async function bikeThatComes() {
  const s = await testShop(db)
  const view = (id: string) => inShop(db, s.shop, tx => bikeView(tx, s.shop, id))
  const job = (number: number) => inShop(db, s.shop, async tx => (await jobByNumber(tx, s.shop, number))!)
  const leave = async (number: number, at: Date, how: 'proven' | 'cancelled' = 'proven') => {
    await s.tap(number, BRAKES_HOLD)
    await s.leave(number, { how }, 'mechanic', at)
    await inShop(db, s.shop, tx => tx.updateTable('job').set({ place: 'gone' }).where('number', '=', number).execute())
  }
  const first = await s.take({ bike: { name: 'Knot', frameNumber: 'K1', frameKind: 'folding' } })
  const { bike_id: id } = await job(first)
  /** Comes again now, started from its last sheet. */
  const again = (known = true) => s.take({ bike: { id }, sameParts: known, tag: `A${randomUUID().slice(0, 5)}` })
  const settled = () => inShop(db, s.shop, tx => settledOf(tx, s.shop))
  return { ...s, view, job, leaveAt: leave, first, id, again, settled }
}

describe('a bike’s page', () => {
  test('has its visits, the latest first, with what each renewed; what nothing was renewed in is left out', async () => {
    const s = await bikeThatComes()
    const began = (await s.view(s.id))!
    expect(began).toMatchObject({ name: 'Knot', frameNumber: 'K1', frame: 'folding', last: null, changed: [] })
    expect(began).toMatchObject({ sprockets: null, cableRenewedAt: null, recall: null, photos: [] })
    expect(began.visits).toMatchObject([{ number: s.first, closedAt: null }])
    await s.tap(s.first, [{ kind: 'replace', part: 'hanger' }, NEW_CABLE, barrel(0.5)])
    const left = subDays(new Date(), 40)
    await s.leaveAt(s.first, left)
    const second = await s.again()
    await s.tap(second, [barrel(0.25)])
    await s.leaveAt(second, new Date())
    const page = (await s.view(s.id))!
    expect(page.visits.map(v => [v.number, v.closedAt !== null])).toEqual([
      [second, true],
      [s.first, true],
    ])
    expect(page.changed).toEqual([{ job: s.first, at: left.toISOString(), what: ['Derailleur hanger'] }])
    expect(page.last).toMatchObject({ job: second, settle: false })
    expect(page.sprockets).toBe(10)
    expect(page.cableRenewedAt).not.toBeNull()
    expect(page.recall).toMatchObject({ job: expect.any(Number) as number })
    expect(page.customer).toMatchObject({ name: 'Hob', erased: false })
  })

  test('has its photographs with the job they are of; of another shop’s bike, and of none, there is no page', async () => {
    const s = await bikeThatComes()
    const { id: row } = await s.job(s.first)
    const photo = await inShop(db, s.shop, tx =>
      addPhoto(tx, s.shop, row, s.person, { of: 'rear', mime: 'image/jpeg', bytes: randomBytes(40) }),
    )
    expect((await s.view(s.id))!.photos).toMatchObject([{ id: photo, job: s.first, of: 'rear' }])
    const other = await bikeThatComes()
    expect(await other.view(s.id)).toBeNull()
    expect(await other.view(randomUUID())).toBeNull()
    expect((await other.view(other.id))!.photos).toEqual([])
  })

  test('a bike without a derailleur has no sprockets to show', async () => {
    const s = await testShop(db)
    const number = await s.take({ parts: null })
    await s.tap(number, BRAKES_HOLD)
    await s.leave(number)
    const { bike_id: id } = (await inShop(db, s.shop, tx => jobByNumber(tx, s.shop, number)))!
    const page = (await inShop(db, s.shop, tx => bikeView(tx, s.shop, id)))!
    expect(page.last).toMatchObject({ job: number })
    expect(page.sprockets).toBeNull()
  })
})

describe('what a return teaches of a new run', () => {
  /** The first visit renewed the cable; the bike leaves then. */
  async function renewed(daysAgo: number) {
    const s = await bikeThatComes()
    await s.tap(s.first, [NEW_CABLE, { kind: 'ridden', how: 'weekly' }])
    await s.leaveAt(s.first, subDays(new Date(), daysAgo))
    return s
  }

  test('is how far the barrel took up since, and after how many days', async () => {
    const s = await renewed(21)
    const back = await s.again()
    await s.tap(back, [barrel(0.75)])
    expect(await s.settled()).toEqual([])
    await s.leaveAt(back, new Date())
    const [lesson, ...none] = await s.settled()
    expect(none).toEqual([])
    expect(lesson).toMatchObject({ turns: 0.75, riding: 'weekly', bedded: false, housingMm: null })
    expect(lesson!.days).toBeGreaterThan(20.5)
    expect(lesson!.days).toBeLessThan(21.5)
  })

  test('that went the other way is none, not less than none', async () => {
    const s = await renewed(21)
    const back = await s.again()
    await s.tap(back, [barrel(-0.5)])
    await s.leaveAt(back, new Date())
    expect(await s.settled()).toMatchObject([{ turns: 0 }])
  })

  test('is what its rider told before, and what is found besides, together', async () => {
    const s = await renewed(21)
    const { id: row } = await s.job(s.first)
    const told = (days: number, sixteenths: number) =>
      inShop(db, s.shop, tx => keepTold(tx, s.shop, row, sixteenths, addDays(subDays(new Date(), 21), days)))
    // before it left, and long after: neither is settling
    await told(-1, 4)
    await told(91, 4)
    expect(await s.settled()).toEqual([])
    await told(9, 4)
    await told(10, 8)
    expect(await s.settled()).toMatchObject([{ turns: 0.25 }])
    const back = await s.again()
    await s.tap(back, [barrel(0.5)])
    await s.leaveAt(back, new Date())
    expect(await s.settled()).toMatchObject([{ turns: 0.75 }])
  })

  test.each<[string, number, (s: Awaited<ReturnType<typeof renewed>>) => Promise<void>]>([
    ['came after a season', 120, async s => void (await s.leaveAt(await s.again(), new Date()))],
    ['not started from its last sheet', 21, async s => void (await s.leaveAt(await s.again(false), new Date()))],
    [
      'the cable renewed once more',
      21,
      async s => {
        const back = await s.again()
        await s.tap(back, [NEW_CABLE])
        await s.leaveAt(back, new Date())
      },
    ],
    ['cancelled', 21, async s => void (await s.leaveAt(await s.again(), new Date(), 'cancelled'))],
  ])('teaches nothing: %s', async (_, days, comes) => {
    const s = await renewed(days)
    await comes(s)
    expect(await s.settled()).toEqual([])
  })

  test('nothing was renewed before, nothing is learnt', async () => {
    const s = await bikeThatComes()
    await s.tap(s.first, [barrel(0.5)])
    await s.leaveAt(s.first, subDays(new Date(), 21))
    const back = await s.again()
    await s.tap(back, [barrel(0.75)])
    await s.leaveAt(back, new Date())
    expect(await s.settled()).toEqual([])
  })
})
