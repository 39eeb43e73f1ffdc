import 'reflect-metadata'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect, createServer, type Server } from 'node:tls'
import * as x509 from '@peculiar/x509'
import { addDays } from 'date-fns'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { authorityOf, leafOf, mayName, type Authority } from './authority'

let folder: string
let authority: Authority
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'ocho-tls-'))
  authority = await authorityOf(folder, 'shop-pc', ['gears.example'])
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/**
 * What a TLS client that trusts the authority alone says to a server; by Node's own OpenSSL, which knows nothing of our
 * code.
 */
async function shake(cert: string, key: string, servername: string, ca = authority.pem): Promise<string> {
  const server: Server = createServer({ cert, key }, socket => socket.end())
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  try {
    return await new Promise(resolve => {
      const { port } = server.address() as AddressInfo
      const client = connect(
        {
          host: '127.0.0.1',
          port,
          ca,
          servername: /[:\d]$/.test(servername) ? '' : servername,
        },
        () => {
          resolve('trusted')
          client.end()
        },
      )
      client.on('error', (error: Error) => resolve(error.message))
    })
  } finally {
    server.close()
  }
}

test('a client that trusts the authority takes the server by each of its names, and by no other', async () => {
  const leaf = await leafOf(folder, authority, ['192.168.1.20', 'fd12::7', 'shop-pc.local', 'shop-pc', 'gears.example'])
  expect(leaf.outside).toEqual([])
  expect(await shake(leaf.cert, leaf.key, 'shop-pc.local')).toBe('trusted')
  const cert = new X509Certificate(leaf.cert)
  for (const name of ['shop-pc.local', 'shop-pc', 'gears.example']) expect(cert.checkHost(name)).toBe(name)
  for (const ip of ['192.168.1.20', 'fd12::7']) expect(cert.checkIP(ip)).toBe(ip)
  expect(cert.checkHost('other.local')).toBeUndefined()
  expect(cert.verify(new X509Certificate(authority.pem).publicKey)).toBe(true)
})

test('another shop’s authority is no word for it', async () => {
  const other = mkdtempSync(join(tmpdir(), 'ocho-tls-'))
  const theirs = await authorityOf(other, 'shop-pc', [])
  const leaf = await leafOf(folder, authority, ['shop-pc.local'])
  expect(await shake(leaf.cert, leaf.key, 'shop-pc.local', theirs.pem)).not.toBe('trusted')
  rmSync(other, { recursive: true, force: true })
})

test('it cannot speak for a name of the internet, whoever holds its key (RFC 5280, 4.2.1.10, judged by OpenSSL)', async () => {
  expect(mayName(authority, 'bank.example')).toBe(false)
  expect(mayName(authority, 'evil-gears.example')).toBe(false)
  expect(mayName(authority, '8.8.8.8')).toBe(false)
  expect(mayName(authority, '2001:db8::1')).toBe(false)
  for (const fine of ['a.gears.example', 'till.local', '10.1.2.3', '100.64.0.9', '172.31.0.1', 'fd00::1', '::1'])
    expect(mayName(authority, fine), fine).toBe(true)
  expect(mayName(authority, '172.32.0.1')).toBe(false)
  // forged by hand with the stolen key
  const forge = async (names: { type: 'dns' | 'ip'; value: string }[]) => {
    const algorithm = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' }
    const keys = await crypto.subtle.generateKey(algorithm, true, ['sign', 'verify'])
    const issuer = new x509.X509Certificate(authority.pem)
    const signingKey = await crypto.subtle.importKey(
      'pkcs8',
      x509.PemConverter.decodeFirst(readFileSync(join(folder, 'tls', 'authority.key'), 'utf8')),
      algorithm,
      false,
      ['sign'],
    )
    const cert = await x509.X509CertificateGenerator.create({
      serialNumber: '0a',
      subject: 'CN=forged',
      issuer: issuer.subject,
      notBefore: addDays(new Date(), -1),
      notAfter: addDays(new Date(), 30),
      signingAlgorithm: algorithm,
      publicKey: keys.publicKey,
      signingKey,
      extensions: [new x509.SubjectAlternativeNameExtension(names)],
    })
    const key = x509.PemConverter.encode(await crypto.subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY')
    return { cert: cert.toString('pem'), key }
  }
  const fine = await forge([{ type: 'dns', value: 'till.local' }])
  expect(await shake(fine.cert, fine.key, 'till.local')).toBe('trusted')
  const bank = await forge([{ type: 'dns', value: 'bank.example' }])
  expect(await shake(bank.cert, bank.key, 'bank.example')).toMatch(/permitted subtree violation/i)
  const address = await forge([
    { type: 'dns', value: 'till.local' },
    { type: 'ip', value: '93.184.216.34' },
  ])
  expect(await shake(address.cert, address.key, 'till.local')).toMatch(/permitted subtree violation/i)
})

test('it is kept while it speaks for every name and long enough; else made anew under the same authority', async () => {
  const names = ['192.168.1.20', 'shop-pc.local']
  const first = await leafOf(folder, authority, names)
  expect((await leafOf(folder, authority, names)).renewed).toBe(false)
  const moved = await leafOf(folder, authority, ['192.168.1.77', 'shop-pc.local'])
  expect(moved.renewed).toBe(true)
  expect(moved.names).toContain('192.168.1.77')
  const before = await leafOf(folder, authority, ['192.168.1.77'], addDays(moved.until, -31))
  expect(before.renewed).toBe(false)
  const late = await leafOf(folder, authority, ['192.168.1.77'], addDays(moved.until, -30))
  expect(late.renewed).toBe(true)
  expect(late.serial).not.toBe(first.serial)
  // the authority is the same one still: no tablet is asked again
  expect((await authorityOf(folder, 'shop-pc', [])).fingerprint).toBe(authority.fingerprint)
})

test('it counts for a clock that is a day off either way, and for no longer than browsers take (398 days)', async () => {
  const { cert } = await leafOf(folder, authority, ['shop-pc.local'])
  const read = new X509Certificate(cert)
  const [from, to] = [Date.parse(read.validFrom), Date.parse(read.validTo)]
  expect(from).toBeLessThan(Date.now() - 2 * 86_400_000)
  expect((to - from) / 86_400_000).toBeLessThanOrEqual(398)
  expect(Date.parse(new X509Certificate(authority.pem).validFrom)).toBeLessThan(Date.now() - 2 * 86_400_000)
})

test('its keys are readable by their owner alone; the fingerprint is the one every tool shows', () => {
  for (const file of ['authority.key', 'server.key'])
    expect(statSync(join(folder, 'tls', file)).mode & 0o777).toBe(0o600)
  expect(statSync(join(folder, 'tls')).mode & 0o777).toBe(0o700)
  expect(new X509Certificate(authority.pem).fingerprint256.replaceAll(':', '').toLowerCase()).toBe(
    authority.fingerprint,
  )
  expect(authority.words).toHaveLength(6)
})

test('spoilt files: the authority says what to do, a server’s certificate is made anew', async () => {
  const names = ['shop-pc.local']
  writeFileSync(join(folder, 'tls', 'server.key'), '')
  writeFileSync(join(folder, 'tls', 'server.pem'), 'rubbish')
  expect((await leafOf(folder, authority, names)).renewed).toBe(true)
  const torn = mkdtempSync(join(tmpdir(), 'ocho-tls-'))
  await authorityOf(torn, 'x', [])
  writeFileSync(join(torn, 'tls', 'authority.pem'), '-----BEGIN CERTIFICATE-----\nMIIB')
  await expect(authorityOf(torn, 'x', [])).rejects.toThrow(/move that folder away, start again/)
  rmSync(torn, { recursive: true, force: true })
})
