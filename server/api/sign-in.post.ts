import { defineEventHandler } from 'h3'
import { SignIn } from '#core/http/people'
import { addressOf } from '../auth/address'
import { enter } from '../auth/enter'
import { takeTries, wasGood } from '../auth/limits'
import { body, refuse } from '../auth/refuse'
import { secretMatches } from '../auth/secrets'
import { inShop } from '../db/connect'
import { personByName, shopOfCode } from '../db/people'
import { db } from '../db/shared'

export default defineEventHandler(async (event): Promise<{ ok: true }> => {
  const { shop: code, name, password } = await body(event, SignIn)
  const who = `${code} ${name.toLowerCase()}`
  const address = addressOf(event)
  await takeTries(['password', `${who} ${address}`], ['account', who], ['address', address])
  const shop = await shopOfCode(db(), code)
  const person = shop ? await inShop(db(), shop.shop, tx => personByName(tx, shop.shop, name)) : undefined
  if (!(await secretMatches(password, person?.password_hash ?? null)) || !shop || !person)
    throw refuse(401, 'Shop code, name and password do not fit together: check all three', [
      { field: 'password', message: 'Shop code, name and password do not fit together' },
    ])
  await wasGood(['password', `${who} ${address}`], ['address', address], ['account', who])
  await enter(event, shop.shop, { how: 'signIn', person: person.id })
  return { ok: true }
})
