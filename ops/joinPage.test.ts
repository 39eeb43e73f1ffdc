import { X509Certificate } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import type { Server } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { authorityOf, type Authority } from './authority'
import { serveJoinPage } from './joinPage'
import { freePort } from './ports'

let folder: string
let authority: Authority
let server: Server
let at: string
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'ocho-join-'))
  authority = await authorityOf(folder, 'shop-pc', [])
  const port = await freePort()
  server = await serveJoinPage({ port, host: '127.0.0.1', authority, secure: () => 'https://shop-pc.local:8443' })
  at = `http://127.0.0.1:${port}`
})
afterAll(() => {
  server.close()
  rmSync(folder, { recursive: true, force: true })
})

test('it shows the fingerprint, the steps and the way on, and hands out the certificate itself', async () => {
  const page = await fetch(`${at}/`)
  const text = await page.text()
  expect(page.headers.get('content-type')).toContain('text/html')
  expect(text).toContain(authority.words.join(' '))
  expect(text).toContain(new X509Certificate(authority.pem).fingerprint256)
  expect(text).toContain('href="https://shop-pc.local:8443/join"')
  const file = await fetch(`${at}/ocho-authority.crt`)
  expect(file.headers.get('content-type')).toBe('application/x-x509-ca-cert')
  const read = new X509Certificate(Buffer.from(await file.arrayBuffer()))
  expect(read.ca).toBe(true)
  expect(read.fingerprint256).toBe(new X509Certificate(authority.pem).fingerprint256)
})

test('nothing else is there, nothing can be sent, and no script would run', async () => {
  for (const path of ['/api/health', '/tls/authority.key', '/../authority.key', '/%2e%2e/authority.key', '/join'])
    expect((await fetch(at + path)).status, path).toBe(404)
  for (const method of ['POST', 'PUT', 'DELETE']) expect((await fetch(`${at}/`, { method })).status).toBe(405)
  const head = await fetch(`${at}/`, { method: 'HEAD' })
  expect(head.status).toBe(200)
  expect(await head.text()).toBe('')
  const page = await fetch(`${at}/`)
  expect(page.headers.get('content-security-policy')).toContain("default-src 'none'")
  expect(await page.text()).not.toContain('<script')
  expect(page.headers.get('set-cookie')).toBeNull()
})
