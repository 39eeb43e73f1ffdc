import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import type { PracticeResult } from '#core/practice/results'
import { connect, inShop, type Db } from './connect'
import { addPerson, changePerson } from './people'
import { keepPractice, myPractice, showPractice, shownPractice } from './practice'
import { testShop } from './testShop'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 2)
})
afterAll(() => db.destroy())

const result = (over: Partial<PracticeResult> = {}): PracticeResult => ({
  id: randomUUID(),
  at: '2026-11-27T10:00:00.000Z',
  bench: 'rear',
  level: 'one',
  bike: 7,
  lesson: null,
  test: null,
  faults: ['hanger'],
  won: true,
  touches: 12,
  helps: 1,
  said: [{ said: 'clean', was: 'slow' }],
  ...over,
})

async function house() {
  const s = await testShop(db)
  const trainee = await inShop(db, s.shop, tx =>
    addPerson(tx, s.shop, { name: 'Corin', role: 'trainee', passwordHash: null, pinHash: 'x' }),
  )
  return {
    ...s,
    trainee,
    keep: (r: PracticeResult, person = trainee) => inShop(db, s.shop, tx => keepPractice(tx, s.shop, person, r)),
    mine: (person = trainee) => inShop(db, s.shop, tx => myPractice(tx, s.shop, person)),
    show: (shows: boolean) => inShop(db, s.shop, tx => showPractice(tx, s.shop, trainee, shows)),
    shown: (of?: number) => inShop(db, s.shop, tx => shownPractice(tx, s.shop, of)),
  }
}

test('a run is kept once, for who ran it alone', async () => {
  const s = await house()
  const r = result()
  await s.keep(r)
  await s.keep({ ...r, won: false })
  expect(await s.mine()).toEqual({ shows: false, results: [r] })
  expect((await s.mine(s.person)).results).toEqual([])
  const other = await house()
  expect(await inShop(db, other.shop, tx => tx.selectFrom('practice').selectAll().execute())).toEqual([])
})

test('a mechanic sees it only while they show it, and the sheet of a test holds that test', async () => {
  const s = await house()
  await s.keep(result({ test: 42, at: '2026-11-27T11:00:00.000Z' }))
  await s.keep(result())
  expect(await s.shown()).toEqual({ people: [] })
  await s.show(true)
  const [corin] = (await s.shown()).people
  expect(corin).toMatchObject({ name: 'Corin' })
  expect(corin!.results).toHaveLength(2)
  expect((await s.shown(42)).people[0]!.results.map(r => r.test)).toEqual([42])
  await s.show(false)
  expect(await s.shown(42)).toEqual({ people: [] })
})

test('it goes with who leaves', async () => {
  const s = await house()
  await s.keep(result())
  await s.show(true)
  await inShop(db, s.shop, tx => changePerson(tx, s.shop, s.trainee, { leaves: true }))
  expect((await s.mine()).results).toEqual([])
  expect(await s.shown()).toEqual({ people: [] })
})
