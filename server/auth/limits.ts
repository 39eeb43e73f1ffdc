import { RateLimiterMemory } from 'rate-limiter-flexible'
import { refuse } from './refuse'

const minutes = (n: number) => n * 60

/** Failed tries allowed before a pause; a good one clears its own count. */
const LIMITS = {
  password: new RateLimiterMemory({ points: 8, duration: minutes(5), keyPrefix: 'password' }),
  address: new RateLimiterMemory({ points: 60, duration: minutes(5), keyPrefix: 'address' }),
  pin: new RateLimiterMemory({ points: 6, duration: minutes(5), keyPrefix: 'pin' }),
  firstRun: new RateLimiterMemory({ points: 10, duration: minutes(5), keyPrefix: 'first' }),
}
type Limit = keyof typeof LIMITS

/** Throws 429 when this key has failed too often lately. */
export async function mayTry(limit: Limit, key: string): Promise<void> {
  const held = await LIMITS[limit].get(key)
  if (held && held.remainingPoints <= 0)
    throw refuse(429, `Too many wrong tries: wait ${Math.ceil(held.msBeforeNext / 60_000)} min and try again`)
}

export async function failed(limit: Limit, key: string): Promise<void> {
  await LIMITS[limit].consume(key).catch(() => undefined) // the next try is refused
}

export async function succeeded(limit: Limit, key: string): Promise<void> {
  await LIMITS[limit].delete(key)
}
