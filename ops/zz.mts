import { execFileSync } from 'node:child_process'
import { mkdtempSync, mkdirSync, writeFileSync, chmodSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { buildDemo } from '../demo/build'
import { DEMO_ENV, DEMO_PEOPLE, DEMO_SHOP } from '../demo/people'
import { connect } from '../server/db/connect'
import { wishFile } from '../server/reach/status'
import { keepReach } from './reach'
import { startServer } from './server'
import { throwawayCluster } from './testDatabase'
import { authorityOf } from './authority'
process.env.OCHO_NAMES = 'ocho-shop.lan'
const { cluster, remove } = await throwawayCluster()
const db = connect(cluster.appUrl, 4)
await buildDemo(db, { only: undefined } as never)
await db.destroy()
const env = { ...DEMO_ENV, OCHO_DATA_FOLDER: cluster.folder }
const server = await startServer({ appUrl: cluster.appUrl, port: 0, env })
const reach = await keepReach({
  folder: cluster.folder,
  appUrl: cluster.appUrl,
  env,
  say: console.log,
  ended: () => false,
  started: () => undefined,
  ports: { https: 18443, join: 18480 },
})
const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--no-first-run',
  '--disable-background-networking',
  '--host-resolver-rules=MAP ocho-shop.lan 127.0.0.1',
]
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
page.on('console', m => console.log('console', m.text()))
await page.goto(`${server.url}/sign-in`)
const p = DEMO_PEOPLE[0]
await page.request.post(`${server.url}/api/sign-in`, {
  data: { shop: DEMO_SHOP.code, name: p.name, password: p.password },
})
await page.goto(`${server.url}/shop`)
await page.waitForSelector('[data-hydrated]')
await page.screenshot({ path: '/tmp/t/shop1.png' })
await page.click('[data-test=reach-on]')
await page.waitForSelector('[data-test=reach-address]', { timeout: 30000 })
await page.screenshot({ path: '/tmp/t/shop2.png' })
await page.click('[data-test=join-device]')
await page.waitForSelector('[data-test=join-code]')
await page.screenshot({ path: '/tmp/t/join-owner.png' })
const code = (await page.textContent('[data-test=join-code]'))!.trim()
console.log(code, await page.textContent('[data-test=trust-url]'), await page.textContent('[data-test=join-url]'))
// a tablet that trusts
const home = mkdtempSync('/tmp/home-')
const nss = join(home, '.pki', 'nssdb')
mkdirSync(nss, { recursive: true })
execFileSync('certutil', ['-d', `sql:${nss}`, '-N', '--empty-password'])
const a = await authorityOf(cluster.folder, 'x', [])
writeFileSync(join(home, 'ca.pem'), a.pem)
const tryAll = async (trust: boolean) => {
  if (trust) execFileSync('certutil', ['-d', `sql:${nss}`, '-A', '-t', 'C,,', '-n', 'ocho', '-i', join(home, 'ca.pem')])
  const c = await chromium.launchPersistentContext(join(home, 'p' + trust), {
    executablePath: process.env.EXE ?? '/usr/bin/chromium-headless-shell',
    args: [...args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
    env: { ...process.env, HOME: home } as never,
    viewport: { width: 390, height: 800 },
  })
  const t = await c.newPage()
  t.on('console', m => console.log('tablet', m.text()))
  try {
    await t.goto('http://ocho-shop.lan:18480/')
    await t.screenshot({ path: '/tmp/t/trust.png', fullPage: true })
    await t.goto(`https://ocho-shop.lan:18443/join#${code}`)
    await t.waitForSelector('[data-hydrated]')
    await t.screenshot({ path: '/tmp/t/join.png' })
    console.log('secure', await t.evaluate(() => [isSecureContext, location.href]))
    await t.click('[data-test=join-now]')
    await t.waitForURL('https://ocho-shop.lan:18443/')
    await t.waitForSelector('[data-hydrated]')
    await t.waitForTimeout(1500)
    await t.screenshot({ path: '/tmp/t/joined.png' })
    console.log(
      await t.evaluate(async () => ({
        sw: (await navigator.serviceWorker.ready).active?.state,
        cam: await navigator.mediaDevices.getUserMedia({ video: true }).then(
          s => s.getTracks().length,
          e => String(e),
        ),
        wake: await (navigator as any).wakeLock.request('screen').then(
          () => 'ok',
          (e: unknown) => String(e),
        ),
      })),
    )
    console.log(await c.cookies())
  } catch (e) {
    console.log(String(e).slice(0, 300))
  }
  await c.close()
}
await tryAll(false)
await tryAll(true)
await page.waitForTimeout(2500)
await page.screenshot({ path: '/tmp/t/join-done.png' })
await browser.close()
await reach.stop()
await server.stop()
await remove()
