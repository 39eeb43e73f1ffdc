import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { buildDemo } from '../demo/build'
import { DEMO_PEOPLE, DEMO_SHOP } from '../demo/people'
import { connect } from '../server/db/connect'
import { say } from './say'
import { ROOT, startServer } from './server'
import { throwawayCluster } from './testDatabase'

/** Renews the pictures of docs/screenshots from the demo data: npm run screenshots, after a build. */
const folder = join(ROOT, 'docs', 'screenshots')
mkdirSync(folder, { recursive: true })
const { cluster, remove } = await throwawayCluster()
const db = connect(cluster.appUrl, 4)
await buildDemo(db)
await db.destroy()
const server = await startServer({ appUrl: cluster.appUrl, port: 0 })
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })

const shot = async (page: Page, name: string, fullPage = false) => {
  await page.waitForTimeout(700)
  await page.screenshot({ path: join(folder, `${name}.png`), fullPage })
  say(name)
}
const bench = async (page: Page) => {
  await page.goto(`${server.url}/jobs/6/rear`)
  await page.waitForSelector('section[aria-label="Next move"][aria-busy="false"]')
}

const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${server.url}/sign-in`)
await page.waitForSelector('[data-hydrated]')
await shot(page, 'sign-in')
await page.request.post(`${server.url}/api/sign-in`, { data: { shop: DEMO_SHOP.code, name: DEMO_PEOPLE[0].name, password: DEMO_PEOPLE[0].password } })
await page.goto(`${server.url}/`)
await page.waitForFunction(() => !document.body.innerText.includes('Reading its log'))
await shot(page, 'floor')
await page.goto(`${server.url}/take-in`)
await page.waitForSelector('[data-hydrated]')
await page.locator('[data-test=standard]').selectOption('r17-10')
await page.locator('[data-test=shifter]').selectOption('r14-10')
await shot(page, 'take-in', true)
await bench(page)
await shot(page, 'rear-bench')
await page.evaluate(() => { document.documentElement.dataset.theme = 'dim' })
await shot(page, 'rear-bench-dim')
await page.goto(`${server.url}/jobs/3/sheet`)
await page.waitForSelector('[data-test=paper]')
await shot(page, 'sheet')
await page.setViewportSize({ width: 390, height: 844 })
await bench(page)
await shot(page, 'rear-bench-phone')

await browser.close()
await server.stop()
await remove()
