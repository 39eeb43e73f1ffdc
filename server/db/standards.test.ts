import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import type { RearParts } from '#core/rear/parts'
import { stockParts, typedFromCatalogue } from '#core/rear/typedParts'
import type { RecordRow } from '#core/exchange/recordRow'
import type { PointsAsked } from '#core/http/records'
import { catalogueInForce, inForceFigure } from '#core/standards/shopValues'
import { bikeView } from './bikes'
import { connect, inShop, type Db } from './connect'
import { exportRecords, importRecords, knownRecords } from './recordFiles'
import { fillRecords } from './records'
import { LATEST_BIKES, questionFor } from '#core/records/question'
import { countsByStandard, likeHere, pointsOf, recordsOfStandard } from './recordViews'
import { lastSheet } from './sheets'
import { claim, shopValues, valuesInForce } from './standards'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

function partsOf({ standard = 'r14-10', turnMm }: { standard?: string; turnMm?: number }): RearParts {
  const parts = stockParts(standard)
  return turnMm ? { ...parts, barrel: { ...parts.barrel, threadMm: turnMm, known: 'measured' } } : parts
}

async function newShop() {
  const house = await testShop(db)
  const { shop } = house
  /** A whole visit: in, what was done, out. */
  async function visit(
    order: {
      bike?: string
      customer?: string
      frame?: 'open' | 'internal'
      standard?: string
      comesBack?: boolean
      at?: string
      /** How far a turn of its barrel goes, measured on this bike, mm. */
      turnMm?: number
    },
    events: LedgerEvent[],
  ) {
    const number = await house.take({
      ...(order.customer ? { customer: { id: order.customer } } : {}),
      bike: order.bike
        ? { id: order.bike }
        : { name: 'Marram', frameNumber: '', ...(order.frame ? { frameKind: order.frame } : {}) },
      parts: partsOf(order),
      sameParts: order.comesBack ?? false,
    })
    await house.put(number, ...events, ...BRAKES_HOLD)
    await house.leave(number, {}, 'mechanic', new Date(order.at ?? '2026-11-25T12:00:00.000Z'))
    const { bike, customer } = await inShop(db, shop, tx =>
      tx
        .selectFrom('job')
        .innerJoin('bike', j => j.onRef('bike.shop', '=', 'job.shop').onRef('bike.id', '=', 'job.bike'))
        .select(['bike.id as bike', 'bike.customer'])
        .where('job.shop', '=', shop)
        .where('job.number', '=', number)
        .executeTakeFirstOrThrow(),
    )
    return { number, bike, customer }
  }
  const seen = (standard: string) => inShop(db, shop, tx => recordsOfStandard(tx, shop, standard))
  return { ...house, visit, seen }
}
const loop = (lengthMm: number): LedgerEvent => ({
  kind: 'housing',
  place: 'last loop',
  lengthMm,
  of: '4 mm',
  ends: 'metal',
})
const turn = (sixteenths: number): LedgerEvent => ({ kind: 'turn', screw: 'barrel', sixteenths })

describe('records', () => {
  test('of a figure seen on more bikes than enough the latest count, and all bikes are counted', async () => {
    const s = await newShop()
    await s.visit({ frame: 'open' }, [loop(300)])
    // four hundred later bikes, their figures rising with time, and a hundred before them that would pull them down
    await sql`
      insert into record (shop, id, bike, standard, figure, frame, value, at, latest)
      select ${s.shop}, gen_random_uuid(), gen_random_uuid(), 'r14-10', f, 'open', case f when 'visit' then 1 else 1000 + i end,
        now() + i * interval '1 minute', true
      from generate_series(-99, ${LATEST_BIKES}) i cross join unnest(array['visit', 'housing last loop']) f where i <> 0`.execute(
      owner,
    )
    const { bikes, figures } = await s.seen('r14-10')
    expect(bikes).toBe(LATEST_BIKES + 100)
    const { seen, frames } = figures.find(f => f.figure === 'housing last loop')!
    expect(seen).toMatchObject({ bikes: LATEST_BIKES, least: 1001, median: 1200.5, most: 1000 + LATEST_BIKES })
    expect(frames).toEqual([{ frame: 'open', seen }])
    const like = await inShop(db, s.shop, tx => likeHere(tx, s.shop, ['r14-10'], 'open'))
    expect(like.standards[0]!.figures.find(f => f.figure === 'housing last loop')!.seen).toEqual(seen)
    expect(like.any.find(f => f.figure === 'housing last loop')!.seen).toEqual(seen)
    // and the question says of whom it speaks
    expect(questionFor('housing last loop', 3000, seen)).toContain('(the latest 400 bikes)')
  })
  test('medians count the latest of each bike, by kind of frame and together', async () => {
    const s = await newShop()
    const a = await s.visit({ frame: 'open', at: '2026-10-01T12:00:00.000Z' }, [loop(280)])
    await s.visit({ frame: 'open' }, [loop(300)])
    await s.visit({ frame: 'internal' }, [loop(210)])
    await s.visit({ bike: a.bike, customer: a.customer }, [loop(290)])
    const { bikes, figures } = await s.seen('r14-10')
    expect(bikes).toBe(3)
    const housing = figures.find(f => f.figure === 'housing last loop')!
    expect(housing.seen).toEqual({ bikes: 3, least: 210, quarter: 250, median: 290, threeQuarters: 295, most: 300 })
    expect(housing.frames.find(f => f.frame === 'open')!.seen).toMatchObject({ bikes: 2, median: 295 })
    const points = await inShop(db, s.shop, tx => pointsOf(tx, s.shop, 'r14-10', 'housing last loop'))
    expect(points.map(p => [p.value, p.latest]).sort()).toEqual(
      [
        [210, true],
        [280, false],
        [290, true],
        [300, true],
      ].sort(),
    )
    expect(points.find(p => p.value === 280)!.job).toMatchObject({ number: a.number })
    expect(await inShop(db, s.shop, tx => countsByStandard(tx, s.shop))).toEqual([{ standard: 'r14-10', bikes: 3 }])
  })
  test('slack is recorded when a bike comes back; opening the job again takes its figures back and the earlier ones count', async () => {
    const s = await newShop()
    const first = await s.visit({ at: '2026-10-01T12:00:00.000Z' }, [turn(4)])
    const second = await s.visit({ bike: first.bike, customer: first.customer, comesBack: true }, [turn(6)])
    const figure = async (key: string) => (await s.seen('r14-10')).figures.find(f => f.figure === key)?.seen.median
    expect([await figure('slack'), await figure('barrel')]).toEqual([6 / 16, 6 / 16])
    await s.open(second.number)
    expect([await figure('slack'), await figure('barrel')]).toEqual([undefined, 4 / 16])
    const view = await inShop(db, s.shop, tx => bikeView(tx, s.shop, first.bike))
    expect(view).toMatchObject({
      name: 'Marram',
      customer: { name: 'Hob', erased: false },
      visits: [{ number: second.number }, { number: first.number }],
    })
    expect(view!.records.map(r => [r.figure, r.value, r.job.number])).toEqual([
      ['barrel', 4 / 16, first.number],
      ['rounds', 1, first.number],
    ])
  })
  test('visits from before records were kept leave theirs, once', async () => {
    const s = await newShop()
    await s.visit({}, [loop(300)])
    await inShop(db, s.shop, tx => tx.deleteFrom('record').where('shop', '=', s.shop).execute())
    expect(await inShop(db, s.shop, tx => fillRecords(tx, s.shop, job => lastSheet(tx, s.shop, { job })))).toBe(1)
    expect(await inShop(db, s.shop, tx => fillRecords(tx, s.shop, () => Promise.resolve(null)))).toBe(0)
    expect((await s.seen('r14-10')).figures.find(f => f.figure === 'housing last loop')?.seen.median).toBe(300)
  })
  test("rows from a file count beside the shop's own, lead to no job, and come in once", async () => {
    const s = await newShop()
    await s.visit({}, [loop(300)])
    const other = randomUUID()
    const row = (change: Partial<RecordRow>): RecordRow => ({
      id: randomUUID(),
      standard: 'r14-10',
      figure: 'housing last loop',
      frame: 'open',
      value: 260,
      unit: 'mm',
      bike: other,
      at: '2026-10-02T09:00:00.000Z',
      ...change,
    })
    const rows = [row({}), row({ value: 270, at: '2026-11-02T09:00:00.000Z' }), row({ bike: null, value: 280 })]
    await inShop(db, s.shop, tx => importRecords(tx, s.shop, rows, 'from a file'))
    expect((await s.seen('r14-10')).figures[0].seen).toMatchObject({ bikes: 3, least: 270, median: 280, most: 300 })
    const points = await inShop(db, s.shop, tx => pointsOf(tx, s.shop, 'r14-10', 'housing last loop'))
    expect(points.find(p => p.value === 260)).toMatchObject({
      latest: false,
      job: null,
      bike: null,
      origin: 'from a file',
    })
    expect(await inShop(db, s.shop, tx => knownRecords(tx, s.shop, [rows[0].id, randomUUID()]))).toEqual(
      new Set([rows[0].id]),
    )
    const out = await inShop(db, s.shop, tx => exportRecords(tx, s.shop))
    expect(out).toHaveLength(4)
    expect(out).toContainEqual(rows[1])
    expect(new Set(out.map(r => r.figure))).toEqual(new Set(['housing last loop'])) // counting rows stay inside
    // a standard that is known from files alone is in the list too
    await inShop(db, s.shop, tx =>
      importRecords(tx, s.shop, [row({ id: randomUUID(), standard: 'r11-9' })], 'from a file'),
    )
    expect(await inShop(db, s.shop, tx => countsByStandard(tx, s.shop))).toEqual([
      { standard: 'r14-10', bikes: 3 },
      { standard: 'r11-9', bikes: 1 },
    ])
    // a later file with a newer figure of the same bike: one row of it counts
    await inShop(db, s.shop, tx =>
      importRecords(tx, s.shop, [row({ value: 275, at: '2026-11-20T09:00:00.000Z' })], 'from a file'),
    )
    expect((await s.seen('r14-10')).figures[0].seen).toMatchObject({ bikes: 3, least: 275 })
  })
  test('bikes like this: of the standard by frame, of any part on such a frame, of several standards at once', async () => {
    const s = await newShop()
    for (const mm of [280, 290, 300]) await s.visit({ frame: 'open' }, [loop(mm)])
    await s.visit({ frame: 'internal' }, [loop(210)])
    const like = await inShop(db, s.shop, tx => likeHere(tx, s.shop, ['r14-10', 'run hub'], 'open'))
    expect(like.standards.map(x => x.standard)).toEqual(['r14-10'])
    expect(like.standards[0]!.figures[0]).toMatchObject({
      figure: 'housing last loop',
      seen: { bikes: 4 },
      frames: [
        { frame: 'internal', seen: { bikes: 1, median: 210 } },
        { frame: 'open', seen: { bikes: 3, median: 290 } },
      ],
    })
    expect(like.any).toEqual([
      {
        figure: 'housing last loop',
        seen: { bikes: 3, least: 280, quarter: 285, median: 290, threeQuarters: 295, most: 300 },
      },
    ])
    const unknown = await inShop(db, s.shop, tx => likeHere(tx, s.shop, ['run hub'], null))
    expect(unknown).toEqual({ standards: [], any: [] })
  })
  test('points are found by day in the shop’s zone, by bike, by job and by tag', async () => {
    const s = await newShop()
    await inShop(db, s.shop, tx =>
      tx.updateTable('shop').set({ zone: 'Europe/Paris' }).where('shop', '=', s.shop).execute(),
    )
    const late = await s.visit({ at: '2026-10-01T23:30:00.000Z' }, [loop(280)])
    await s.visit({ at: '2026-10-05T12:00:00.000Z' }, [loop(300)])
    const found = async (asked: PointsAsked) =>
      (await inShop(db, s.shop, tx => pointsOf(tx, s.shop, 'r14-10', 'housing last loop', asked))).map(p => p.value)
    expect(await found({})).toEqual([300, 280])
    // half past eleven in UTC is the next day on the shop's clock
    expect(await found({ from: '2026-10-02', to: '2026-10-02' })).toEqual([280])
    expect(await found({ to: '2026-10-01' })).toEqual([])
    expect(await found({ q: String(late.number) })).toEqual([280])
    expect(await found({ q: 'marram' })).toEqual([300, 280])
    expect(await found({ q: '100%' })).toEqual([])
  })
  test('faults are counted with their cures, whether those held, and what came back too soon', async () => {
    const s = await newShop()
    const a = await s.visit({ at: '2026-03-01T12:00:00.000Z' }, [{ kind: 'replace', part: 'hanger' }])
    await s.visit({ at: '2026-03-01T13:00:00.000Z' }, [{ kind: 'replace', part: 'hanger' }])
    await s.visit({ at: '2026-03-21T12:00:00.000Z', bike: a.bike, customer: a.customer }, [
      { kind: 'replace', part: 'hanger' },
    ])
    await s.visit({}, [turn(8)])
    const page = await s.seen('r14-10')
    expect(page.faults).toEqual([
      { fault: 'fault hanger', found: 3, cured: 3, held: 2, back: 1 },
      { fault: 'fault tension', found: 1, cured: 1, held: 0, back: 0 },
    ])
    expect(page.figures.find(f => f.figure === 'comeback')!.seen).toMatchObject({ bikes: 1, median: 20 })
    expect(page.figures.find(f => f.figure === 'rounds')!.seen).toMatchObject({ bikes: 1, median: 1 })
    // counted, and never told in a file
    const out = await inShop(db, s.shop, tx => exportRecords(tx, s.shop, 'r14-10'))
    expect(new Set(out.map(r => r.figure))).toEqual(new Set(['comeback', 'rounds', 'barrel']))
    expect(await inShop(db, s.shop, tx => exportRecords(tx, s.shop, 'r11-9'))).toEqual([])
  })
  test("no shop sees another's, and none may change one", async () => {
    const [a, b] = [await newShop(), await newShop()]
    await a.visit({}, [loop(300)])
    expect(await inShop(db, b.shop, tx => recordsOfStandard(tx, a.shop, 'r14-10'))).toMatchObject({
      bikes: 0,
      figures: [],
    })
    expect(await inShop(db, b.shop, tx => exportRecords(tx, a.shop))).toEqual([])
    await expect(inShop(db, a.shop, tx => sql`update record set value = 1`.execute(tx))).rejects.toThrow(
      /permission denied/,
    )
  })
})

describe('a barrel’s thread, measured on bikes that were closed', () => {
  test('from the fifth bike that agrees it fills in the next one’s parts, until somebody notes another', async () => {
    const s = await newShop()
    const filled = async (of = s) => {
      const catalogue = catalogueInForce(await inShop(db, of.shop, tx => valuesInForce(tx, of.shop)))
      const { sleeveMm, sleeveKnown } = typedFromCatalogue('r14-10', catalogue)
      return [sleeveMm, sleeveKnown]
    }
    for (const turnMm of [1, 0.99, 1.01, 1]) await s.visit({ turnMm }, [])
    await s.visit({}, [])
    expect(await filled()).toEqual(['', ''])
    const fifth = await s.visit({ turnMm: 0.8 }, [])
    expect(await filled()).toEqual(['4', 'shop'])
    // one bike counts once, by its latest visit
    await s.visit({ turnMm: 1, bike: fifth.bike, customer: fifth.customer }, [])
    const [learnt] = await inShop(db, s.shop, tx => valuesInForce(tx, s.shop))
    expect(learnt).toMatchObject({ entry: 'r14-10', figure: 'turnMm', value: 1, note: 'measured on 5 bikes' })
    // it is no claim of anybody’s, and goes into no file as one
    expect(await inShop(db, s.shop, tx => shopValues(tx, s.shop))).toEqual([])
    expect(await filled(await newShop())).toEqual(['', ''])

    const say = (value: number | null) =>
      inShop(db, s.shop, tx =>
        claim(tx, s.shop, s.person, [{ kind: 'derailleur', entry: 'r14-10', figure: 'turnMm', value, note: '' }]),
      )
    await say(0.75)
    expect(await filled()).toEqual(['3', 'shop'])
    await say(null)
    expect(await filled()).toEqual(['', ''])
  })
  test('what was taken from there is no measurement of its own', async () => {
    const s = await newShop()
    for (let i = 0; i < 5; i++) await s.visit({ turnMm: 1 }, [])
    const parts = partsOf({ turnMm: 1 })
    const number = await s.take({ parts: { ...parts, barrel: { ...parts.barrel, known: 'shop' } } })
    await s.put(number, ...BRAKES_HOLD)
    await s.leave(number)
    const [learnt] = await inShop(db, s.shop, tx => valuesInForce(tx, s.shop))
    expect(learnt?.note).toBe('measured on 5 bikes')
  })
})

describe('what a shop says of the catalogue', () => {
  test('is kept in order, is its own, and nobody can change it afterwards', async () => {
    const [a, b] = [await newShop(), await newShop()]
    await inShop(db, a.shop, async tx => {
      await claim(tx, a.shop, a.person, [
        { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: 2.75, note: 'caliper' },
        { kind: 'shifter', entry: 'r14-10', figure: 'nickname', value: 'Ten <b>', note: '' },
      ])
      await claim(tx, a.shop, a.person, [
        {
          kind: 'shifter',
          entry: 'r14-10',
          figure: 'pullMm',
          value: [2.7, 2.8, 2.8, 2.8, 2.8, 2.8, 2.8, 2.8, 2.9],
          note: '',
        },
      ])
    })
    const values = await inShop(db, a.shop, tx => shopValues(tx, a.shop))
    expect(values.map(v => v.by)).toEqual(['Ishbel', 'Ishbel', 'Ishbel'])
    const entry = catalogueInForce(values).find(e => e.kind === 'shifter' && e.id === 'r14-10')!
    expect(entry.nickname).toBe('Ten <b>')
    expect(inForceFigure(entry, 'pullMm')!.value).toHaveLength(9)
    expect(await inShop(db, b.shop, tx => shopValues(tx, a.shop))).toEqual([])
    await expect(inShop(db, a.shop, tx => sql`update shop_value set value = '1'`.execute(tx))).rejects.toThrow(
      /permission denied/,
    )
    await expect(sql`delete from shop_value`.execute(owner)).rejects.toThrow(/only be appended to/)
  })
  test('ten thousand claims are kept at once', async () => {
    const s = await newShop()
    const many = Array.from({ length: 10_000 }, (_, i) => ({
      kind: 'shifter' as const,
      entry: 'r14-10',
      figure: 'pullMm',
      value: 2 + (i % 100) / 100,
      note: '',
    }))
    await inShop(db, s.shop, tx => claim(tx, s.shop, s.person, many))
    const values = await inShop(db, s.shop, tx => shopValues(tx, s.shop))
    expect(values).toHaveLength(10_000)
    expect(values.at(-1)!.value).toBe(2.99)
  })
})

test('the count of sprockets follows a drivetrain put right, and an undo of that', async () => {
  const s = await newShop()
  const number = await s.take()
  const tap = async (event: LedgerEvent) => {
    const e = s.entry(event)
    const [told] = await s.tap(number, [e])
    return { id: e.id, outcome: told.outcome }
  }
  const high: LedgerEvent = { kind: 'shift', from: 9, to: 10, heard: 'clean' }
  expect((await tap(high)).outcome).toBe('outside')
  const right = await tap({ kind: 'parts', parts: stockParts('r14-11') })
  expect((await tap(high)).outcome).toBe('stored')
  await tap({ kind: 'undo', undoes: right.id })
  expect((await tap(high)).outcome).toBe('outside')
})
