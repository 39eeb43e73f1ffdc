import { randomUUID } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import type { APIRequestContext } from '@playwright/test'
import { curesOf } from '#core/brake/faults'
import { REQUEST_HEADER } from '#core/http/page'
import type { LedgerEvent } from '#core/ledger/events'
import { stockParts } from '#core/rear/typedParts'
import { inShop } from '../server/db/connect'
import {
  expect,
  handBack,
  makeShop,
  openBench,
  otherDevice,
  press,
  ready,
  saved,
  sender,
  SERVER,
  signIn,
  storedEvents,
  test,
} from './shop'

const HERE = import.meta.dirname

test('a wrong password and a wrong PIN are refused and limited in rate', async ({ page, shop }) => {
  await page.goto(`${SERVER()}/sign-in`)
  await ready(page)
  await expect(page.locator('[data-test=demo-people]')).toHaveCount(0) // no demo here: nobody's secrets are shown
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByText('Password is empty: type it in')).toBeVisible()
  await page.getByLabel('Shop code').fill(shop.code)
  await page.getByLabel('Name').fill('Moss')
  await page.getByLabel('Password').fill('wrong')
  for (let i = 0; i < 9; i++) {
    const answered = page.waitForResponse(r => r.url().endsWith('/api/sign-in') && r.request().method() === 'POST')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await answered
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeEnabled()
  }
  await expect(page.getByRole('alert')).toContainText('Too many wrong tries')
  await signIn(page, shop, { name: 'Tarn' })
  await page.goto(`${SERVER()}/`)
  await ready(page)
  await page.locator('[data-test=person]').click()
  await page.locator('[data-test=name-Wren]').click()
  for (let i = 0; i < 6; i++) {
    await page.locator('[data-test=pin]').fill('0000')
    await page.locator('[data-test=pin-done]').click()
    await expect(page.locator('[data-test=pin]')).toHaveValue('') // answered: the field is empty for the next try
    await expect(page.getByRole('alert')).toContainText('That PIN does not fit')
  }
  await page.locator('[data-test=pin]').fill('4242')
  await page.locator('[data-test=pin-done]').click()
  await expect(page.getByRole('alert')).toContainText('Too many wrong tries')
})

test('a bike whose take-in was answered into a dead line is hung on the rail once, however often it is asked', async ({
  bench,
  shop,
}) => {
  await bench.goto(`${SERVER()}/take-in`)
  await ready(bench)
  await bench.locator('[data-test=who]').fill('Brid Harrow')
  await bench.locator('[data-test=sprockets-1]').click()
  await bench.locator('[data-test=complaint]').fill('ticks')
  // the server does it, and what it says is lost twice
  let left = 2
  await bench.route('**/api/jobs', async route => {
    if (left-- <= 0) return route.continue()
    await route.fetch()
    await route.abort()
  })
  const hang = bench.getByRole('button', { name: 'Hang it on the rail' })
  for (let i = 0; i < 2; i++) {
    await hang.click()
    await expect.poll(() => left).toBe(1 - i)
    await expect(bench.getByRole('alert')).toContainText('cannot be reached')
  }
  // and after the page was loaded anew, with what was typed as it stood
  await bench.reload()
  await expect(bench.locator('[data-test=complaint]')).toHaveValue('ticks')
  await hang.click()
  await expect(bench).toHaveURL(/\/jobs\/1$/)
  expect(await inShop(shop.db, shop.id, tx => tx.selectFrom('job').select('number').execute())).toEqual([{ number: 1 }])
})

test('a person is a name and a PIN, and the name alone while fresh', async ({ bench, shop }) => {
  const number = await shop.takeIn('31')
  await openBench(bench, number)
  await bench.locator('[data-test=person]').click()
  await bench.locator('[data-test=name-Moss]').click()
  await bench.locator('[data-test=pin]').fill('1357')
  await bench.locator('[data-test=pin-done]').click()
  await expect(bench.locator('[data-test=person]')).toHaveText('Moss')
  await bench.locator('[data-test=person]').click()
  await bench.locator('[data-test=name-Ishbel]').click() // tapped here a moment ago
  await expect(bench.locator('[data-test=person]')).toHaveText('Ishbel')
})

test('an owner gives a new PIN; the old one no longer counts, and nobody else may', async ({
  bench,
  shop,
  browser,
}) => {
  // Moss works on another tablet meanwhile
  const other = await otherDevice(browser, shop)
  const number = await shop.takeIn('36')
  const atOther = (person: string, pin: string) =>
    other.page.request.post(`${SERVER()}/api/session/person`, { data: { person, pin } })
  expect((await atOther(await shop.person('Moss'), '1357')).ok()).toBe(true)
  await openBench(other.page, number)
  await expect(other.page.locator('[data-test=person]')).toHaveText('Moss')
  await bench.goto(`${SERVER()}/shop`)
  await ready(bench)
  await bench.locator('[data-test=renew-Moss]').click()
  await bench.locator('[data-test=renew-done]').click()
  await expect(bench.getByText('Type a new PIN, a new password, or both')).toBeVisible()
  await bench.getByLabel('New PIN', { exact: true }).fill('12a')
  await bench.locator('[data-test=renew-done]').click()
  await expect(bench.getByText('PIN: type 4 to 8 digits')).toBeVisible()
  await bench.getByLabel('New PIN', { exact: true }).fill('8086')
  await bench.locator('[data-test=renew-done]').click()
  await expect(bench.getByRole('status')).toContainText('Moss has new ones')
  const moss = await shop.person('Moss')
  const unlock = (pin: string) => bench.request.post(`${SERVER()}/api/session/person`, { data: { person: moss, pin } })
  expect((await unlock('1357')).status()).toBe(401)
  // there the next tap is not kept under that name: it waits, and says that somebody must say who works
  await press(other.page, '4')
  await expect(other.page.getByText('Say who works').first()).toBeVisible()
  expect((await storedEvents(shop, number)).filter(e => (e.body as { kind: string }).kind === 'shift')).toEqual([])
  await other.context.close()
  expect((await unlock('8086')).ok()).toBe(true)
  // now Moss works here, who is no owner
  expect(
    (await bench.request.post(`${SERVER()}/api/shop/people/${moss}/secrets`, { data: { pin: '1111' } })).status(),
  ).toBe(403)
})

test('a brake that fails keeps the bike; only "leaves unridable" lets it out, and heads the sheet', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('32')
  expect((await handBack(bench, number)).status()).toBe(409)
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await bench.locator('[data-test=front-holds]').click()
  await bench.locator('[data-test=rear-fails]').click()
  await expect(bench.locator('[data-test=stays]')).toContainText('rear brake failed')
  await expect(bench.locator('[data-test=hand-back]')).toBeDisabled()
  expect((await handBack(bench, number)).status()).toBe(409)
  await bench.locator('[data-test=unridable]').click()
  await bench.locator('[data-test=unridable-sure]').click()
  await expect(bench.locator('[data-test=handed-back]')).toHaveText('Left unridable')
  await expect(bench.locator('[data-test=paper]')).toContainText('Not to be ridden')
})

test('a note sent again by its id is there once; by the same id something else is another, and nonsense is refused', async ({
  bench,
  shop,
}) => {
  const numbers = [await shop.takeIn('35'), await shop.takeIn('36')]
  const send = (number: number, text: string, id: string) =>
    bench.request.post(`${SERVER()}/api/jobs/${number}/notes`, { data: { text }, headers: { [REQUEST_HEADER]: id } })
  const id = randomUUID()
  for (let i = 0; i < 3; i++) expect((await send(numbers[0]!, 'bell on', id)).ok()).toBe(true)
  expect((await send(numbers[0]!, 'bell off', id)).ok()).toBe(true)
  expect((await send(numbers[1]!, 'bell on', id)).ok()).toBe(true)
  const refused = await send(numbers[0]!, 'bell on', 'again')
  expect([refused.status(), await refused.text()]).toEqual([400, expect.stringContaining('must be a UUID')])
  const notes = await inShop(shop.db, shop.id, tx => tx.selectFrom('note').select('text').orderBy('text').execute())
  expect(notes.map(n => n.text)).toEqual(['bell off', 'bell on', 'bell on'])
})

test('what was put right on a brake that failed is noted by a touch of its own, not by going through the list', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('34')
  const cures = async () =>
    (await storedEvents(shop, number)).map(e => e.body as LedgerEvent).filter(e => e.kind === 'brakeCured')
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await bench.locator('[data-test=rear-fails]').click()
  const list = bench.locator('[data-test=cured-rear]')
  await expect(bench.locator('[data-test=note-cured-rear]')).toBeDisabled()
  await list.focus()
  await press(bench, 'ArrowDown')
  await press(bench, 'ArrowDown')
  const [, second] = curesOf(undefined)
  await expect(list).toHaveValue(second!.id)
  await saved(bench)
  expect(await cures()).toEqual([])
  await bench.locator('[data-test=note-cured-rear]').click()
  await expect.poll(cures).toEqual([{ kind: 'brakeCured', brake: 'rear', fault: second!.id }])
  await bench.locator('[data-test=rear-holds]').click()
  await expect(bench.locator('[data-test=proof-rear]')).toContainText('holds, Ishbel')
})

test("a trainee's gate needs a mechanic's hand", async ({ bench, shop, browser }) => {
  const number = await shop.takeIn('33')
  const other = await otherDevice(browser, shop, 'Moss')
  const page = other.page
  await page.goto(`${SERVER()}/jobs/${number}/sheet`)
  await page.locator('[data-test=person]').click()
  await page.locator('[data-test=name-Wren]').click()
  await page.locator('[data-test=pin]').fill('4242')
  await page.locator('[data-test=pin-done]').click()
  await expect(page.locator('[data-test=person]')).toHaveText('Wren')
  const wren = await shop.person('Wren')
  expect(await sender(page, number, wren)({ kind: 'proof', brake: 'front', holds: true })).toMatchObject({
    is: 'refused',
    field: 'sign',
  })
  await page.locator('[data-test=front-holds]').click()
  await page.locator('[data-test=sign-Moss]').click()
  await page.locator('[data-test=pin]').fill('1357')
  await page.locator('[data-test=pin-done]').click()
  await expect(page.locator('[data-test=proof-front]')).toContainText('holds, Moss')
  expect((await storedEvents(shop, number)).at(-1)!.signed_by).toBe(await shop.person('Moss'))
  await other.context.close()
  void bench
})

test('a mismatch is said at once, in millimetres, gear by gear', async ({ bench }) => {
  await bench.goto(`${SERVER()}/take-in`)
  await ready(bench)
  await bench.locator('[data-test=figures]').click()
  await bench.locator('[data-test=standard]').selectOption('r17-9')
  await expect(bench.locator('[data-test=match]')).toContainText('They go together')
  await bench.locator('[data-test=shifter]').selectOption('r11-9')
  // 8 clicks of 4.0 mm at a fitted 1.706 against 8 gaps of 4.35 mm: 19.79 mm apart, half at each end
  await expect(bench.locator('[data-test=match]')).toContainText(
    'Will not index: no setting of the barrel has every gear clean, 9.89 mm off',
  )
  await expect(bench.getByRole('img', { name: /Misfit by gear in mm/ })).toHaveAttribute(
    'aria-label',
    /-9\.89.*; -7\.42, not clean; .* 9\.89/,
  )
})

test('every form refuses nonsense beside its line and keeps what was typed', async ({ bench }) => {
  await bench.goto(`${SERVER()}/take-in`)
  await ready(bench)
  await bench.locator('[data-test=other-time]').click()
  await bench.locator('[data-test=promised]').fill('')
  await bench.getByLabel('Tag').fill('')
  await bench.locator('[data-test=figures]').click()
  await bench.getByLabel('Speeds').fill('many')
  await bench.getByRole('button', { name: 'Hang it on the rail' }).click()
  for (const words of [
    'Customer is empty',
    'Tag: 1 to 8 letters',
    'Promised: choose',
    'Complaint is empty',
    'Speeds: a whole number',
  ])
    await expect(bench.getByText(words).first()).toBeVisible()
  await bench.locator('[data-test=standard]').selectOption('r17-9')
  for (const [label, bad, words] of [
    ['Speeds', '0', 'from 2 to 14'],
    ['Pull per click, mm', '9', 'from 1 to 6 mm'],
    ['Pull per click, mm', 'NaN', 'type a number'],
    ['Pitch, mm', '-3', 'from 2.5 to 8 mm'],
    ['Teeth, each or as 11-34 9s', '11 51 60 61 70 80 90 91 92', 'at most 60'],
    ['Teeth, each or as 11-34 9s', '11 51 52 53 54 55 56 57 58', 'A step of 40 teeth'],
    ['Barrel out now, turns', 'two', 'type the turns'],
  ] as const) {
    await bench.locator('[data-test=standard]').selectOption('')
    await bench.locator('[data-test=standard]').selectOption('r17-9')
    await bench.getByLabel(label).fill(bad)
    await expect(bench.getByText(words).first()).toBeVisible()
    await expect(bench.getByLabel(label)).toHaveValue(bad)
    await bench.getByLabel('Barrel out now, turns').fill('')
  }
  await bench.locator('[data-test=who]').fill('x'.repeat(81))
  await bench.getByRole('button', { name: 'Hang it on the rail' }).click()
  await expect(bench.getByText('Customer is longer than 80 characters')).toBeVisible()
})

test('nonsense sent to the server is refused with the field, and the rest of the batch is kept', async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('34')
  const by = await shop.person('Ishbel')
  const url = `${SERVER()}/api/jobs/${number}/events`
  const entry = (event: unknown, id: string = randomUUID()) => ({
    id,
    v: 1,
    at: new Date().toISOString(),
    basedOn: 1,
    by,
    event,
  })
  const turn = (sixteenths: unknown) => ({ kind: 'turn', screw: 'barrel', sixteenths })
  const good = entry(turn(2))
  const sent = await bench.request.post(url, {
    data: {
      entries: [
        entry({ kind: 'teleport' }),
        entry({ kind: 'shift', from: 0, to: 12, heard: 'clean' }),
        entry(turn('two')),
        entry(turn(0)),
        entry(turn(100_000)),
        good,
        entry({ kind: 'shift', from: 0, to: 1, heard: 'sings' }),
        { ...entry(turn(2)), at: 'yesterday' },
        entry({ kind: 'handedBack', how: 'proven' }),
        { nonsense: true },
        entry({ kind: 'edge', click: 0, way: 'out', sixteenths: 3, found: true }),
        entry({ kind: 'edge', click: 2, way: 'out', sixteenths: -3, found: true }),
        { ...entry(turn(2)), basedOn: 2 ** 31 },
        { ...entry(turn(2)), at: '0000-01-01T00:00:00Z' },
      ],
    },
  })
  expect(sent.status()).toBe(200)
  const { answers } = (await sent.json()) as { answers: { is: string; message?: string; field?: string }[] }
  expect(answers.map(a => a.is)).toEqual([
    'refused',
    'refused',
    'refused',
    'refused',
    'refused',
    'stored',
    ...Array<string>(8).fill('refused'),
  ])
  expect(answers[0].message).toContain('reload to update')
  expect(answers[1].message).toContain('This bike has 10 gears')
  expect(answers.filter(a => a.is === 'refused').every(a => a.field && a.message)).toBe(true)
  expect(await storedEvents(shop, number)).toHaveLength(2)

  // the same again changes nothing; the same id with other content is refused
  const again = await (await bench.request.post(url, { data: { entries: [good, { ...good, event: turn(4) }] } })).json()
  expect(again.answers.map((a: { is: string }) => a.is)).toEqual(['held', 'refused'])
  expect(await storedEvents(shop, number)).toHaveLength(2)

  // a tablet whose clock is wrong loses nothing: its time is kept, and said to be odd
  const odd = { ...entry(turn(2)), at: '1970-01-01T00:00:09.000Z' }
  expect((await (await bench.request.post(url, { data: { entries: [odd] } })).json()).answers[0].is).toBe('stored')
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await expect(bench.getByText('by a clock that was wrong')).toBeVisible()

  expect((await bench.request.post(url, { data: { entries: [] } })).status()).toBe(400)
  const beyond = { id: randomUUID(), basedOn: 2 ** 31, complaint: 'other' }
  expect((await bench.request.post(`${SERVER()}/api/jobs/${number}/details`, { data: beyond })).status()).toBe(400)
  expect(
    (await bench.request.post(url, { headers: { 'content-type': 'application/json' }, data: '{"entries":' })).status(),
  ).toBe(400)
  expect((await bench.request.post(url, { data: { entries: ['x'.repeat(5_000_000)] } })).status()).toBe(413)
  expect((await bench.request.post(url, { headers: { 'content-type': 'text/plain' }, data: 'x' })).status()).toBe(415)
  expect((await bench.request.post(`${SERVER()}/api/jobs/9999/events`, { data: { entries: [good] } })).status()).toBe(
    404,
  )
  expect((await bench.request.get(`${SERVER()}/api/jobs/abc`)).status()).toBe(400)
  expect((await bench.request.get(`${SERVER()}/api/tags/zz99`)).status()).toBe(404)
  expect((await bench.request.get(`${SERVER()}/api/tags/${encodeURIComponent('a b;')}`)).status()).toBe(400)
  expect(
    (await bench.request.post(`${SERVER()}/api/jobs/${number}/notes`, { data: { text: 'x'.repeat(401) } })).status(),
  ).toBe(400)
  const half = await bench.request.post(`${SERVER()}/api/jobs`, {
    data: {
      customer: { name: 'A', contact: '' },
      bike: { name: 'B', frameNumber: '' },
      tag: '34',
      promisedAt: new Date().toISOString(),
      complaint: 'c',
      parts: stockParts('r17-9'),
      sameParts: false,
    },
  })
  expect(half.status()).toBe(409) // the tag hangs on an open job
  expect(
    (await (await bench.request.get(`${SERVER()}/api/bikes?q=B`)).json()).some(
      (f: { bike: { name: string } }) => f.bike.name === 'B',
    ),
  ).toBe(false) // nothing half-written
})

/** Every route file of the server, as method and address. */
function routes(number: number, id: string): { method: string; path: string; file: string }[] {
  const root = join(HERE, '..', 'server', 'api')
  return (readdirSync(root, { recursive: true }) as string[])
    .filter(f => f.endsWith('.ts'))
    .map(file => {
      const [, path, method] = /^(.*)\.(get|post|delete)\.ts$/.exec(file.replaceAll('\\', '/'))!
      return {
        method: method.toUpperCase(),
        path: `/api/${path
          .replace(/\/?index$/, '')
          .replace('[number]', String(number))
          .replace('[tag]', '41')
          .replace('[id]', id)
          .replace('[standard]', 'r14-10')
          .replace('[token]', 'no-such-token-of-anybody.ics')
          .replace('[figure]', 'barrel')}`,
        file,
      }
    })
}

const OPEN = [
  'health.get.ts',
  'sign-in.get.ts',
  'sign-in.post.ts',
  'first-run.post.ts',
  'join.post.ts',
  'calendar/[token].get.ts',
]
const send = (request: APIRequestContext, r: { method: string; path: string }, data?: unknown) =>
  request.fetch(`${SERVER()}${r.path}`, {
    method: r.method,
    data,
    headers: data ? { 'content-type': 'application/json' } : {},
    timeout: 8000,
    maxRedirects: 0,
  })

test('every route but health, sign-in, first run, joining and a calendar’s link needs a session', async ({
  request,
}) => {
  for (const r of routes(1, randomUUID()).filter(x => !OPEN.includes(x.file)))
    expect((await send(request, r, r.method === 'GET' ? undefined : {})).status(), `${r.method} ${r.path}`).toBe(401)
})

test('a second shop can reach nothing of the first, by any route', async ({ bench, shop, browser }) => {
  const number = 1
  expect(await shop.takeIn('41')).toBe(number)
  const secret = 'Hob Tarrant'
  const theirs = await makeShop(shop.db)
  const other = await otherDevice(browser, theirs)
  const [device] = (await (await bench.request.get(`${SERVER()}/api/shop/devices`)).json()) as { id: string }[]
  const ishbel = await shop.person('Ishbel')
  const bodies: Record<string, unknown> = {
    'jobs/[number]/events.post.ts': {
      entries: [
        {
          id: randomUUID(),
          v: 1,
          at: new Date().toISOString(),
          basedOn: 1,
          by: ishbel,
          event: { kind: 'turn', screw: 'barrel', sixteenths: 2 },
        },
      ],
    },
    'jobs/[number]/notes.post.ts': { text: 'mine now' },
    'jobs/[number]/hand-back.post.ts': { id: randomUUID(), basedOn: 1, how: 'unridable' },
    'jobs/[number]/reopen.post.ts': { id: randomUUID(), basedOn: 1 },
    'session/person.post.ts': { person: ishbel, pin: '2468' },
    'shop/people/[id]/secrets.post.ts': { pin: '2468' },
  }
  for (const r of routes(number, device.id).filter(x => !OPEN.includes(x.file) && x.file !== 'sign-out.post.ts')) {
    if (r.file === 'jobs/[number]/live.get.ts') continue // tells no content; its refetch is tried below
    const answer = await send(
      other.page.request,
      { ...r, path: r.path.endsWith('/bikes') ? `${r.path}?q=Hob` : r.path },
      bodies[r.file] ?? (r.method === 'GET' ? undefined : {}),
    )
    expect(await answer.text(), `${r.method} ${r.path}`).not.toContain(secret)
    if (r.path.includes('/jobs/') || r.method === 'DELETE' || r.file in bodies)
      expect([400, 401, 403, 404], `${r.method} ${r.path}: ${answer.status()}`).toContain(answer.status())
  }
  expect(await storedEvents(shop, number)).toHaveLength(1)
  expect((await bench.request.get(`${SERVER()}/api/session`)).ok()).toBe(true) // not signed out from afar
  await other.context.close()
})

test('a device is signed out from afar by the owner', async ({ bench, shop, browser }) => {
  const other = await otherDevice(browser, shop, 'Moss')
  await bench.goto(`${SERVER()}/shop`)
  await ready(bench)
  await bench.getByRole('button', { name: 'Sign out', exact: true }).first().click()
  await expect(bench.getByRole('button', { name: 'Sign out', exact: true })).toHaveCount(0)
  expect((await other.page.request.get(`${SERVER()}/api/floor`)).status()).toBe(401)
  expect((await other.page.request.get(`${SERVER()}/api/shop/devices`)).status()).toBe(401)
  await other.context.close()
})
