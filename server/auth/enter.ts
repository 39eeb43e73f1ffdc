import { getRequestHeader, type H3Event } from 'h3'
import { inShop } from '../db/connect'
import { audit } from '../db/audit'
import { newId } from '../db/ids'
import { openSession } from '../db/sessions'
import { db } from '../db/shared'
import { giveCookie } from './actor'
import { newToken, tokenHash } from './secrets'

/** Opens a session for this device and gives it its cookie. */
export async function enter(event: H3Event, shop: string, person: string, how: 'signIn' | 'firstRun'): Promise<void> {
  const token = newToken()
  const session = newId()
  await inShop(db(), shop, async tx => {
    await openSession(tx, {
      shop,
      id: session,
      tokenHash: tokenHash(token),
      device: deviceName(getRequestHeader(event, 'user-agent') ?? ''),
      person,
    })
    await audit(tx, { shop, session, person }, how)
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
