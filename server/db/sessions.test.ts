import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { connect, inShop, type Db, type ShopTx } from './connect'
import { addPerson } from './people'
import {
  devices,
  endSessionsOf,
  markConfirmed,
  openSession,
  revokeSession,
  sessionByToken,
  sessionNow,
  setPerson,
  wasRevoked,
} from './sessions'
import { testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 6)
  // when a device was signed in is written once: only the database's owner can make one old
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

/** A shop with a second person, and a way to open devices in it. */
async function shopWithDevices() {
  const s = await testShop(db)
  const inIt = <T>(work: (tx: ShopTx) => Promise<T>) => inShop(db, s.shop, work)
  const other = await inIt(tx =>
    addPerson(tx, s.shop, { name: 'Corm', role: 'mechanic', passwordHash: null, pinHash: 'x' }),
  )
  const open = async (person: string | null, openedBy?: string) => {
    const id = randomUUID()
    const tokenHash = randomUUID()
    await inIt(tx => openSession(tx, { shop: s.shop, id, tokenHash, device: 'Tablet', person, openedBy }))
    return { id, tokenHash }
  }
  const age = (id: string, days: { seen?: number; made?: number }) => {
    const ago = (d: number) => new Date(Date.now() - d * 86_400_000)
    return inShop(owner, s.shop, tx =>
      tx
        .updateTable('session')
        .set({
          ...(days.seen === undefined ? {} : { last_seen_at: ago(days.seen) }),
          ...(days.made === undefined ? {} : { created_at: ago(days.made) }),
        } as never)
        .where('id', '=', id)
        .execute(),
    )
  }
  const found = (token: string) => inIt(tx => sessionByToken(tx, s.shop, token))
  return { ...s, inIt, other, open, age, found }
}

describe('a device that was signed in', () => {
  test('is known by its token, with who works there and who was unlocked; by another token nobody is', async () => {
    const s = await shopWithDevices()
    const { id, tokenHash } = await s.open(s.person)
    const there = (await s.found(tokenHash))!
    expect(there.session).toMatchObject({ id, person: s.person, opened_by: s.person, device: 'Tablet' })
    expect(there.session.confirmed_at).toBeInstanceOf(Date)
    expect(there.unlocked.map(u => u.person)).toEqual([s.person])
    expect(there.code).toMatch(/^t-/)
    expect(await s.found(randomUUID())).toBeNull()
    // another shop's token opens nothing here
    const elsewhere = await shopWithDevices()
    const theirs = await elsewhere.open(elsewhere.person)
    expect(await s.found(theirs.tokenHash)).toBeNull()
  })

  test('joined by a code it has nobody at work, no password typed, and belongs to who let it in', async () => {
    const s = await shopWithDevices()
    const { tokenHash } = await s.open(null, s.person)
    const there = (await s.found(tokenHash))!
    expect(there.session).toMatchObject({ person: null, opened_by: s.person, confirmed_at: null })
    expect(there.unlocked).toEqual([])
  })

  test.each([
    ['used yesterday', { seen: 1 }, true],
    ['unused for 29 days', { seen: 29 }, true],
    ['unused for 31 days', { seen: 31 }, false],
    ['179 days old', { made: 179 }, true],
    ['181 days old', { made: 181 }, false],
  ])('%s', async (_, days, lives) => {
    const s = await shopWithDevices()
    const { id, tokenHash } = await s.open(s.person)
    await s.age(id, days)
    expect((await s.found(tokenHash)) !== null).toBe(lives)
    // one that ended by itself was not signed out by anybody
    expect(await s.inIt(tx => wasRevoked(tx, s.shop, tokenHash))).toBe(false)
  })

  test('that it was used is written once an hour, not at every touch', async () => {
    const s = await shopWithDevices()
    const { id, tokenHash } = await s.open(s.person)
    const seenAt = async () => {
      await s.found(tokenHash)
      return (await s.found(tokenHash))!.session.last_seen_at.getTime()
    }
    await s.age(id, { seen: 0.5 / 24 })
    expect(Date.now() - (await seenAt())).toBeGreaterThan(1_500_000)
    await s.age(id, { seen: 2 / 24 })
    expect(Date.now() - (await seenAt())).toBeLessThan(600_000)
  })
})

describe('signed out', () => {
  test('a device is, once; its token is told apart from one that never was', async () => {
    const s = await shopWithDevices()
    const one = await s.open(s.person)
    const two = await s.open(s.other)
    expect(await s.inIt(tx => revokeSession(tx, s.shop, one.id))).toBe(true)
    expect(await s.inIt(tx => revokeSession(tx, s.shop, one.id))).toBe(false)
    expect(await s.found(one.tokenHash)).toBeNull()
    expect(await s.inIt(tx => sessionNow(tx, s.shop, one.id, s.person))).toBeNull()
    expect(await s.inIt(tx => wasRevoked(tx, s.shop, one.tokenHash))).toBe(true)
    expect(await s.inIt(tx => wasRevoked(tx, s.shop, randomUUID()))).toBe(false)
    const left = await s.inIt(tx => devices(tx, s.shop))
    expect(left.map(d => [d.id, d.person])).toEqual([[two.id, 'Corm']])
  })

  test('with a new password go the devices that person opened, but for the one that asks; nobody else’s', async () => {
    const s = await shopWithDevices()
    const mine = await s.open(s.person)
    const asking = await s.open(s.person)
    const letIn = await s.open(null, s.person)
    const theirs = await s.open(s.other)
    // who works on it at the moment does not matter: who opened it does
    await s.inIt(tx => setPerson(tx, s.shop, mine.id, s.other))
    await s.inIt(tx => endSessionsOf(tx, s.shop, s.person, asking.id))
    const live = await s.inIt(tx => devices(tx, s.shop))
    expect(live.map(d => d.id).sort()).toEqual([asking.id, theirs.id].sort())
    expect(await s.inIt(tx => wasRevoked(tx, s.shop, letIn.tokenHash))).toBe(true)
    await s.inIt(tx => endSessionsOf(tx, s.shop, s.person, null))
    expect((await s.inIt(tx => devices(tx, s.shop))).map(d => d.id)).toEqual([theirs.id])
  })
})

describe('who works on it', () => {
  test('changes; the new one is unlocked, and a password typed by the one before counts for nobody else', async () => {
    const s = await shopWithDevices()
    const { id, tokenHash } = await s.open(s.person)
    await s.inIt(tx => setPerson(tx, s.shop, id, s.person))
    expect((await s.found(tokenHash))!.session.confirmed_at).toBeInstanceOf(Date)
    await s.inIt(tx => setPerson(tx, s.shop, id, s.other))
    const there = (await s.found(tokenHash))!
    expect(there.session).toMatchObject({ person: s.other, confirmed_at: null })
    expect(there.unlocked.map(u => u.person).sort()).toEqual([s.person, s.other].sort())
    await s.inIt(tx => markConfirmed(tx, s.shop, id))
    expect((await s.found(tokenHash))!.session.confirmed_at).toBeInstanceOf(Date)
    await s.inIt(tx => setPerson(tx, s.shop, id, null))
    expect((await s.found(tokenHash))!.session).toMatchObject({ person: null, confirmed_at: null })
  })

  test('and when one of them last tapped there is that device’s alone', async () => {
    const s = await shopWithDevices()
    const one = await s.open(s.person)
    const two = await s.open(s.other)
    const at = (id: string, person: string) => s.inIt(tx => sessionNow(tx, s.shop, id, person))
    expect(await at(one.id, s.other)).toEqual({ person: s.person, lastTap: null })
    expect((await at(two.id, s.other))!.lastTap).toBeInstanceOf(Date)
    const before = (await at(one.id, s.person))!.lastTap!
    await s.inIt(tx => setPerson(tx, s.shop, one.id, s.person))
    expect((await at(one.id, s.person))!.lastTap!.getTime()).toBeGreaterThanOrEqual(before.getTime())
  })
})
