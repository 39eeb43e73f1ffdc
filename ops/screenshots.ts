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
const stage = async (job: number, name: string, before?: () => Promise<unknown>) => {
  await page.goto(`${server.url}/jobs/${job}/stage/${name}`)
  await page.waitForSelector('.look')
  await before?.()
  await shot(page, `stage-${name}`)
}
const touch = (name: string) => page.locator(`[data-test=${name}]`).click()
await page.evaluate(() => { document.documentElement.dataset.theme = 'light' })
await stage(8, 'said', () => touch('answer-bent'))
await stage(8, 'sense')
await stage(8, 'hanger', async () => {
  for (const gap of ['66.9', '60', '53.1', '60']) {
    await page.locator('[data-test=gap]').fill(gap)
    await touch('gap-next')
  }
})
await stage(8, 'stops')
await stage(5, 'cable')
await stage(3, 'gap')
await stage(3, 'prove')
await page.goto(`${server.url}/jobs/3/sheet`)
await page.waitForSelector('[data-test=paper]')
await shot(page, 'sheet')
await page.setViewportSize({ width: 390, height: 844 })
await bench(page)
await shot(page, 'rear-bench-phone')

await browser.close()
await server.stop()
await remove()
