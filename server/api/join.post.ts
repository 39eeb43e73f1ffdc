import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { Join } from '#core/http/joining'
import { addressOf } from '../auth/address'
import { enter } from '../auth/enter'
import { takeTries, wasGood } from '../auth/limits'
import { body, refuse } from '../auth/refuse'
import { tokenHash } from '../auth/secrets'
import { inShop } from '../db/connect'
import { CannotJoin, joiningBy, shopOfJoining, takeJoining } from '../db/joining'
import { db } from '../db/shared'

/** A device joins its shop by a code that an owner's screen shows, once. */
export default defineEventHandler(async (event): Promise<Done> => {
  const { code, device } = await body(event, Join)
  const address = addressOf(event)
  await takeTries(['join', address], ['joinAll', ''])
  const no = (message: string) => refuse(403, message, [{ field: 'code', message }])
  const hash = tokenHash(code)
  const shop = await shopOfJoining(db(), hash)
  const row = shop ? await inShop(db(), shop, tx => joiningBy(tx, shop, hash)) : undefined
  if (!shop || !row) throw no('That is not a code of this machine: read it again, under the second square')
  try {
    await enter(event, shop, {
      how: 'joined',
      openedBy: row.made_by,
      device,
      opened: (tx, session) => takeJoining(tx, shop, hash, session),
    })
  } catch (error) {
    throw error instanceof CannotJoin ? no(error.message) : error
  }
  await wasGood(['join', address], ['joinAll', ''])
  return { ok: true }
})
