import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { sql } from 'kysely'
import { inShop } from '../server/db/connect'
import {
  expect,
  handBack,
  openBench,
  otherDevice,
  ready,
  saved,
  sender,
  SERVER,
  storedEvents,
  test,
  type TestShop,
} from './shop'

/*
 * A bike leaves only when it may: by page, by request, by two at once, after undo, offline, reopened, from a later
 * version.
 */

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)
const sheetPage = (page: Page, number: number) => page.goto(`${SERVER()}/jobs/${number}/sheet`)
const kinds = async (shop: TestShop, number: number) =>
  (await storedEvents(shop, number)).map(e => (e.body as { kind: string }).kind)
/** A bike without a derailleur whose brakes hold. */
async function proven(page: Page, shop: TestShop, tag: string, derailleur = false) {
  const number = derailleur ? await shop.takeIn(tag) : await shop.takeIn(tag, null)
  const send = sender(page, number, await shop.person('Ishbel'))
  for (const brake of ['front', 'rear']) await send({ kind: 'proof', brake, holds: true })
  return { number, send }
}
/** Nobody has tapped on any device of the shop for an hour. */
const anHourLater = (shop: TestShop) =>
  inShop(shop.db, shop.id, tx => sql`update unlock set last_tap_at = now() - interval '1 hour'`.execute(tx))
/** As a server of next year would have written it. */
const writeLater = (shop: TestShop, number: number, by: string) =>
  inShop(shop.db, shop.id, tx =>
    sql`select * from append_events(${shop.id}, ${number}, null, ${JSON.stringify([
      {
        ...{ id: randomUUID(), v: 99, at: new Date().toISOString(), basedOn: 1, by, verified: true, signedBy: null },
        event: { kind: 'of-next-year', what: 1 },
        needs: 0,
      },
    ])}::jsonb, true)`.execute(tx),
  )

test('asked by three tablets at once, and by the page besides: one sheet, one recall, one entry', async ({
  bench,
  shop,
  browser,
}) => {
  const { number } = await proven(bench, shop, '1', true)
  const other = await otherDevice(browser, shop, 'Moss')
  await sheetPage(bench, number)
  await expect(t(bench, 'hand-back')).toBeEnabled()
  const [, ...answers] = await Promise.all([
    t(bench, 'hand-back').click(),
    handBack(bench, number),
    handBack(other.page, number),
    handBack(other.page, number),
  ])
  await expect(t(bench, 'handed-back')).toHaveText('Handed back')
  const sheets = await Promise.all(answers.map(a => a.json() as Promise<{ closedAt: string }>))
  expect(new Set(sheets.map(s => s.closedAt)).size).toBe(1)
  expect((await kinds(shop, number)).filter(k => k === 'handedBack')).toHaveLength(1)
  const rows = await inShop(shop.db, shop.id, async tx => [
    await tx.selectFrom('sheet').select('id').execute(),
    await tx.selectFrom('recall').select('id').execute(),
  ])
  expect(rows.map(r => r.length)).toEqual([1, 1])
  await other.context.close()
})

test('what a later version noted keeps the bike, by page and by request', async ({ bench, shop }) => {
  const { number, send } = await proven(bench, shop, '2')
  await writeLater(shop, number, await shop.person('Ishbel'))
  await sheetPage(bench, number)
  await expect(t(bench, 'stays')).toContainText('reload to update')
  await expect(t(bench, 'hand-back')).toBeDisabled()
  await t(bench, 'unridable').click()
  await expect(t(bench, 'unridable-sure')).toBeDisabled()
  for (const how of ['proven', 'unridable']) {
    const answer = await handBack(bench, number, { how })
    expect([answer.status(), await answer.text()]).toEqual([409, expect.stringContaining('reload to update')])
  }
  expect(await send({ kind: 'proof', brake: 'rear', holds: true })).toMatchObject({ is: 'refused' })
  expect(await send({ kind: 'placed', where: 'door', stand: null })).toMatchObject({ is: 'refused' })
})

test('taking a proof back is signed: not by a trainee, with a PIN after a while, never what closed or opened', async ({
  bench,
  shop,
  browser,
}) => {
  const { number, send } = await proven(bench, shop, '3')
  const [, front] = await storedEvents(shop, number)
  const other = await otherDevice(browser, shop, 'Moss')
  const wren = await shop.person('Wren')
  await other.page.request.post(`${SERVER()}/api/session/person`, { data: { person: wren, pin: '4242' } })
  const asWren = sender(other.page, number, wren)
  const undo = (undoes: string) => ({ kind: 'undo', undoes })
  expect(await asWren(undo(front!.id))).toMatchObject({ is: 'refused', field: 'sign' })
  // nor by tapping a mechanic's name on the trainee's device
  const asIshbel = sender(other.page, number, await shop.person('Ishbel'))
  expect(await asIshbel(undo(front!.id))).toMatchObject({ is: 'refused', field: 'sign' })
  expect(await asIshbel({ kind: 'proof', brake: 'front', holds: true })).toMatchObject({ is: 'refused', field: 'sign' })

  await anHourLater(shop)
  await bench.goto(`${SERVER()}/jobs/${number}/brakes`)
  await t(bench, 'undo').click()
  await expect(t(bench, 'signing')).toContainText('Taken back: Rear brake holds') // what is signed, not only why
  await t(bench, 'pin').fill('2468')
  await t(bench, 'pin-done').click()
  await expect(t(bench, 'proof-of-rear')).toContainText('not proven')
  await expect.poll(async () => (await kinds(shop, number)).at(-1)).toBe('undo')
  const taken = (await storedEvents(shop, number)).at(-1)!
  expect(await asWren(undo(taken.id))).toMatchObject({ is: 'refused', field: 'sign' }) // an undo of an undo
  const ishbel = await shop.person('Ishbel')
  await bench.request.post(`${SERVER()}/api/session/person`, { data: { person: ishbel, pin: '2468' } })
  expect(await send(undo(taken.id))).toMatchObject({ is: 'stored' })
  expect(await (await handBack(bench, number)).text()).toContain('closedAt')
  const out = (await storedEvents(shop, number)).at(-1)!
  const cannot = await send(undo(out.id))
  expect([cannot.is, cannot.message]).toEqual(['refused', expect.stringContaining('reopen')])
  await other.context.close()
})

test('a closed job takes nothing until it is reopened; what fails afterwards stands on the Floor in brick', async ({
  bench,
  shop,
}) => {
  const { number, send } = await proven(bench, shop, '4')
  expect((await handBack(bench, number)).ok()).toBe(true)
  expect(await send({ kind: 'placed', where: 'stand', stand: 1 })).toMatchObject({ is: 'refused', field: 'where' })
  expect(
    await send({ kind: 'brakeParts', parts: { brake: 'front', kind: 'drum', lever: null, leverSide: null } }),
  ).toMatchObject({ is: 'refused', message: 'This job is closed: reopen it first' })
  const note = await bench.request.post(`${SERVER()}/api/jobs/${number}/notes`, { data: { text: 'late' } })
  const photo = await bench.request.post(`${SERVER()}/api/jobs/${number}/photos?of=rear`, {
    headers: { 'content-type': 'image/png' },
    data: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  })
  for (const answer of [note, photo])
    expect([answer.status(), await answer.text()]).toEqual([409, expect.stringContaining('reopen it first')])
  // found by a colleague after it left
  expect(await send({ kind: 'proof', brake: 'rear', holds: false })).toMatchObject({ is: 'stored' })
  await bench.goto(SERVER())
  await expect(t(bench, 'call-4')).toContainText('Call the customer')
  await expect(t(bench, 'call-4')).toContainText('rear brake failed its proof')
  await t(bench, 'call-4').click()
  await expect(t(bench, 'call')).toContainText('Call the customer')
  // reopened it proves nothing
  await t(bench, 'reopen').click()
  await expect(t(bench, 'stays')).toContainText('front brake not proven')
  await expect(t(bench, 'hand-back')).toBeDisabled()
  await bench.goto(SERVER())
  await ready(bench)
  await expect(t(bench, 'call-4')).toHaveCount(0)
})

test('rideable with a fault its customer declined: brakes proven first, the fault on top, and how to get home', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('5')
  await sheetPage(bench, number)
  await t(bench, 'declined').click()
  await t(bench, 'fault-hanger').click()
  await expect(t(bench, 'get-home')).toContainText('stops are to be wound in')
  await expect(t(bench, 'declined-shut')).toContainText('brake not proven')
  await expect(t(bench, 'declined-sure')).toBeDisabled()
  expect((await handBack(bench, number, { how: 'declined', fault: 'hanger' })).status()).toBe(409)
  await t(bench, 'front-holds').click()
  await t(bench, 'rear-holds').click()
  await expect(t(bench, 'declined-shut')).toHaveCount(0)
  await t(bench, 'declined-sure').click()
  await expect(t(bench, 'handed-back')).toHaveText('Left rideable, a repair declined')
  await expect(t(bench, 'paper')).toContainText('Rideable, but: bent hanger')
  await expect(t(bench, 'paper')).toContainText('stops are to be wound in')
  await bench.goto(SERVER())
  await expect(bench.getByText('bent hanger').first()).toBeVisible()
  // not named, of something it does not have, or no fault at all: refused in words
  const bare = await proven(bench, shop, '6')
  for (const order of [{ how: 'declined' }, { how: 'declined', fault: 'hanger' }, { how: 'declined', fault: 'brakes' }])
    expect((await handBack(bench, bare.number, order)).status()).toBeGreaterThanOrEqual(400)
  // what leaves unridable is told nothing of riding
  const whole = await shop.takeIn('7')
  await sheetPage(bench, whole)
  await t(bench, 'unridable').click()
  await t(bench, 'unridable-sure').click()
  await expect(t(bench, 'paper')).toContainText('Not to be ridden')
  await expect(t(bench, 'paper')).not.toContainText('get home')
})

test('every bike can tell the truth: a coaster alone, a hydraulic disc that leaks, one that holds', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('8', null)
  await bench.goto(`${SERVER()}/jobs/${number}/brakes`)
  await t(bench, 'kind-none').click()
  await t(bench, 'none-coaster').click()
  await expect(t(bench, 'proof-of-front')).toContainText('none')
  await t(bench, 'brake-rear').click()
  await t(bench, 'kind-coaster').click()
  await t(bench, 'prove-holds').click()
  await expect(t(bench, 'proof-of-rear')).toContainText('holds')
  await saved(bench)
  expect((await handBack(bench, number)).ok()).toBe(true)

  const disc = await shop.takeIn('9', null)
  await bench.goto(`${SERVER()}/jobs/${disc}/brakes`)
  await t(bench, 'kind-hydraulic-disc').click()
  await t(bench, 'panel-find').click()
  await expect(t(bench, 'not-diagnosed')).toBeVisible()
  await t(bench, 'saw-leaks').click()
  await saved(bench)
  const send = sender(bench, disc, await shop.person('Ishbel'))
  expect(await send({ kind: 'proof', brake: 'front', holds: true })).toMatchObject({ is: 'refused' })
  await send({ kind: 'proof', brake: 'rear', holds: true })
  expect(await (await handBack(bench, disc)).text()).toContain('front brake')
})

test('a wheel that was out, pads touched, a look that is wrong: the proof is gone, whoever noted it and wherever', async ({
  bench,
  shop,
}) => {
  const { number, send } = await proven(bench, shop, '10')
  await bench.goto(`${SERVER()}/jobs/${number}/brakes`)
  const states = t(bench, 'proof-of-front')
  await t(bench, 'kind-linear-pull').click()
  await saved(bench)
  await expect(states).toContainText('not proven') // it is another brake now
  for (const touch of [
    { kind: 'wheelOut', wheel: 'front' },
    { kind: 'brakeStep', brake: 'front', step: 'pads' },
    { kind: 'brakeSeen', brake: 'front', check: 'noodle', outcome: 'out' },
  ]) {
    await send({ kind: 'brakeCured', brake: 'front', fault: 'noodle-out' })
    expect(await send({ kind: 'proof', brake: 'front', holds: true })).toMatchObject({ is: 'stored' })
    await expect(states).toContainText('holds')
    expect(await send(touch)).toMatchObject({ is: 'stored' })
    await expect(states).not.toContainText('holds')
    expect((await handBack(bench, number)).status()).toBe(409)
  }
})

test('the largest sprocket is out of reach until L is seen, and again after a new hanger', async ({ bench, shop }) => {
  const number = await shop.takeIn('11')
  await openBench(bench, number)
  const largest = t(bench, 'lane-9')
  await expect(largest).toBeDisabled()
  const send = sender(bench, number, await shop.person('Ishbel'))
  await send({ kind: 'sight', at: 'L', offsetMm: 0 })
  await expect(largest).toBeEnabled()
  await send({ kind: 'replace', part: 'hanger' })
  await expect(largest).toBeDisabled()
  // said all the same, by a tablet that was offline: kept, and asked about
  expect(await send({ kind: 'shift', from: 0, to: 9, heard: 'clean' })).toMatchObject({ is: 'stored' })
  await expect(t(bench, 'flagged')).toContainText('before L was seen')
})

test('a proof tapped offline and sent an hour later asks for its hand anew, and nothing is lost with it', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('12', null)
  await sheetPage(bench, number)
  await expect(t(bench, 'stays')).toBeVisible()
  await bench.route('**/events', r => r.abort())
  await t(bench, 'front-holds').click()
  await expect(t(bench, 'offline')).toBeVisible()
  await anHourLater(shop)
  await bench.unroute('**/events')
  await expect(t(bench, 'signing')).toContainText('Front brake holds')
  expect(await kinds(shop, number)).toEqual(['arrived'])
  await t(bench, 'pin').fill('2468')
  await t(bench, 'pin-done').click()
  await expect(t(bench, 'proof-front')).toContainText('holds')
  await expect.poll(() => kinds(shop, number)).toEqual(['arrived', 'proof'])
})

test('a proof from before the pads were changed elsewhere is none, and is asked for once more', async ({
  bench,
  shop,
}) => {
  const { number, send } = await proven(bench, shop, '13')
  const before = new Date(Date.now() - 60_000).toISOString()
  await send({ kind: 'brakeCured', brake: 'rear', fault: 'pads-worn' })
  expect(await send({ kind: 'proof', brake: 'rear', holds: true }, randomUUID(), before)).toMatchObject({
    is: 'stored',
  })
  expect(await (await handBack(bench, number)).text()).toContain('rear brake not proven')
  await bench.goto(`${SERVER()}/jobs/${number}/brakes`)
  await expect(t(bench, 'flagged')).toContainText('try it once more')
  await expect(t(bench, 'proof-of-rear')).toContainText('not proven')
  await send({ kind: 'proof', brake: 'rear', holds: true })
  await expect(t(bench, 'proof-of-rear')).toContainText('holds')
  await expect(t(bench, 'flagged')).toHaveCount(0)
  expect((await handBack(bench, number)).status()).toBe(200)
})

test('a crack that was seen is taken back by a mechanic, not by a trainee’s "all fine"', async ({ bench, shop }) => {
  const { number, send } = await proven(bench, shop, '14', true)
  await send({ kind: 'sensed', exceptions: ['cracked'], chainWearPercent: null })
  const wren = await shop.person('Wren')
  await bench.request.post(`${SERVER()}/api/session/person`, { data: { person: wren, pin: '4242' } })
  await bench.goto(`${SERVER()}/jobs/${number}/stage/sense`)
  await t(bench, 'sense-cracked').click()
  await t(bench, 'sense-note').click()
  await expect(t(bench, 'signing')).toContainText('no crack')
  await expect(t(bench, 'sense-noted')).toHaveText('Sense check, not noted yet')
  const asWren = sender(bench, number, wren)
  const fine = { kind: 'sensed', exceptions: [], chainWearPercent: null }
  expect(await asWren(fine)).toMatchObject({ is: 'refused', field: 'sign' })
  await t(bench, 'sign-Ishbel').click()
  await t(bench, 'pin').fill('2468')
  await t(bench, 'pin-done').click()
  await expect(t(bench, 'sense-noted')).toHaveText('Sense check, noted')
  await expect
    .poll(async () => (await storedEvents(shop, number)).at(-1))
    .toMatchObject({ signed_by: expect.any(String) })
  // which others are not fine is anybody's
  expect(await asWren({ ...fine, exceptions: ['worn'] })).toMatchObject({ is: 'stored' })
})
