import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

const KEY_BYTES = 32
/** scrypt cost: 16 MiB and some 50 ms a try; PINs are short, so tries are limited in rate as well. */
const COST = { N: 16384, r: 8, p: 1 }

const derive = (secret: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(secret.normalize('NFKC'), salt, KEY_BYTES, COST, (error, key) => (error ? reject(error) : resolve(key))),
  )

/** Hash of a password or PIN: "scrypt:salt:key", hexadecimal. */
export async function hashSecret(secret: string): Promise<string> {
  const salt = randomBytes(16)
  return `scrypt:${salt.toString('hex')}:${(await derive(secret, salt)).toString('hex')}`
}

/** Compares in constant time; with no hash it takes as long and says no, so that names cannot be tried out. */
export async function secretMatches(secret: string, hash: string | null): Promise<boolean> {
  const [, salt, key] = (hash ?? `scrypt:${'00'.repeat(16)}:${'00'.repeat(KEY_BYTES)}`).split(':')
  const found = await derive(secret, Buffer.from(salt, 'hex'))
  return timingSafeEqual(found, Buffer.from(key, 'hex')) && hash !== null
}

/** An opaque session token, and what the database keeps of it. */
export const newToken = (): string => randomBytes(32).toString('base64url')
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex')

/** Eight letters and digits that cannot be mistaken for each other. */
export function oneTimeCode(): string {
  const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
  return [...randomBytes(8)]
    .map(b => letters[b % letters.length])
    .join('')
    .replace(/(.{4})/, '$1-')
}
