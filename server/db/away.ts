/** Codes of PostgreSQL (appendix A of its manual) that say: not now, nothing is wrong with what was asked. */
const NOT_NOW = [
  /^08/, // no connection
  /^53/, // no room on the disk, no memory, too many connections
  /^57P0/, // shutting down, or starting
  /^58/, // the disk
  /^57014$/, // stopped by its time limit
  /^55P03$/, // a lock was not to be had in time
  /^40(001|P01)$/, // stood in each other's way
  /^25P03$/, // waited too long inside a transaction
]
const UNREACHED = [
  /ECONNREFUSED/,
  /(read|write) (ECONNRESET|EPIPE)/,
  /Connection terminated/,
  /timeout exceeded when trying to connect/,
  /Client has encountered a connection error/,
]

/** Why a request cannot be answered at this moment, in words; null when that is not what an error says. */
export function awayWords(error: unknown): string | null {
  if (!(error instanceof Error)) return null
  const { code = '' } = error as Error & { code?: string }
  if (code === '53100')
    return 'The disk of the shop’s machine is full: make room there. What was tapped is kept on this tablet'
  if (NOT_NOW.some(c => c.test(code)) || UNREACHED.some(u => u.test(`${code} ${error.message}`)))
    return 'The database does not answer at this moment: it is tried again. What was tapped is kept on this tablet'
  return error.cause === undefined ? null : awayWords(error.cause)
}
