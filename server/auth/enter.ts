import { getRequestHeader, type H3Event } from 'h3'
import { inShop, type ShopTx } from '../db/connect'
import { audit } from '../db/audit'
import { newId } from '../db/ids'
import { openSession } from '../db/sessions'
import { db } from '../db/shared'
import { giveCookie } from './actor'
import { newToken, tokenHash } from './secrets'

type How =
  | { how: 'signIn' | 'firstRun'; person: string }
  /** By an owner's code: nobody works here until they say so. */
  | { how: 'joined'; openedBy: string; device?: string; opened(tx: ShopTx, session: string): Promise<void> }

/** Opens a session for this device and gives it its cookie. @throws what `opened` throws; then there is no session */
export async function enter(event: H3Event, shop: string, by: How): Promise<void> {
  const token = newToken()
  const session = newId()
  const kind = deviceName(getRequestHeader(event, 'user-agent') ?? '')
  await inShop(db(), shop, async tx => {
    await openSession(tx, {
      shop,
      id: session,
      tokenHash: tokenHash(token),
      device: by.how === 'joined' && by.device ? `${by.device} (${kind})` : kind,
      person: by.how === 'joined' ? null : by.person,
      openedBy: by.how === 'joined' ? by.openedBy : by.person,
    })
    if (by.how === 'joined') await by.opened(tx, session)
    await audit(tx, { shop, session, person: by.how === 'joined' ? null : by.person }, by.how)
  })
  giveCookie(event, shop, token)
}

/** A device in words an owner recognises; never the whole header. */
function deviceName(agent: string): string {
  const kind = /iPad|Tablet|Android(?!.*Mobile)/.test(agent)
    ? 'Tablet'
    : /Mobile|iPhone/.test(agent)
      ? 'Phone'
      : 'Computer'
  const system = /Android/.test(agent)
    ? 'Android'
    : /iPhone|iPad|Mac OS/.test(agent)
      ? 'Apple'
      : /Windows/.test(agent)
        ? 'Windows'
        : /Linux/.test(agent)
          ? 'Linux'
          : ''
  return [kind, system].filter(Boolean).join(', ')
}
