import type { Role } from '#core/chapter/ids'
import { CONFIRM, REVOKED, SHOP_HEADER } from '#core/http/page'
import { deleteCookie, getCookie, getHeader, setCookie, type H3Event } from 'h3'
import { inShop } from '../db/connect'
import { personById } from '../db/people'
import { FRESH_MINUTES, markTap, sessionByToken, wasRevoked } from '../db/sessions'
import { db } from '../db/shared'
import { hearsOthers, onSaid, tell } from '../live/line'
import { tokenHash } from './secrets'
import { refuse } from './refuse'

const COOKIE = 'ocho'
/**
 * Another with each change of the session that this device asked for: what any process keeps of before is not what it
 * asks by.
 */
const VERSION = 'ocho-v'
/** How long a looked-up session is kept; a change made through any server drops it as soon as it is heard of. */
const KEEP_MS = 5_000
/** A tap renews the freshness of a name at most this often, so that appending stays one round trip. */
const TAP_EVERY_MS = 30_000

export type Actor = {
  shop: string
  /** The shop's code, as its pages say it. */
  code: string
  session: string
  person: { id: string; name: string; role: Role } | null
  /** Who was unlocked on this device, and when each last tapped there. */
  unlocked: Map<string, Date>
  /** When the password was last typed here by who works here now. */
  confirmedAt: Date | null
}

const kept = new Map<string, { actor: Actor; until: number }>()
/** Counted up with every drop: what was read before one is not kept after it. */
let drops = 0
let hearing = false
function hearDrops(): void {
  if (hearing) return
  hearing = true
  onSaid(said => {
    if (said[0] === 'changed' || said[0] === 'ended') drop(said[1])
    if (said[0] === 'all') dropAll()
  })
}
function drop(session: string): void {
  drops++
  for (const [key, { actor }] of kept) if (actor.session === session) kept.delete(key)
}
function dropAll(): void {
  drops++
  kept.clear()
}

/** Signs a device in: opaque token in the cookie, its hash in a row. */
export function giveCookie(event: H3Event, shop: string, token: string): void {
  setCookie(event, COOKIE, `${shop}.${token}`, {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    maxAge: 180 * 24 * 3600,
    secure: process.env.OCHO_HTTPS === '1',
  })
}

/** Says with the answer that this device's session is another than before. */
export const renewVersion = (event: H3Event): void =>
  setCookie(event, VERSION, Date.now().toString(36), {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    secure: process.env.OCHO_HTTPS === '1',
  })

export const takeCookie = (event: H3Event): void => deleteCookie(event, COOKIE, { path: '/' })

/** Who is asking, or null. */
async function actorOf(event: H3Event): Promise<Actor | null> {
  const cookie = getCookie(event, COOKIE)
  if (!cookie) return null
  hearDrops()
  const key = `${cookie} ${getCookie(event, VERSION) ?? ''}`
  const held = hearsOthers() ? kept.get(key) : undefined
  const before = drops
  if (held && held.until > Date.now()) return held.actor
  const [shop, token] = cookie.split('.')
  if (!/^[0-9a-f-]{36}$/.test(shop ?? '') || !token) return null
  const actor = await inShop(db(), shop, async tx => {
    const found = await sessionByToken(tx, shop, tokenHash(token))
    if (!found) return null
    const person = found.session.person ? await personById(tx, shop, found.session.person) : undefined
    return {
      shop,
      code: found.code,
      session: found.session.id,
      person: person ? { id: person.id, name: person.name, role: person.role } : null,
      unlocked: new Map(found.unlocked.map(u => [u.person, u.last_tap_at])),
      confirmedAt: found.session.confirmed_at,
    }
  })
  if (actor && drops === before) kept.set(key, { actor, until: Date.now() + KEEP_MS })
  if (kept.size > 2000) kept.clear()
  return actor
}

/**
 * Forgets what any process keeps of a session, after something about it changed; its own device asks by another version
 * from now on.
 */
export function forgetSession(session: string, event?: H3Event): void {
  tell(['changed', session])
  if (event) renewVersion(event)
}

export const forgetAllSessions = (): void => tell(['all'])

/** Throws 401 unless a device is signed in. */
export async function requireSession(event: H3Event): Promise<Actor> {
  const actor = await actorOf(event)
  if (!actor) {
    const issues = (await isRevoked(event)) ? [{ field: 'session', message: REVOKED }] : []
    throw refuse(401, 'This device is not signed in: sign in for your shop', issues)
  }
  // a page left open since another shop signed in here: what it asks or sends belongs to nobody here
  const of = getHeader(event, SHOP_HEADER)
  if (of !== undefined && of !== actor.code)
    throw refuse(409, 'Another shop is signed in on this device since: reload this page', [
      { field: 'shop', message: 'sign in for this shop again, then it is sent' },
    ])
  return actor
}

async function isRevoked(event: H3Event): Promise<boolean> {
  const [shop, token] = getCookie(event, COOKIE)?.split('.') ?? []
  if (!/^[0-9a-f-]{36}$/.test(shop ?? '') || !token) return false
  return inShop(db(), shop!, tx => wasRevoked(tx, shop!, tokenHash(token)))
}

/** Throws 401, or 403 when nobody has said who works. */
export async function requirePerson(event: H3Event): Promise<Actor & { person: NonNullable<Actor['person']> }> {
  const actor = await requireSession(event)
  if (!actor.person) throw refuse(403, 'Say who works: choose your name and type your PIN')
  return { ...actor, person: actor.person }
}

/** Throws 401 or 403 unless an owner works on this device: for what an owner may see. */
export async function requireOwnerToLook(event: H3Event): Promise<Actor & { person: NonNullable<Actor['person']> }> {
  const actor = await requirePerson(event)
  if (actor.person.role !== 'owner') throw refuse(403, 'Only an owner may do this: let an owner unlock this device')
  return actor
}

/**
 * The same for what an owner does: the password was typed on this device within a quarter of an hour, else it is asked
 * again.
 */
export async function requireOwner(event: H3Event): Promise<Actor & { person: NonNullable<Actor['person']> }> {
  const actor = await requireOwnerToLook(event)
  if (!isFresh(actor.confirmedAt ?? undefined))
    throw refuse(403, 'Type your password once more: this is an owner’s act', [
      { field: CONFIRM, message: 'Type your password once more' },
    ])
  return actor
}

/** Throws 401 or 403 unless a mechanic or an owner works on this device. */
export async function requireMechanic(event: H3Event): Promise<Actor & { person: NonNullable<Actor['person']> }> {
  const actor = await requirePerson(event)
  if (actor.person.role === 'trainee')
    throw refuse(403, 'A mechanic or the owner may do this: let one unlock this device')
  return actor
}

/** Whose hand it is, for the audit trail. */
export const handOf = (actor: Actor): { shop: string; session: string; person: string | null } => ({
  shop: actor.shop,
  session: actor.session,
  person: actor.person?.id ?? null,
})

export const isFresh = (lastTap: Date | undefined): boolean =>
  lastTap !== undefined && Date.now() - lastTap.getTime() < FRESH_MINUTES * 60_000

/** Notes that a person tapped, without making them wait for it. */
export function tapped(actor: Actor, person: string): void {
  const last = actor.unlocked.get(person)
  if (last && Date.now() - last.getTime() < TAP_EVERY_MS) return
  actor.unlocked.set(person, new Date())
  inShop(db(), actor.shop, tx => markTap(tx, actor.shop, actor.session, person)).catch((error: Error) =>
    console.error(`tap not noted: ${error.message}`),
  )
}
