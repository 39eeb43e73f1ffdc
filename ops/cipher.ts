import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto'
import { createReadStream, createWriteStream, openSync, readSync, closeSync, fstatSync } from 'node:fs'
import { Transform, type Readable, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ClusterTrouble } from './postgres'

/*
 * A backup under a passphrase: AES-256 in Galois/counter mode (NIST SP 800-38D), its key by scrypt (RFC 7914). The file
 * is these eight letters, the key's salt, the starting value, what was enciphered, and the tag that proves it whole.
 */
const LETTERS = Buffer.from('OCHOENC1')
const SALT = 16
const START = 12
const TAG = 16
const HEAD = LETTERS.length + SALT + START
/** Cost of the key: about a tenth of a second, so that passphrases are slow to guess. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }

const keyOf = (passphrase: string, salt: Buffer): Buffer => scryptSync(passphrase.normalize('NFC'), salt, 32, COST)

/** Writes what flows in to `out`, enciphered. */
export async function encipher(from: Readable, out: Writable, passphrase: string): Promise<void> {
  const salt = randomBytes(SALT)
  const start = randomBytes(START)
  const cipher = createCipheriv('aes-256-gcm', keyOf(passphrase, salt), start)
  let first = true
  const framed = new Transform({
    transform(chunk: Buffer, _, done) {
      if (first) this.push(Buffer.concat([LETTERS, salt, start]))
      first = false
      done(null, cipher.update(chunk))
    },
    flush(done) {
      this.push(cipher.final())
      this.push(cipher.getAuthTag())
      done()
    },
  })
  await pipeline(from, framed, out)
}

function headOf(file: string): { head: Buffer; size: number } {
  const of = openSync(file, 'r')
  try {
    const head = Buffer.alloc(HEAD)
    const read = readSync(of, head, 0, HEAD, 0)
    return { head: head.subarray(0, read), size: fstatSync(of).size }
  } finally {
    closeSync(of)
  }
}

export const isEnciphered = (file: string): boolean => headOf(file).head.subarray(0, LETTERS.length).equals(LETTERS)

/**
 * Writes the plain content of an enciphered file. Nothing of it may be used before this returns. @throws ClusterTrouble
 */
export async function decipher(file: string, plain: string, passphrase: string): Promise<void> {
  const { head, size } = headOf(file)
  if (size < HEAD + TAG) throw new ClusterTrouble(`${file} is not whole: take another backup`)
  const salt = head.subarray(LETTERS.length, LETTERS.length + SALT)
  const cipher = createDecipheriv('aes-256-gcm', keyOf(passphrase, salt), head.subarray(LETTERS.length + SALT))
  const of = openSync(file, 'r')
  const tag = Buffer.alloc(TAG)
  readSync(of, tag, 0, TAG, size - TAG)
  closeSync(of)
  cipher.setAuthTag(tag)
  try {
    const from = createReadStream(file, { start: HEAD, end: size - TAG - 1 })
    await pipeline(from, cipher, createWriteStream(plain, { mode: 0o600 }))
  } catch {
    throw new ClusterTrouble('The passphrase does not fit this backup, or the file was changed or cut')
  }
}
