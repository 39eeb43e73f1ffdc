import 'reflect-metadata'
import { createHash, webcrypto } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { BlockList, isIPv6 } from 'node:net'
import { join } from 'node:path'
import { AsnConvert } from '@peculiar/asn1-schema'
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  NameConstraints,
  id_ce_nameConstraints,
} from '@peculiar/asn1-x509'
import * as x509 from '@peculiar/x509'
import { wordlist } from '@scure/bip39/wordlists/english.js'
import { addDays, addYears, differenceInDays } from 'date-fns'
import { isAddress } from '#core/shop/reach'
import { writeWhole } from '../server/beside'
import { ClusterTrouble } from './postgres'

x509.cryptoProvider.set(webcrypto as Crypto)
const KEYS = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' }

/** Tablets refuse a certificate that speaks for longer (a common limit of browsers is 398 days). */
const SPEAKS_DAYS = 397
/** Renewed so long before its end, by itself. */
const RENEW_DAYS = 30
/** Begins so long before now: a tablet whose clock is a day or two behind takes it as well. */
const BACKDATED_DAYS = 3
const AUTHORITY_YEARS = 20

/**
 * Names the shop's authority can never go beyond, as a constraint inside its own certificate (RFC 5280, 4.2.1.10):
 * names of home networks (RFC 6762, 8375 and common practice) and addresses that no stranger's site can have (RFC 1918,
 * 3927, 4193, 6598). So whoever steals its key cannot speak for a bank on the shop's tablets.
 */
const NAMES_OF_HOME = ['local', 'lan', 'home.arpa', 'internal', 'localhost']
const ADDRESSES_OF_HOME = [
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['fc00::', 7],
  ['fe80::', 10],
  ['::1', 128],
] as const

export type Authority = { pem: string; der: Buffer; fingerprint: string; words: string[]; names: string[] }
export type Leaf = { cert: string; key: string; names: string[]; until: Date; serial: string }

const files = (folder: string) => {
  const tls = join(folder, 'tls')
  return {
    tls,
    authority: join(tls, 'authority.pem'),
    authorityKey: join(tls, 'authority.key'),
    server: join(tls, 'server.pem'),
    serverKey: join(tls, 'server.key'),
  }
}

/**
 * The shop's own authority: made at first use, its key readable by this user alone. @throws ClusterTrouble when its
 * files are spoilt
 */
export async function authorityOf(folder: string, hostName: string, extra: readonly string[]): Promise<Authority> {
  const at = files(folder)
  mkdirSync(at.tls, { recursive: true, mode: 0o700 })
  if (!existsSync(at.authority) || !existsSync(at.authorityKey)) await makeAuthority(folder, hostName, extra)
  try {
    const cert = new x509.X509Certificate(readFileSync(at.authority, 'utf8'))
    const der = Buffer.from(cert.rawData)
    const print = createHash('sha256').update(der).digest()
    return {
      pem: cert.toString('pem'),
      der,
      fingerprint: print.toString('hex'),
      words: wordsOf(print),
      names: namesAllowed(cert),
    }
  } catch (error) {
    throw new ClusterTrouble(
      `The shop's authority in ${at.tls} cannot be read (${(error as Error).message.split('\n')[0]}): move that folder away, start again, and let each tablet trust the new one`,
    )
  }
}

async function makeAuthority(folder: string, hostName: string, extra: readonly string[]): Promise<void> {
  const at = files(folder)
  const keys = await webcrypto.subtle.generateKey(KEYS, true, ['sign', 'verify'])
  const now = new Date()
  const names = [...new Set([...NAMES_OF_HOME, hostName, ...extra.filter(n => !isAddress(n))])].filter(Boolean)
  const permitted = [
    ...names.map(name => new GeneralSubtree({ base: new GeneralName({ dNSName: name }) })),
    ...ADDRESSES_OF_HOME.map(
      ([net, bits]) => new GeneralSubtree({ base: new GeneralName({ iPAddress: `${net}/${bits}` }) }),
    ),
  ]
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Ocho at ${hostName}, O=This shop's own machine`,
    notBefore: addDays(now, -BACKDATED_DAYS),
    notAfter: addYears(now, AUTHORITY_YEARS),
    signingAlgorithm: KEYS,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      new x509.Extension(
        id_ce_nameConstraints,
        true,
        AsnConvert.serialize(new NameConstraints({ permittedSubtrees: new GeneralSubtrees(permitted) })),
      ),
    ],
  })
  writeWhole(at.authorityKey, await privatePem(keys.privateKey))
  writeWhole(at.authority, cert.toString('pem'))
}

/**
 * The server's certificate for these names, the kept one as long as it speaks for all of them and long enough; else a
 * new one.
 * @returns it, whether it is new, and the names that the authority may not speak for
 */
export async function leafOf(
  folder: string,
  authority: Authority,
  wanted: readonly string[],
  now = new Date(),
): Promise<Leaf & { renewed: boolean; outside: string[] }> {
  const at = files(folder)
  const names = wanted.filter(n => mayName(authority, n))
  const outside = wanted.filter(n => !names.includes(n))
  const kept = keptLeaf(folder, authority)
  if (kept && names.every(n => kept.names.includes(n)) && differenceInDays(kept.until, now) > RENEW_DAYS)
    return { ...kept, renewed: false, outside }
  const issuer = new x509.X509Certificate(authority.pem)
  const signingKey = await privateKey(readFileSync(at.authorityKey, 'utf8'))
  const keys = await webcrypto.subtle.generateKey(KEYS, true, ['sign', 'verify'])
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${names.find(n => !isAddress(n)) ?? names[0] ?? 'Ocho'}`,
    issuer: issuer.subject,
    notBefore: addDays(now, -BACKDATED_DAYS),
    notAfter: addDays(now, SPEAKS_DAYS - BACKDATED_DAYS),
    signingAlgorithm: KEYS,
    publicKey: keys.publicKey,
    signingKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map(value => ({ type: isAddress(value) ? ('ip' as const) : ('dns' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  })
  writeWhole(at.serverKey, await privatePem(keys.privateKey))
  writeWhole(at.server, cert.toString('pem'))
  const made = keptLeaf(folder, authority)
  if (!made) throw new ClusterTrouble(`The certificate in ${at.tls} could not be read back: is the disk full?`)
  return { ...made, renewed: true, outside }
}

/** What is kept of a server's certificate, when key and certificate fit each other and this authority. */
function keptLeaf(folder: string, authority: Authority): Leaf | null {
  const at = files(folder)
  try {
    const cert = new x509.X509Certificate(readFileSync(at.server, 'utf8'))
    const issuer = new x509.X509Certificate(authority.pem)
    if (cert.issuer !== issuer.subject) return null
    const key = readFileSync(at.serverKey, 'utf8')
    const of = cert.getExtension(x509.AuthorityKeyIdentifierExtension)?.keyId
    if (of !== issuer.getExtension(x509.SubjectKeyIdentifierExtension)?.keyId) return null
    const names = cert.getExtension(x509.SubjectAlternativeNameExtension)?.names.items.map(n => n.value) ?? []
    return { cert: cert.toString('pem'), key, names, until: cert.notAfter, serial: cert.serialNumber }
  } catch {
    return null
  }
}

/** Names that an authority's own certificate allows it to speak for. */
function namesAllowed(cert: x509.X509Certificate): string[] {
  const raw = cert.getExtension(id_ce_nameConstraints)
  if (!raw) return []
  const read = AsnConvert.parse(raw.value, NameConstraints)
  return [...(read.permittedSubtrees ?? [])].flatMap(s => s.base.dNSName ?? [])
}

/** May this authority speak for a name or an address? */
export function mayName(authority: Pick<Authority, 'names'>, name: string): boolean {
  if (isAddress(name)) return ofHome.check(name, family(name))
  return authority.names.some(n => name === n || name.endsWith(`.${n}`))
}

const family = (address: string): 'ipv4' | 'ipv6' => (isIPv6(address) ? 'ipv6' : 'ipv4')
const ofHome = new BlockList()
for (const [net, bits] of ADDRESSES_OF_HOME) ofHome.addSubnet(net, bits, family(net))

/**
 * Six of 2,048 words for the first 66 bits of a fingerprint: short enough to read aloud, too many to be met by chance.
 */
function wordsOf(print: Buffer): string[] {
  const bits = [...print].map(b => b.toString(2).padStart(8, '0')).join('')
  return Array.from({ length: 6 }, (_, i) => wordlist[parseInt(bits.slice(i * 11, i * 11 + 11), 2)])
}

const serial = (): string => {
  const bytes = webcrypto.getRandomValues(new Uint8Array(16))
  bytes[0] = (bytes[0] & 0x7f) | 0x40 // positive, and of full length (RFC 5280, 4.1.2.2)
  return Buffer.from(bytes).toString('hex')
}
const privatePem = async (key: webcrypto.CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY')
const privateKey = (pem: string): Promise<webcrypto.CryptoKey> =>
  webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(pem), KEYS, false, ['sign'])
