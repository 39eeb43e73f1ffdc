import type { Role } from '#core/chapter/ids'
import { sql } from 'kysely'
import { SchoolChoice } from '#core/procedure/schools'
import type { Db, ShopTx } from './connect'
import { inShop } from './connect'
import { newId } from './ids'

type NewShop = { id: string; code: string; name: string; zone: string; demo: boolean }
type NewPersonRow = { id?: string; name: string; role: Role; passwordHash: string | null; pinHash: string }

/** Which shop a code means: the only look across shops. */
export async function shopOfCode(db: Db, code: string): Promise<{ shop: string; demo: boolean } | null> {
  const { rows } = await sql<{ shop: string; demo: boolean }>`select * from shop_of_code(${code})`.execute(db)
  return rows[0] ?? null
}

/** Makes a shop with its first person. @throws a unique violation when the code is taken */
export function createShop(db: Db, shop: NewShop, owner: NewPersonRow): Promise<string> {
  return inShop(db, shop.id, async tx => {
    await tx
      .insertInto('shop')
      .values({ shop: shop.id, code: shop.code, name: shop.name, zone: shop.zone, demo: shop.demo })
      .execute()
    return addPerson(tx, shop.id, owner)
  })
}

export async function addPerson(tx: ShopTx, shop: string, person: NewPersonRow): Promise<string> {
  const id = person.id ?? newId()
  await tx
    .insertInto('person')
    .values({
      shop,
      id,
      name: person.name,
      role: person.role,
      password_hash: person.passwordHash,
      pin_hash: person.pinHash,
    })
    .execute()
  return id
}

/** New hashes for a person, who is unlocked nowhere after it. False when nobody of that id works here. */
export async function setSecrets(
  tx: ShopTx,
  shop: string,
  id: string,
  hashes: { pin_hash?: string; password_hash?: string },
): Promise<boolean> {
  const done = await tx
    .updateTable('person')
    .set(hashes)
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('active', '=', true)
    .executeTakeFirst()
  await tx.deleteFrom('unlock').where('shop', '=', shop).where('person', '=', id).execute()
  return Number(done.numUpdatedRows) > 0
}

/** Takes a choice of schools as the shop's, or as a person's, in place of what was chosen before. */
export const chooseSchools = (tx: ShopTx, shop: string, person: string | null, choice: SchoolChoice) =>
  person === null
    ? tx
        .updateTable('shop')
        .set({ schools: JSON.stringify(choice) })
        .where('shop', '=', shop)
        .execute()
    : tx
        .updateTable('person')
        .set({ schools: JSON.stringify(choice) })
        .where('shop', '=', shop)
        .where('id', '=', person)
        .execute()

/** A stored choice; one that this version does not know is left out. */
export function readSchools(stored: unknown): SchoolChoice {
  const read = SchoolChoice.safeParse(stored)
  return read.success ? read.data : {}
}

export const shopRow = (tx: ShopTx, shop: string) =>
  tx.selectFrom('shop').selectAll().where('shop', '=', shop).executeTakeFirstOrThrow()

export const people = (tx: ShopTx, shop: string) =>
  tx
    .selectFrom('person')
    .select(['id', 'name', 'role', 'schools'])
    .where('shop', '=', shop)
    .where('active', '=', true)
    .orderBy('name')
    .execute()

export const personById = (tx: ShopTx, shop: string, id: string) =>
  tx
    .selectFrom('person')
    .selectAll()
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('active', '=', true)
    .executeTakeFirst()

export const personByName = (tx: ShopTx, shop: string, name: string) =>
  tx
    .selectFrom('person')
    .selectAll()
    .where('shop', '=', shop)
    .where(sql<boolean>`lower(name) = lower(${name})`)
    .where('active', '=', true)
    .executeTakeFirst()
