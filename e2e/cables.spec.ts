import type { Page } from '@playwright/test'
import { templateRun } from '#core/cable/templates'
import type { LedgerEvent } from '#core/ledger/events'
import { stockParts } from '#core/rear/typedParts'
import {
  expect,
  handBack,
  makeShop,
  openBench,
  otherDevice,
  saved,
  sender,
  SERVER,
  storedEvents,
  test,
  type TestShop,
} from './shop'

const t = (page: Page, name: string) => page.locator(`[data-test="${name}"]`)
async function openCables(page: Page, number: number): Promise<void> {
  await page.goto(`${SERVER()}/jobs/${number}/cables`)
  await page.waitForSelector('[data-test=panel-pieces]')
}
const kinds = async (shop: TestShop, number: number) =>
  (await storedEvents(shop, number)).map(e => (e.body as LedgerEvent).kind)
const hang = (page: Page, kind: string, lengthMm: number, roll = false) =>
  page.request.post(`${SERVER()}/api/cables/stock`, { data: { kind, lengthMm, roll, label: '' } })

test('a whole new cable inside a frame: laid out from a template, measured, cut from the wall, fitted step by step', async ({
  bench,
  shop,
}) => {
  expect((await hang(bench, 'shift 4 mm', 12_000, true)).ok()).toBe(true)
  expect((await hang(bench, 'shift 4 mm', 220)).ok()).toBe(true)
  const number = await shop.takeIn('41', stockParts('r14-11'))
  await openCables(bench, number)
  let taps = 0
  const tap = async (name: string) => {
    taps++
    await t(bench, name).click()
  }
  await tap('template-internal')
  await expect(t(bench, 'inner-needed')).toContainText('take 2100')
  await expect(t(bench, 'length-last loop')).toContainText('±40 mm, usual of such bikes: Inside the frame')
  await tap('piece-last loop')
  await bench.getByLabel('Length, mm').fill('0')
  await t(bench, 'save-piece').click()
  await expect(bench.getByText('Housing: at least 1 mm')).toBeVisible()
  await bench.getByLabel('Length, mm').fill('212')
  // news of the job while a figure is typed leaves it alone
  const send = sender(bench, number, await shop.person('Ishbel'))
  expect(await send({ kind: 'turn', screw: 'B', sixteenths: 2 })).toMatchObject({ is: 'stored' })
  await expect(t(bench, 'part-rear')).toContainText('in hand') // the news is here
  await expect(bench.getByLabel('Length, mm')).toHaveValue('212')
  // a typed length claims nothing until somebody says where it was read
  await expect(t(bench, 'read-by')).toHaveValue('guess')
  await t(bench, 'read-by').selectOption('old')
  await bench.getByLabel('Why that').fill('straight into its stop')
  await t(bench, 'bare-to').click()
  await tap('save-piece')
  await expect(t(bench, 'piece-last loop')).toContainText('212 mm')
  await t(bench, 'condition-gritty').click()
  // the whole inner: what lies in the lever and to the bolt counts, usual until it is typed
  await expect(t(bench, 'small-parts')).toContainText('3 ferrules')
  const needed = async () => Number.parseInt((await t(bench, 'inner-needed').textContent())!)
  const usual = await needed()
  await t(bench, 'inner-ends').click()
  await bench.getByLabel('Stop to bolt').fill('-1')
  await t(bench, 'keep-ends').click()
  await expect(bench.getByText('Last stop to bolt: not negative')).toBeVisible()
  await bench.getByLabel('Stop to bolt').fill('255')
  await t(bench, 'keep-ends').click()
  await expect.poll(needed).toBe(usual + 200)

  // friction: what the bends cost and what a new wire would gain
  await t(bench, 'panel-friction').click()
  await expect(t(bench, 'backlash')).toContainText('no clean window')
  await expect(bench.getByText('New wire and liner')).toBeVisible()
  await expect(bench.getByText('Nothing has been heard on this bike yet')).toBeVisible()

  // cut list: the offcut that fits is used, the rest from the roll; what is left hangs on the wall again
  await tap('panel-cut')
  await tap('work-out')
  const plan = t(bench, 'plan')
  await expect(plan).toContainText('offcut, 220 mm')
  await expect(plan).toContainText('last loop 212')
  await expect(plan).toContainText('roll, 12000 mm')
  await expect(plan).toContainText('11558 mm left, back on the wall')
  await expect(plan).toContainText('mm unusable')
  await t(bench, 'pick-list').click()
  await expect(t(bench, 'picks')).toContainText('1 × shift inner')
  await expect(t(bench, 'picks')).toContainText('small cylinder; 41 rear derailleur')
  await t(bench, 'pick-list').click()
  const wall = async () => {
    const there = (await (await bench.request.get(`${SERVER()}/api/cables/stock`)).json()) as {
      lengthMm: number
      roll: boolean
    }[]
    return there.map(s => [s.lengthMm, s.roll])
  }
  // its answer is lost on the way: cut again, it is the same cut
  await bench.route(
    '**/api/cables/cut',
    async route => {
      await route.fetch()
      await route.abort()
    },
    { times: 1 },
  )
  await t(bench, 'cut-done').click()
  await expect(t(bench, 'cut-trouble')).toContainText('again')
  expect(await wall()).toEqual([[11558, true]])
  await tap('cut-done')
  await expect(t(bench, 'cut-said')).toBeVisible()
  await expect(t(bench, 'cut-trouble')).toHaveCount(0)
  expect(await wall()).toEqual([[11558, true]])
  // not cut after all: the wall as it was, and the step taken back; then it is cut
  await t(bench, 'taken').click()
  await t(bench, 'put-back').first().click()
  await expect(t(bench, 'cut-said')).toContainText('the runs are to be cut')
  expect((await wall()).sort()).toEqual([
    [12000, true],
    [220, false],
  ])
  await t(bench, 'work-out').click()
  await t(bench, 'cut-done').click()
  await expect(t(bench, 'cut-said')).toContainText('hangs on the wall again')
  expect(await wall()).toEqual([[11558, true]])

  // the job itself, one touch a step; the advice then starts from a new cable
  await tap('panel-steps')
  await expect(bench.getByText('goggles on').first()).toBeVisible()
  await expect(t(bench, 'step-bedded')).toBeDisabled() // L has not been seen
  for (const step of [
    'old-out',
    'adjusters',
    'liner',
    'ferrules',
    'fed',
    'seated',
    'dry',
    'tugged',
    'barrels',
    'groove',
    'clamped',
    'capped',
  ])
    await tap(`step-${step}`)
  console.log(`internal bike, rear derailleur cable new: ${taps} taps and one figure`)
  await expect(t(bench, 'step-greased')).toHaveCount(0) // the other school of that step
  await expect(t(bench, 'step-released')).toHaveCount(0)
  await expect.poll(async () => (await kinds(shop, number)).filter(k => k === 'cabled').length).toBe(14) // cut twice, once taken back
  const laid = (await storedEvents(shop, number)).map(e => e.body as LedgerEvent).findLast(e => e.kind === 'run')
  expect(laid?.kind === 'run' && laid.run.pieces.at(-1)).toMatchObject({
    lengthMm: 212,
    read: { by: 'old', why: 'straight into its stop' },
  })
  await openBench(bench, number)
  await expect(t(bench, 'cause-friction')).toBeVisible()
  await bench.goto(`${SERVER()}/jobs/${number}/stage/cable`)
  await t(bench, 'cable-pieces').click()
  await expect(t(bench, 'pieces-laid')).toBeVisible() // one place for a run's pieces
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'paper')).toContainText('Rear derailleur run')
  await expect(t(bench, 'paper')).toContainText('last loop 212 mm (old piece), renewed, run dry')
  await expect(t(bench, 'paper')).toContainText('Cable and housing renewed') // one touch, one entry, and the rear knows

  // take back the last touch
  await openCables(bench, number)
  await t(bench, 'undo').click()
  await t(bench, 'panel-steps').click()
  await expect(t(bench, 'step-capped')).toBeEnabled()
})

test('shift housing on a brake is refused, in the page and by the server; a brake whose end is bare does not leave', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('42')
  await openCables(bench, number)
  await t(bench, 'run-front-brake').click()
  await t(bench, 'template-external').click()
  await t(bench, 'piece-lever to brake').click()
  await t(bench, 'housing-kind').selectOption('shift 4 mm')
  await expect(t(bench, 'refused-housing')).toContainText('can burst in an emergency stop')
  await expect(t(bench, 'save-piece')).toBeDisabled()
  await t(bench, 'housing-kind').selectOption('compressionless')
  await expect(t(bench, 'refused-housing')).toContainText('not rated for brakes')
  await t(bench, 'housing-kind').selectOption('compressionless, rated for brakes')
  await t(bench, 'save-piece').click()

  const run = templateRun('external', 'front-brake')
  const send = sender(bench, number, await shop.person('Ishbel'))
  expect(
    await send({ kind: 'run', run: { ...run, pieces: run.pieces.map(p => ({ ...p, of: 'shift 4 mm' })) } }),
  ).toMatchObject({ is: 'refused', message: expect.stringContaining('burst') })
  expect(await send({ kind: 'run', run: { ...run, pieces: [run.pieces[0], run.pieces[0]] } })).toMatchObject({
    is: 'refused',
    message: expect.stringContaining('Two pieces are called'),
  })

  await t(bench, 'panel-steps').click()
  await expect(t(bench, 'step-released')).toBeVisible() // a release lever is shut before the clamp
  await t(bench, 'step-clamped').click()
  await saved(bench)
  for (const brake of ['front', 'rear'])
    expect(await send({ kind: 'proof', brake, holds: true })).toMatchObject({ is: 'stored' })
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'stays')).toContainText('end is not capped')
  const back = await handBack(bench, number)
  expect(back.status()).toBe(409)
  await openCables(bench, number)
  await t(bench, 'run-front-brake').click()
  await t(bench, 'panel-steps').click()
  await t(bench, 'step-capped').click()
  await saved(bench)
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'hand-back')).toBeEnabled()
})

test('the loop at the bars: found, judged at both locks, taken for a piece; one that cannot exist says why', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('43')
  await openCables(bench, number)
  await t(bench, 'template-external').click()
  await t(bench, 'panel-loop').click()
  await expect(t(bench, 'loop-length')).toContainText(/\d{3} mm of housing/)
  const found = Number.parseInt((await t(bench, 'loop-length').textContent())!)
  for (const lock of ['straight', 'left', 'right']) await expect(t(bench, `pose-${lock}`)).toContainText('bends to')
  await t(bench, 'loop-given').fill('260')
  await expect(t(bench, 'pose-left')).toContainText('pulls') // the lever is on the right
  await t(bench, 'lever-left').click()
  await expect(t(bench, 'pose-right')).toContainText('pulls')
  await t(bench, 'lever-right').click()
  await t(bench, 'loop-given').fill('')
  await t(bench, 'take-lever loop').click()
  await expect(t(bench, 'piece-lever loop')).toHaveCount(0) // the list is behind the drawing
  await t(bench, 'panel-pieces').click()
  await expect(t(bench, 'piece-lever loop')).toContainText(`${found} mm`)
  await t(bench, 'panel-loop').click()
  await t(bench, 'tape').click()
  await bench.getByLabel('Head angle, °').fill('0')
  await expect(t(bench, 'loop-trouble')).toContainText('Head angle: from 45 to 90')
  await bench.getByLabel('Head angle, °').fill('72')
  for (const [label, value] of [
    ['Lever’s exit, to the side', '22'],
    ['before the axis', '-70'],
    ['above it', '-60'],
  ] as const)
    await bench.getByLabel(label).fill(value) // on top of the stop
  await expect(t(bench, 'loop-trouble')).toContainText('no such loop exists')

  // a front brake's run turns with the bars; which side its lever is on is asked
  await t(bench, 'run-front-brake').click()
  await expect(t(bench, 'loop-trouble')).toContainText('say which side of the bars')
  await t(bench, 'lever-left').click()
  await expect(t(bench, 'pose-straight')).toContainText('bends to')
  await expect(t(bench, 'pose-left')).toHaveCount(0)
  await t(bench, 'end-frame').click()
  await expect(t(bench, 'pose-left')).toBeVisible()
  await t(bench, 'run-rear').click()

  // across a rear pivot, from extended to full travel
  await t(bench, 'loop-suspension').click()
  for (const pose of ['extended', 'sagged', 'full-travel'])
    await expect(t(bench, `pose-${pose}`)).toContainText('bends to')
  await t(bench, 'pose-full-travel').click()
  await expect(bench.getByRole('img', { name: /arm 19° up/ })).toBeVisible()
  await bench.getByLabel('Travel at the axle').fill('900')
  await expect(t(bench, 'loop-trouble')).toContainText('Travel at the axle, mm: from 0 to 260')
})

test("a batch for all open bikes; two tablets cannot cut the same offcut; templates and the wall are the shop's own", async ({
  bench,
  shop,
  browser,
}) => {
  const [a, b] = [await shop.takeIn('44'), await shop.takeIn('45')]
  await openCables(bench, a)
  await t(bench, 'template-long').click()
  await bench.getByText('Keep as a template').click()
  await bench.getByLabel('Name of the template').fill('Parcel long')
  await t(bench, 'keep-template').click()
  await expect(bench.getByText('Kept as Parcel long').first()).toBeVisible()
  await openCables(bench, b)
  await bench.getByRole('button', { name: 'Parcel long' }).click()
  await t(bench, 'panel-cut').click()
  await expect(bench.getByText('Nothing hangs there yet.')).toBeVisible()
  await bench
    .locator('form', { has: t(bench, 'stock-add') })
    .getByLabel('Length, mm')
    .fill('-5')
  await t(bench, 'stock-add').click()
  await expect(bench.getByText('Length: at least 1 mm')).toBeVisible()
  await bench
    .locator('form', { has: t(bench, 'stock-add') })
    .getByLabel('Length, mm')
    .fill('1500')
  await t(bench, 'stock-add').click()
  await expect(t(bench, 'wall')).toContainText('On the wall, 1')
  await t(bench, 'cut-all').click()
  await expect(bench.getByText('44 rear derailleur, lever loop')).toBeVisible()
  await t(bench, 'work-out').click()
  await expect(t(bench, 'short')).toContainText('To order') // 1610 mm are wanted, 1500 are there

  // another tablet cuts it first
  const other = await otherDevice(browser, shop, 'Moss')
  const [roll] = (await (await other.page.request.get(`${SERVER()}/api/cables/stock`)).json()) as {
    id: string
    lengthMm: number
  }[]
  expect(
    (
      await other.page.request.post(`${SERVER()}/api/cables/cut`, {
        data: { cuts: [{ id: roll.id, lengthMm: 1500, keptMm: 700 }] },
      })
    ).ok(),
  ).toBe(true)
  await t(bench, 'cut-done').click()
  await expect(t(bench, 'cut-trouble')).toContainText('work the list out again')
  await expect(t(bench, 'wall')).toContainText('On the wall, 1') // as it is now
  await other.context.close()

  // nonsense and another shop
  const post = (data: unknown) => bench.request.post(`${SERVER()}/api/cables/cut`, { data })
  expect((await post({ cuts: [{ id: roll.id, lengthMm: 1500, keptMm: 2000 }] })).status()).toBe(400)
  expect((await hang(bench, 'garden hose', 500)).status()).toBe(400)
  const theirs = await otherDevice(browser, await makeShop(shop.db))
  expect(await (await theirs.page.request.get(`${SERVER()}/api/cables/stock`)).json()).toEqual([])
  expect(await (await theirs.page.request.get(`${SERVER()}/api/cables/templates`)).json()).toEqual([])
  const [left] = (await (await bench.request.get(`${SERVER()}/api/cables/stock`)).json()) as {
    id: string
    lengthMm: number
  }[]
  expect((await theirs.page.request.delete(`${SERVER()}/api/cables/stock/${left.id}`)).status()).toBe(404)
  expect(
    (
      await theirs.page.request.post(`${SERVER()}/api/cables/cut`, {
        data: { cuts: [{ id: left.id, lengthMm: left.lengthMm, keptMm: 0 }] },
      })
    ).status(),
  ).toBe(409)
  await theirs.context.close()
})

test('a cargo bike, both rear runs new: taps counted, labels printed, photographed as found; next visit starts from what left', async ({
  bench,
  shop,
  browser,
}) => {
  expect((await hang(bench, 'shift 4 mm', 10_000, true)).ok()).toBe(true)
  expect((await hang(bench, 'brake 5 mm', 10_000, true)).ok()).toBe(true)
  const number = await shop.takeIn('46', stockParts('r11-9'))
  await openCables(bench, number)
  let taps = 0
  const tap = async (name: string) => {
    taps++
    await t(bench, name).click()
  }
  for (const run of ['rear', 'rear-brake']) {
    if (run !== 'rear') await tap(`run-${run}`)
    await tap('template-long')
    await expect(t(bench, 'piece-lever loop')).toBeVisible()
  }
  await expect(t(bench, 'inner-needed')).toContainText('take 3500')
  await tap('panel-cut')
  await tap('work-out')
  await expect(t(bench, 'plan')).toHaveCount(2)
  // what another tablet notes at another bench takes no plan away
  await sender(bench, number, await shop.person('Ishbel'))({ kind: 'sight', at: 'L', offsetMm: 0 })
  await expect(bench.getByRole('link', { name: /^Rear ,/ })).not.toContainText('untouched')
  await expect(t(bench, 'plan')).toHaveCount(2)

  // labels: one for each piece, and nothing else on the paper
  await bench.emulateMedia({ media: 'print' })
  const labels = bench.getByLabel('Labels').getByRole('listitem')
  await expect(labels).toHaveCount(4)
  await expect(labels.filter({ hasText: '46 rear brake, to the brake' })).toContainText('320 mm')
  await expect(t(bench, 'work-out')).toBeHidden()
  await bench.emulateMedia({ media: 'screen' })
  await tap('cut-done')
  await expect(t(bench, 'cut-said')).toBeVisible()

  await tap('panel-steps')
  // the picture shrunk on the tablet; what is no picture is refused there and by the server
  await t(bench, 'photo-take').setInputFiles({
    name: 'notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('no picture'),
  })
  await expect(t(bench, 'photo-trouble')).toContainText('not a picture')
  await t(bench, 'photo-take').setInputFiles('docs/screenshots/cables.png')
  await expect(t(bench, 'photo')).toHaveCount(1)
  await expect.poll(() => t(bench, 'photo').evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(1280)
  const photos = `${SERVER()}/api/jobs/${number}/photos`
  const post = (data: Buffer, of = 'rear') =>
    bench.request.post(`${photos}?of=${of}`, { headers: { 'content-type': 'image/jpeg' }, data })
  expect((await post(Buffer.from('<script>'))).status()).toBe(400)
  expect((await post(Buffer.alloc(4 * 1024 * 1024, 1))).status()).toBe(413)
  expect((await post(Buffer.from([0xff, 0xd8, 0xff, 0]), 'garden')).status()).toBe(400)
  const [kept] = (await (await bench.request.get(photos)).json()) as { id: string }[]
  const theirs = await otherDevice(browser, await makeShop(shop.db))
  expect((await theirs.page.request.get(`${photos}/${kept!.id}`)).status()).toBe(404)
  await theirs.context.close()

  for (const run of ['rear', 'rear-brake']) {
    await tap(`run-${run}`)
    for (const step of [
      'old-out',
      'adjusters',
      'liner',
      'ferrules',
      'fed',
      'seated',
      'dry',
      'tugged',
      'barrels',
      'groove',
      'clamped',
      'capped',
    ])
      await tap(`step-${step}`)
  }
  console.log(`cargo bike, rear derailleur and rear brake cable new: ${taps} taps`)
  await expect.poll(async () => (await kinds(shop, number)).filter(k => k === 'cabled').length).toBe(26)
  const send = sender(bench, number, await shop.person('Ishbel'))
  for (const brake of ['front', 'rear'])
    expect(await send({ kind: 'proof', brake, holds: true })).toMatchObject({ is: 'stored' })
  expect((await handBack(bench, number)).ok()).toBe(true)

  const [found] = (await (await bench.request.get(`${SERVER()}/api/bikes?q=F-46`)).json()) as {
    bike: { id: string }
    customer: { id: string }
  }[]
  const again = await bench.request.post(`${SERVER()}/api/jobs`, {
    data: {
      customer: { id: found!.customer.id },
      bike: { id: found!.bike.id },
      tag: '46',
      promisedAt: new Date().toISOString(),
      complaint: 'three weeks later',
      parts: stockParts('r11-9'),
      sameParts: true,
    },
  })
  expect(again.ok()).toBe(true)
  await openCables(bench, ((await again.json()) as { number: number }).number)
  await t(bench, 'run-rear-brake').click()
  await t(bench, 'template-last').click()
  await expect(t(bench, 'piece-to the brake')).toContainText('320 mm')
})
