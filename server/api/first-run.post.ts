import { defineEventHandler } from 'h3'
import { FirstRun } from '#core/http/people'
import { addressOf } from '../auth/address'
import { enter } from '../auth/enter'
import { firstRunCodeMatches, firstRunOpen, useFirstRun } from '../auth/firstRun'
import { takeTries } from '../auth/limits'
import { body, refuse } from '../auth/refuse'
import { hashSecret } from '../auth/secrets'
import { newId } from '../db/ids'
import { createShop } from '../db/people'
import { db } from '../db/shared'

/** Makes the first shop and its owner, by the code the terminal showed. */
export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const over = () => refuse(409, 'A shop is set up here already: sign in')
  if (!(await firstRunOpen())) throw over()
  const order = await body(event, FirstRun)
  const address = addressOf(event)
  await takeTries(['firstRun', address], ['firstRunAll', ''])
  if (!firstRunCodeMatches(order.code))
    throw refuse(403, 'That is not the code the terminal shows', [
      { field: 'code', message: 'That is not the code the terminal shows' },
    ])
  const shop = newId()
  const owner = await createShop(
    db(),
    { id: shop, code: order.shop, name: order.shopName, zone: order.zone, demo: false },
    {
      name: order.name,
      role: 'owner',
      passwordHash: await hashSecret(order.password),
      pinHash: await hashSecret(order.pin),
    },
    async tx => {
      if (!(await useFirstRun(tx))) throw over()
    },
  )
  await enter(event, shop, { how: 'firstRun', person: owner })
  return { ok: true }
})
