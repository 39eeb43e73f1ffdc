import { sql } from 'kysely'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { connect, inShop, type Db } from './connect'
import { findBikes } from './floor'
import { testShop } from './testShop'

let db: Db
let owner: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 2)
  owner = connect(inject('ownerUrl'), 1)
})
afterAll(async () => {
  await db.destroy()
  await owner.destroy()
})

/** Bikes by the names given, each with one visit that ended, the first the longest ago. */
async function visits(shop: string, of: { name: string; count: number }[]): Promise<void> {
  let from = 1000
  for (const { name, count } of of) {
    await sql
      .raw(
        `with b as (
          insert into bike (shop, id, customer, name, frame_number)
          select '${shop}', gen_random_uuid(), (select id from customer where shop = '${shop}' limit 1), '${name} ' || i, ''
          from generate_series(1, ${count}) i returning id, name)
        insert into job (shop, id, number, tag, bike, complaint, promised_at, sprockets, place, closed_at)
        select '${shop}', gen_random_uuid(), ${from} + n, 'o' || (${from} + n), id, '', now(), 10, 'gone', now()
        from (select id, row_number() over (order by length(name), name) n from b) x`,
      )
      .execute(owner)
    from += count
  }
}

test('of more bikes than a search looks into, those in the house come first, however long ago they came', async () => {
  const shop = await testShop(db)
  const number = await shop.take({ bike: { name: 'Gannet here', frameNumber: '' } })
  await visits(shop.shop, [
    { name: 'Gannet', count: 900 },
    { name: 'Shearwater', count: 900 },
  ])
  const found = (words: string) => inShop(db, shop.shop, tx => findBikes(tx, shop.shop, words))
  const gannets = await found('gannet')
  expect(gannets).toHaveLength(12)
  expect(gannets[0]!.open?.number).toBe(number)
  expect(gannets[0]!.bike.name).toBe('Gannet here')
  const shearwaters = await found('SHEARWATER')
  expect(shearwaters).toHaveLength(12)
  // one of them alone is found among all
  expect((await found('gannet 333')).map(f => f.bike.name)).toEqual(['Gannet 333'])
  expect(await found('heron')).toEqual([])
  // signs that a pattern would read are letters
  expect(await found('gannet_333')).toEqual([])
  expect(await found('%')).toEqual([])
})
