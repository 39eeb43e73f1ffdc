import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import { hashSecret, secretMatches } from '../auth/secrets'
import { connect, inShop, type Db } from './connect'
import { findBikes, floor } from './floor'
import { CannotTakeIn } from './jobs'
import { append, entriesAfter, NoSuchJob } from './ledger'
import { addPerson, chooseSchools, people, personById, readSchools, setSecrets, shopOfCode, shopRow } from './people'
import { openSession, sessionByToken } from './sessions'
import { lastSheet, MustStay } from './sheets'
import { BRAKES_HOLD, testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 8)
  owner = connect(inject('ownerUrl'), 2)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

const turn = (sixteenths: number): LedgerEvent => ({ kind: 'turn', screw: 'barrel', sixteenths })

describe('walls between shops', () => {
  test('every table of the catalogue has a shop, forced row-level security and keys that begin with the shop', async () => {
    const { rows } = await sql<{
      name: string
      forced: boolean
      enabled: boolean
      has_shop: boolean
      policies: number
    }>`
      select c.relname as name, c.relforcerowsecurity as forced, c.relrowsecurity as enabled,
        exists (select 1 from pg_attribute a where a.attrelid = c.oid and a.attname = 'shop') as has_shop,
        (select count(*)::int from pg_policy p where p.polrelid = c.oid) as policies
      from pg_class c join pg_namespace n on n.oid = c.relnamespace
      where n.nspname = 'public' and c.relkind in ('r', 'p') and c.relname not like 'kysely_%'`.execute(owner)
    expect(rows.length).toBeGreaterThanOrEqual(11)
    for (const table of rows)
      expect(table, table.name).toMatchObject({ forced: true, enabled: true, has_shop: true, policies: 1 })
    const { rows: keys } = await sql<{ name: string; first: string }>`
      select conname as name, (select attname from pg_attribute where attrelid = conrelid and attnum = conkey[1]) as first
      from pg_constraint where contype in ('f', 'p') and connamespace = 'public'::regnamespace and conrelid::regclass::text not like 'kysely_%'`.execute(
      owner,
    )
    for (const key of keys) expect(key.first, key.name).toBe('shop')
  })
  test("the application's role owns nothing, cannot pass by row-level security, and one function alone looks across", async () => {
    const { rows } = await sql<{ super: boolean; bypass: boolean; owns: number }>`
      select rolsuper as super, rolbypassrls as bypass, (select count(*)::int from pg_class where relowner = r.oid) as owns from pg_roles r where rolname = 'ocho_app'`.execute(
      owner,
    )
    expect(rows[0]).toEqual({ super: false, bypass: false, owns: 0 })
    // of those that run as another role, three look across shops (whose code is it?) and one appends, as a role that
    // can do nothing else
    const { rows: definers } = await sql<{ name: string; walls: boolean }>`
      select p.proname as name, not (r.rolsuper or r.rolbypassrls) as walls
      from pg_proc p join pg_roles r on r.oid = p.proowner
      where p.prosecdef and p.pronamespace = 'public'::regnamespace order by 1`.execute(owner)
    expect(definers).toEqual([
      { name: 'append_events', walls: true },
      { name: 'shop_of_calendar', walls: false },
      { name: 'shop_of_code', walls: false },
      { name: 'shop_of_joining', walls: false },
    ])
  })
  test('the ledger’s parts are reached by nobody but through the whole', async () => {
    const { rows } = await sql<{ parts: number; granted: number }>`
      select count(*)::int as parts, count(*) filter (where has_any_column_privilege('ocho_app', c.oid, 'select, insert, update')
        or has_any_column_privilege('ocho_ledger', c.oid, 'select, insert, update'))::int as granted
      from pg_class c where c.relispartition and c.relkind = 'r'`.execute(owner)
    expect(rows[0]).toEqual({ parts: 16, granted: 0 })
    await expect(inShop(db, (await testShop(db)).shop, tx => sql`select * from event_3`.execute(tx))).rejects.toThrow(
      /permission denied/,
    )
  })
  test('without a shop nothing is seen, and with one only its own', async () => {
    const [a, b] = [await testShop(db, 'Pacific/Auckland'), await testShop(db, 'Pacific/Auckland')]
    await a.take()
    expect(await db.selectFrom('job').selectAll().execute()).toEqual([])
    expect(await inShop(db, b.shop, tx => tx.selectFrom('customer').selectAll().execute())).toEqual([])
    expect(
      await inShop(db, b.shop, tx => tx.selectFrom('job').selectAll().where('shop', '=', a.shop).execute()),
    ).toEqual([])
    expect(await inShop(db, b.shop, tx => findBikes(tx, a.shop, 'Hob'))).toEqual([])
    await expect(
      inShop(db, b.shop, tx =>
        tx.insertInto('customer').values({ shop: a.shop, id: randomUUID(), name: 'x', contact: '' }).execute(),
      ),
    ).rejects.toThrow(/row-level security/)
    await expect(append(db, b.shop, 1, null, [b.entry(turn(2))])).rejects.toThrow(NoSuchJob)
    expect((await inShop(db, b.shop, tx => people(tx, b.shop))).map(p => p.id)).toEqual([b.person])
    expect(await shopOfCode(db, 'no-such-shop')).toBeNull()
  })
})

describe('the ledger', () => {
  test('can only be appended to, by anyone', async () => {
    const s = await testShop(db, 'Pacific/Auckland')
    await s.take()
    await expect(inShop(db, s.shop, tx => sql`update event set seq = 9`.execute(tx))).rejects.toThrow(
      /permission denied/,
    )
    await expect(inShop(db, s.shop, tx => sql`delete from event`.execute(tx))).rejects.toThrow(/permission denied/)
    for (const statement of ['update event set seq = 9', 'delete from event', 'truncate event'])
      await expect(sql.raw(statement).execute(owner)).rejects.toThrow(/only be appended to/)
  })
  test('twelve writers at once: every place taken once, none left out, a reader that follows misses nothing', async () => {
    const s = await testShop(db, 'Pacific/Auckland')
    const number = await s.take()
    let seen = 1
    const read: number[] = []
    let writing = true
    const reader = (async () => {
      const job = (
        await inShop(db, s.shop, tx =>
          tx.selectFrom('job').select('id').where('number', '=', number).executeTakeFirstOrThrow(),
        )
      ).id
      for (;;) {
        const last = !writing
        for (const e of await inShop(db, s.shop, tx => entriesAfter(tx, s.shop, job, seen))) {
          read.push(e!.seq)
          seen = e!.seq
        }
        if (last) return
      }
    })()
    await Promise.all(
      Array.from({ length: 12 }, async () => {
        for (let i = 0; i < 8; i++) await append(db, s.shop, number, null, [s.entry(turn(1))])
      }),
    )
    writing = false
    await reader
    expect(read).toEqual(Array.from({ length: 96 }, (_, i) => i + 2))
  })
  test('the same entry again is held, the same id with other content refused, and another shop may use it', async () => {
    const [a, b] = [await testShop(db, 'Pacific/Auckland'), await testShop(db, 'Pacific/Auckland')]
    const [one, other] = [await a.take(), await b.take()]
    const e = a.entry(turn(2))
    expect((await append(db, a.shop, one, null, [e])).map(o => [o.outcome, o.seq])).toEqual([['stored', 2]])
    expect(
      (
        await append(db, a.shop, one, null, [
          e,
          { ...e, event: turn(4) },
          a.entry({ kind: 'shift', from: 0, to: 12, heard: 'clean' }),
          a.entry(turn(1)),
        ])
      ).map(o => [o.outcome, o.seq]),
    ).toEqual([
      ['held', 2],
      ['conflict', 2],
      ['outside', 10],
      ['stored', 3],
    ])
    expect((await append(db, b.shop, other, null, [b.entry(turn(4), e.id)]))[0].outcome).toBe('stored')
    expect(await a.log(one)).toHaveLength(3)
  })
})

describe('taking in and handing back', () => {
  test('job numbers run without gaps, a tag hangs on one open job, and nothing is half-written', async () => {
    const s = await testShop(db, 'Pacific/Auckland')
    expect([await s.take({ tag: 'A1' }), await s.take({ tag: 'A2' })]).toEqual([1, 2])
    await expect(s.take({ tag: 'a1', bike: { name: 'Ghost', frameNumber: '' } })).rejects.toThrow(CannotTakeIn)
    await expect(s.take({ bike: { id: randomUUID() } })).rejects.toThrow(/not known here/)
    expect(await inShop(db, s.shop, tx => findBikes(tx, s.shop, 'Ghost'))).toEqual([])
    expect(await s.take({ tag: 'A3' })).toBe(3)
  })
  test("a bike leaves only with both brakes proven; the sheet is frozen, the recall booked in the shop's days, the tag free", async () => {
    const s = await testShop(db, 'Pacific/Auckland')
    const number = await s.take({ tag: 'B1' })
    const order = { id: randomUUID(), basedOn: 1 }
    // 25 November 23:30 UTC is the 26th in Auckland
    const at = new Date('2026-11-25T23:30:00.000Z')
    const leave = () => s.leave(number, order, 'mechanic', at)
    await expect(leave()).rejects.toThrow(MustStay)
    await s.put(number, turn(2), ...BRAKES_HOLD)
    const sheet = await leave()
    expect(sheet.recallOn).toBe('2026-12-10')
    expect(await leave()).toEqual(sheet) // asked twice, handed back once
    expect(await s.leave(number)).toEqual(sheet) // and by another tablet
    await expect(s.leave(number, { how: 'unridable' })).rejects.toThrow(/already/)
    const seen = await inShop(db, s.shop, tx => floor(tx, s.shop, at))
    expect(seen.jobs[0]).toMatchObject({ place: 'door', summary: 'Barrel 1/8 out', recallOn: '2026-12-10' })
    // the bike comes back: found, and starts from its sheet
    const [found] = await inShop(db, s.shop, tx => findBikes(tx, s.shop, 'f1'))
    expect(found.last?.sheet.barrelSixteenths).toBe(50)
    const again = await s.take({
      tag: 'B1',
      bike: { id: found.bike.id },
      customer: { id: found.customer.id },
      sameParts: true,
    })
    await expect(s.open(number)).rejects.toThrow(/Tag B1 now hangs/)
    await s.leave(again, { how: 'unridable' }, 'mechanic', new Date('2026-11-25T23:45:00.000Z'))
    await s.open(number)
    expect((await inShop(db, s.shop, tx => floor(tx, s.shop, at))).recalls).toEqual([])
    expect(await inShop(db, s.shop, tx => lastSheet(tx, s.shop, { bike: found.bike.id }))).toMatchObject({
      how: 'unridable',
      recallOn: null,
    })
  })
})

test('secrets are salted, compared, and refused for nobody', async () => {
  const [a, b] = [await hashSecret('2468'), await hashSecret('2468')]
  expect(a).not.toBe(b)
  expect(a).not.toContain('2468')
  expect([await secretMatches('2468', a), await secretMatches('2469', a), await secretMatches('2468', null)]).toEqual([
    true,
    false,
    false,
  ])
})

describe('people and what they choose', () => {
  test('schools are kept for the shop and for a person, and one that is no longer known is left out', async () => {
    const { shop, person } = await testShop(db, 'Pacific/Auckland')
    const moss = await inShop(db, shop, tx =>
      addPerson(tx, shop, { name: 'Moss', role: 'mechanic', passwordHash: null, pinHash: 'y' }),
    )
    await inShop(db, shop, async tx => {
      await chooseSchools(tx, shop, null, { gap: 'close' })
      await chooseSchools(tx, shop, moss, { step: 'half' })
    })
    const kept = await inShop(db, shop, async tx => ({
      shop: (await shopRow(tx, shop)).schools,
      all: await people(tx, shop),
    }))
    expect(readSchools(kept.shop)).toEqual({ gap: 'close' })
    expect(readSchools(kept.all.find(p => p.id === moss)!.schools)).toEqual({ step: 'half' })
    expect(readSchools(kept.all.find(p => p.id === person)!.schools)).toEqual({})
    expect(readSchools({ step: 'a school of next year' })).toEqual({})
  })
  test('a new PIN replaces the hash and locks the person out of every device until it is typed', async () => {
    const { shop, person } = await testShop(db, 'Pacific/Auckland')
    const token = randomUUID()
    await inShop(db, shop, tx =>
      openSession(tx, { shop, id: randomUUID(), tokenHash: token, device: 'Tablet', person }),
    )
    const unlocked = () =>
      inShop(db, shop, async tx => (await sessionByToken(tx, shop, token))!.unlocked.map(u => u.person))
    expect(await unlocked()).toEqual([person])
    const pinHash = await hashSecret('8086')
    expect(await inShop(db, shop, tx => setSecrets(tx, shop, person, { pin_hash: pinHash }))).toBe(true)
    expect(await unlocked()).toEqual([])
    expect((await inShop(db, shop, tx => personById(tx, shop, person)))!.pin_hash).toBe(pinHash)
    expect(await inShop(db, shop, tx => setSecrets(tx, shop, randomUUID(), { pin_hash: 'z' }))).toBe(false)
    // another shop cannot reach them, even by id
    const other = await testShop(db, 'Pacific/Auckland')
    expect(await inShop(db, other.shop, tx => setSecrets(tx, shop, person, { pin_hash: 'stolen' }))).toBe(false)
    expect((await inShop(db, shop, tx => personById(tx, shop, person)))!.pin_hash).toBe(pinHash)
  })
  test('the newer kinds of entries are kept and read as they were written', async () => {
    const { shop, take, entry, log } = await testShop(db, 'Pacific/Auckland')
    const number = await take()
    const events: LedgerEvent[] = [
      { kind: 'said', complaint: 'slow-in', answer: null },
      { kind: 'sensed', exceptions: ['wire'], chainWearPercent: 0.6 },
      { kind: 'bend', hour: 12, tipMm: 1.5 },
      { kind: 'housing', place: 'last loop', lengthMm: 290, of: '4 mm', ends: 'metal' },
      { kind: 'gap', gapMm: 5.5, how: 'measured', at: 'sagged' },
      { kind: 'recount', barrelSixteenthsOut: 40 },
      { kind: 'proved', what: 'ring', ring: 'big', exceptions: [9] },
      { kind: 'torqued', exceptions: ['pinch-bolt'] },
      { kind: 'schools', choice: { order: 'foundation-first' } },
    ]
    const outcomes = await append(db, shop, number, null, [
      ...events.map(e => entry(e)),
      entry({ kind: 'proved', what: 'road', ring: null, exceptions: [10] }),
    ])
    expect(outcomes.map(o => o.outcome)).toEqual([...events.map(() => 'stored'), 'outside']) // ten sprockets count to nine
    expect((await log(number)).slice(1).map(e => e!.event)).toEqual(events)
  })
})
