import { inShop } from '../db/connect'
import { anyWait } from '../db/messages'
import { shopDesk } from '../db/recalls'
import { db } from '../db/shared'
import { gateway } from './index'
import { pump } from './pump'

/**
 * Shops with something in their outbox that may not go yet. No role may look for those of others: each was seen by this
 * server.
 */
const waiting = new Set<string>()
/** When each shop's outbox was last looked into, so that a Floor read all day asks once in a while. */
const looked = new Map<string, number>()
const EVERY_MS = 30_000
const LOOK_AGAIN_MS = 5 * 60_000
let timer: NodeJS.Timeout | undefined

/** Sends what may go of a shop's messages now; what may not yet goes by itself, as long as this server runs. */
export async function sendFor(shop: string): Promise<void> {
  looked.set(shop, Date.now())
  timer ??= setInterval(() => void Promise.all([...waiting].map(sendFor)), EVERY_MS).unref()
  try {
    const { name } = await inShop(db(), shop, tx => shopDesk(tx, shop))
    while ((await pump(db(), shop, gateway(), name)) > 0);
    if (await inShop(db(), shop, tx => anyWait(tx, shop))) waiting.add(shop)
    else waiting.delete(shop)
  } catch (error) {
    // the database is away: the messages wait in it, and are sent when it is back
    waiting.add(shop)
    console.warn(`messages wait: ${(error as Error).message}`)
  }
}

/** Somebody of a shop is here: what waited for the night to end, or for a server to be up, goes. */
export function seenHere(shop: string): void {
  if (Date.now() - (looked.get(shop) ?? 0) > LOOK_AGAIN_MS) void sendFor(shop)
}
