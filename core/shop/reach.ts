import { z } from 'zod'

/** What an owner chose: whether tablets reach this machine, and the name they reach it by (one of those it has). */
export const ReachWish = z.strictObject({ lan: z.boolean(), name: z.string().max(253).nullable() })
export type ReachWish = z.infer<typeof ReachWish>

/** How the launcher keeps the shop's network, as it writes it beside the data. */
export const ReachStatus = z.object({
  lan: z.boolean(),
  /** Names and addresses the certificate speaks for, the best for a tablet first. */
  names: z.array(z.string()),
  /** The one tablets are sent to. */
  name: z.string().nullable(),
  httpsPort: z.int(),
  joinPort: z.int(),
  /**
   * Fingerprint of the shop's authority: SHA-256 over its certificate, hexadecimal (RFC 5280 gives the certificate,
   * FIPS 180-4 the hash).
   */
  fingerprint: z.string().nullable(),
  /** The same said in words, for reading aloud. */
  words: z.array(z.string()),
  until: z.iso.datetime().nullable(),
  /** Why it is not as wished, in a sentence that says what to do. */
  trouble: z.string().nullable(),
})
export type ReachStatus = z.infer<typeof ReachStatus>

/** What a launcher writes of itself while it runs. */
export const RunningNow = z.object({
  url: z.string(),
  version: z.string(),
  commit: z.string(),
  since: z.iso.datetime(),
})
export type RunningNow = z.infer<typeof RunningNow>

/** The wish, what came of it, and which Ocho it is. */
export const ReachView = z.object({ wish: ReachWish, status: ReachStatus, running: RunningNow.nullable() })
export type ReachView = z.infer<typeof ReachView>

/** Where a tablet that trusts the shop's authority opens Ocho. */
export const secureOrigin = (status: Pick<ReachStatus, 'name' | 'httpsPort'>): string | null =>
  status.name === null ? null : `https://${bracketed(status.name)}:${status.httpsPort}`

/**
 * Where a tablet that does not yet trust it reads how. By address where there is one: a browser that was once told that
 * a name speaks HTTPS alone (RFC 6797) would not open a plain page by that name again, and addresses are outside of
 * that.
 */
export function plainOrigin(status: Pick<ReachStatus, 'names' | 'name' | 'joinPort'>): string | null {
  const name = status.names.find(isAddress) ?? status.name
  return name === null ? null : `http://${bracketed(name)}:${status.joinPort}`
}

/** An address of IPv4 or IPv6, and no name. */
export const isAddress = (name: string): boolean => /^\d+(\.\d+){3}$/.test(name) || name.includes(':')
const bracketed = (name: string): string => (name.includes(':') ? `[${name}]` : name)
