import type { Role } from '#core/chapter/ids'
import { TZDate } from '@date-fns/tz'
import { formatISO, startOfDay } from 'date-fns'
import { sql } from 'kysely'
import type { ChangePerson } from '#core/http/people'
import type { DayView } from '#core/http/day'
import { SchoolChoice } from '#core/procedure/schools'
import { forgetPractice } from './practice'
import { forgetSenses } from './senses'
import type { Db, ShopTx } from './connect'
import { inShop } from './connect'
import { newId } from './ids'
import { endSessionsOf } from './sessions'

type NewShop = { id: string; code: string; name: string; zone: string; demo: boolean }
type NewPersonRow = { id?: string; name: string; role: Role; passwordHash: string | null; pinHash: string }

/** Which shop a code means: the only look across shops. */
export async function shopOfCode(db: Db, code: string): Promise<{ shop: string; demo: boolean } | null> {
  const { rows } = await sql<{ shop: string; demo: boolean }>`select * from shop_of_code(${code})`.execute(db)
  return rows[0] ?? null
}

/**
 * Makes a shop with its first person, after what else belongs to it. @throws a unique violation when the code is taken
 */
export function createShop(
  db: Db,
  shop: NewShop,
  owner: NewPersonRow,
  first: (tx: ShopTx) => Promise<void> = async () => undefined,
): Promise<string> {
  return inShop(db, shop.id, async tx => {
    await first(tx)
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

/**
 * New hashes for a person, who is unlocked nowhere and works nowhere after it; a new password signs out the devices
 * that the old one opened, but for the one that asks. False when nobody of that id works here.
 */
export async function setSecrets(
  tx: ShopTx,
  shop: string,
  id: string,
  hashes: { pin_hash?: string; password_hash?: string },
  asking: string | null = null,
): Promise<boolean> {
  const done = await tx
    .updateTable('person')
    .set(hashes)
    .where('shop', '=', shop)
    .where('id', '=', id)
    .where('active', '=', true)
    .executeTakeFirst()
  if (Number(done.numUpdatedRows) === 0) return false
  await lockOut(tx, shop, id)
  if (hashes.password_hash) await endSessionsOf(tx, shop, id, asking)
  return true
}

/** Unlocked nowhere, and working nowhere: the next tap asks for the PIN. */
async function lockOut(tx: ShopTx, shop: string, id: string): Promise<void> {
  await tx.deleteFrom('unlock').where('shop', '=', shop).where('person', '=', id).execute()
  await tx
    .updateTable('session')
    .set({ person: null })
    .where('shop', '=', shop)
    .where('person', '=', id)
    .where('revoked_at', 'is', null)
    .execute()
}

/** What cannot be changed of a person, and why. */
export class CannotChange extends Error {}

/**
 * Changes a person's name or role, or lets them go: a leaver is unlocked nowhere and their devices are signed out; the
 * name stays on the ledger. Somebody always owns the shop.
 * @throws CannotChange
 */
export async function changePerson(tx: ShopTx, shop: string, id: string, change: ChangePerson): Promise<void> {
  // the shop's row is the lock: of two owners who let each other go at once, one stays
  await tx.selectFrom('shop').select('shop').where('shop', '=', shop).forUpdate().execute()
  const person = await personById(tx, shop, id)
  if (!person) throw new CannotChange('That person does not work here')
  const owners = await tx
    .selectFrom('person')
    .select('id')
    .where('shop', '=', shop)
    .where('active', '=', true)
    .where('role', '=', 'owner')
    .execute()
  const noOwner = person.role === 'owner' && owners.length === 1
  if (noOwner && (change.leaves || (change.role && change.role !== 'owner')))
    throw new CannotChange('Somebody must own the shop: make another person an owner first')
  await tx
    .updateTable('person')
    .set({
      ...(change.name === undefined ? {} : { name: change.name }),
      ...(change.role === undefined ? {} : { role: change.role }),
      ...(change.leaves ? { active: false } : {}),
    })
    .where('shop', '=', shop)
    .where('id', '=', id)
    .execute()
  if (!change.leaves) return
  await lockOut(tx, shop, id)
  await forgetSenses(tx, shop, id)
  await forgetPractice(tx, shop, id)
  await endSessionsOf(tx, shop, id, null)
}

/** Jobs that a person tapped on in a day of the shop's, the last first. */
export async function dayOf(tx: ShopTx, shop: string, person: string, now = new Date()): Promise<DayView> {
  const { zone } = await shopRow(tx, shop)
  const from = startOfDay(new TZDate(now, zone))
  const rows = await tx
    .selectFrom('event')
    .innerJoin('job', j => j.onRef('job.shop', '=', 'event.shop').onRef('job.id', '=', 'event.job'))
    .innerJoin('bike', j => j.onRef('bike.shop', '=', 'job.shop').onRef('bike.id', '=', 'job.bike'))
    .select([
      'job.number',
      'job.tag',
      'job.closed_at',
      'bike.name as bike',
      sql<number>`count(*)::int`.as('taps'),
      sql<Date>`max(event.at)`.as('last'),
    ])
    .where('event.shop', '=', shop)
    .where('event.person', '=', person)
    .where('event.received_at', '>=', new Date(from.getTime()))
    .groupBy(['job.number', 'job.tag', 'job.closed_at', 'bike.name'])
    .orderBy('last', 'desc')
    .limit(100)
    .execute()
  return {
    date: formatISO(from, { representation: 'date' }),
    jobs: rows.map(r => ({
      number: r.number,
      tag: r.tag,
      bike: r.bike,
      taps: r.taps,
      last: r.last.toISOString(),
      closedAt: r.closed_at?.toISOString() ?? null,
    })),
  }
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
