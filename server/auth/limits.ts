import { createHash } from 'node:crypto'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { attemptStore } from '../db/attempts'
import { db } from '../db/shared'
import { refuse } from './refuse'

const MINUTES = 5

/**
 * Tries allowed in five minutes, each counted before it is judged. A password from one address has eight, whoever asks;
 * all addresses together have more, so that a stranger who guesses elsewhere does not lock a shop out of its own.
 */
const LIMITS = {
  password: 8,
  account: 100,
  address: 60,
  pin: 6,
  firstRun: 10,
  firstRunAll: 30,
  join: 10,
  joinAll: 60,
} as const
type Limit = keyof typeof LIMITS
/** A limit and what it is counted by. */
type Try = readonly [Limit, string]

const limiters = new Map<Limit, RateLimiterPostgres>()
/**
 * Counted in the database by one statement a try: of any number at once each has its own number, in whichever process.
 */
function limiterOf(limit: Limit): RateLimiterPostgres {
  const kept = limiters.get(limit)
  if (kept) return kept
  const made = new RateLimiterPostgres({
    storeClient: attemptStore(db),
    storeType: 'client',
    schemaName: 'gate',
    tableName: 'attempt',
    tableCreated: true,
    keyPrefix: limit,
    points: LIMITS[limit],
    duration: MINUTES * 60,
  })
  limiters.set(limit, made)
  return made
}
// nothing readable is kept of who was tried
const hashed = (key: string): string => createHash('sha256').update(key).digest('base64url')

/**
 * Counts a try before anything is judged, the narrowest limit first. Throws 429 when there were too many: then nothing
 * is judged.
 */
export async function takeTries(...tries: readonly Try[]): Promise<void> {
  for (const [limit, key] of tries) {
    try {
      await limiterOf(limit).consume(hashed(key))
    } catch (told) {
      if (!(told instanceof RateLimiterRes)) throw told
      throw refuse(429, `Too many wrong tries: wait ${Math.ceil(told.msBeforeNext / 60_000)} min and try again`)
    }
  }
}

/** A good try clears the count of its own key, and gives back the one it took of those it shares with others. */
export async function wasGood([limit, key]: Try, ...shared: readonly Try[]): Promise<void> {
  await limiterOf(limit).delete(hashed(key))
  for (const [with_, of] of shared) await limiterOf(with_).reward(hashed(of))
}
