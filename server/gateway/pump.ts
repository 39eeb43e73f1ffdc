import { inShop, type Db } from '../db/connect'
import { noteWent, takeWaiting } from '../db/messages'
import type { Gateway } from './index'

/**
 * Sends what waits in a shop's outbox. Taken up under a lock and sent outside of any transaction, so that a slow mail
 * server holds nothing; what a killed server had in hand is taken up again some minutes later, so a message may come
 * twice and is never lost.
 */
export async function pump(db: Db, shop: string, gateway: Gateway, name: string, now = new Date()): Promise<number> {
  const waiting = await inShop(db, shop, tx => takeWaiting(tx, shop, now))
  for (const message of waiting) {
    const went = await gateway.send(message, `${name}: your bike`)
    await inShop(db, shop, tx => noteWent(tx, shop, message, went, now))
  }
  return waiting.length
}
