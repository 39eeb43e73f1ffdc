import { inShop } from '../db/connect'
import { personById } from '../db/people'
import { db } from '../db/shared'
import type { Actor } from './actor'
import { takeTries, wasGood } from './limits'
import { refuse } from './refuse'
import { secretMatches } from './secrets'

/** The person whose PIN this is, on this device. Throws 401 when it is wrong, 429 after too many wrong ones. */
export async function personByPin(actor: Actor, personId: string, pin: string) {
  const key = `${actor.session} ${personId}`
  await takeTries(['pin', key])
  const person = await inShop(db(), actor.shop, tx => personById(tx, actor.shop, personId))
  if (!(await secretMatches(pin, person?.pin_hash ?? null)) || !person)
    throw refuse(401, 'That PIN does not fit this name: try again', [
      { field: 'pin', message: 'That PIN does not fit this name' },
    ])
  await wasGood(['pin', key])
  return person
}
