import { stockParts } from '#core/rear/typedParts'
import { sceneBehind, touchAll } from '../e2e/standIn'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { buildDemo } from '../demo/build'
import { DEMO_ENV, DEMO_PEOPLE, DEMO_SHOP } from '../demo/people'
import { connect } from '../server/db/connect'
import { CHROMIUM } from './chromium'
import { say } from './say'
import { ROOT, startServer } from './server'
import { statusFile } from '../server/nights/status'
import { throwawayCluster } from './testDatabase'

/** Renews the pictures of docs/screenshots from the demo data: npm run screenshots, after a build. */
const folder = join(ROOT, 'docs', 'screenshots')
mkdirSync(folder, { recursive: true })
const { cluster, remove } = await throwawayCluster()
const db = connect(cluster.appUrl, 4)
await buildDemo(db)
await db.destroy()
// as the launcher would have left it after a night
const night = new Date(Date.now() - 7 * 3600_000).toISOString()
writeFileSync(
  statusFile(cluster.folder),
  JSON.stringify({ triedAt: night, goodAt: night, bytes: 3_400_000, trouble: null }),
)
const server = await startServer({
  appUrl: cluster.appUrl,
  port: 0,
  env: { ...DEMO_ENV, OCHO_DATA_FOLDER: cluster.folder },
})
const browser = await chromium.launch(CHROMIUM)

const shot = async (page: Page, name: string, fullPage = false) => {
  await page.waitForTimeout(700)
  await page.screenshot({ path: join(folder, `${name}.png`), fullPage })
  say(name)
}
/** The job that a tag hangs on; the demo's past visits come first, so numbers move. */
const jobOf = async (page: Page, tag: string): Promise<number> => {
  const { jobs } = (await (await page.request.get(`${server.url}/api/floor`)).json()) as {
    jobs: { number: number; tag: string }[]
  }
  return jobs.find(j => j.tag === tag)!.number
}
const bench = async (page: Page) => {
  await page.goto(`${server.url}/jobs/${await jobOf(page, '41')}/rear`)
  await page.waitForSelector('section[aria-label="Next move"][aria-busy="false"]')
}

const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.request.post(`${server.url}/api/sign-in`, {
  data: { shop: DEMO_SHOP.code, name: DEMO_PEOPLE[0].name, password: DEMO_PEOPLE[0].password },
})
await page.goto(`${server.url}/`)
await page.waitForFunction(() => !document.body.innerText.includes('Reading its log'))
await shot(page, 'floor')
await page.goto(`${server.url}/shop`)
await page.waitForSelector('[data-test=trail] li')
await shot(page, 'shop')
await page.goto(`${server.url}/take-in`)
await page.waitForSelector('[data-hydrated]')
await page.locator('[data-test=sprockets-10]').click()
await page.locator('[data-test=bar-drop]').click()
await page.locator('[data-test=fit-r17-10]').click()
await shot(page, 'take-in')
await bench(page)
await shot(page, 'rear-bench')
const stage = async (tag: string, name: string, before?: () => Promise<unknown>) => {
  await page.goto(`${server.url}/jobs/${await jobOf(page, tag)}/stage/${name}`)
  await page.waitForSelector('.look')
  await before?.()
  await shot(page, `stage-${name}`)
}
const touch = (name: string) => page.locator(`[data-test=${name}]`).click()
await stage('49', 'hanger', async () => {
  for (const gap of ['66.9', '60', '53.1', '60']) {
    await page.locator('[data-test=gap]').fill(gap)
    await touch('gap-next')
  }
})
await page.goto(`${server.url}/jobs/${await jobOf(page, '44')}/sheet`)
await page.waitForSelector('[data-test=paper]')
await shot(page, 'sheet')
const place = async (path: string, name: string, before?: () => Promise<unknown>) => {
  await page.goto(`${server.url}${path}`)
  await page.waitForSelector('[data-hydrated]')
  await before?.()
  await shot(page, name)
}
await place('/standards', 'standards', () => touch('entry-r11-9'))
await place('/standards/records/r14-10', 'records', () => page.waitForSelector('canvas'))
await place('/recalls', 'recalls', () => page.locator('[data-test=recall-open]').first().click())
await place('/month', 'month')
const [ferry] = (await (await page.request.get(`${server.url}/api/bikes?q=PT-19002`)).json()) as {
  bike: { id: string }
}[]
await place(`/bikes/${ferry!.bike.id}`, 'bike')
await page.goto(`${server.url}/jobs/${await jobOf(page, '50')}/front`)
await page.waitForSelector('[data-test=front-why]')
await shot(page, 'front')
await page.goto(`${server.url}/jobs/${await jobOf(page, '46')}/cables`)
await touch('panel-friction')
await page.waitForSelector('[data-test=heard-backlash]')
await shot(page, 'cables')
await page.goto(`${server.url}/jobs/${await jobOf(page, '46')}/brakes`)
for (const name of [
  'kind-linear-pull',
  'lever-long',
  'side-right',
  'panel-find',
  'other-checks',
  'check-lever',
  'saw-bar',
  'other-checks',
])
  await touch(name)
// the question from its beginning, as it is read: the last touch was at the list's end
await page.locator('aside.panel').evaluate(panel => panel.scrollTo({ top: 0 }))
await shot(page, 'brakes')
await page.goto(`${server.url}/jobs/${await jobOf(page, '53')}/hub`)
await page.waitForSelector('[data-test=hub-check]')
await shot(page, 'hub')
await page.goto(`${server.url}/practice/run?bench=rear&level=one&bike=103`)
await page.waitForSelector('[data-test=stand]')
for (let i = 0; i < 3; i++) {
  await touch('shift-in')
  await page.waitForTimeout(300)
}
await touch('see-L')
await touch('in-words')
await shot(page, 'practice')
// what a camera and a microphone tell, by the stand-ins of the demo's shop
await page.evaluate(() => {
  localStorage.setItem('ocho-stand-ins', JSON.stringify({ camera: true, cameraDeg: 0.5, microphone: true }))
})
const sensed = await jobOf(page, '46')
const parts = stockParts('r15-10')
await page.goto(`${server.url}/jobs/${sensed}/measure?what=L`)
await touch('stand-in-camera')
await touchAll(page, sceneBehind(parts, { viewDeg: 0.5, seed: sensed, shot: 1, pushedTo: 9 }).places)
await page.waitForSelector('[data-test=measured]')
await shot(page, 'measure')
await bench(page)
await touch('lane-5')
await touch('heard-clean')
await page.goto(`${server.url}/jobs/${sensed}/listen`)
await touch('stand-in-microphone')
for (const way of ['out', 'out', 'out', 'out', 'in', 'in', 'in', 'in', 'in', 'in', 'in', 'in', 'in']) {
  await page.waitForSelector('[data-test=cadence]')
  await touch(`wind-${way}`)
}
await page.waitForSelector('[data-test=cadence]')
await shot(page, 'listen')
await page.setViewportSize({ width: 390, height: 844 })
await bench(page)
await shot(page, 'rear-bench-phone')

await browser.close()
await server.stop()
await remove()
