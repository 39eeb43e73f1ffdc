import { defineEventHandler, getRequestURL } from 'h3'
import type { JoinCode } from '#core/http/joining'
import { plainOrigin, secureOrigin } from '#core/shop/reach'
import { handOf, requireOwner } from '../../../auth/actor'
import { refuse } from '../../../auth/refuse'
import { oneTimeCode, tokenHash } from '../../../auth/secrets'
import { audit } from '../../../db/audit'
import { inShop } from '../../../db/connect'
import { CannotJoin, openJoining } from '../../../db/joining'
import { db } from '../../../db/shared'
import { squareSvg } from '#core/paper/square'
import { reachNow } from '../../../reach/status'

const HERE = new Set(['localhost', '127.0.0.1', '[::1]'])

/** An owner asks for a code by which one device may join, with the squares that lead it there. */
export default defineEventHandler(async (event): Promise<JoinCode> => {
  const actor = await requireOwner(event)
  const reach = reachNow()?.status
  const here = getRequestURL(event)
  const secure = (reach?.lan ? secureOrigin(reach) : null) ?? (HERE.has(here.hostname) ? null : here.origin)
  if (secure === null)
    throw refuse(409, 'No other device reaches this machine yet: let tablets reach it first, on the shop’s page')
  const code = oneTimeCode()
  const hash = tokenHash(code.replace('-', ''))
  try {
    const { id, expiresAt } = await inShop(db(), actor.shop, async tx => {
      const made = await openJoining(tx, actor.shop, actor.person.id, hash)
      await audit(tx, handOf(actor), 'joinCode')
      return made
    })
    const square = (url: string) => ({ url, svg: squareSvg(url) })
    const trust = reach?.lan ? plainOrigin(reach) : null
    return {
      id,
      code,
      expiresAt: expiresAt.toISOString(),
      trust: trust === null ? null : square(`${trust}/`),
      // after the #: a browser never sends it along, so no log and no plain page sees it
      join: square(`${secure}/join#${code}`),
    }
  } catch (error) {
    throw error instanceof CannotJoin ? refuse(429, error.message) : error
  }
})
