import { inShop } from '../db/connect'
import { shopDesk } from '../db/recalls'
import { db } from '../db/shared'
import { gateway } from './index'
import { pump } from './pump'

/** Shops whose people were seen by this server: no role may look for those of others. Their outboxes are emptied as the hours allow. */
const seen = new Set<string>()
const EVERY_MS = 30_000
let timer: NodeJS.Timeout | undefined

async function send(shop: string): Promise<void> {
  try {
    const { name } = await inShop(db(), shop, tx => shopDesk(tx, shop))
    while ((await pump(db(), shop, gateway(), name)) > 0);
  } catch (error) {
    // the database is away: the messages wait in it, and are sent when it is back
    console.warn(`messages wait: ${(error as Error).message}`)
  }
}

/** Sends a shop's messages now, and from now on whenever one may go. */
export function sendFor(shop: string): Promise<void> {
  seen.add(shop)
  timer ??= setInterval(() => void Promise.all([...seen].map(send)), EVERY_MS).unref()
  return send(shop)
}
