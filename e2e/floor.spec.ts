import type { Page } from '@playwright/test'
import type { LedgerEvent } from '#core/ledger/events'
import type { RearParts } from '#core/rear/parts'
import { stockParts } from '#core/rear/typedParts'
import { inShop } from '../server/db/connect'
import { expect, press, ready, sender, SERVER, settled, test, type TestShop } from './shop'

/*
 * The Floor with few bikes and with many: rails by promise, what is waited for, found again, collected and taken back.
 */

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)
/** So many bikes on the rail, promised an hour apart from three hours ago on. */
async function fill(shop: TestShop, many: number): Promise<number[]> {
  const numbers = []
  for (let i = 0; i < many; i++) {
    const number = await shop.takeIn(`${100 + i}`, null)
    numbers.push(number)
    await inShop(shop.db, shop.id, tx =>
      tx
        .updateTable('job')
        .set({ promised_at: new Date(Date.now() + (i - 3.5) * 4 * 3_600_000) })
        .where('number', '=', number)
        .execute(),
    )
  }
  return numbers
}

test('forty bikes hang from rails by their promise; the stands stay in sight; no target is too small', async ({
  bench,
  shop,
}) => {
  const numbers = await fill(shop, 40)
  const send = sender(bench, numbers[0]!, await shop.person('Ishbel'))
  await send({ kind: 'placed', where: 'stand', stand: 1 })
  await bench.setViewportSize({ width: 1280, height: 800 })
  await bench.goto(SERVER())
  await ready(bench)
  await expect(bench.getByRole('region', { name: 'Late, 3 bikes' })).toBeVisible()
  await expect(bench.getByRole('region', { name: /^Later, \d+ bikes/ })).toBeVisible()
  const stand = (await t(bench, 'stand-100').boundingBox())!
  expect(stand.y + stand.height).toBeLessThanOrEqual(800)
  expect(await bench.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280)
  for (const target of await bench.locator('main a:visible, main button:visible').all()) {
    const box = await target.boundingBox()
    if (box) expect(Math.round(box.height), await target.innerText()).toBeGreaterThanOrEqual(28)
  }
  // by keyboard: a rail scrolls
  await expect(bench.locator('.hooks').first()).toHaveAttribute('tabindex', '0')
})

test('what a bike waits for is two touches on the Floor, and the Floor is narrowed by it', async ({ bench, shop }) => {
  await fill(shop, 7)
  await bench.goto(SERVER())
  await ready(bench)
  await bench.getByRole('button', { name: 'Move tag 104' }).click()
  await t(bench, 'now-waits-parts').click()
  await expect(t(bench, 'tag-104')).toContainText('waits: parts')
  await t(bench, 'show-parts').click()
  await expect(t(bench, 'tag-104')).toBeVisible()
  await expect(t(bench, 'tag-105')).toHaveCount(0)
  await bench.getByRole('button', { name: 'Put on a stand' }).click()
  await t(bench, 'waits-no-more').click()
  await expect(bench.getByText('None of these.')).toBeVisible()
  await t(bench, 'show-all').click()
  await expect(t(bench, 'tag-105')).toBeVisible()
})

test('found by tag, name, phone or frame; a whole tag of a bike that is here comes first; arrow keys and Enter', async ({
  bench,
  shop,
}) => {
  const [first] = await fill(shop, 3)
  await bench.goto(SERVER())
  await ready(bench)
  const found = t(bench, 'found').locator('li')
  await press(bench, '/')
  await t(bench, 'search').fill('085 555-01')
  await expect(found).toHaveCount(3) // by phone, however it is written
  await t(bench, 'search').fill('102')
  await expect(found.first()).toContainText('here now, tag 102')
  await t(bench, 'search').fill('Marram')
  await expect(found).toHaveCount(3)
  await t(bench, 'search').fill('F-100')
  await expect(found).toHaveCount(1)
  await press(bench, 'ArrowDown')
  await press(bench, 'Enter')
  await expect(bench).toHaveURL(new RegExp(`/jobs/${first}$`))
  await bench.goto(SERVER())
  await ready(bench)
  for (const words of ['<b>', '😀', '%', 'x'.repeat(300)]) {
    await t(bench, 'search').fill(words)
    await expect(t(bench, 'found').or(t(bench, 'floor-trouble'))).toBeVisible()
  }
})

test('collected is asked once, and can be taken back; an empty shop says where to begin', async ({ bench, shop }) => {
  await bench.goto(SERVER())
  await expect(t(bench, 'empty-shop')).toContainText('Take the first bike in')
  const number = await shop.takeIn('9', null)
  const send = sender(bench, number, await shop.person('Ishbel'))
  for (const brake of ['front', 'rear']) await send({ kind: 'proof', brake, holds: true })
  await bench.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
    data: { id: crypto.randomUUID(), basedOn: 1, how: 'proven', fault: null },
  })
  await bench.reload()
  await ready(bench)
  await t(bench, 'collected-9').click()
  await expect(t(bench, 'collected-9')).toHaveText('Yes, it went')
  await t(bench, 'collected-9').click()
  await expect(t(bench, 'collected-9')).toHaveCount(0)
  await t(bench, 'not-collected').click()
  await expect(t(bench, 'collected-9')).toBeVisible()
})

test('what heads a bike’s bench heads its stand; a lever without clicks has nothing to index there either', async ({
  bench,
  shop,
}) => {
  const stock = stockParts('r14-10')
  const derailleur = { ...stock.derailleur, standard: null, pullRatio: 1.6 }
  const by = await shop.person('Ishbel')
  const onStand = async (stand: number, parts: RearParts, ...events: LedgerEvent[]) => {
    const number = await shop.takeIn(`${stand}`, parts)
    const send = sender(bench, number, by)
    for (const event of [...events, { kind: 'placed', where: 'stand', stand }]) await send(event)
    return number
  }
  const stiff = await onStand(1, stock, { kind: 'sensed', exceptions: ['stiff-link'], chainWearPercent: null })
  const hopeless = await onStand(2, { ...stock, derailleur })
  const bent = await onStand(3, stock, { kind: 'gauge', camberDeg: 0.6, toeDeg: 0, acrossMm: 7 })
  const free = await onStand(4, { ...stock, shifter: { ...stock.shifter, friction: true } })
  await bench.goto(SERVER())
  await ready(bench)
  for (const [stand, words] of [
    [1, /stiff link.*before any screw/s],
    [2, /These parts cannot index.*before any screw/s],
    [3, /The hanger first.*before any screw/s],
    [4, /A lever without clicks.*Nothing to index.*stops, gap and slack/s],
  ] as const)
    await expect(t(bench, `stand-${stand}`)).toContainText(words)
  // its bench says the same of each
  for (const [number, id, words] of [
    [stiff, 'put-right', 'stiff link'],
    [hopeless, 'barred', 'No advice on parts that cannot index'],
    [bent, 'put-right', 'The hanger is 7.0 mm out'],
    [free, 'friction-lever', 'Nothing to index'],
  ] as const) {
    await bench.goto(`${SERVER()}/jobs/${number}/rear`)
    await expect(t(bench, id)).toContainText(words)
  }
  // put right, the stand says what is advised, as the bench does
  await sender(bench, stiff, by)({ kind: 'sensed', exceptions: [], chainWearPercent: null })
  await bench.goto(`${SERVER()}/jobs/${stiff}/rear`)
  await settled(bench)
  await expect(t(bench, 'put-right')).toHaveCount(0)
  await bench.goto(SERVER())
  await ready(bench)
  await expect(t(bench, 'stand-1')).toContainText('See L by hand')
  await expect(t(bench, 'stand-1')).not.toContainText('before any screw')
})
