import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { ChangePerson } from '#core/http/people'
import { connect, inShop, type Db } from './connect'
import { addPerson, CannotChange, changePerson, dayOf, people } from './people'
import { testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 6)
})
afterAll(async () => {
  await db.destroy()
})

async function shopWith(...names: string[]) {
  const s = await testShop(db)
  const ids = await Promise.all(
    names.map(name =>
      inShop(db, s.shop, tx => addPerson(tx, s.shop, { name, role: 'owner', passwordHash: null, pinHash: 'x' })),
    ),
  )
  const change = (id: string, to: ChangePerson) => inShop(db, s.shop, tx => changePerson(tx, s.shop, id, to))
  const working = () => inShop(db, s.shop, async tx => (await people(tx, s.shop)).map(p => `${p.name} ${p.role}`))
  return { ...s, ids, change, working }
}

describe('people', () => {
  test('are renamed, given another role, and let go; a name twice is refused', async () => {
    const s = await shopWith('Brid', 'Corm')
    await s.change(s.ids[0]!, { name: 'Bridie', role: 'mechanic' })
    expect(await s.working()).toEqual(expect.arrayContaining(['Bridie mechanic', 'Corm owner']))
    await expect(s.change(s.ids[0]!, { name: 'corm' })).rejects.toMatchObject({ code: '23505' })
    await s.change(s.ids[0]!, { leaves: true })
    expect(await s.working()).not.toContain('Bridie mechanic')
    await expect(s.change(s.ids[0]!, { name: 'Back' })).rejects.toThrow('does not work here')
  })

  test('somebody always owns the shop, also when two owners let each other go at once', async () => {
    const s = await shopWith('Brid', 'Corm')
    const first = (await inShop(db, s.shop, tx => people(tx, s.shop))).filter(
      p => p.role === 'owner' && !s.ids.includes(p.id),
    )
    for (const p of first) await s.change(p.id, { role: 'mechanic' })
    const both = await Promise.allSettled(s.ids.map(id => s.change(id, { leaves: true })))
    expect(both.map(b => b.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((both.find(b => b.status === 'rejected') as PromiseRejectedResult).reason).toBeInstanceOf(CannotChange)
  })

  test('of another shop are nobody', async () => {
    const s = await shopWith('Brid')
    const other = await shopWith('Corm')
    await expect(s.change(other.ids[0]!, { leaves: true })).rejects.toThrow('does not work here')
  })
})

test('a day holds what that person tapped, and nothing of another', async () => {
  const s = await shopWith('Brid')
  const number = await s.take({})
  await s.tap(number, [{ kind: 'waits', for: 'parts' }])
  const mine = await inShop(db, s.shop, tx => dayOf(tx, s.shop, s.person))
  expect(mine.jobs).toMatchObject([{ number, taps: 2, closedAt: null }])
  expect((await inShop(db, s.shop, tx => dayOf(tx, s.shop, s.ids[0]!))).jobs).toEqual([])
  const tomorrow = new Date(Date.now() + 36 * 3_600_000)
  expect((await inShop(db, s.shop, tx => dayOf(tx, s.shop, s.person, tomorrow))).jobs).toEqual([])
})

test.each([[{}], [{ name: '' }], [{ role: 'boss' }], [{ leaves: false }], [{ name: 'x'.repeat(61) }]])(
  '%j is no change of a person',
  change => expect(ChangePerson.safeParse(change).success).toBe(false),
)
