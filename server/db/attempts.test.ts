import { randomUUID } from 'node:crypto'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { attemptStore } from './attempts'
import { connect, inShop, type Db } from './connect'
import { addPerson, changePerson, setSecrets } from './people'
import { openSession, sessionByToken } from './sessions'
import { testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 10)
})
afterAll(async () => {
  await db.destroy()
})

describe('tries', () => {
  const limiter = (points: number, durationSeconds: number) =>
    new RateLimiterPostgres({
      storeClient: attemptStore(() => db),
      storeType: 'client',
      schemaName: 'gate',
      tableName: 'attempt',
      tableCreated: true,
      keyPrefix: 'test',
      points,
      duration: durationSeconds,
    })
  test('of two hundred at once, by two servers, each has a number of its own and no more are let through than may be', async () => {
    const key = randomUUID()
    const servers = [limiter(6, 300), limiter(6, 300)]
    const taken = await Promise.all(
      Array.from({ length: 200 }, (_, i) =>
        servers[i % 2]!.consume(key).then(
          r => ({ let: true, n: r.consumedPoints }),
          (r: RateLimiterRes) => ({ let: false, n: r.consumedPoints }),
        ),
      ),
    )
    expect(taken.filter(t => t.let)).toHaveLength(6)
    expect(taken.map(t => t.n).sort((a, b) => a - b)).toEqual(Array.from({ length: 200 }, (_, i) => i + 1))
  })
  test('are given back one by one, and cleared; begin anew when their time is over', async () => {
    const key = randomUUID()
    const two = limiter(2, 300)
    await two.consume(key)
    await two.consume(key)
    await expect(two.consume(key)).rejects.toBeInstanceOf(RateLimiterRes)
    await two.reward(key, 2)
    expect((await two.consume(key)).consumedPoints).toBe(2)
    expect(await two.delete(key)).toBe(true)
    expect((await two.consume(key)).consumedPoints).toBe(1)
    const { rows } = await attemptStore(() => db).query({
      text: 'update gate.attempt set expire = 1 where key = $1 returning key',
      values: [`test:${key}`],
    })
    expect(rows).toHaveLength(1)
    expect((await two.consume(key)).consumedPoints).toBe(1)
  })
})

describe('sessions', () => {
  async function opened() {
    const s = await testShop(db)
    const moss = await inShop(db, s.shop, tx =>
      addPerson(tx, s.shop, { name: 'Moss', role: 'mechanic', passwordHash: 'x', pinHash: 'x' }),
    )
    const open = async () => {
      const token = randomUUID()
      const id = randomUUID()
      await inShop(db, s.shop, tx =>
        openSession(tx, { shop: s.shop, id, tokenHash: token, device: 'Tablet', person: moss }),
      )
      return { id, now: () => inShop(db, s.shop, tx => sessionByToken(tx, s.shop, token)) }
    }
    return { ...s, moss, tablet: await open(), phone: await open() }
  }
  test('a new PIN leaves the device signed in, and nobody working on it', async () => {
    const s = await opened()
    await inShop(db, s.shop, tx => setSecrets(tx, s.shop, s.moss, { pin_hash: 'new' }))
    expect(await s.tablet.now()).toMatchObject({ session: { person: null }, unlocked: [] })
  })
  test('a new password signs out every device the old one opened, but for the one that asks', async () => {
    const s = await opened()
    await inShop(db, s.shop, tx => setSecrets(tx, s.shop, s.moss, { password_hash: 'new' }, s.phone.id))
    expect(await s.tablet.now()).toBeNull()
    expect(await s.phone.now()).not.toBeNull()
  })
  test('a leaver’s devices are signed out', async () => {
    const s = await opened()
    await inShop(db, s.shop, tx => changePerson(tx, s.shop, s.moss, { leaves: true }))
    expect([await s.tablet.now(), await s.phone.now()]).toEqual([null, null])
  })
  test('one that nobody used for a month is over', async () => {
    const s = await opened()
    const unused = (days: number) =>
      inShop(db, s.shop, tx =>
        tx
          .updateTable('session')
          .set({ last_seen_at: new Date(Date.now() - days * 86_400_000) })
          .where('id', '=', s.tablet.id)
          .execute(),
      )
    await unused(29)
    expect(await s.tablet.now()).not.toBeNull()
    await unused(31)
    expect(await s.tablet.now()).toBeNull()
  })
})
