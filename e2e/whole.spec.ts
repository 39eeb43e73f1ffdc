import type { Page } from '@playwright/test'
import { simulatedBench } from '#core/bench/bench'
import { AS_MODELLED } from '#core/bench/physics'
import { setupOf } from '#core/rear/parts'
import { stockParts } from '#core/rear/typedParts'
import { hiddenBike, type Trouble } from '../demo/bikes'
import { buildDemo } from '../demo/build'
import { DEMO_JOBS } from '../demo/jobs'
import { inShop } from '../server/db/connect'
import { findBikes } from '../server/db/floor'
import { takeIn } from '../server/db/jobs'
import { personByName } from '../server/db/people'
import { followAdvice } from './follow'
import {
  expect,
  openBench,
  press,
  ready,
  saved,
  seen,
  SERVER,
  settled,
  signIn,
  storedEvents,
  test,
  type TestShop,
} from './shop'

/** An ear that is right: what a wrong one costs is measured on the bench, over many bikes. */
const HONEST_EAR = { ...AS_MODELLED, wrongReports: 0 }

test('a bike goes from the door to a setup sheet by mouse', async ({ page, shop }) => {
  // sign in through the form
  await page.goto(`${SERVER()}/`)
  await expect(page).toHaveURL(/sign-in/)
  await ready(page)
  await page.getByLabel('Shop code').fill(shop.code)
  await page.getByLabel('Name').fill('Moss')
  await page.getByLabel('Password').fill('slack-tide-12')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByText('No bike waits')).toBeVisible()

  // take a bike in; the text stays as typed. A field that is typed into is a touch too
  let touches = 5 // name, phone, bike, tag, complaint
  const tap = async (selector: string) => {
    touches++
    await page.locator(selector).click()
  }
  await tap('[data-test=take-in]')
  await ready(page)
  await page.locator('[data-test=who]').fill('Ruadh <b>O\'Quay</b> "Q"')
  await page.getByLabel('Phone').fill('085 555 0190')
  await page.getByLabel('Bike', { exact: true }).fill('Gannet tourer')
  await page.getByLabel('Tag').fill('63')
  touches += 2 // when, and onto the rail
  await page.getByRole('button', { name: 'Tomorrow 12:00' }).click()
  await page.locator('[data-test=complaint]').fill('Slow into the easier gears')
  await tap('[data-test=sprockets-10]')
  await tap('[data-test=fit-r14-10]')
  await expect(page.locator('[data-test=fits-match]')).toContainText('They go together')
  await page.getByRole('button', { name: 'Hang it on the rail' }).click()
  await expect(page).toHaveURL(/\/jobs\/\d+\/rear/)
  const number = Number(/jobs\/(\d+)/.exec(page.url())![1])

  // index it by what the simulated bike says, until Ocho says stop
  const parts = stockParts('r14-10')
  const bench = simulatedBench(setupOf(parts), hiddenBike(parts, { slackMm: 0.6 }), 1, HONEST_EAR)
  await followAdvice(page, bench, undefined, () => touches++)
  await expect(page.locator('[data-test=move]')).toContainText('Stop here')
  expect(bench.isRight()).toBe(true)
  expect(bench.chainOff()).toBe(false)

  // hand it back: the brakes first
  await tap('[data-test=accept]')
  await expect(page.locator('[data-test=stays]')).toContainText('front brake not proven, rear brake not proven')
  await expect(page.locator('[data-test=hand-back]')).toBeDisabled()
  await tap('[data-test=front-holds]')
  await expect(page.locator('[data-test=stays]')).toContainText('rear brake not proven')
  await tap('[data-test=rear-holds]')
  await tap('[data-test=hand-back]')
  await expect(page.locator('[data-test=handed-back]')).toHaveText('Handed back')
  expect(touches).toBeLessThanOrEqual(30)
  const paper = page.locator('[data-test=paper]')
  await expect(paper).toContainText('Ruadh <b>O\'Quay</b> "Q"')
  await expect(paper).toContainText('Settle-in recall')
  await expect(paper).toContainText('holds, Moss')

  const events = await storedEvents(shop, number)
  expect(events.at(-1)!.body).toMatchObject({ kind: 'handedBack', how: 'proven' })
  expect(events.map(e => e.seq)).toEqual(events.map((_, i) => i + 1))

  // it stands by the door now
  await page.locator('[data-test=to-floor]').click()
  await expect(page.getByRole('heading', { name: 'By the door' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Gannet tourer' })).toBeVisible()
})

test('the sheet downloads as a one-page PDF that says what the page says', async ({ bench, shop }) => {
  const number = await shop.takeIn('7')
  const answer = await bench.request.get(`${SERVER()}/api/jobs/${number}/sheet.pdf`)
  expect(answer.headers()['content-type']).toBe('application/pdf')
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs')
  const pdf = await getDocument({ data: new Uint8Array(await answer.body()), useSystemFonts: true }).promise
  expect(pdf.numPages).toBe(1)
  const page = await pdf.getPage(1)
  const { width, height } = page.getViewport({ scale: 1 })
  expect([Math.round(width), Math.round(height)]).toEqual([595, 842]) // A4, ISO 216, in points
  const words = (await page.getTextContent()).items
    .map(i => ('str' in i ? i.str : ''))
    .join(' ')
    .replace(/\s+/g, ' ')
  for (const wanted of [
    'Setup sheet',
    'Tag 7',
    'Hob Tarrant',
    'Marram quay',
    'slow in the middle',
    'not proven',
    'draft',
  ])
    expect(words).toContain(wanted)
})

test('indexing goes by keyboard alone', async ({ bench, shop }) => {
  const number = await shop.takeIn('12')
  await openBench(bench, number)
  await expect(bench.locator('[data-test=move]')).toContainText('L stop')
  await press(bench, '0') // a whole pass runs to the largest: shut until L is seen
  await press(bench, 'Enter')
  await expect(bench.locator('[data-test=move]')).toContainText('H stop')
  await seen(bench)
  await press(bench, 'Enter')
  await expect(bench.locator('[data-test=move]')).not.toContainText('stop')
  await settled(bench)
  await press(bench, 'ArrowLeft')
  await press(bench, 'ArrowRight')
  await press(bench, '4') // slow where the arrows aim, in a pass or a shift
  await settled(bench)
  await press(bench, '1')
  await settled(bench)
  await press(bench, 'b') // the barrel, whatever the advice looks for by now
  await press(bench, ']')
  await press(bench, ']')
  await expect(bench.locator('[data-test=pending]')).toContainText('Barrel out 1/4')
  await press(bench, 'Enter')
  await expect(bench.locator('[data-test=net-barrel]')).toContainText('1/4 out')
  await press(bench, 'z')
  await expect(bench.locator('[data-test=net-barrel]')).toHaveText('0')
  await press(bench, '0')
  await press(bench, '?')
  await expect(bench.getByText('take back', { exact: true })).toBeVisible()
  await saved(bench)
  const kinds = (await storedEvents(shop, number)).map(e => (e.body as { kind: string }).kind)
  // what was asked may be a shift, or a pass that ended at once
  const asked = kinds.map(k => (k === 'shift' || k === 'pass' ? 'went' : k))
  expect(asked).toEqual(['arrived', 'sight', 'sight', 'went', 'went', 'turn', 'undo', 'went'])
})

/**
 * A bike that this shop set before, with a hidden truth, and has again with its cable off by so much: taken in as
 * known, on a page that is signed in, with a bench that answers as the bike now is.
 */
async function cameBack(
  page: Page,
  shop: TestShop,
  was: { trouble: Trouble; seed: number },
  now: Trouble,
  offMm: number,
) {
  const past = { ...DEMO_JOBS.find(j => j.tag === '31')!, ...was }
  const code = `${shop.code}-${was.seed}`
  const id = await buildDemo(shop.db, {
    shop: { code, name: 'Known', zone: 'Europe/Dublin' },
    jobs: [past],
    demo: false,
  })
  const known: TestShop = { ...shop, code, id }
  const [bike] = await inShop(shop.db, id, tx => findBikes(tx, id, past.frameNumber))
  const person = await inShop(shop.db, id, async tx => (await personByName(tx, id, 'Ishbel'))!.id)
  const sheet = bike!.last!.sheet
  const parts = { ...sheet.parts!, barrel: { ...sheet.parts!.barrel, turnsOut: sheet.barrelSixteenths / 16 } }
  await takeIn(shop.db, id, person, null, {
    customer: { id: bike!.customer.id },
    bike: { id: bike!.bike.id },
    tag: '64',
    promisedAt: new Date(Date.now() + 86_400_000).toISOString(),
    complaint: 'a little slow leaving the smallest',
    parts,
    sameParts: true,
  })
  await signIn(page, known)
  const started = hiddenBike(sheet.parts!, was.trouble)
  const turned = (sheet.barrelSixteenths / 16 - sheet.parts!.barrel.turnsOut) * sheet.parts!.barrel.threadMm
  const hidden = { ...hiddenBike(parts, now), cableMm: started.cableMm + turned + offMm }
  return { known, bench: simulatedBench(setupOf(parts), hidden, 1, HONEST_EAR) }
}

test.describe('a known bike with one correction, obeying every advice, from the Floor to handed back', () => {
  for (const { what, was, now, offMm, most } of [
    { what: '0.6 mm slack', was: { trouble: { slackMm: 0.5 }, seed: 11 }, now: {}, offMm: -0.6, most: 12 },
    {
      what: '0.4 mm tight, a little stiff',
      was: { trouble: { slackMm: 0.7 }, seed: 12 },
      now: { backlashMm: 0.4 },
      offMm: 0.4,
      most: 16,
    },
  ])
    test(`${what}: at most ${most} touches`, async ({ page, shop }) => {
      const { bench } = await cameBack(page, shop, was, now, offMm)
      await page.goto(`${SERVER()}/`)
      await ready(page)
      let touches = 0
      const tap = async (selector: string) => {
        touches++
        await page.locator(selector).click()
      }
      await tap('[data-test=tag-64]')
      const moves = await followAdvice(page, bench, undefined, () => touches++)
      await tap('[data-test=accept][aria-disabled=false]')
      await tap('[data-test=both-hold]')
      await expect(page.locator('[data-test=proof-rear]')).toContainText('holds')
      await tap('[data-test=hand-back]')
      await expect(page.locator('[data-test=handed-back]')).toHaveText('Handed back')
      expect(bench.isRight()).toBe(true)
      expect(bench.chainOff()).toBe(false)
      expect(touches, moves.join(', ')).toBeLessThanOrEqual(most)
    })
})

test('both stops seen in line are one touch, and one takes both back', async ({ bench, shop }) => {
  const number = await shop.takeIn('14')
  await openBench(bench, number)
  const move = bench.locator('[data-test=move]')
  await bench.locator('[data-test=both-in-line][aria-disabled=false]').click()
  await expect(move).not.toContainText('stop')
  await settled(bench)
  await expect(bench.locator('[data-test=lane-9]')).toBeEnabled()
  await press(bench, 'z')
  await expect(move).toContainText('L stop')
  await expect(bench.locator('[data-test=both-in-line]')).toBeVisible()
  await expect(bench.locator('[data-test=lane-9]')).toBeDisabled()
  await saved(bench)
  const entries = await storedEvents(shop, number)
  expect(entries.map(e => (e.body as { kind: string }).kind)).toEqual(['arrived', 'sight', 'sight', 'undo', 'undo'])
})

test('advice is left with one touch and gives way; a pass ends where it was not clean; a finger that bounces is one answer', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('13')
  await openBench(bench, number)
  const move = bench.locator('[data-test=move]')
  await expect(move).toContainText('L stop')
  // L left: H is next, and the largest stays shut
  await bench.locator('[data-test=leave]').click()
  await expect(move).toContainText('H stop')
  await seen(bench)
  await press(bench, 'Enter')
  await expect(move).not.toContainText('stop')
  await expect(bench.locator('[data-test=lane-9]')).toBeDisabled()
  // undone, it is asked for again
  await press(bench, 'z')
  await expect(move).toContainText('H stop')
  await press(bench, 'z')
  await expect(move).toContainText('L stop')
  await seen(bench)
  await press(bench, 'Enter')
  await expect(move).toContainText('H stop')
  await seen(bench)
  await press(bench, 'Enter')
  await expect(move).toContainText('Click by click')
  await settled(bench)
  // what was heard may come before where; a second contact at once does not count
  const slow = bench.locator('[data-test=heard-slow]')
  await slow.dblclick()
  await expect(bench.locator('[data-test=how]')).toContainText('touch the gear')
  await bench.locator('[data-test=stop-2]').click()
  await settled(bench)
  await saved(bench)
  const last = (await storedEvents(shop, number)).map(e => e.body as Record<string, unknown>)
  expect(last.filter(b => b.kind === 'went')).toMatchObject([
    { from: 0, to: expect.any(Number), stop: { sprocket: 3, way: 'spokes', heard: 'slow' } },
  ])
  expect(last.filter(b => b.kind === 'declined')).toMatchObject([{ what: 'sight L' }])
})
