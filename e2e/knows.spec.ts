import { randomUUID } from 'node:crypto'
import ICAL from 'ical.js'
import { readFileSync } from 'node:fs'
import { expect, otherDevice, ready, saved, SERVER, settled, storedEvents, still, test, makeShop } from './shop'
import { stockParts } from '#core/rear/typedParts'
import { inShop } from '../server/db/connect'
import { jobByNumber, takeIn } from '../server/db/jobs'
import { BRAKES_HOLD } from '../server/db/testShop'
import type { Page } from '@playwright/test'

/*
 * What one bike taught the shop reaches the next: lengths offered, a recall told and answered, a setup read elsewhere.
 */

const t = (page: Page, name: string) => page.locator(`[data-test=${name}]`)
const own = (event: object, by: string) => ({
  id: randomUUID(),
  v: 1,
  at: new Date().toISOString(),
  basedOn: 1,
  by,
  event,
})

test('how much it is ridden, said on the visit before, stands beside that answer at the next new run', async ({
  bench,
  shop,
}) => {
  const ishbel = await shop.person('Ishbel')
  const number = await shop.takeIn('64')
  const put = async (job: number, ...events: object[]) => {
    const entries = events.map(e => own(e, ishbel))
    expect((await bench.request.post(`${SERVER()}/api/jobs/${job}/events`, { data: { entries } })).ok()).toBe(true)
  }
  const newRun = { kind: 'replace', part: 'cable' }
  await put(number, newRun, { kind: 'ridden', how: 'weekly' }, ...BRAKES_HOLD)
  const left = await bench.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
    data: { id: randomUUID(), basedOn: 1, how: 'proven', fault: null },
  })
  expect(left.ok(), await left.text()).toBe(true)
  const bike = await inShop(shop.db, shop.id, async tx => (await jobByNumber(tx, shop.id, number))!.bike_id)
  const again = await takeIn(shop.db, shop.id, ishbel, null, {
    customer: { name: '', contact: '' },
    bike: { id: bike },
    tag: '65',
    promisedAt: new Date(Date.now() + 86_400_000).toISOString(),
    complaint: 'slack again',
    parts: stockParts('r14-10'),
    sameParts: true,
  })
  await put(again, newRun)
  await bench.goto(`${SERVER()}/jobs/${again}/stage/prove`)
  await expect(t(bench, 'ridden-asked')).toHaveText('How much is it ridden? Last time: weekly.')
  // offered, and nothing is taken for granted
  await expect(bench.getByRole('radio', { name: 'Weekly' })).not.toBeChecked()
  await t(bench, 'ridden-weekly').click()
  await saved(bench)
  expect((await storedEvents(shop, again)).at(-1)!.body).toEqual({ kind: 'ridden', how: 'weekly' })
})

test('three bikes of one standard: the third is re-cabled with the lengths of the others, each by one touch', async ({
  bench,
  shop,
}) => {
  test.setTimeout(240_000)
  const ishbel = await shop.person('Ishbel')
  for (const [tag, lever, last] of [
    ['61', 425, 285],
    ['62', 435, 295],
  ] as const) {
    const number = await shop.takeIn(tag)
    const piece = (place: string, lengthMm: number) =>
      own({ kind: 'housing', place, lengthMm, of: '4 mm', ends: 'metal' }, ishbel)
    const entries = [
      own({ kind: 'replace', part: 'cable' }, ishbel),
      piece('lever loop', lever),
      piece('last loop', last),
      own({ kind: 'inner', lengthMm: 2000 + last }, ishbel),
      ...BRAKES_HOLD.map(e => own(e, ishbel)),
    ]
    expect((await bench.request.post(`${SERVER()}/api/jobs/${number}/events`, { data: { entries } })).ok()).toBe(true)
    const left = await bench.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
      data: { id: randomUUID(), basedOn: 1, how: 'proven', fault: null },
    })
    expect(left.ok(), await left.text()).toBe(true)
  }
  const third = await shop.takeIn('63')
  await bench.goto(`${SERVER()}/jobs/${third}/stage/cable`)
  await bench.waitForSelector('.look')
  await bench.getByRole('tab', { name: 'Pieces' }).click()
  let touches = 0
  for (const [place, words, value] of [
    ['last loop', '290 mm (2), all between 285 and 295', '290'],
    ['lever loop', '430 mm (2), all between 425 and 435', '430'],
  ] as const) {
    await bench.getByRole('radio', { name: place }).click()
    const like = bench.locator('form', { has: t(bench, 'housing') }).locator('[data-test=like]')
    await expect(like.locator('[data-test=like-words]')).toHaveText(words)
    await like.locator('[data-test=like-take]').click()
    await expect(t(bench, 'housing')).toHaveValue(value)
    await t(bench, 'housing-note').click()
    touches += 3
    await saved(bench)
  }
  const kept = (await storedEvents(shop, third))
    .map(e => e.body as { kind: string; lengthMm?: number })
    .filter(e => e.kind === 'housing')
  expect(kept.map(e => e.lengthMm)).toEqual([290, 430])
  console.log(`two lengths of such bikes taken and noted: ${touches} touches`)
  // what "like" means is said, and leads to the figures
  await t(bench, 'like-what').first().click()
  await expect(t(bench, 'like-what').first()).toContainText('r14-10')
  await bench.getByRole('link', { name: 'Every figure and its job' }).first().click()
  await expect(t(bench, 'one-figure')).toContainText('Housing, lever loop')
  await t(bench, 'points-q').fill('61')
  await expect(t(bench, 'points').locator('li')).toHaveCount(1)
  await t(bench, 'points-from').fill('2030-01-01')
  await expect(bench.getByText('No such figure in these days')).toBeVisible()
  await t(bench, 'points-all').click()
  await expect(t(bench, 'points').locator('li')).toHaveCount(2)
  const download = bench.waitForEvent('download')
  await t(bench, 'standard-csv').click()
  const csv = readFileSync(await (await download).path(), 'utf8')
  expect(csv.split('\n').filter(l => l.includes('housing last loop'))).toHaveLength(2)
})

test('a recall: written, answered, the rider’s report in the ledger, the bike taken in; its calendar read and ended', async ({
  bench,
  shop,
}) => {
  const ishbel = await shop.person('Ishbel')
  const number = await shop.takeIn('64')
  const entries = [own({ kind: 'replace', part: 'cable' }, ishbel), ...BRAKES_HOLD.map(e => own(e, ishbel))]
  await bench.request.post(`${SERVER()}/api/jobs/${number}/events`, { data: { entries } })
  await bench.request.post(`${SERVER()}/api/jobs/${number}/details`, {
    data: { id: randomUUID(), basedOn: 1, contact: 'hob@quay.example' },
  })
  await bench.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
    data: { id: randomUUID(), basedOn: 1, how: 'proven', fault: null },
  })
  // nobody is written to at night: this shop has no night
  await bench.request.post(`${SERVER()}/api/recalls/desk`, { data: { quietFrom: 0, quietTo: 0, placesADay: 2 } })
  await bench.goto(`${SERVER()}/recalls`)
  await ready(bench)
  const line = t(bench, `recall-${number}`)
  await line.locator('[data-test=recall-open]').click()
  await expect(line.locator('[data-test=recall-why]')).toContainText('had a new gear cable')
  await line.locator('[data-test=recall-write]').click()
  await expect(line.locator('[data-test=message-text]')).toHaveValue(/STOP/)
  await line.locator('[data-test=message-send]').click()
  await expect(line.locator('[data-test=message-state]')).toHaveText('sent')
  await line.locator('[data-test=message-answer]').fill('Friday suits me')
  await line.locator('[data-test=message-answered]').click()
  await expect(line.locator('[data-test=message-state]')).toContainText('answered: “Friday suits me”')
  await line.locator('[data-test=recall-told]').click()
  await line.getByRole('radio', { name: 'slow leaving the smallest' }).click()
  await line.getByRole('radio', { name: '1/4 out' }).click()
  await line.locator('[data-test=told-note]').click()
  await expect(line).toContainText('slow leaving the smallest sprocket')
  expect((await storedEvents(shop, number)).at(-1)!.body).toMatchObject({
    kind: 'riderSaid',
    says: 'slack',
    sixteenths: 4,
  })

  await t(bench, 'make-calendar').click()
  const url = (await t(bench, 'calendar-url').innerText()).trim()
  const outside = await bench.request.fetch(url, { headers: { cookie: '' } })
  expect(outside.headers()['content-type']).toContain('text/calendar')
  const calendar = new ICAL.Component(ICAL.parse(await outside.text()) as unknown[])
  expect(calendar.getAllSubcomponents('vevent')).toHaveLength(1)
  expect(await outside.text()).not.toContain('Hob')
  await t(bench, 'revoke-calendar').click()
  await expect(t(bench, 'revoke-calendar')).toHaveCount(0)
  expect((await bench.request.get(url)).status()).toBe(404)
  expect((await bench.request.get(`${SERVER()}/api/calendar/x`)).status()).toBe(400)

  // it comes: the door takes it from its last sheet, and nobody is asked any more
  await line.getByRole('link', { name: 'The bike' }).click()
  await expect(t(bench, 'bike-recall')).toBeVisible()
  await t(bench, 'start-from-last').click()
  await expect(t(bench, 'known')).toBeVisible()
  await bench.locator('textarea').first().fill('Settle-in recall')
  await expect(t(bench, 'takes')).toContainText('as usual')
  await bench.getByRole('button', { name: 'Hang it on the rail' }).click()
  await bench.waitForURL(/\/jobs\/\d+/)
  await bench.goto(`${SERVER()}/recalls`)
  await ready(bench)
  await expect(bench.getByRole('region', { name: 'Settled this week' })).toContainText('came')
})

test('a setup goes from one shop’s sheet into another’s door; torn and later codes are refused in words', async ({
  bench,
  shop,
  browser,
}) => {
  const ishbel = await shop.person('Ishbel')
  const number = await shop.takeIn('65')
  const entries = [
    own({ kind: 'turn', screw: 'barrel', sixteenths: 6 }, ishbel),
    own({ kind: 'gap', gapMm: 5.5, how: 'measured', at: 'stand' }, ishbel),
    ...BRAKES_HOLD.map(e => own(e, ishbel)),
  ]
  await bench.request.post(`${SERVER()}/api/jobs/${number}/events`, { data: { entries } })
  await bench.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
    data: { id: randomUUID(), basedOn: 1, how: 'proven', fault: null },
  })
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await bench.getByRole('radio', { name: 'For the customer' }).click()
  await expect(t(bench, 'setup-codes')).toContainText('an eighth at a time')
  // as near as a phone is held to the paper
  const image = t(bench, 'setup-codes').locator('img').first()
  await image.evaluate(el => Object.assign(el.style, { width: '640px', height: '640px' }))
  const square = await image.screenshot()

  const other = await otherDevice(browser, await makeShop(shop.db))
  const page = other.page
  await page.goto(`${SERVER()}/take-in`)
  await ready(page)
  await t(page, 'it-has-code').click()
  await t(page, 'code-text').fill('OCHO SETUP 2\nbike x\nend 0000')
  await t(page, 'code-read').click()
  await expect(t(page, 'code-trouble')).toContainText('later Ocho')
  await t(page, 'code-text').fill('a shopping list')
  await t(page, 'code-read').click()
  await expect(t(page, 'code-trouble')).toContainText('no setup of a bike')
  await t(page, 'code-picture').setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: Buffer.from('nothing') })
  await expect(t(page, 'code-trouble')).toContainText('no picture')
  await t(page, 'code-picture').setInputFiles({ name: 'code.png', mimeType: 'image/png', buffer: square })
  await expect(t(page, 'code-setup')).toContainText('5.5 mm')
  await t(page, 'code-take').click()
  await expect(t(page, 'by-code')).toBeVisible()
  await page.getByPlaceholder('Name, phone, bike or frame number').fill('Ada Quill')
  await page.locator('textarea').first().fill('Brought from another shop')
  await page.getByRole('button', { name: 'Hang it on the rail' }).click()
  await page.waitForURL(/\/jobs\/\d+\/rear/)
  await settled(page)
  const log = (await (await page.request.get(`${SERVER()}/api/jobs/1/events?after=0`)).json()) as {
    entries: { event: { kind: string; parts?: { barrel?: { turnsOut: number } } } }[]
  }
  expect(log.entries[0]!.event).toMatchObject({
    kind: 'arrived',
    parts: { cassette: { teeth: [11, 13, 15, 17, 19, 21, 24, 28, 32, 36] } },
  })
  const view = (await (await page.request.get(`${SERVER()}/api/jobs/1`)).json()) as { notes: { text: string }[] }
  expect(view.notes[0]!.text).toContain('B gap 5.5 mm')
  await still(page)
  await other.context.close()
})

test('the owner’s month is counted from jobs, and nobody else sees it', async ({ bench, shop, browser }) => {
  const ishbel = await shop.person('Ishbel')
  const number = await shop.takeIn('66')
  await bench.request.post(`${SERVER()}/api/jobs/${number}/events`, {
    data: {
      entries: [own({ kind: 'turn', screw: 'barrel', sixteenths: 6 }, ishbel), ...BRAKES_HOLD.map(e => own(e, ishbel))],
    },
  })
  await bench.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
    data: { id: randomUUID(), basedOn: 1, how: 'proven', fault: null },
  })
  await bench.goto(`${SERVER()}/month`)
  await ready(bench)
  await expect(t(bench, 'month-jobs')).toHaveText('1')
  await expect(t(bench, 'kinds')).toContainText('gears')
  await t(bench, 'month-before').click()
  await expect(t(bench, 'month-jobs')).toHaveText('0')
  expect((await bench.request.get(`${SERVER()}/api/shop/month?month=2026-13`)).status()).toBe(400)
  const moss = await otherDevice(browser, shop, 'Moss')
  expect((await moss.page.request.get(`${SERVER()}/api/shop/month?month=2026-11`)).status()).toBe(403)
  await moss.context.close()
})
