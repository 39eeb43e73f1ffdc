import { createHash } from 'node:crypto'
import { giveBack, takeTry } from '../db/attempts'
import { db } from '../db/shared'
import { refuse } from './refuse'

const MINUTES = 5

/**
 * Tries allowed in five minutes, each counted before it is judged. A password from one address has eight, whoever asks; all
 * addresses together have more, so that a stranger who guesses cannot lock a shop out of its own.
 */
const LIMITS = { password: 8, account: 100, address: 60, pin: 6, firstRun: 10, firstRunAll: 30 } as const
type Limit = keyof typeof LIMITS

// nothing readable is kept of who was tried
const hashed = (limit: Limit, key: string): string => createHash('sha256').update(`${limit} ${key}`).digest('base64url')

/** Counts a try before anything is judged. Throws 429 when there were too many: then nothing is judged. */
export async function takeTries(...wanted: readonly [Limit, string][]): Promise<void> {
  for (const [limit, key] of wanted) {
    const { tries, endsAt } = await takeTry(db(), hashed(limit, key), MINUTES)
    if (tries > LIMITS[limit]) {
      const minutes = Math.max(1, Math.ceil((endsAt.getTime() - Date.now()) / 60_000))
      throw refuse(429, `Too many wrong tries: wait ${minutes} min and try again`)
    }
  }
}

/** A good try clears the count of its own key, and gives back the one it took of those it shares with others. */
export async function wasGood(own: readonly [Limit, string], ...shared: readonly [Limit, string][]): Promise<void> {
  await giveBack(db(), hashed(...own), 'all')
  for (const one of shared) await giveBack(db(), hashed(...one), 'one')
}
