import { PersonId, type Role } from '#core/chapter/ids'
import type { Hand } from '#core/ledger/gates'
import type { ShopTx } from '../db/connect'
import { personById } from '../db/people'
import { sessionNow } from '../db/sessions'
import { isFresh, type Actor } from './actor'
import { refuse } from './refuse'

/**
 * Whose hand is at a gate, read inside the transaction that asks it: never from the request, nor from what was kept of
 * the session. A mechanic who signed by PIN just now answers in place of who works on the device.
 * Throws 401 or 403 when the device was signed out, somebody else works there now, or the person has left.
 */
export const handFor =
  (actor: Actor & { person: NonNullable<Actor['person']> }, signer: { role: Role } | null) =>
  async (tx: ShopTx): Promise<Hand> => {
    const now = await sessionNow(tx, actor.shop, actor.session, actor.person.id)
    if (!now) throw refuse(401, 'This device is not signed in: sign in for your shop')
    if (now.person !== actor.person.id)
      throw refuse(403, 'Somebody else works on this device now: choose your name first')
    const id = PersonId.parse(actor.person.id)
    if (signer) return { person: id, role: signer.role, fresh: true }
    const person = await personById(tx, actor.shop, actor.person.id)
    if (!person) throw refuse(403, 'That person does not work here any more: choose another name')
    return { person: id, role: person.role, fresh: isFresh(now.lastTap ?? undefined) }
  }
