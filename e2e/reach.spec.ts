import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { request as plainRequest } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Locator, Page } from '@playwright/test'
import jsQR from 'jsqr'
import sharp from 'sharp'
import { authorityOf } from '../ops/authority'
import type { Machine } from '../ops/machineNames'
import { freePort } from '../ops/ports'
import { keepReach } from '../ops/reach'
import { startServer, type RunningServer } from '../ops/server'
import { writeWhole } from '../server/beside'
import { keepWish, reachIn } from '../server/reach/status'
import { axeFinds } from './axe'
import { expect, openBench, press, ready, saved, settled, signIn, storedEvents, test, type TestShop } from './shop'
import { HOST, newTablet } from './tablet'

/* A second device on the shop's network: by a name of its own, over HTTPS, with the shop's own authority. */

test.describe.configure({ mode: 'default' })

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)

/** What a camera reads off a square on a screen. */
async function scan(square: Locator): Promise<string> {
  const png = await square.screenshot()
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return jsQR(new Uint8ClampedArray(data), info.width, info.height)!.data
}

/** A shop's machine: the server its owner uses, and what the launcher keeps beside it. */
async function machine(how: { host?: string; given?: string[]; addresses?: () => string[] } = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'ocho-reach-'))
  const appUrl = process.env.OCHO_E2E_APP!
  const env = { OCHO_DATA_FOLDER: folder }
  const own: RunningServer = await startServer({ appUrl, port: 0, env })
  // nights are looked at beside it: as a launcher leaves them
  writeWhole(join(folder, 'secrets.json'), '{}')
  const ports = { https: await freePort(), join: await freePort() }
  const lines: string[] = []
  let lan = 0
  const addresses = how.addresses ?? (() => ['192.168.7.20'])
  const reach = keepReach({
    folder,
    appUrl,
    env,
    say: line => lines.push(line),
    ended: () => false,
    started: pid => (lan = pid),
    ports,
    given: how.given ?? [HOST],
    machine: (): Machine => ({
      host: how.host ?? 'shop-pc',
      addresses: addresses().map(address => ({ address, family: 'IPv4', internal: false })),
      tellsItsName: false,
    }),
  })
  return {
    folder,
    own,
    ports,
    lines,
    secure: `https://${HOST}:${ports.https}`,
    lanPid: () => lan,
    async open() {
      keepWish(folder, { lan: true, name: null })
      // the trouble is asked too, so that a failure says what stood in the way
      await expect
        .poll(() => (({ lan, trouble }) => ({ lan, trouble }))(reachIn(folder)), { timeout: 60_000 })
        .toEqual({ lan: true, trouble: null })
    },
    async end() {
      await reach.stop()
      await own.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

async function joinCode(page: Page, m: Awaited<ReturnType<typeof machine>>): Promise<{ id: string; code: string }> {
  const asked = await page.request.post(`${m.own.url}/api/shop/joins`, { data: {} })
  expect(asked.status()).toBe(200)
  return (await asked.json()) as { id: string; code: string }
}

test('an owner lets tablets in; one trusts the machine, joins by the square in two touches, works offline and comes back', async ({
  page,
  shop,
}) => {
  test.setTimeout(300_000)
  const m = await machine()
  const tablet = await newTablet()
  const number = await shop.takeIn('61')
  try {
    await signIn(page, shop, { url: m.own.url })
    await page.goto(`${m.own.url}/shop`)
    await ready(page)
    await expect(t(page, 'reach')).toContainText('Only this machine opens Ocho')
    await t(page, 'reach-on').click()
    await expect(t(page, 'reach-address')).toHaveText(m.secure, { timeout: 60_000 })
    await t(page, 'join-device').click()
    await t(page, 'join-code').waitFor()
    expect(await axeFinds(page)).toEqual([])
    expect(await scan(page.locator('[data-test=join-dialog] img').first())).toBe(`http://192.168.7.20:${m.ports.join}/`)
    const inside = await scan(t(page, 'join-square'))
    expect(inside).toBe(`${m.secure}/join#${(await t(page, 'join-code').innerText()).trim()}`)

    // not trusted yet: the browser itself says no
    let device = await (await tablet.open()).newPage()
    await expect(device.goto(inside)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/)
    // the plain page, by name here, since the test's network has one address
    device = await device.context().newPage()
    await device.goto(`http://${HOST}:${m.ports.join}/`)
    expect(await axeFinds(device)).toEqual([])
    const words = await page.locator('[data-test=join-dialog]').innerText()
    const shown = (await device.locator('.words').innerText()).trim()
    expect(words).toContain(shown)
    const downloaded = device.waitForEvent('download')
    await device.getByRole('link', { name: 'Get the certificate' }).click()
    const certificate = readFileSync(await (await downloaded).path())
    // what its settings show before they say yes is what the owner's screen says
    const print = new X509Certificate(certificate).fingerprint256.replaceAll(':', '')
    expect(words.replace(/\s/g, '')).toContain(print)
    tablet.trust(certificate)

    const context = await tablet.open()
    // no screen to keep on here: what a page asks for is written down, and given
    await context.addInitScript(() => {
      const asked: string[] = []
      Object.assign(window, { screenAsked: asked })
      navigator.wakeLock.request = async what => {
        asked.push(`${what} at ${location.pathname}`)
        return Object.assign(new EventTarget(), { released: false, release: async () => undefined }) as never
      }
    })
    const screen = () => device.evaluate(() => (window as unknown as { screenAsked: string[] }).screenAsked)
    device = await context.newPage()
    const began = Date.now()
    await device.goto(inside)
    await ready(device)
    expect(await device.evaluate(() => [isSecureContext, location.href])).toEqual([true, `${m.secure}/join`])
    expect(await axeFinds(device)).toEqual([])
    await t(device, 'join-now').click()
    await device.waitForURL(`${m.secure}/`)
    await ready(device)
    console.log(`joined ${((Date.now() - began) / 1000).toFixed(1)} s after the scan: the link, Join (2 touches)`)
    await expect(t(page, 'join-done')).toBeVisible()
    const [cookie] = await context.cookies()
    expect(cookie).toMatchObject({ secure: true, httpOnly: true, domain: HOST })

    // who works is asked, and then it is a bench like any other
    await device.getByRole('button', { name: 'Who works?' }).click()
    await device.getByRole('button', { name: /Ishbel/ }).click()
    await t(device, 'pin').fill('2468')
    await t(device, 'pin-done').click()
    await expect(device.getByRole('button', { name: 'Ishbel' })).toBeVisible()

    await context.grantPermissions(['camera'])
    const can = await device.evaluate(async () => {
      const stream = await navigator.mediaDevices.getUserMedia({ video: true })
      return stream.getVideoTracks()[0]!.readyState
    })
    expect(can).toBe('live')
    expect(await screen()).toEqual([])

    await openBench(device, number, m.secure)
    expect(await screen()).toEqual([`screen at /jobs/${number}/rear`])
    await device.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await device.reload()
    await settled(device)
    await press(device, '4')
    await saved(device)
    await context.setOffline(true)
    await press(device, '3')
    await expect(t(device, 'offline')).toContainText('1 tap kept')
    await device.reload()
    await settled(device)
    await expect(t(device, 'offline')).toContainText('1 tap kept')
    await context.setOffline(false)
    await saved(device)
    expect((await storedEvents(shop, number)).length).toBeGreaterThanOrEqual(3)

    // signed out from the owner's screen: at its next contact it keeps nothing
    await page.reload()
    await ready(page)
    await page.getByRole('button', { name: 'Sign out' }).click()
    await expect(page.getByRole('button', { name: 'Sign out' })).toHaveCount(0)
    await device.reload()
    await device.waitForURL(/sign-in/)
  } finally {
    await tablet.gone()
    await m.end()
  }
})

test('a code works once and for its own machine; each refusal says what to do', async ({ page, shop }) => {
  const m = await machine()
  const tablet = await newTablet()
  try {
    await signIn(page, shop, { url: m.own.url })
    const early = await page.request.post(`${m.own.url}/api/shop/joins`, { data: {} })
    expect(early.status()).toBe(409)
    expect(await early.text()).toContain('let tablets reach it first')
    await m.open()
    const { code, id } = await joinCode(page, m)
    tablet.trust((await authorityOf(m.folder, 'shop-pc', [HOST])).der)
    const context = await tablet.open()
    const device = await context.newPage()
    const tryCode = async (typed: string) => {
      await device.goto(`${m.secure}/join`)
      await ready(device)
      await device.getByLabel('Code').fill(typed)
      await device.getByLabel('What you call it').fill('stand 2')
      await t(device, 'join-now').click()
    }
    await tryCode('ABCD')
    await expect(device.getByText(/eight letters and digits, as under/)).toBeVisible()
    await tryCode('ABCD-EFGH')
    await expect(device.getByText(/not a code of this machine/).first()).toBeVisible()
    await tryCode(code.toLowerCase().replace('-', ' '))
    await device.waitForURL(`${m.secure}/`)
    await context.clearCookies()
    await tryCode(code)
    await expect(device.getByText(/used already: make a new one/).first()).toBeVisible()
    const state = await page.request.get(`${m.own.url}/api/shop/joins/${id}`)
    const became = (await state.json()) as { is: string; device: string }
    expect(became.is).toBe('used')
    expect(became.device).toMatch(/^stand 2 \(/)

    // two hundred at once: as many are judged as may be, whatever is sent
    const answers = await Promise.all(
      Array.from({ length: 200 }, (_, i) =>
        page.request.post(`${m.own.url}/api/join`, { data: { code: `WRNG${String(1000 + i)}` } }),
      ),
    )
    const judged = answers.filter(a => a.status() === 403).length
    expect(judged).toBeLessThanOrEqual(10)
    expect(answers.filter(a => a.status() === 429)).toHaveLength(200 - judged)
  } finally {
    await tablet.gone()
    await m.end()
  }
})

test('another name, another shop’s authority, a plain connection: nobody is let in by mistake', async ({
  page,
  shop,
}) => {
  const m = await machine()
  const strange = await newTablet({ [HOST]: '127.0.0.1', 'other.lan': '127.0.0.1' })
  try {
    await signIn(page, shop, { url: m.own.url })
    await m.open()
    const ours = await authorityOf(m.folder, 'shop-pc', [HOST])
    const device = await (await strange.open()).newPage()
    // trusting the authority of another shop
    const theirs = mkdtempSync(join(tmpdir(), 'ocho-reach-'))
    strange.trust((await authorityOf(theirs, 'shop-pc', [HOST])).der)
    rmSync(theirs, { recursive: true, force: true })
    await expect((await (await strange.open()).newPage()).goto(`${m.secure}/join`)).rejects.toThrow(/ERR_CERT/)
    await device.close().catch(() => undefined)
    // a name it does not go by: the browser refuses the certificate, and the server the name
    strange.trust(ours.der)
    const trusting = await (await strange.open()).newPage()
    await expect(trusting.goto(`https://other.lan:${m.ports.https}/join`)).rejects.toThrow(
      /ERR_CERT_COMMON_NAME_INVALID/,
    )
    const told = await new Promise<{ status: number; text: string }>((resolve, reject) => {
      const asked = plainRequest(`${m.own.url}/api/health`, { headers: { host: 'other.lan' } }, response => {
        let text = ''
        response.on('data', (d: Buffer) => (text += d.toString()))
        response.on('end', () => resolve({ status: response.statusCode!, text }))
      })
      asked.on('error', reject)
      asked.end()
    })
    expect(told.status).toBe(421)
    expect(told.text).toContain('does not go by that name')
    const secure = await (await trusting.context().newPage()).goto(`${m.secure}/join`)
    expect(secure!.headers()['strict-transport-security']).toBe('max-age=15552000')
    expect((await page.goto(`${m.own.url}/join`))!.headers()['strict-transport-security']).toBeUndefined()
  } finally {
    await strange.gone()
    await m.end()
  }
})

test('the tablets’ server that is killed comes back; an address that changed is spoken for without being asked', async ({
  page,
  shop,
}) => {
  let address = '192.168.7.20'
  const m = await machine({ addresses: () => [address] })
  const tablet = await newTablet()
  try {
    await signIn(page, shop, { url: m.own.url })
    await m.open()
    const before = reachIn(m.folder)
    expect(before.names).toEqual([HOST, '192.168.7.20', 'shop-pc.local', 'shop-pc'])
    tablet.trust((await authorityOf(m.folder, 'shop-pc', [HOST])).der)
    const device = await (await tablet.open()).newPage()
    await device.goto(`${m.secure}/join`)
    process.kill(m.lanPid(), 'SIGKILL')
    await expect
      .poll(() => m.lines.some(l => l.includes('the tablets’ server is back')), { timeout: 60_000 })
      .toBe(true)
    await device.goto(`${m.secure}/join`)

    address = '192.168.7.99'
    await expect.poll(() => reachIn(m.folder).names, { timeout: 60_000 }).toContain('192.168.7.99')
    expect(reachIn(m.folder).fingerprint).toBe(before.fingerprint)
    await device.goto(`${m.secure}/join`)
    await ready(device)

    // a name that the authority may not speak for is said, the others go on
    expect(await wrongName(page, m, shop)).toContain('has no such name')
  } finally {
    await tablet.gone()
    await m.end()
  }
})

async function wrongName(page: Page, m: Awaited<ReturnType<typeof machine>>, shop: TestShop): Promise<string> {
  await signIn(page, shop, { url: m.own.url })
  const asked = await page.request.post(`${m.own.url}/api/shop/reach`, { data: { lan: true, name: 'elsewhere.lan' } })
  expect(asked.status()).toBe(400)
  return asked.text()
}
