import { getRequestHeader, getRequestIP, type H3Event } from 'h3'

/**
 * Where a request comes from, for the limits. Behind a proxy of one's own (OCHO_BEHIND_PROXY=1) it is the address that
 * the proxy wrote last; else such a header is anybody's word, and is not read.
 */
export function addressOf(event: H3Event): string {
  if (process.env.OCHO_BEHIND_PROXY === '1') {
    const last = getRequestHeader(event, 'x-forwarded-for')?.split(',').at(-1)?.trim()
    if (last) return last.slice(0, 60)
  }
  // one address however it is written: an IPv4 one over IPv6 (RFC 4291, 2.5.5.2)
  return (getRequestIP(event) ?? 'unknown').replace(/^::ffff:/, '')
}
