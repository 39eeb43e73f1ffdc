import { DEMO_ENV } from '../demo/people'
import { randomUUID } from 'node:crypto'
import { freePort } from '../ops/ports'
import { startServer } from '../ops/server'
import {
  caliper,
  expect,
  openBench,
  otherDevice,
  press,
  saved,
  sender,
  SERVER,
  settled,
  signIn,
  storedEvents,
  test,
} from './shop'

const net = '[data-test=net-barrel]'

test.use({ serviceWorkers: 'allow' })

test('a reload and another browser show the same state', async ({ bench, shop, browser }) => {
  const number = await shop.takeIn('21')
  await openBench(bench, number)
  for (const key of [']', ']', ']', 'Enter', '4']) await press(bench, key)
  await expect(bench.locator(net)).toContainText('3/8 out')
  await saved(bench)
  await bench.reload()
  await settled(bench)
  await expect(bench.locator(net)).toContainText('3/8 out')
  const other = await otherDevice(browser, shop, 'Moss')
  await openBench(other.page, number)
  await expect(other.page.locator(net)).toContainText('3/8 out')
  await other.context.close()
})

test('a tablet that slept sees what was noted meanwhile as soon as it wakes', async ({ bench, shop }) => {
  const number = await shop.takeIn('22')
  const heard = () => bench.waitForRequest(r => r.url().includes(`/api/jobs/${number}/live`))
  let looks = 0
  bench.on('requestfinished', r => void (r.url().includes(`/api/jobs/${number}/events?after=`) && looks++))
  const [line] = await Promise.all([heard(), openBench(bench, number)])
  // the page's own look, and the one that the line's first word asks for
  await expect.poll(() => looks).toBe(2)
  const see = (state: 'hidden' | 'visible') =>
    bench.evaluate(now => {
      Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => now })
      document.dispatchEvent(new Event('visibilitychange'))
    }, state)
  const asleep = bench.waitForEvent('requestfailed', r => r === line)
  await see('hidden')
  await asleep
  const put = sender(bench, number, await shop.person('Ishbel'))
  await put({ kind: 'turn', screw: 'barrel', sixteenths: 4 })
  const woken = heard()
  await see('visible')
  await woken
  await expect(bench.locator(net)).toContainText('1/4 out')
})

test('a second tablet sees each tap, and a stale acceptance is asked about', async ({ bench, shop, browser }) => {
  const number = await shop.takeIn('22')
  await openBench(bench, number)
  const other = await otherDevice(browser, shop, 'Moss')
  await openBench(other.page, number)
  for (const key of [']', ']']) await press(bench, key)
  await bench.keyboard.press('Enter')
  await expect(bench.locator(net)).toContainText('1/4 out')
  await expect(other.page.locator(net)).toContainText('1/4 out')

  // both tablets record one and the same advised turn, each without having seen the other's
  const ishbel = await shop.person('Ishbel')
  const moss = await shop.person('Moss')
  const turn = (by: string) => ({
    id: randomUUID(),
    v: 1,
    at: new Date().toISOString(),
    basedOn: 2,
    by,
    event: {
      kind: 'turn',
      screw: 'barrel',
      sixteenths: 4,
      advised: { move: 'turn barrel 0.25', right: 0.2, after: 0.6, cause: null, taken: true },
    },
  })
  for (const [page, by] of [
    [bench, ishbel],
    [other.page, moss],
  ] as const)
    expect(
      (await page.request.post(`${SERVER()}/api/jobs/${number}/events`, { data: { entries: [turn(by)] } })).ok(),
    ).toBe(true)
  await expect(bench.locator('[data-test=flagged]')).toContainText('the same turn')
  await bench.locator('[data-test=flag-undo]').click()
  await expect(bench.locator('[data-test=flagged]')).toBeHidden()
  await expect(other.page.locator(net)).toContainText('1/2 out')
  await other.context.close()
})

test('taps while the server is away are kept, shown as waiting, survive a reload and are sent', async ({
  page,
  shop,
}) => {
  const number = await shop.takeIn('23')
  const port = await freePort()
  let server = await startServer({ appUrl: process.env.OCHO_E2E_APP!, port, env: DEMO_ENV })
  try {
    const url = server.url
    await signIn(page, shop, { url })
    await openBench(page, number, url)
    // the shell is kept once the service worker has seen a navigation to it
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    await page.reload()
    await settled(page)
    await press(page, '4')
    await saved(page)

    await server.kill()
    await press(page, ']')
    await press(page, 'Enter')
    await press(page, '2')
    await expect(page.locator('[data-test=saved]')).toHaveText('2 waiting')
    await expect(page.locator('[data-test=offline]')).toBeVisible()
    await expect(page.locator(net)).toContainText('1/8 out')

    await page.reload() // no server: from the shell and what this device keeps
    await settled(page)
    await expect(page.locator(net)).toContainText('1/8 out')
    await expect(page.locator('[data-test=saved]')).toHaveText('2 waiting')
    expect(await storedEvents(shop, number)).toHaveLength(2)

    server = await startServer({ appUrl: process.env.OCHO_E2E_APP!, port, env: DEMO_ENV })
    expect(server.port).toBe(port)
    await saved(page)
    const kinds = (await storedEvents(shop, number)).map(e => (e.body as { kind: string }).kind)
    expect(kinds).toEqual(['arrived', 'shift', 'turn', 'shift'])
  } finally {
    await server.stop()
  }
})

test('a tap whose page is left in the same moment is there on the next one', async ({ bench, shop }) => {
  const number = await shop.takeIn('24')
  const hanger = `${SERVER()}/jobs/${number}/stage/hanger`
  const looks = ['leans-in', 'straight', 'leans-out', 'twisted', 'leans-in', 'straight']
  for (const look of looks) {
    await bench.goto(hanger)
    await bench.locator('[data-test=look-straight]').waitFor()
    await bench.evaluate(one => {
      document.querySelector<HTMLElement>(`[data-test=look-${one}]`)!.click()
      location.assign('sense')
    }, look)
    await bench.waitForURL('**/stage/sense')
  }
  await bench.goto(hanger)
  await bench.locator('[data-test=look-straight]').waitFor()
  await saved(bench)
  const looked = (await storedEvents(shop, number)).slice(1) // after the drivetrain
  expect(looked.map(e => (e.body as { hanger?: string }).hanger)).toEqual(looks)
})

test('a second contact on "done as advised" does not count, nor a key before the new move is drawn', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('24')
  await openBench(bench, number)
  await expect(bench.locator('[data-test=move]')).toContainText('L stop')
  // touched the moment the new move appears, however soon or late it comes: so the page waits for it before the first
  await bench.evaluate(() => {
    const watch = new MutationObserver(() => {
      if (!document.querySelector('[data-test=move]')?.textContent?.includes('H stop')) return
      watch.disconnect()
      document.querySelector<HTMLButtonElement>('[data-test=accept]')!.click()
      document.body.dataset.touched = 'at once'
    })
    watch.observe(document.body, { subtree: true, childList: true, characterData: true })
  })
  await bench.locator('[data-test=accept]').dblclick()
  await expect(bench.locator('body[data-touched]')).toBeVisible()
  await bench.locator('[data-test=accept][aria-disabled=false]').waitFor()
  await saved(bench)
  expect(await storedEvents(shop, number)).toHaveLength(2)
  await bench.locator('[data-test=accept]').click()
  await expect(bench.locator('[data-test=move]')).not.toContainText('H stop')
  await saved(bench)
  expect(await storedEvents(shop, number)).toHaveLength(3)
})

test('an undo of anything is one key, and what a caliper types is a figure and not commands', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('25')
  await openBench(bench, number)
  await expect(bench.locator('[data-test=move]')).toContainText('L stop')
  await caliper(bench, '-0.42')
  await expect(bench.locator('[data-test=move]')).toContainText('H stop')
  await expect
    .poll(async () => (await storedEvents(shop, number))[1]?.body)
    .toMatchObject({ kind: 'sight', at: 'L', offsetMm: -0.42 })
  await press(bench, 'z')
  await expect(bench.locator('[data-test=move]')).toContainText('L stop')
})

test('"that was wrong" is one tap on what was taken as advised, and is gone once something else is done', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('28')
  await openBench(bench, number)
  await expect(bench.locator('[data-test=wrong]')).toHaveCount(0)
  await bench.locator('[data-test=accept]').click()
  await bench.locator('[data-test=wrong]').click()
  await expect(bench.locator('[data-test=wrong]')).toHaveCount(0)
  await saved(bench)
  const [, sight, wrong] = await storedEvents(shop, number)
  expect(wrong.body).toEqual({ kind: 'wrong', about: sight.id })
  await bench.locator('[data-test=heard-slow]').click()
  await expect(bench.locator('[data-test=wrong]')).toHaveCount(0)
})

test('one line is enough for somebody who wants no advice', async ({ bench, shop }) => {
  const number = await shop.takeIn('26')
  await openBench(bench, number)
  await press(bench, 'e')
  await bench.locator('[data-test=else-line]').click()
  await bench.locator('[data-test=line]').fill('Barrel a touch out, "all" good <i>now</i>')
  await bench.getByRole('button', { name: 'Write it' }).click()
  await bench.locator('[data-test=part-sheet]').click()
  await expect(bench.locator('[data-test=paper]')).toContainText('Barrel a touch out, "all" good <i>now</i>')
})

test('a pass with two bad gears is three touches', async ({ bench, shop }) => {
  const number = await shop.takeIn('27')
  await openBench(bench, number)
  await bench.locator('[data-test=accept]').click()
  await expect(bench.locator('[data-test=pass]')).toBeEnabled()
  await bench.locator('[data-test=mark-3]').click()
  await bench.locator('[data-test=mark-4]').click()
  await bench.locator('[data-test=pass]').click()
  await saved(bench)
  const stored = await storedEvents(shop, number)
  expect(stored.at(-1)!.body).toMatchObject({
    kind: 'pass',
    exceptions: [
      { sprocket: 3, way: null, heard: null },
      { sprocket: 4, way: null, heard: null },
    ],
  })
})
