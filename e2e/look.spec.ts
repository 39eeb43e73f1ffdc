import type { Page } from '@playwright/test'
import { axeFinds } from './axe'
import { expect, openBench, press, ready, SERVER, still, test } from './shop'

/* The pages themselves are looked at in sizes.spec.ts, at five sizes; here what opens in them. */

/** Everything axe knows in the light theme; in the dim one only what a theme changes. */
async function looked(page: Page, where: string): Promise<void> {
  for (const [theme, rules] of [
    ['light', 'all'],
    ['dim', 'colours'],
  ] as const) {
    await page.evaluate(t => document.documentElement.setAttribute('data-theme', t), theme)
    expect((await axeFinds(page, rules)).map(found => `${where}, ${theme}: ${found}`)).toEqual([])
  }
}

test.describe('axe finds nothing, light and dim', () => {
  test('on what opens over a rear bench, and at the door', async ({ bench, shop }) => {
    const number = await shop.takeIn('51')
    await openBench(bench, number)
    await press(bench, 'e')
    await still(bench)
    await looked(bench, 'rear, something else')
    await press(bench, 'Escape')
    await bench.locator('[data-test=person]').click()
    await still(bench)
    await looked(bench, 'who works')
    await bench.context().clearCookies()
    await bench.goto(`${SERVER()}/sign-in`)
    await ready(bench)
    await looked(bench, 'sign-in')
  })

  test('on the cable bench, the front bench, the brake bench and the hub bench', async ({ bench, shop }) => {
    const number = await shop.takeIn('51')
    const panels = async (of: string, names: string[]) => {
      for (const panel of names) {
        await bench.locator(`[data-test=panel-${panel}]`).click()
        await still(bench)
        await looked(bench, `${of}, ${panel}`)
      }
    }
    await bench.goto(`${SERVER()}/jobs/${number}/cables`)
    await bench.locator('[data-test=template-external]').click()
    await panels('cables', ['pieces', 'loop', 'friction', 'steps', 'cut'])
    await bench.goto(`${SERVER()}/jobs/${number}/front`)
    await bench.locator('[data-test=usual-double]').click()
    await panels('front', ['shift', 'gaps', 'order', 'numbers'])
    await bench.goto(`${SERVER()}/jobs/${number}/brakes`)
    for (const name of ['kind-linear-pull', 'lever-long']) await bench.locator(`[data-test=${name}]`).click()
    await panels('brakes', ['find', 'fit', 'sums', 'parts'])
    await bench.goto(`${SERVER()}/jobs/${number}/hub`)
    await bench.locator('[data-test=keep-hub]').click()
    await bench.locator('[data-test=panel-gears]').click()
    await bench.getByLabel('Wheel turns, to a tenth').fill('9')
    await bench.locator('[data-test=count-note]').click()
    await panels('hub', ['find', 'gears', 'set', 'parts'])
  })
})

test('axe itself is asked: what is planted is found, and a colour that cannot be read', async ({ bench }) => {
  await bench.goto(`${SERVER()}/`)
  await ready(bench)
  expect(await axeFinds(bench)).toEqual([])
  await bench.evaluate(() => {
    document
      .querySelector('main')!
      .insertAdjacentHTML('beforeend', '<img src="/mark.svg"><p style="color:#ccc;background:#fff">pale</p>')
  })
  expect((await axeFinds(bench)).map(f => f.split(' ')[0])).toEqual(['color-contrast', 'image-alt'])
  expect((await axeFinds(bench, 'colours')).map(f => f.split(' ')[0])).toEqual(['color-contrast'])
  expect((await axeFinds(bench, 'all but colours')).map(f => f.split(' ')[0])).toEqual(['image-alt'])
})

test('at 1280×620 the bench needs no scrolling and nothing is cut', async ({ bench, shop }) => {
  const number = await shop.takeIn('52')
  await bench.setViewportSize({ width: 1280, height: 620 })
  await openBench(bench, number)
  const { scroll, view } = await bench.evaluate(() => ({
    scroll: document.documentElement.scrollHeight,
    view: innerHeight,
  }))
  expect(scroll).toBeLessThanOrEqual(view)
  for (const name of ['lanes', 'rule', 'accept', 'pass', 'heard-off', 'undo', 'part-sheet']) {
    const box = await bench.locator(`[data-test=${name}]`).boundingBox()
    expect(box, name).not.toBeNull()
    expect(box!.y + box!.height, name).toBeLessThanOrEqual(620)
  }
})

const BUDGET_KB = 200
test('the bench page stays within its budget of JavaScript', async ({ bench, shop }) => {
  const number = await shop.takeIn('55')
  const urls = new Set<string>()
  bench.on('request', r => {
    // what is fetched ahead while idle, for the next bench, is not what this page waits for
    const ahead = 'sec-purpose' in r.headers() || 'purpose' in r.headers()
    if (!ahead && /\.js$/.test(new URL(r.url()).pathname)) urls.add(r.url())
  })
  await openBench(bench, number)
  await expect(bench.locator('[data-test=why]')).toBeVisible()
  // the worker's own script too; brotli, as a tablet gets it, and none from a cache
  const sizes = new Map<string, number>()
  for (const url of urls) {
    const got = await bench.request.get(url, { headers: { 'accept-encoding': 'br' } })
    sizes.set(url, Number(got.headers()['content-length']))
    // the smallest are sent as they are
    expect(got.headers()['content-encoding'] === 'br' || sizes.get(url)! < 1100, url).toBe(true)
  }
  const kB = [...sizes.values()].reduce((s, x) => s + x, 0) / 1000
  expect(sizes.size).toBeGreaterThan(3)
  expect(kB, [...sizes].map(([u, s]) => `${u.split('/').pop()} ${s}`).join(', ')).toBeLessThan(BUDGET_KB)
  console.log(`bench page: ${kB.toFixed(1)} kB of JavaScript, ${sizes.size} files`)
})

test('on a phone the keys lie in two rows at the thumb, large enough, and nothing runs out sideways', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('53')
  await bench.setViewportSize({ width: 390, height: 844 })
  await openBench(bench, number)
  expect(await bench.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  const keys = await Promise.all(
    (await bench.locator('[data-test^=heard-], [data-test=pass]').all()).map(k => k.boundingBox()),
  )
  expect(new Set(keys.map(k => Math.round(k!.y))).size).toBe(2)
  for (const key of keys) expect(key!.height).toBeGreaterThanOrEqual(56)
})
