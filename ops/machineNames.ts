import { existsSync } from 'node:fs'
import { hostname, networkInterfaces } from 'node:os'

/** Where a name service of the local network (RFC 6762) listens on Debian: with it, tablets find `NAME.local`. */
const NAME_SERVICE = '/run/avahi-daemon/socket'

/** What of a machine decides how it can be called; given in tests. */
export type Machine = {
  host: string
  addresses: { address: string; family: string; internal: boolean }[]
  tellsItsName: boolean
}

export const thisMachine = (): Machine => ({
  host: hostname(),
  addresses: Object.values(networkInterfaces()).flatMap(n => n ?? []),
  tellsItsName: existsSync(NAME_SERVICE),
})

export const firstLabel = (host: string): string => host.toLowerCase().split('.')[0]

/**
 * By which names and addresses tablets can reach a machine, the best first: names given to it, `NAME.local` where
 * something tells it to the network, its addresses, then the names a router may know. A name is better than an address:
 * it stays when the router gives another address, and what a tablet keeps stays with it.
 */
export function namesOf(machine: Machine, given: readonly string[]): string[] {
  const host = firstLabel(machine.host)
  const local = `${host}.local`
  const addresses = machine.addresses
    .filter(a => !a.internal && !a.address.includes('%') && !a.address.startsWith('fe80'))
    .sort((a, b) => Number(a.family === 'IPv6') - Number(b.family === 'IPv6'))
    .map(a => a.address)
  const names = machine.tellsItsName ? [...given, local, ...addresses, host] : [...given, ...addresses, local, host]
  return [...new Set(names)].filter(n => n !== 'localhost')
}

/** By these its own browser reaches it. */
export const LOOPBACK = ['localhost', '127.0.0.1', '::1'] as const
