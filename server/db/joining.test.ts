import { sql } from 'kysely'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { MOST_JOIN_CODES } from '#core/http/joining'
import { connect, inShop, type Db } from './connect'
import { newId } from './ids'
import { CannotJoin, joiningState, openJoining, shopOfJoining, takeJoining } from './joining'
import { changePerson, addPerson } from './people'
import { openSession } from './sessions'
import { testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 8)
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

const session = async (shop: string) => {
  const id = newId()
  await inShop(db, shop, tx => openSession(tx, { shop, id, tokenHash: id, device: 'Tablet', person: null }))
  return id
}

test('of twenty devices with one code at once, one has it', async () => {
  const { shop, person } = await testShop(db)
  const hash = newId()
  const { id } = await inShop(db, shop, tx => openJoining(tx, shop, person, hash))
  expect(await shopOfJoining(db, hash)).toBe(shop)
  const sessions = await Promise.all(Array.from({ length: 20 }, () => session(shop)))
  const tried = await Promise.allSettled(sessions.map(s => inShop(db, shop, tx => takeJoining(tx, shop, hash, s))))
  expect(tried.filter(t => t.status === 'fulfilled')).toHaveLength(1)
  for (const t of tried) if (t.status === 'rejected') expect((t.reason as Error).message).toMatch(/used already/)
  expect(await inShop(db, shop, tx => joiningState(tx, shop, id))).toEqual({ is: 'used', device: 'Tablet' })
})

test('an old code says so; it is asked by no other shop', async () => {
  const { shop, person } = await testShop(db)
  const other = await testShop(db)
  const hash = newId()
  const { id } = await inShop(db, shop, tx => openJoining(tx, shop, person, hash))
  expect(await inShop(db, other.shop, tx => joiningState(tx, other.shop, id))).toBeNull()
  expect(await inShop(db, other.shop, tx => joiningState(tx, shop, id))).toBeNull()
  await sql`update joining set expires_at = now() - interval '1 second' where code_hash = ${hash}`.execute(owner)
  const s = await session(shop)
  await expect(inShop(db, shop, tx => takeJoining(tx, shop, hash, s))).rejects.toThrow(/lives ten minutes/)
  expect((await inShop(db, shop, tx => joiningState(tx, shop, id)))!.is).toBe('over')
})

test('a code of an owner who was let go, or is none any more, lets nobody in', async () => {
  const { shop, person } = await testShop(db)
  const second = await inShop(db, shop, tx =>
    addPerson(tx, shop, { name: 'Ruan', role: 'owner', passwordHash: null, pinHash: 'x' }),
  )
  const hash = newId()
  await inShop(db, shop, tx => openJoining(tx, shop, second, hash))
  await inShop(db, shop, tx => changePerson(tx, shop, second, { role: 'mechanic' }))
  const s = await session(shop)
  await expect(inShop(db, shop, tx => takeJoining(tx, shop, hash, s))).rejects.toBeInstanceOf(CannotJoin)
  await inShop(db, shop, tx => openJoining(tx, shop, person, newId()))
})

test('so many may be open and no more, however many are asked for at once', async () => {
  const { shop, person } = await testShop(db)
  const asked = await Promise.allSettled(
    Array.from({ length: MOST_JOIN_CODES + 15 }, () => inShop(db, shop, tx => openJoining(tx, shop, person, newId()))),
  )
  expect(asked.filter(a => a.status === 'fulfilled')).toHaveLength(MOST_JOIN_CODES)
})

test('the role of the application cannot make a used code new, nor lengthen one', async () => {
  const { shop, person } = await testShop(db)
  const hash = newId()
  await inShop(db, shop, tx => openJoining(tx, shop, person, hash))
  await expect(
    inShop(db, shop, tx => sql`update joining set expires_at = now() + interval '1 year'`.execute(tx)),
  ).rejects.toThrow(/permission denied/)
  await expect(inShop(db, shop, tx => sql`delete from joining`.execute(tx))).rejects.toThrow(/permission denied/)
})
