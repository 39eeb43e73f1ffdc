import type { LedgerEvent } from '#core/ledger/events'
import { caliper, expect, press, SERVER, storedEvents, test } from './shop'
import type { Page } from '@playwright/test'

const t = (page: Page, name: string) => page.locator(`[data-test="${name}"]`)
async function openFront(page: Page, number: number): Promise<void> {
  await page.goto(`${SERVER()}/jobs/${number}/front`)
  await page.waitForSelector('[data-test=panel-numbers]')
}

test('a double that throws its chain and will not climb: the written order, each turn with its direction, undone and on the sheet', async ({ bench, shop }) => {
  const number = await shop.takeIn('41')
  await openFront(bench, number)
  await bench.getByLabel('Rings, teeth').fill('50 34')
  await t(bench, 'keep-front').click()
  await expect(bench.getByText('Rings cross: give them from the smallest to the largest')).toBeVisible()
  await bench.getByLabel('Chainstay, mm').fill('0')
  await t(bench, 'keep-front').click()
  await expect(bench.getByText('Chainstay, mm: from 250 to 1200')).toBeVisible()
  await t(bench, 'usual-double').click()

  // it falls outboard: H in, and L wants looking at again
  await t(bench, 'shift-0-1').click()
  await t(bench, 'seen-falls-outboard').click()
  await expect(t(bench, 'front-move')).toContainText('H screw in')
  await t(bench, 'front-done').click()
  await expect(t(bench, 'look-again')).toBeVisible()
  // now it will not climb: tension first, twice, then the stop
  for (const words of ['Barrel out', 'Barrel out', 'H screw out']) {
    await t(bench, 'seen-no-climb').click()
    await expect(t(bench, 'front-move')).toContainText(words)
    await press(bench, 'Enter')
  }
  await t(bench, 'seen-no-climb').click()
  await expect(t(bench, 'front-elsewhere')).toContainText('pull the wire by hand')
  await t(bench, 'undo').click()
  await t(bench, 'seen-clean').click()
  await expect(t(bench, 'front-move')).toContainText('Clean')

  // gaps measured: the stop turns by what is missing
  await t(bench, 'panel-gaps').click()
  await bench.getByRole('button', { name: '2.0 mm clear' }).click()
  await expect(t(bench, 'plate-inner')).toContainText('2.0 mm')
  await t(bench, 'plate-outer').click()
  await caliper(bench, '1.1') // into the one that waits, and no other
  await expect(t(bench, 'plate-outer')).toContainText('1.1 mm')
  await expect(t(bench, 'plate-inner')).toContainText('2.0 mm')
  await t(bench, 'panel-shift').click()
  await expect(t(bench, 'front-move')).toContainText('L screw in')
  await expect.poll(async () => (await storedEvents(shop, number)).map(e => (e.body as LedgerEvent).kind).filter(k => k === 'frontTurn').length).toBe(4)
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'paper')).toContainText('Front barrel')
  await expect(t(bench, 'paper')).toContainText('1 out, net')
})

test('the rub map: every pair by mm and plate, a triple with its middle, a cage too small said', async ({ bench, shop }) => {
  const number = await shop.takeIn('42')
  await openFront(bench, number)
  await t(bench, 'usual-double').click()
  await expect(t(bench, 'rub-map').getByRole('button')).toHaveCount(20)
  await t(bench, 'pair-0-0').click()
  await expect(t(bench, 'pair-words')).toContainText('34 × 11')
  await expect(t(bench, 'pair-words')).toContainText('small, trimmed')
  await t(bench, 'panel-numbers').click()
  await bench.getByLabel('Cage, inside, mm').fill('8')
  await bench.getByLabel('Trim a click, mm').fill('0')
  await bench.getByLabel('Capacity, teeth').fill('14')
  await t(bench, 'keep-front').click()
  await expect(t(bench, 'pair-words')).toContainText('rubs the outer plate')
  await expect(bench.getByText('The rings differ by 16 teeth, the cage takes up 14')).toBeVisible()
  await t(bench, 'usual-triple').click()
  await expect(t(bench, 'rub-map').getByRole('button')).toHaveCount(30)
  await t(bench, 'panel-shift').click()
  await expect(t(bench, 'shift-1-2')).toContainText('middle → big')
})

test('a rotating cage goes its own order, one touch a step', async ({ bench, shop }) => {
  const number = await shop.takeIn('43')
  await openFront(bench, number)
  await t(bench, 'cage').selectOption('rotating')
  await t(bench, 'keep-front').click()
  await t(bench, 'panel-order').click()
  for (const step of ['height', 'marks', 'H']) await t(bench, `front-step-${step}`).click()
  await expect(t(bench, 'front-step-clamp')).toContainText('Lever clicked to the big ring')
  await expect.poll(async () => (await storedEvents(shop, number)).length).toBe(5)
})
