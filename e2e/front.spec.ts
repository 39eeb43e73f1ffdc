import { simulatedFront, type HiddenFront } from '#core/bench/front'
import { adviseFront } from '#core/front/advise'
import type { FrontMoveTo, FrontWishes } from '#core/front/contract'
import type { FrontSight } from '#core/front/events'
import { USUAL_FRONT, type FrontParts } from '#core/front/parts'
import { frontGeometry, STRAIGHT } from '#core/front/response'
import { frontSetupOf } from '#core/front/setup'
import { frontWay, sayFrontMove } from '#core/front/words'
import type { LedgerEvent } from '#core/ledger/events'
import { END_GAPS } from '#core/procedure/schools'
import { stockParts } from '#core/rear/typedParts'
import { caliper, expect, press, saved, sender, SERVER, storedEvents, test, type TestShop } from './shop'
import type { Page } from '@playwright/test'

const t = (page: Page, name: string) => page.locator(`[data-test="${name}"]`)
async function openFront(page: Page, number: number): Promise<void> {
  await page.goto(`${SERVER()}/jobs/${number}/front`)
  await page.waitForSelector('[data-test=panel-numbers]')
}
/** A front of a new job, L seen and its cage measured: right in height and line. */
async function openPlaced(page: Page, shop: TestShop, tag: string, rings: 'double' | 'triple'): Promise<number> {
  const number = await shop.takeIn(tag)
  await shop.seeL(number)
  await openFront(page, number)
  await t(page, `usual-${rings}`).click()
  await t(page, 'front-done').click()
  for (const figure of ['2', '0']) {
    await t(page, 'figure-typed').fill(figure)
    await page.keyboard.press('Enter')
  }
  return number
}
const hiddenFront = (change: Partial<HiddenFront>): HiddenFront => ({
  ...STRAIGHT,
  backlashMm: 0.4,
  stroke: 1.02,
  perL: 1,
  perH: 1,
  perBarrel: 0.8,
  ...change,
})

const CASSETTE = stockParts('r14-10').cassette

/** Does what the page advises on a simulated front until it says done; every move shown is the one the core gives. */
async function follow(
  page: Page,
  parts: FrontParts,
  hidden: HiddenFront,
  seed: number,
  wishes: FrontWishes = {},
  noted: readonly FrontSight[] = [],
): Promise<{ right: boolean; touches: number; log: FrontSight[] }> {
  const setup = frontSetupOf(parts, CASSETTE)
  const bench = simulatedFront(setup, hidden, seed)
  const { judgedOn } = frontGeometry(setup)
  const log: FrontSight[] = [...noted]
  let touches = 0
  const touch = async (name: string) => {
    touches++
    await t(page, name).click()
  }
  const figure = async (value: number) => {
    touches++
    await t(page, 'figure-typed').fill(value.toFixed(1))
    await page.keyboard.press('Enter')
  }
  for (let i = 0; i < 40; i++) {
    const { move } = adviseFront(setup, log, { endGapMm: END_GAPS[0]!.targetMm, ...wishes })
    await expect(t(page, 'front-move')).toContainText(shown(move, parts))
    await expect(page.locator('section[aria-label="Next move"]')).toHaveAttribute('aria-busy', 'false')
    if (move.do === 'done') return { right: bench.isRight(), touches, log }
    if (move.do === 'shift' && move.back) {
      const { from, to, sprocket } = move
      const ways = [
        { from, to, sprocket },
        { from: to, to: from, sprocket: judgedOn(from) },
      ] as const
      const { entries, badWay } = bench.thereAndBack(ways, move.times ?? 1)
      const told = bench.log.slice(-entries).filter(e => e.kind === 'frontShift')
      log.push(...told)
      if (!badWay) {
        await touch('front-both-clean')
        continue
      }
      for (const e of told) {
        // the way there is chosen already
        if (e.from !== from) await touch(`shift-${e.from}-${e.to}`)
        await touch(`seen-${e.seen}`)
      }
      continue
    }
    const e = bench.perform(move)!
    if (e.kind === 'frontPosition') {
      await touch('front-done')
      await figure(e.heightMm!)
      await figure(e.angleDeg!)
      log.push({ ...e, angleDeg: null }, { ...e, heightMm: null })
      continue
    }
    log.push(e)
    if (e.kind === 'frontGap') {
      await touch('front-done')
      await figure(e.gapMm)
    } else if (e.kind === 'frontShift') await touch(`seen-${e.seen}`)
    else if (e.kind === 'frontUndone') await touch(`undone-${e.drops}`)
    else await touch('front-done')
  }
  throw new Error('never said done')
}
const shown = (move: FrontMoveTo, parts: FrontParts): string =>
  move.do === 'turn'
    ? `${move.screw === 'barrel' ? 'Barrel' : `${move.screw} screw`} ${frontWay(move)}`
    : sayFrontMove(move, parts, CASSETTE.teeth)
const kindsOf = async (shop: Parameters<typeof storedEvents>[0], number: number) =>
  (await storedEvents(shop, number)).map(e => (e.body as LedgerEvent).kind)

test('a double that throws its chain inboard is set right by the advice, move by move; the sheet says how sure', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('41')
  await shop.seeL(number)
  // what the customer says of the front is asked in the same first stage, split by its test, and leads to this bench
  await bench.goto(`${SERVER()}/jobs/${number}/stage/said`)
  await t(bench, 'others').click()
  await t(bench, 'says-brake-rubs').click()
  await expect(t(bench, 'test')).toContainText('Spin the wheel')
  await t(bench, 'says-front-off-inside').click()
  await expect(bench.getByText('can lock the cranks')).toBeVisible()
  await t(bench, 'answer-wide').click()
  await expect(t(bench, 'causes').locator('.line-through')).toHaveCount(2)
  await t(bench, 'lead').click()
  await bench.waitForSelector('[data-test=panel-numbers]')
  await bench.getByLabel('Rings, teeth').fill('50 34')
  await t(bench, 'keep-front').click()
  await expect(bench.getByText('Rings cross: give them from the smallest to the largest')).toBeVisible()
  await bench.getByLabel('Chainstay, mm').fill('0')
  await t(bench, 'keep-front').click()
  await expect(bench.getByText('Chainstay, mm: from 250 to 1200')).toBeVisible()
  await t(bench, 'usual-double').click()
  await expect(t(bench, 'front-unguarded')).toContainText('until L was seen by itself')
  const { right, touches, log } = await follow(
    bench,
    USUAL_FRONT.double,
    hiddenFront({ stopLMm: -2.3, slackMm: -2.6 }),
    8,
    { throws: ['inboard'] },
  )
  const seenL = log.findIndex(e => e.kind === 'frontGap' && e.byStop === true && e.plate === 'inner')
  const dropped = log.findIndex(e => e.kind === 'frontShift' && e.to === 0)
  expect(seenL).toBeGreaterThanOrEqual(0)
  expect(dropped === -1 || dropped > seenL).toBe(true)
  await expect(t(bench, 'front-unguarded')).toHaveCount(0)
  expect(right).toBe(true)
  expect(
    log.some(e => e.kind === 'frontTurn' && e.screw === 'L' && e.sixteenths > 0) ||
      log.some(e => e.kind === 'frontSet'),
  ).toBe(true)
  console.log(`front double, chain dropped inboard: ${touches} touches and figures, ${log.length} entries`)
  await expect.poll(async () => (await kindsOf(shop, number)).length).toBe(log.length + 6)
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'paper')).toContainText('Front, every shift clean')
  await expect(t(bench, 'paper')).toContainText('Front cage as found')
})

test('a fault is answered, a turn logged and taken back; H turned asks for L; gaps go into the one that waits', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('45')
  await shop.seeL(number)
  await openFront(bench, number)
  await t(bench, 'usual-double').click()
  await t(bench, 'shift-0-1').click()
  // a finger that bounces is one answer, and never the next question's
  await t(bench, 'seen-no-climb').evaluate((b: HTMLElement) => {
    b.click()
    b.click()
  })
  await expect(t(bench, 'seen-clean')).toHaveAttribute('aria-disabled', 'false')
  await saved(bench)
  expect((await kindsOf(shop, number)).filter(k => k === 'frontShift')).toHaveLength(1)
  await expect(t(bench, 'written-order')).toContainText('Barrel out 1/2')
  await t(bench, 'other-turn').click()
  await t(bench, 'hand-screw-H').click()
  await t(bench, 'turn-in-2').click()
  await expect(t(bench, 'look-again')).toBeVisible()
  await press(bench, 'z')
  await expect(t(bench, 'look-again')).toHaveCount(0)
  await t(bench, 'panel-gaps').click()
  await t(bench, 'plate-inner').click()
  await bench.getByRole('button', { name: '2.0 mm clear' }).click()
  await expect(t(bench, 'plate-inner')).toContainText('2.0 mm')
  await t(bench, 'plate-outer').click()
  await caliper(bench, '1.1') // into the one that waits, and no other
  await expect(t(bench, 'plate-outer')).toContainText('1.1 mm')
  await expect(t(bench, 'plate-inner')).toContainText('2.0 mm')
  // more than the cage has room for is refused where it is typed
  await t(bench, 'figure-typed').fill('18')
  await bench.keyboard.press('Enter')
  await expect(bench.getByText('Outer gap, mm: from 0 to 7')).toBeVisible()
  // the server takes no nonsense either
  const send = sender(bench, number, await shop.person('Ishbel'))
  const within = await send({ kind: 'frontGap', plate: 'inner', gapMm: -3 })
  expect(within).toMatchObject({ is: 'refused', field: 'gapMm' })
  expect(within.message).toContain('0 if it touches')
  const refused = await send({ kind: 'frontPosition', heightMm: 90, angleDeg: null })
  expect(refused.message).toContain('more than 25 mm')
})

test('the rub map: every pair by mm and plate, a triple with its middle, a cage too small said', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('42')
  await openFront(bench, number)
  await t(bench, 'usual-double').click()
  await expect(t(bench, 'rub-map').getByRole('button')).toHaveCount(20)
  await t(bench, 'pair-0-0').click()
  await expect(t(bench, 'pair-words')).toContainText('34 × 11')
  await expect(t(bench, 'pair-words')).toContainText('small, trimmed')
  // a pair that was ridden: what was seen stands in the map, before what is worked out, until something is turned
  await t(bench, 'rub-outer').click()
  await expect(t(bench, 'pair-0-0')).toHaveText('▲')
  await t(bench, 'rub-quiet').click()
  await expect(t(bench, 'pair-0-0')).toHaveText('✓')
  // the cage's place right at a glance: one touch, and said to be about
  await t(bench, 'front-good').click()
  await t(bench, 'panel-order').click()
  await expect(t(bench, 'front-step-height')).toContainText('✓')
  await t(bench, 'panel-numbers').click()
  await bench.getByLabel('Cage, inside, mm').fill('8')
  await bench.getByLabel('Trim a click, mm').fill('0')
  await bench.getByLabel('Capacity, teeth').fill('14')
  await t(bench, 'keep-front').click()
  await t(bench, 'pair-0-0').click()
  await expect(t(bench, 'pair-words')).toContainText('rubs the outer plate')
  await expect(bench.getByText('The rings differ by 16 teeth, the cage takes up 14')).toBeVisible()
  // mount, largest ring and pull family: noted where they are known, set against each other, refused beside their line
  await t(bench, 'front-more').click()
  await t(bench, 'front-mount').selectOption('31.8 mm band')
  await t(bench, 'front-pullWay').selectOption('from below')
  await bench.getByLabel('Largest ring it takes').fill('46')
  await bench.getByLabel('Lever pulls, mm').fill('40')
  await t(bench, 'keep-front').click()
  await expect(bench.getByText('Lever pulls, mm: from 3 to 20')).toBeVisible()
  await bench.getByLabel('Lever pulls, mm').fill('6')
  await bench.getByLabel('Derailleur wants, mm').fill('9')
  await t(bench, 'keep-front').click()
  await expect(bench.getByText('curved for a 46 at most')).toBeVisible()
  await expect(bench.getByText('falls short of its ring by about 33 %')).toBeVisible()
  // the inner gap is measured on the largest sprocket: L is seen by hand first
  await t(bench, 'panel-gaps').click()
  await t(bench, 'plate-inner').click()
  await expect(t(bench, 'front-barred')).toContainText('See L by hand first')
  await expect(t(bench, 'figure-typed')).toHaveCount(0)
  await t(bench, 'plate-outer').click()
  await expect(t(bench, 'figure-typed')).toBeVisible()
  // the height's school is this job's own
  await t(bench, 'panel-position').click()
  await expect(bench.getByText('1 to 2 mm over the teeth, in line')).toBeVisible()
  await t(bench, 'height-coin').click()
  await expect(bench.getByText('About 3 mm over the teeth, in line')).toBeVisible()
  await expect(bench.getByRole('img', { name: /wanted 2.5 to 3/ })).toBeVisible()
  await t(bench, 'panel-numbers').click()
  await t(bench, 'usual-triple').click()
  await expect(t(bench, 'rub-map').getByRole('button')).toHaveCount(30)
  await t(bench, 'panel-shift').click()
  await expect(t(bench, 'shift-1-2')).toContainText('middle → big')
})

test('a rotating cage from bare: its own order, marks on the big ring, clamped there, then the advice', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('43')
  await shop.seeL(number)
  await openFront(bench, number)
  await t(bench, 'cage').selectOption('rotating')
  await bench.getByLabel('Trim a click, mm').fill('0')
  await t(bench, 'keep-front').click()
  await t(bench, 'panel-order').click()
  await t(bench, 'order-rotating').click()
  // a step that asks a figure goes to where it is read, and noting it is the step; the others are ticked
  await t(bench, 'front-step-height').click()
  await t(bench, 'figure-2').click()
  await t(bench, 'panel-order').click()
  await expect(t(bench, 'front-step-height')).toContainText('✓')
  await t(bench, 'front-step-marks').click()
  await t(bench, 'front-step-H').click()
  await expect(t(bench, 'plate-H')).toHaveAttribute('aria-checked', 'true')
  await t(bench, 'figure-1').click()
  await t(bench, 'panel-order').click()
  await expect(t(bench, 'front-step-clamp')).toContainText('Lever clicked to the big ring')
  await t(bench, 'front-step-clamp').click()
  await t(bench, 'panel-shift').click()
  const parts: FrontParts = { ...USUAL_FRONT.double, cage: 'rotating', trimMm: 0 }
  const { right, touches } = await follow(
    bench,
    parts,
    hiddenFront({ stopLMm: 1.8, slackMm: 0.2, angleDeg: 0.3 }),
    4,
    { order: 'rotating' },
    [
      { kind: 'frontPosition', heightMm: 2, angleDeg: null },
      { kind: 'frontGap', plate: 'outer', gapMm: 1, byStop: true },
    ],
  )
  expect(right).toBe(true)
  console.log(`front, rotating cage: ${touches} touches and figures after the order's steps`)
})

test('a triple with its middle, slack in the cable: small to middle and middle to big', async ({ bench, shop }) => {
  const number = await shop.takeIn('44')
  await shop.seeL(number)
  await openFront(bench, number)
  await t(bench, 'usual-triple').click()
  const { right, touches } = await follow(bench, USUAL_FRONT.triple, hiddenFront({ slackMm: -1.8 }), 6)
  expect(right).toBe(true)
  console.log(`front triple, slack: ${touches} touches and figures`)
})

test('a shift chosen by hand stays chosen when the advice arrives, and gives way once something is answered', async ({
  bench,
  shop,
}) => {
  await openPlaced(bench, shop, '47', 'triple')
  await expect(t(bench, 'front-move')).toContainText('Shift big to middle')
  await expect(t(bench, 'shift-2-1')).toHaveAttribute('aria-checked', 'true')
  // answered and chosen within one frame, before any advice can have come
  await t(bench, 'seen-clean').evaluate((b: HTMLElement) => {
    b.click()
    document.querySelector<HTMLElement>('[data-test=shift-0-1]')!.click()
  })
  await expect(t(bench, 'front-move')).toContainText('Shift middle to big')
  await expect(t(bench, 'shift-0-1')).toHaveAttribute('aria-checked', 'true')
  await t(bench, 'seen-no-climb').click()
  await expect(t(bench, 'front-move')).not.toContainText('Shift middle to big')
  await press(bench, 'z')
  await expect(t(bench, 'front-move')).toContainText('Shift middle to big')
  await expect(t(bench, 'shift-1-2')).toHaveAttribute('aria-checked', 'true')
})

test('clean there and back twice is one touch and all its entries, however slow the line, and though its page is left', async ({
  bench,
  shop,
}) => {
  const number = await openPlaced(bench, shop, '46', 'double')
  // the gap that is asked first is as it should be: noted elsewhere, so that nothing here is read as it changes
  await saved(bench)
  const elsewhere = sender(bench, number, await shop.person('Ishbel'))
  await elsewhere({ kind: 'frontGap', plate: 'inner', gapMm: 1 })
  await expect(t(bench, 'front-both-clean')).toHaveAttribute('aria-disabled', 'false')
  await saved(bench)
  // the server hears nothing of it before the page is gone
  await bench.route('**/events', () => new Promise<void>(() => undefined))
  await t(bench, 'front-both-clean').click()
  await bench.unrouteAll({ behavior: 'ignoreErrors' })
  await openFront(bench, number)
  await expect.poll(async () => (await kindsOf(shop, number)).filter(k => k === 'frontShift').length).toBe(4)
  // and one touch takes all back; on a phone, where the path and its Take back are far below, from the top
  await expect(t(bench, 'undoes')).toContainText('4 at once: ')
  await expect(t(bench, 'undo-top')).toBeHidden()
  await bench.setViewportSize({ width: 390, height: 844 })
  await t(bench, 'seen-noisy').scrollIntoViewIfNeeded()
  await expect(t(bench, 'undo-top')).toBeInViewport()
  await t(bench, 'undo-top').click()
  await expect(t(bench, 'took-back-top')).toContainText('4 at once: ')
  await saved(bench)
  expect((await kindsOf(shop, number)).slice(-8)).toEqual([...Array(4).fill('frontShift'), ...Array(4).fill('undo')])
  await expect(t(bench, 'front-both-clean')).toBeVisible()
})
