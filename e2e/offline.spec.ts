import type { Page } from '@playwright/test'
import { DEMO_ENV } from '../demo/people'
import { freePort } from '../ops/ports'
import { startServer } from '../ops/server'
import {
  expect,
  makeShop,
  openBench,
  otherDevice,
  press,
  ready,
  saved,
  SERVER,
  settled,
  signIn,
  storedEvents,
  test,
} from './shop'

/* Away from the server: any bench of a job that was opened, and the Floor as it was last seen. */

test.use({ serviceWorkers: 'allow' })

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)

/** How many Floors this browser keeps: asked without making the database before the page does. */
const floors = (page: Page) =>
  page.evaluate(async () => {
    if (!(await indexedDB.databases()).some(d => d.name === 'ocho')) return 0
    return new Promise<number>(resolve => {
      const asked = indexedDB.open('ocho')
      asked.onsuccess = () => {
        const count = asked.result.transaction('floor').objectStore('floor').count()
        count.onsuccess = () => {
          asked.result.close()
          resolve(count.result)
        }
      }
    })
  })

test('with the server away every bench and stage of an open job is gone to and reloaded, and nothing is lost', async ({
  page,
  shop,
}) => {
  const number = await shop.takeIn('23')
  const port = await freePort()
  let server = await startServer({ appUrl: process.env.OCHO_E2E_APP!, port, env: DEMO_ENV })
  try {
    const { url } = server
    await signIn(page, shop, { url })
    await page.goto(`${url}/`)
    await ready(page)
    await expect.poll(() => floors(page)).toBe(1)
    await openBench(page, number, url)
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await page.reload()
    await settled(page)
    await press(page, '4')
    await saved(page)
    await server.kill()
    await press(page, ']')
    await press(page, 'Enter')
    await expect(t(page, 'offline')).toContainText('Offline, 1 tap kept')

    for (const part of ['front', 'cables', 'front-brake', 'rear-brake', 'rear']) {
      await t(page, `part-${part}`).click()
      await expect(t(page, `part-${part}`)).toHaveAttribute('aria-current', 'page')
      await expect(page.locator('main')).toBeVisible()
    }
    for (const path of ['front', 'cables', 'brakes', 'stage/gap', 'stage/prove', 'stage/sense', '']) {
      await page.goto(`${url}/jobs/${number}/${path}`)
      await expect(t(page, 'to-job')).toContainText('Tag 23')
      await expect(page.locator('main')).toBeVisible()
      await expect(page.getByText('This page went wrong')).toHaveCount(0)
    }
    await t(page, 'to-job').waitFor()

    // the Floor as it was last seen, marked so; a job leads on
    await page.goto(`${url}/`)
    await expect(t(page, 'floor-offline')).toContainText('as it was seen')
    await expect(t(page, 'floor-offline')).toContainText('1 tap kept')
    await t(page, 'tag-23').click()
    await settled(page)
    await expect(t(page, 'net-barrel')).toContainText('1/8 out')

    server = await startServer({ appUrl: process.env.OCHO_E2E_APP!, port, env: DEMO_ENV })
    await saved(page)
    const kinds = (await storedEvents(shop, number)).map(e => (e.body as { kind: string }).kind)
    expect(kinds).toEqual(['arrived', 'shift', 'turn'])
  } finally {
    await server.stop()
  }
})

test('after sign-out nothing of the Floor is left on the tablet', async ({ bench, shop }) => {
  await shop.takeIn('24')
  await bench.goto(`${process.env.OCHO_E2E_URL}/`)
  await ready(bench)
  await expect.poll(() => floors(bench)).toBe(1)
  await t(bench, 'person').click()
  await bench.getByRole('button', { name: 'Sign this device out' }).click()
  await expect(bench).toHaveURL(/sign-in/)
  expect(await floors(bench)).toBe(0)
})

test('taps made offline in one shop are never sent to another that signs in on the tablet, nor shown; the first gets them', async ({
  page,
  shop,
}) => {
  const theirs = await makeShop(shop.db)
  const [number, same] = [await shop.takeIn('27'), await theirs.takeIn('27')]
  await signIn(page, shop)
  await openBench(page, number)
  await page.route('**/api/jobs/*/events', route => route.abort()) // the line is down for taps alone
  await press(page, '4')
  await expect(t(page, 'saved')).not.toHaveText('saved')
  // another shop signs in, the page of the first still open: its next tap is of the shop it was made in
  await signIn(page, theirs)
  const asked = page.waitForResponse(r => r.url().includes('/events') && r.request().method() === 'POST')
  await page.unroute('**/api/jobs/*/events')
  expect((await asked).status()).toBe(409)
  const kindsOf = async (of: typeof shop, job: number) =>
    (await storedEvents(of, job)).map(e => (e.body as { kind: string }).kind)
  expect(await kindsOf(theirs, same)).toEqual(['arrived'])
  // theirs now, loaded anew: nothing of the first is sent or shown
  await page.goto(`${SERVER()}/jobs/${same}/rear`)
  await settled(page)
  await saved(page)
  expect(await kindsOf(theirs, same)).toEqual(['arrived'])
  await expect(page.getByText(shop.code)).toHaveCount(0)
  // the first again: what waited arrives
  await signIn(page, shop)
  await page.goto(`${SERVER()}/jobs/${number}/rear`)
  await settled(page)
  await saved(page)
  await expect.poll(() => kindsOf(shop, number)).toEqual(['arrived', 'shift'])
  expect(await kindsOf(theirs, same)).toEqual(['arrived'])
})

test('a tablet signed out from afar forgets what it could show at its next contact', async ({
  bench,
  shop,
  browser,
}) => {
  const number = await shop.takeIn('28')
  const other = await otherDevice(browser, shop, 'Moss')
  await other.page.goto(`${SERVER()}/`)
  await ready(other.page)
  const counts = () =>
    other.page.evaluate(
      () =>
        new Promise<number[]>(resolve => {
          const opened = indexedDB.open('ocho')
          opened.onsuccess = () => {
            const tx = opened.result.transaction(['session', 'jobs', 'floor'])
            const all = ['session', 'jobs', 'floor'].map(name => tx.objectStore(name).count())
            tx.oncomplete = () => {
              opened.result.close()
              resolve(all.map(c => c.result))
            }
          }
        }),
    )
  // the Floor is kept a moment after it is drawn, and only while its page is open
  await expect.poll(async () => (await counts())[2]).toBe(1)
  await openBench(other.page, number)
  await expect.poll(counts).toEqual([1, 1, 1])
  const devices = (await (await bench.request.get(`${SERVER()}/api/shop/devices`)).json()) as {
    id: string
    current: boolean
  }[]
  for (const d of devices.filter(x => !x.current))
    expect((await bench.request.delete(`${SERVER()}/api/shop/devices/${d.id}`)).ok()).toBe(true)
  await other.page.goto(`${SERVER()}/`)
  await expect(other.page).toHaveURL(/sign-in/)
  await expect.poll(counts).toEqual([0, 0, 0])
  await other.context.close()
})
