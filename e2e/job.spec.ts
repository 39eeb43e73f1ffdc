import { expect, handBack, openBench, ready, sender, SERVER, storedEvents, test } from './shop'
import type { Page } from '@playwright/test'

/*
 * A job is one place: every bench in one frame, one touch apart; what was written of it put right; ways it ends
 * otherwise.
 */

const t = (page: Page, id: string) => page.locator(`[data-test="${id}"]`)
const KEPT = ['front-brake', 'front', 'rear', 'cables', 'rear-brake', 'sheet']

test('from any bench any other is one touch away, each part says how it stands, the bike’s name opens the job', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('61')
  await openBench(bench, number)
  await expect(t(bench, 'part-rear')).toHaveAttribute('aria-current', 'page')
  for (const to of [...KEPT].reverse()) {
    await t(bench, `part-${to}`).click()
    await expect(t(bench, `part-${to}`)).toHaveAttribute('aria-current', 'page')
    await expect(bench.locator('nav[aria-label="Parts of this bike"] a[aria-current]')).toHaveCount(1)
  }
  const send = sender(bench, number, await shop.person('Ishbel'))
  await send({ kind: 'proof', brake: 'rear', holds: false })
  await expect(t(bench, 'part-rear-brake')).toContainText('failed')
  await send({ kind: 'proof', brake: 'front', holds: true })
  await expect(t(bench, 'part-front-brake')).toContainText('holds')
  await expect(t(bench, 'part-sheet')).toContainText('1 thing keeps it')
  await t(bench, 'to-job').click()
  await expect(t(bench, 'phone')).toHaveAttribute('href', 'tel:0855550100')
  // a hub where there is no derailleur, and no front
  const hub = await shop.takeIn('62', null)
  await bench.goto(`${SERVER()}/jobs/${hub}`)
  await expect(t(bench, 'part-hub')).toContainText('not said yet')
  await expect(t(bench, 'part-front')).toHaveCount(0)
})

test('what was written at the door is put right, by page and request; nonsense is said at its line; history stays', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('63')
  await shop.takeIn('64')
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await t(bench, 'edit-details').click()
  await bench.getByLabel('Customer').fill(' ')
  await bench.getByLabel('Tag', { exact: true }).fill('64')
  await t(bench, 'edit-promised').fill('2020-01-01T10:00')
  await expect(t(bench, 'past')).toContainText('is it meant?')
  await t(bench, 'details-done').click()
  await expect(bench.getByText('Customer is empty: type it in')).toBeVisible()
  await bench.getByLabel('Customer').fill('Hob "T" <b>Tarrant</b>')
  await t(bench, 'details-done').click()
  await expect(bench.getByText('Tag 64 hangs on open job').first()).toBeVisible()
  await bench.getByLabel('Tag', { exact: true }).fill('65')
  await bench.getByLabel('Phone').fill('none, calls in')
  await t(bench, 'details-done').click()
  await expect(bench.getByRole('heading', { name: 'Tag 65' })).toBeVisible()
  await expect(bench.getByText('Hob "T" <b>Tarrant</b>', { exact: true })).toBeVisible()
  await expect(t(bench, 'phone')).toHaveCount(0)
  await t(bench, 'edits').locator('summary').click()
  await expect(t(bench, 'edits')).toContainText('Hob Tarrant')
  await expect(t(bench, 'ledger')).toContainText('Put right: customer, phone, promise, tag')
  const { body } = (await storedEvents(shop, number)).at(-1)!
  expect(JSON.stringify(body)).not.toContain('Tarrant') // no names in the ledger
  for (const data of [{ tag: 'no spaces here' }, { complaint: '' }, { price: 3 }, { promisedAt: 'soon' }])
    expect(
      (
        await bench.request.post(`${SERVER()}/api/jobs/${number}/details`, {
          data: { id: crypto.randomUUID(), basedOn: 0, ...data },
        })
      ).status(),
    ).toBe(400)
})

test('what it waits for, a line more, the drivetrain chosen again, and one that has a derailleur after all', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('66', null)
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await t(bench, 'waits-word').click()
  await expect(t(bench, 'ledger')).toContainText('Waits for the customer’s word')
  await t(bench, 'write-note').click()
  await t(bench, 'note').fill('Wants a quote first')
  await t(bench, 'note-done').click()
  await expect(bench.getByText('Wants a quote first')).toBeVisible()
  await t(bench, 'choose-parts').click()
  await t(bench, 'sprockets-10').click()
  await t(bench, 'fit-r14-10').click()
  await t(bench, 'take-parts').click()
  await expect(t(bench, 'part-rear')).toBeVisible()
  await openBench(bench, number)
  await expect(t(bench, 'lanes')).toBeVisible()
  await t(bench, 'to-job').click()
  await t(bench, 'undo-parts').click()
  await expect(t(bench, 'part-rear')).toHaveCount(0)
})

test('fetched unrepaired, or cancelled: asked once more with the reason, nothing said to hold, and reopened', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('67', null)
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await t(bench, 'unrepaired').click()
  await t(bench, 'end-sure').click()
  await expect(bench.getByText('Note is empty: type it in')).toBeVisible()
  await t(bench, 'why').fill('too dear')
  // its reason is written once, however often it is asked
  const ends = `**/api/jobs/${number}/hand-back`
  await bench.route(ends, route => route.fulfill({ status: 500, json: {} }), { times: 1 })
  await t(bench, 'end-sure').click()
  await expect(bench.getByText('Something went wrong on the server: try again')).toBeVisible()
  await t(bench, 'end-sure').click()
  await expect(t(bench, 'closed')).toBeVisible()
  const { notes } = (await (await bench.request.get(`${SERVER()}/api/jobs/${number}`)).json()) as {
    notes: { text: string }[]
  }
  expect(notes.map(n => n.text)).toEqual(['too dear'])
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'handed-back')).toHaveText('Fetched unrepaired')
  await expect(t(bench, 'paper')).toContainText('Its customer fetched it with the work not done')
  await expect(t(bench, 'paper')).not.toContainText('holds')

  const wrong = await shop.takeIn('68')
  await bench.goto(`${SERVER()}/jobs/${wrong}`)
  await t(bench, 'cancelled').click()
  await t(bench, 'why').fill('entered twice')
  await t(bench, 'end-sure').click()
  await expect(t(bench, 'closed')).toBeVisible()
  await bench.goto(SERVER())
  await ready(bench)
  await expect(t(bench, 'tag-68')).toHaveCount(0)
  expect((await handBack(bench, wrong, { how: 'unridable' })).status()).toBe(409)
  await bench.request.post(`${SERVER()}/api/jobs/${wrong}/reopen`, { data: { id: crypto.randomUUID(), basedOn: 0 } })
  await bench.reload()
  await expect(t(bench, 'tag-68')).toBeVisible()
})

test('addresses that lead nowhere are said so in our own words, with the way on', async ({ bench, shop }) => {
  await shop.takeIn('69')
  for (const path of [
    '/no-such-page',
    '/jobs/abc',
    '/jobs/0/rear',
    '/jobs/-3/sheet',
    '/jobs/1e9/front',
    '/jobs/1/nowhere',
  ]) {
    await bench.goto(`${SERVER()}${path}`)
    await expect(t(bench, 'error-page'), path).toContainText('nothing at this address')
  }
  await t(bench, 'error-floor').click()
  await expect(t(bench, 'tag-69')).toBeVisible()
  for (const path of ['rear', 'front', 'brakes', 'cables', 'hub', 'sheet', 'stage/gap']) {
    await bench.goto(`${SERVER()}/jobs/4711/${path}`)
    await expect(bench.getByText('There is no job 4711 here.')).toBeVisible()
  }
})

test('Take back means what this person did on this bench; anything older is taken back from the ledger’s list', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('70')
  const send = sender(bench, number, await shop.person('Ishbel'))
  await send({ kind: 'turn', screw: 'barrel', sixteenths: 4 })
  await bench.goto(`${SERVER()}/jobs/${number}/brakes`)
  await expect(t(bench, 'undo')).toBeDisabled() // nothing was done here
  await t(bench, 'kind-drum').click()
  await expect(t(bench, 'undoes')).toContainText('Front brake: drum')
  await t(bench, 'undo').click()
  await expect(t(bench, 'took-back')).toContainText('Taken back: Front brake: drum')
  await openBench(bench, number)
  await expect(t(bench, 'undoes')).toContainText('1/4 out')
  await t(bench, 'to-job').click()
  await bench.getByRole('button', { name: /^Take back: .*1\/4 out/ }).click()
  await expect(t(bench, 'ledger').locator('li.line-through')).toHaveCount(2)
  await expect.poll(async () => (await storedEvents(shop, number)).length).toBe(5)
  // a proof in that list is a gate like any other
  await send({ kind: 'proof', brake: 'front', holds: true })
  await expect(t(bench, 'part-front-brake')).toContainText('holds')
  await bench.getByRole('button', { name: 'Take back: Front brake holds' }).click()
  await expect(t(bench, 'part-front-brake')).toContainText('not proven')
})

test('a photograph of the bike as it came is kept with the job, apart from those of its cables', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('68', null)
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await ready(bench)
  await t(bench, 'photo-take').setInputFiles('docs/screenshots/cables.png')
  await expect(t(bench, 'photo')).toHaveCount(1)
  // not among a run's
  await bench.goto(`${SERVER()}/jobs/${number}/cables`)
  await t(bench, 'panel-steps').click()
  await expect(t(bench, 'photo-take')).toHaveCount(1)
  await expect(t(bench, 'photo')).toHaveCount(0)
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await t(bench, 'photo-off').click()
  await expect(t(bench, 'photo')).toHaveCount(0)
})

test('a key means the same at every bench, and each bench lists its own', async ({ bench, shop }) => {
  const number = await shop.takeIn('69')
  const means = new Map<string, string>()
  for (const path of ['/rear', '/front', '/cables', '/brakes', '/sheet', '/stage/gap', '']) {
    await bench.goto(`${SERVER()}/jobs/${number}${path}`)
    await ready(bench)
    await expect(t(bench, 'to-job')).toBeVisible()
    await bench.keyboard.press('?')
    const list = t(bench, 'key-list')
    await expect(list).toContainText('take back')
    const keys = await list.locator('dt').allInnerTexts()
    const words = await list.locator('dd').allInnerTexts()
    for (const [i, key] of keys.entries()) {
      expect(words[i], `${key} at ${path}`).toBe(means.get(key) ?? words[i])
      means.set(key, words[i]!)
    }
    await bench.keyboard.press('Escape')
    await expect(list).toHaveCount(0)
  }
  expect(means.get('1–8')).toContain('answers')
  // the next stage by its key, from stage to bench and on
  await bench.goto(`${SERVER()}/jobs/${number}/stage/cable`)
  await ready(bench)
  await bench.keyboard.press('PageDown')
  await bench.waitForURL(`**/jobs/${number}/rear`)
  await expect(t(bench, 'move')).toBeVisible()
  await bench.keyboard.press('PageDown')
  await bench.waitForURL(`**/jobs/${number}/stage/gap`)
})
