import type { Page } from '@playwright/test'
import { rearBike } from '#core/practice/rearBike'
import { rearStand, type RearAct } from '#core/practice/rearStand'
import { PRACTICE_BENCHES } from '#core/practice/levels'
import { standFor } from '#core/practice/run'
import { byAdvice } from '#core/practice/stand'
import { geometryOf } from '#core/response/setup'
import { cableWindowMm } from '#core/response/window'
import { axeFinds } from './axe'
import { expect, otherDevice, press, ready, SERVER, storedEvents, test } from './shop'
import { scriptsOf } from './weight'

/*
 * Practice: a rear, a front, a brake and a hub, by keyboard and by thumb, won by a good player and lost by a bad one.
 */

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)
const open = async (page: Page, query: string) => {
  await page.goto(`${SERVER()}/practice/run?${query}`)
  await ready(page)
}

/** A turn of any length by the buttons there are: one, a half, a quarter, an eighth. */
function asTouches(act: string): string[] {
  const told = /^turn (\w+) (-?\d+)$/.exec(act)
  if (!told) return [act]
  const out: string[] = []
  let left = Math.abs(Number(told[2]))
  for (const step of [16, 8, 4, 2])
    for (; left >= step; left -= step) out.push(`turn ${told[1]} ${Number(told[2]) < 0 ? -step : step}`)
  return out
}

/** A rear bike whose cable is merely off, within reach of eighths and halves, and how far. */
function tension(): { number: number; eighths: number } {
  for (let number = 300; ; number++) {
    const bike = rearBike(number, 'one')
    if (bike.faults[0] !== 'tension') continue
    const g = geometryOf(bike.setup)
    const { from, to } = cableWindowMm(g, bike.hidden, bike.hidden, true)
    const eighths = Math.round((8 * ((from + to) / 2 - bike.hidden.cableMm)) / g.threadMm)
    const barrel = bike.setup.barrelTurnsOut + eighths / 8
    if (barrel < 0 || barrel > bike.setup.barrelTurnsRange || Math.abs(eighths) > 8) continue
    const acts: RearAct[] = [{ do: 'turn', screw: 'barrel', turns: eighths / 8 }, { do: 'done' }]
    if (rearStand(bike, number, acts).right) return { number, eighths }
  }
}

test('a rear by keyboard: heard, said, turned, won; its truth, the others, and the run once more', async ({
  bench,
}) => {
  const { number, eighths } = tension()
  await open(bench, `bench=rear&level=one&bike=${number}`)
  await expect(t(bench, 'stand')).toBeVisible()
  expect(await axeFinds(bench)).toEqual([])
  await press(bench, 'ArrowLeft')
  await expect(bench.getByText('What did you hear?')).toBeVisible()
  await bench.waitForFunction(() => performance.getEntriesByName('practice-sound').length > 0)
  await t(bench, 'in-words').click()
  await expect(t(bench, 'sound-words')).not.toBeEmpty()
  await press(bench, '1')
  await expect(bench.getByText('Said. Shift on, or turn.')).toBeVisible()
  await t(bench, 'see-L').click()
  await expect(t(bench, 'found')).toContainText('from the sprocket’s plane')
  // stopped in the middle, and taken up again by the same address
  await bench.goto(`${SERVER()}/practice`)
  await ready(bench)
  await t(bench, 'take-up').click()
  await expect(t(bench, 'found')).toContainText('from the sprocket’s plane')
  for (let i = 0; i < Math.abs(eighths); i++) {
    await press(bench, eighths > 0 ? ']' : '[')
    await expect(bench.getByText(/Barrel .* out of/)).toBeVisible()
  }
  await t(bench, 'done').click()
  await expect(t(bench, 'verdict')).toHaveText('Right: it may go')
  await expect(t(bench, 'end')).toContainText('The cable was off: found and put right.')
  await expect(t(bench, 'truth')).toContainText('Stop L')
  await expect(t(bench, 'beside')).toContainText('the advice', { timeout: 60_000 })
  await t(bench, 'replay').fill('1')
  await expect(bench.getByRole('img', { name: 'The stand as it was at that step' })).toBeVisible()
  await bench.goto(`${SERVER()}/practice`)
  await ready(bench)
  await expect(t(bench, 'met')).toContainText('Tension')
  await expect(t(bench, 'ear')).toContainText('1')
})

test('a rear by thumb at 390, lost: the barrel for what no barrel cures, and said so', async ({ bench }) => {
  await bench.setViewportSize({ width: 390, height: 844 })
  await open(bench, 'bench=rear&level=alike&bike=104&lesson=hanger-for-mismatch')
  await expect(t(bench, 'lesson')).toContainText('Never buy a shifter')
  await expect(t(bench, 'stand')).toBeVisible()
  const barrel = bench.getByText(/Barrel .* out of/)
  for (let i = 0; i < 3; i++) {
    const before = await barrel.textContent()
    await t(bench, 'turn-0.125').click()
    await expect(barrel).not.toHaveText(before!)
  }
  // the largest stays shut until L was seen
  for (let i = 0; i < 12 && !(await t(bench, 'refused').isVisible()); i++) {
    const now = await bench.getByRole('img', { name: /Chain on the/ }).getAttribute('aria-label')
    await t(bench, 'shift-in').click()
    await expect
      .poll(
        async () =>
          (await t(bench, 'refused').isVisible()) ||
          (await bench.getByRole('img', { name: /Chain on the/ }).getAttribute('aria-label')) !== now,
      )
      .toBe(true)
  }
  await expect(t(bench, 'refused')).toContainText('See L by hand first')
  // arrow keys go through the parts one by one: none is renewed before it is said
  await t(bench, 'renew').focus()
  for (let i = 0; i < 3; i++) await press(bench, 'ArrowDown')
  await expect(t(bench, 'renew')).toHaveValue('shifter')
  await expect(t(bench, 'found').getByText(/^Renew /)).toHaveCount(0)
  await t(bench, 'renew-it').click()
  await expect(t(bench, 'found').getByText(/^Renew /)).toHaveText(['Renew the shifter'])
  await expect(t(bench, 'renew-it')).toBeDisabled()
  await expect(t(bench, 'renew')).toHaveValue('')
  await t(bench, 'done').click()
  await expect(t(bench, 'verdict')).toHaveText('Not won')
  await expect(t(bench, 'end')).toContainText('the hanger was bent')
  expect(await axeFinds(bench)).toEqual([])
})

/** The first bike that the advice wins in few acts, and these. */
async function wonByAdvice(name: 'brake' | 'hub' | 'front'): Promise<{ bike: number; advised: string[] }> {
  for (let bike = 1; bike <= 30; bike++) {
    const { stand, acts } = byAdvice((await standFor({ bench: name, level: 'one', bike }))!)
    if (stand.won && acts.length < 25) return { bike, advised: acts }
  }
  throw new Error(`none of thirty: ${name}`)
}

for (const name of ['brake', 'hub', 'front'] as const)
  test(`a ${name}: won by who looks as the advice does, lost by who says it is right unlooked at`, async ({
    bench,
  }) => {
    test.setTimeout(120_000)
    const { bike, advised } = await wonByAdvice(name)
    const acts = advised.flatMap(asTouches)
    const query = `bench=${name}&level=one&bike=${bike}`
    // who wants no movement is told in words from the start (playwright.config.ts)
    await bench.emulateMedia({ reducedMotion: 'no-preference' })
    await open(bench, query)
    for (const [i, id] of acts.slice(0, -1).entries()) {
      await t(bench, `act-${id}`).click()
      await expect(t(bench, 'found').locator('li')).toHaveCount(i + 1)
    }
    // what the picture shows is said only to who asks for it
    await expect(t(bench, 'sight').getByRole('img')).toBeVisible()
    const drawn = t(bench, 'found').getByText('look at the picture')
    expect(await drawn.count()).toBeGreaterThan(0)
    await t(bench, 'in-words').check()
    await expect(drawn).toHaveCount(0)
    await t(bench, 'done').click()
    await expect(t(bench, 'verdict')).toHaveText('Right: it may go')
    await t(bench, 'once-more').click()
    await t(bench, 'help').click()
    await t(bench, 'help-move').click()
    await expect(t(bench, 'helped')).not.toBeEmpty()
    await t(bench, 'done').click()
    await expect(t(bench, 'verdict')).toHaveText('Not won')
    await expect(t(bench, 'end')).toContainText('1 help')
    expect(await axeFinds(bench)).toEqual([])
  })

test('an address of no bike is refused in words; a test is ten bikes; a mechanic sees only who shows theirs', async ({
  bench,
  shop,
  browser,
}) => {
  await open(bench, 'bench=rear&level=hard&bike=7')
  await expect(t(bench, 'wrong-address')).toContainText('Which level')
  await open(bench, 'bench=rear&level=one&bike=100000')
  await expect(t(bench, 'wrong-address')).toContainText('numbered from 1')
  await bench.goto(`${SERVER()}/practice`)
  await ready(bench)
  await t(bench, 'bike').fill('0')
  await t(bench, 'start').click()
  await expect(t(bench, 'wrong')).toContainText('numbered from 1')
  expect(await axeFinds(bench)).toEqual([])
  await t(bench, 'test-number').fill('42')
  await expect(t(bench, 'test-bikes').locator('li')).toHaveCount(10)
  await t(bench, 'test-bikes').locator('a').nth(2).click()
  await t(bench, 'done').click()
  await expect(t(bench, 'verdict')).toBeVisible()
  const { page: other, context } = await otherDevice(browser, shop)
  await other.goto(`${SERVER()}/practice`)
  await ready(other)
  await t(other, 'test-number').fill('42')
  await t(other, 'sheet').click()
  await expect(t(other, 'shown')).toContainText('Nobody shows theirs')
  await bench.goto(`${SERVER()}/practice`)
  await ready(bench)
  await t(bench, 'shows').check()
  await expect
    .poll(async () => {
      await t(other, 'sheet').click()
      return t(other, 'shown').textContent()
    })
    .toContain('of 1 won')
  await context.close()
})

test('what if, tried on what is believed of a bike: told by rows, nothing written, and back at the bench', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('78')
  await shop.seeL(number)
  await bench.goto(`${SERVER()}/jobs/${number}/rear`)
  await ready(bench)
  const before = await storedEvents(shop, number)
  await t(bench, 'else').click()
  await t(bench, 'what-if').click()
  await expect(t(bench, 'trying')).toContainText('of 6')
  await expect(t(bench, 'trying')).toHaveCount(0, { timeout: 120_000 })
  await expect(t(bench, 'what-ifs').locator('tbody tr')).toHaveCount(6)
  await expect(t(bench, 'what-ifs')).toContainText('A new cable with one bend less')
  expect(await axeFinds(bench)).toEqual([])

  // one of the bikes it may be, worked on by hand; and another of them
  await expect(t(bench, 'hand-tensionFirst')).toHaveCount(0)
  await t(bench, 'hand-cable').click()
  await expect(t(bench, 'by-hand')).toContainText('With a new cable: one of the bikes it may be')
  await expect(t(bench, 'what-ifs')).toHaveCount(0)
  await t(bench, 'shift-in').click()
  expect(await axeFinds(bench)).toEqual([])
  await t(bench, 'done').click()
  await expect(t(bench, 'verdict')).toBeVisible()
  await expect(t(bench, 'truth').locator('dd').first()).toBeVisible()
  await t(bench, 'another').click()
  await expect(t(bench, 'verdict')).toHaveCount(0)
  await expect(t(bench, 'done')).toBeVisible()
  await t(bench, 'to-table').click()
  await expect(t(bench, 'what-ifs').locator('tbody tr')).toHaveCount(6)
  await t(bench, 'back').click()
  await expect(bench.locator('section[aria-label="Next move"]')).toBeVisible()
  expect(await storedEvents(shop, number)).toHaveLength(before.length)
  for (const [query, words] of [
    ['job=abc', 'Which job'],
    ['', 'Which job'],
    ['job=9999', 'no job'],
  ]) {
    await bench.goto(`${SERVER()}/practice/what-if?${query}`)
    await expect(t(bench, 'trouble')).toContainText(words!)
  }
})

/** No page of Practice weighs more, the worker that holds the bike with it. kB */
const MOST_KB = 200
const PAGES = ['/practice', ...PRACTICE_BENCHES.map(bench => `/practice/run?bench=${bench}&level=one&bike=7`)]

/** How many runs the server keeps of who is at this tablet. */
const keptFor = async (page: Page): Promise<number> =>
  ((await (await page.request.get(`${SERVER()}/api/practice`)).json()) as { results: unknown[] }).results.length

test('its pages weigh no more JavaScript than they may', async ({ bench }) => {
  for (const path of PAGES) {
    const { kb, files } = await scriptsOf(bench, SERVER() + path)
    console.log(`${path}: ${kb.toFixed(0)} kB in ${files} files`)
    expect.soft(kb, path).toBeLessThan(MOST_KB)
  }
})

test('a run that the server refuses for now, signed out or its own fault, is kept and sent another time', async ({
  bench,
}) => {
  for (const [i, status] of [401, 500].entries()) {
    const refused = bench.waitForResponse(r => r.status() === status)
    await bench.route('**/api/practice', route =>
      route.request().method() === 'POST' ? route.fulfill({ status, json: {} }) : route.continue(),
    )
    await open(bench, `bench=brake&level=one&bike=${3 + i}`)
    await t(bench, 'done').click()
    await expect(t(bench, 'verdict')).toBeVisible()
    await refused
    await bench.unrouteAll({ behavior: 'wait' })
    await bench.goto(`${SERVER()}/practice`)
    await ready(bench)
    await expect.poll(() => keptFor(bench)).toBe(i + 1)
  }
})

test.describe('away from the server', () => {
  test.use({ serviceWorkers: 'allow' })
  test('a run goes on, is kept when it is back, and a reload finds it', async ({ bench, shop }) => {
    await bench.goto(`${SERVER()}/jobs/${await shop.takeIn('77')}/rear`)
    await ready(bench)
    await bench.waitForFunction(() => navigator.serviceWorker.controller !== null)
    await open(bench, 'bench=brake&level=one&bike=3')
    await expect(t(bench, 'done')).toBeVisible()
    await bench.context().setOffline(true)
    await t(bench, 'act-look lever').click()
    await expect(t(bench, 'found').locator('li')).toHaveCount(1)
    await bench.reload()
    await expect(t(bench, 'found').locator('li')).toHaveCount(1)
    await t(bench, 'done').click()
    await expect(t(bench, 'verdict')).toBeVisible()
    await bench.context().setOffline(false)
    await bench.goto(`${SERVER()}/practice`)
    await ready(bench)
    await expect(t(bench, 'met')).toContainText('Brake')
    // what still waits to be sent is shown too: the server has it a moment later
    await expect.poll(() => keptFor(bench)).toBe(1)
  })
})
