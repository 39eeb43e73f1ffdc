import { readFileSync } from 'node:fs'
import type { APIRequestContext, Page } from '@playwright/test'
import type { LedgerEvent } from '#core/ledger/events'
import { stockParts } from '#core/rear/typedParts'
import {
  caliper,
  expect,
  makeShop,
  openBench,
  otherDevice,
  ready,
  SERVER,
  signIn,
  storedEvents,
  test,
  type TestShop,
} from './shop'

const t = (page: Page, name: string) => page.locator(`[data-test="${name}"]`)
/** Opens a page of a job once the shop's records, which it reads beside, are here. */
async function withRecords(page: Page, path: string): Promise<void> {
  const here = page.waitForResponse(r => r.url().includes('/api/standards/like'))
  await page.goto(`${SERVER()}${path}`)
  await here
}
async function open(page: Page, path: string): Promise<void> {
  await page.goto(`${SERVER()}${path}`)
  await ready(page)
}
const tell = async (request: APIRequestContext, shop: TestShop, number: number, events: LedgerEvent[]) => {
  const by = await shop.person('Ishbel')
  const answer = await request.post(`${SERVER()}/api/jobs/${number}/events`, {
    data: {
      entries: events.map(event => ({
        id: crypto.randomUUID(),
        v: 1,
        at: new Date().toISOString(),
        basedOn: 1,
        by,
        event,
      })),
    },
  })
  for (const a of ((await answer.json()) as { answers: { is: string }[] }).answers) expect(a.is).toBe('stored')
}
/** A visit with a loop of housing, handed back. */
async function visit(page: Page, shop: TestShop, tag: string, lengthMm: number): Promise<number> {
  const number = await shop.takeIn(tag)
  await tell(page.request, shop, number, [
    { kind: 'housing', place: 'last loop', lengthMm, of: '4 mm', ends: 'metal' },
    { kind: 'turn', screw: 'barrel', sixteenths: 4 },
    { kind: 'proof', brake: 'front', holds: true },
    { kind: 'proof', brake: 'rear', holds: true },
  ])
  expect(
    (
      await page.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
        data: { id: crypto.randomUUID(), basedOn: 5, how: 'proven' },
      })
    ).ok(),
  ).toBe(true)
  return number
}

test('the catalogue is filtered, sorted, compared, measured, named and put back to the table', async ({
  bench,
  shop,
  browser,
}) => {
  await open(bench, '/standards')
  await t(bench, 'filter').fill('r14')
  await expect(t(bench, 'entry-r14-10')).toBeVisible()
  await expect(t(bench, 'entry-r17-9')).toHaveCount(0)
  await t(bench, 'filter').fill('')
  await t(bench, 'sort-pullMm').click()
  await t(bench, 'sort-pullMm').click()
  const first = () => bench.locator('tbody tr').first()
  const values = await bench.locator('tbody tr td:nth-of-type(2) .figure').allTextContents()
  expect(values.map(Number)).toEqual(
    values.map(Number).sort((a, b) => (Number(values[0]) > Number(values.at(-1)) ? b - a : a - b)),
  )
  await expect(first()).not.toContainText('r17-6')

  // measure it: nonsense is refused with what to do, then kept with who and how
  await t(bench, 'entry-r14-10').click()
  await t(bench, 'measure-pullMm').click()
  await bench.getByLabel('Cable pull per click, mm').fill('28')
  await t(bench, 'keep').click()
  await expect(bench.getByText('must be from 1 to 6 mm, not 28')).toBeVisible()
  await bench.getByLabel('Cable pull per click, mm').fill('2,78')
  await bench.getByLabel('How, in a few words').fill('caliper, <b>three</b> bikes')
  await t(bench, 'keep').click()
  const detail = t(bench, 'detail')
  await expect(detail).toContainText('2.78 mm')
  await expect(detail).toContainText('The table says 2.8.')
  await expect(detail).toContainText('caliper, <b>three</b> bikes')
  await expect(detail).toContainText('25.02 mm') // over all clicks, computed anew
  await t(bench, 'nickname').click()
  await bench.getByLabel('What this shop calls it').fill('Sandpiper ten')
  await t(bench, 'keep').click()
  await expect(t(bench, 'entry-r14-10')).toContainText('Sandpiper ten')

  // two side by side
  await t(bench, 'compare').click()
  await t(bench, 'entry-r14-11').click()
  await expect(t(bench, 'comparison')).toContainText('r14-10 Sandpiper ten and r14-11')
  await expect(t(bench, 'comparison')).toContainText('−0.08 mm (−2.9 %)')
  await bench.getByRole('button', { name: 'Done comparing' }).click()

  // the fitted ratio follows; back to the table keeps the history
  await t(bench, 'kind-derailleur').click()
  await t(bench, 'entry-r14-10').click()
  await expect(detail).toContainText('1.421')
  await t(bench, 'kind-shifter').click()
  await t(bench, 'entry-r14-10').click()
  await t(bench, 'reset-pullMm').click()
  // other figures are from memory too: it is done once there is nothing left to put back
  await expect(t(bench, 'reset-pullMm')).toHaveCount(0)
  await bench.reload()
  await ready(bench)
  await t(bench, 'entry-r14-10').click()
  await detail.getByText('History, 2').click()
  await expect(detail).toContainText('back to the table')
  await expect(detail).toContainText('2.78')

  // a part of the shop's own, uneven along its clicks
  await t(bench, 'add-own').click()
  await bench.getByLabel('Name, short').fill('Oxbow five')
  await bench.getByLabel('Speeds', { exact: true }).fill('5')
  await bench.getByLabel('Cable pull per click, mm').fill('3.1 2.9')
  await t(bench, 'keep-own').click()
  await expect(bench.getByText('One number, or 4 of them')).toBeVisible()
  await bench.getByLabel('Cable pull per click, mm').fill('3.1 2.9 2.8 2.8')
  await t(bench, 'keep-own').click()
  await expect(t(bench, 'entry-own-oxbow-five')).toBeVisible()

  // another shop sees none of it, a trainee adds nothing
  const other = await otherDevice(browser, await makeShop(shop.db))
  expect(
    ((await (await other.page.request.get(`${SERVER()}/api/standards`)).json()) as { values: unknown[] }).values,
  ).toEqual([])
  const wren = await other.page.request.post(`${SERVER()}/api/session/person`, {
    data: {
      person: (
        (await (await other.page.request.get(`${SERVER()}/api/session`)).json()) as {
          people: { id: string; name: string }[]
        }
      ).people.find(p => p.name === 'Wren')!.id,
      pin: '4242',
    },
  })
  expect(wren.ok()).toBe(true)
  expect(
    (
      await other.page.request.post(`${SERVER()}/api/standards/values`, {
        data: { claims: [{ kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: 2.7 }] },
      })
    ).status(),
  ).toBe(403)
  await other.context.close()
})

test('the match explorer says what goes together, why not, and what would fix it', async ({ bench }) => {
  await open(bench, '/standards/match?s=r14-10&d=r17-10&c=r17-10')
  await expect(t(bench, 'verdict')).toContainText('Will not index')
  await expect(t(bench, 'verdict')).toContainText('It needs a pull ratio of 1.41, this is 1.72.')
  await expect(t(bench, 'per-click')).toContainText('0.86 mm too much a click')
  await expect(t(bench, 'fixes')).toContainText('changes the pull by a factor of 0.82')
  await t(bench, 'try-derailleur-r14-10').click()
  await expect(t(bench, 'verdict')).toContainText('They go together: every gear is clean over 3/4 turn')
  await expect(bench).toHaveURL(/d=r14-10/)

  // the matrix of that derailleur, by touch and by keys
  await expect(t(bench, 'matrix')).toBeVisible()
  await t(bench, 'cell-r17-8-r17-8').click()
  await expect(t(bench, 'verdict')).toContainText('Will not index')
  await t(bench, 'cell-r14-10-r17-10').click()
  await expect(t(bench, 'verdict')).toContainText('They go together')
  await t(bench, 'matrix').focus()
  await bench.keyboard.press('ArrowRight')
  await expect(bench).not.toHaveURL(/c=r17-10/)

  // the other side of the bolt; two parts only; a part that does not exist
  await open(bench, '/standards/match?s=r17-8&d=r19-8&c=r17-8')
  await expect(t(bench, 'fixes')).toContainText('The other side of the pinch bolt')
  await t(bench, 'pick-derailleur').selectOption('')
  await expect(t(bench, 'verdict')).toContainText('The derailleur must have a pull ratio of 1.71')
  await bench.getByRole('button', { name: 'Take it' }).first().click()
  await expect(t(bench, 'verdict')).toContainText('They go together')
  await open(bench, '/standards/match?s=nothing&d=%3Cb%3E&c=r14-10')
  await expect(bench.getByText('Choose two parts')).toBeVisible()
})

test("unknown parts are measured, named, and become the bike's drivetrain; the sheet says measured", async ({
  bench,
  shop,
}) => {
  const number = await shop.takeIn('41', stockParts('r17-10')) // taken in as something else
  await open(bench, `/jobs/${number}`)
  await t(bench, 'to-measure').click()
  await ready(bench)
  await t(bench, 'cableAllMm').fill('17.45')
  await expect(t(bench, 'for-job')).toHaveValue(String(number))
  await t(bench, 'with-cableAllMm').click() // the caliper this time
  await expect(t(bench, 'answer-shifter')).toContainText('Cannot tell apart: r17-7, r19-8')
  await expect(t(bench, 'next')).toContainText('clicks, end to end')
  await t(bench, 'cableAllMm').fill('x')
  await expect(bench.getByText('type a number, repeats with spaces between')).toBeVisible()

  // a caliper types its figures: each is a repeat of the measurement in hand
  await t(bench, 'cableAllMm').fill('')
  await t(bench, 'cableAllMm').focus()
  await t(bench, 'cableAllMm').blur()
  await caliper(bench, '25.1')
  await expect(t(bench, 'cableAllMm')).toHaveValue('25.1')
  await caliper(bench, '25.3')
  await expect(t(bench, 'cableAllMm')).toHaveValue('25.1 25.3')
  await t(bench, 'clicks').fill('9')
  await expect(t(bench, 'answer-shifter')).toContainText('r14-10 or r15-10')
  await t(bench, 'pulleyMm').fill('28.1')
  await t(bench, 'pulledMm').fill('20')
  await t(bench, 'sprockets').fill('10')
  await t(bench, 'stackMm').fill('37.2')
  await expect(t(bench, 'answer-cassette')).toContainText('r17-10 or r14-10 or r12-10 or r13-10')
  await expect(t(bench, 'gives')).toContainText(
    '9 clicks of 2.8 mm (r14-10), ratio 1.405 (r14-10), pitch 3.956 mm (r14-10)',
  )
  await t(bench, 'use-for').click()
  await expect(t(bench, 'used')).toBeVisible()

  await bench.getByRole('link', { name: 'See what goes together' }).click()
  await expect(t(bench, 'match')).toContainText('They go together')
  await expect(t(bench, 'match')).toContainText('Pull, ratio and pitch measured on this bike')
  expect((await storedEvents(shop, number)).map(e => (e.body as LedgerEvent).kind)).toEqual(['arrived', 'parts'])
  await bench.goto(`${SERVER()}/jobs/${number}/sheet`)
  await expect(t(bench, 'paper')).toContainText('2.8 mm, measured on this bike')

  // and can be taken back
  await bench.goto(`${SERVER()}/jobs/${number}`)
  await t(bench, 'undo-parts').click()
  await expect(t(bench, 'match')).toContainText('Pull, ratio and pitch assumed from the table')
})

test('none of these: a part in no table is said to be so; a mismatch that was measured leads the advice', async ({
  bench,
  shop,
}) => {
  await open(bench, '/standards/measure')
  await t(bench, 'cableAllMm').fill('46')
  await t(bench, 'clicks').fill('9')
  await expect(t(bench, 'answer-shifter')).toContainText('None of these')
  await expect(bench.getByText('No bike is here.')).toBeVisible()

  const number = await shop.takeIn('42')
  await openBench(bench, number)
  const mismatch = async () => Number.parseInt((await t(bench, 'cause-mismatch').textContent())!)
  expect(await mismatch()).toBeLessThan(20)
  await tell(bench.request, shop, number, [
    {
      kind: 'parts',
      parts: {
        ...stockParts('r14-10'),
        derailleur: { standard: null, known: 'measured', pullRatio: 1.62, ratio: 1.62 },
      },
    },
    // such parts stop the bench until a mechanic works on by name
    { kind: 'waived', what: 'parts' },
  ])
  await openBench(bench, number)
  await expect.poll(mismatch).toBeGreaterThan(70)
})

test('at the door the parts nobody knows are measured in place', async ({ bench, shop }) => {
  await open(bench, '/take-in')
  await t(bench, 'who').fill('Ruadh')
  await t(bench, 'sprockets-9').click()
  await t(bench, 'fit-r17-9').click()
  await t(bench, 'measure-parts').click()
  await t(bench, 'clicks').fill('10')
  await t(bench, 'cableAllMm').fill('27')
  await t(bench, 'sprockets').fill('11')
  await t(bench, 'stackMm').fill('39')
  await t(bench, 'use').click()
  await expect(t(bench, 'who')).toHaveValue('Ruadh') // nothing typed was lost
  await t(bench, 'figures').click()
  await expect(t(bench, 'shifter')).toHaveValue('r14-11')
  await expect(t(bench, 'known')).toContainText(
    'Pull measured on this bike, ratio assumed from the table, pitch measured on this bike',
  )
  await expect(t(bench, 'match')).toContainText('Will not index') // on the derailleur of r17-9
  await t(bench, 'derailleur').selectOption('r14-11')
  await expect(t(bench, 'match')).toContainText('They go together')
  expect(shop.code).toBeTruthy()
})

test('records: medians over the bikes here, each figure leads to its job, one far outside is questioned', async ({
  bench,
  shop,
}) => {
  const lengths = [285, 290, 290, 295, 300, 305]
  const numbers: number[] = []
  for (const [i, mm] of lengths.entries()) numbers.push(await visit(bench, shop, `R${i}`, mm))
  await open(bench, '/standards/records')
  await expect(t(bench, 'standard-r14-10')).toContainText('6 bikes')
  await t(bench, 'standard-r14-10').click()
  await t(bench, 'figure-housing last loop').click()
  await expect(t(bench, 'spread')).toContainText('median 293 mm')
  await expect(t(bench, 'spread')).toContainText('all between 285 mm and 305 mm, 6 bikes')
  await expect(bench.locator('canvas')).toBeVisible()
  await t(bench, 'points').getByRole('link', { name: '305 mm' }).click()
  await expect(bench).toHaveURL(new RegExp(`/jobs/${numbers[5]}/sheet`))

  const number = await shop.takeIn('45')
  await withRecords(bench, `/jobs/${number}/stage/cable`)
  await t(bench, 'cable-pieces').click()
  await t(bench, 'housing').fill('345')
  await t(bench, 'housing-note').click()
  await expect(t(bench, 'doubtful')).toContainText('40 mm longer than any such bike here (6 bikes): keep it?')
  await t(bench, 'leave-figure').click()
  expect(await storedEvents(shop, number)).toHaveLength(1)
  await t(bench, 'housing').fill('346')
  await t(bench, 'housing-note').click()
  await t(bench, 'keep-figure').click()
  await expect(t(bench, 'doubtful')).toHaveCount(0)
  await t(bench, 'housing').fill('298')
  await t(bench, 'housing-note').click()
  await expect(t(bench, 'doubtful')).toHaveCount(0)
  await expect
    .poll(async () => (await storedEvents(shop, number)).map(e => (e.body as { lengthMm?: number }).lengthMm))
    .toEqual([undefined, 346, 298])

  // the same on the cable bench
  await withRecords(bench, `/jobs/${number}/cables`)
  await t(bench, 'template-external').click()
  await t(bench, 'piece-last loop').click()
  await bench.getByLabel('Length, mm').fill('360')
  await t(bench, 'save-piece').click()
  await expect(t(bench, 'doubtful')).toContainText('55 mm longer than any such bike here')
  await expect(t(bench, 'piece-last loop')).toContainText('290 mm')
  await t(bench, 'keep-figure').click()
  await expect(t(bench, 'piece-last loop')).toContainText('360 mm')

  // the bike's own page
  await bench.goto(`${SERVER()}/jobs/${numbers[0]}`)
  await bench.getByRole('link', { name: 'Marram quay', exact: true }).click()
  await expect(bench.getByRole('link', { name: '285 mm' })).toBeVisible()
})

test('files: out of one shop and into another, looked at first; bad rows by line, too large by size', async ({
  bench,
  shop,
  browser,
}) => {
  await visit(bench, shop, 'F1', 290)
  const claims = [
    { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: 2.77, note: '=1+1' },
    { kind: 'shifter', entry: 'r14-10', figure: 'nickname', value: 'Ten, "old"' },
  ]
  expect((await bench.request.post(`${SERVER()}/api/standards/values`, { data: { claims } })).ok()).toBe(true)
  await open(bench, '/standards/files')
  const [download] = await Promise.all([bench.waitForEvent('download'), t(bench, 'export-json').click()])
  expect(download.suggestedFilename()).toBe('ocho-standards.json')
  const json = readFileSync(await download.path(), 'utf8')
  expect(json).not.toContain('Hob Tarrant')
  const csv = await (await bench.request.get(`${SERVER()}/api/standards/export?as=values`)).text()
  expect(csv).toContain("'=1+1")

  const theirs = await makeShop(shop.db)
  const { page, context } = await otherDevice(browser, theirs)
  await open(page, '/standards/files')
  const give = (name: string, text: string) =>
    t(page, 'file').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  const valuesThere = async () =>
    (
      (await (await page.request.get(`${SERVER()}/api/standards`)).json()) as {
        values: { value: unknown; note: string }[]
      }
    ).values

  // nothing is taken by looking
  await give('standards.json', json)
  await expect(t(page, 'preview')).toContainText('2 would change a value')
  await expect(t(page, 'changes')).toContainText('2.8 mm → 2.77 mm')
  expect(await valuesThere()).toEqual([])
  await t(page, 'take-all').click()
  await expect(t(page, 'taken')).toContainText('Taken: 2 values and')
  expect((await valuesThere()).map(v => v.value)).toEqual([2.77, 'Ten, "old"'])
  await open(page, '/standards/records/r14-10')
  await expect(page.getByText('from a file').first()).toBeVisible()

  // a second time there is nothing to take
  await open(page, '/standards/files')
  await give('standards.json', json)
  await expect(t(page, 'preview')).toContainText('There is nothing in it to take')

  // bad rows by line and column; all or nothing, unless only the good ones are asked for
  await give(
    'values.csv',
    'kind,entry,figure,value,note,at\nshifter,r14-11,pullMm,2.72,"a, b\nc",\nshifter,r14-11,pullMm,0,,\ncassette,r14-11,pitchMm,3.7 3.8,,\n',
  )
  await expect(t(page, 'refused')).toContainText('line 4, value')
  await expect(t(page, 'refused')).toContainText('line 5, value')
  await expect(t(page, 'take-all')).toHaveCount(0)
  const all = await page.request.post(`${SERVER()}/api/standards/import?take=all&kind=csv`, {
    headers: { 'content-type': 'text/csv' },
    data: 'kind,entry,figure,value\nshifter,r14-11,pullMm,2.72\nshifter,r14-11,pullMm,0\n',
  })
  expect(all.status()).toBe(409)
  expect(await valuesThere()).toHaveLength(2)
  await t(page, 'take-good').click()
  await expect(t(page, 'taken')).toContainText('Taken: 1 value and 0 records')
  expect((await valuesThere()).at(-1)).toMatchObject({ value: 2.72, note: 'a, b\nc' })

  // the list already has it when "taken" is said: asked once, without waiting, as by a hurried finger
  expect(await t(page, 'taken-in').locator('li').first().textContent()).toContain('0 records, 1 value')

  // and the last one taken back again, after a second touch
  await t(page, 'take-back').first().click()
  await t(page, 'back-sure').click()
  await expect(t(page, 'taken-back')).toHaveText('Taken back: 0 records and 1 value.')
  expect((await valuesThere()).at(-1)).toMatchObject({ value: null, note: 'a file was taken back' })
  await expect(t(page, 'taken-in')).toContainText('taken back')

  // a long one says how far it is
  const id = (i: number) => `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`
  const long = Array.from(
    { length: 12_000 },
    (_, i) => `${id(i)},r14-10,gap,,${5 + (i % 20) / 10},mm,${id(50_000 + i)},2026-01-01T00:00:00.000Z`,
  )
  await give('long.csv', ['id,standard,figure,frame,value,unit,bike,at', ...long].join('\n'))
  await expect(t(page, 'preview')).toContainText('12000 would add a record')
  const told = page.waitForFunction(() => {
    const bar = document.querySelector('[data-test=busy] [role=progressbar]')
    return Number(bar?.getAttribute('aria-valuenow')) > 30
  })
  await t(page, 'take-all').click()
  await told
  await expect(t(page, 'taken')).toContainText('0 values and 12000 records')
  await expect(t(page, 'busy')).toHaveCount(0)
  const asked = await page.request.post(`${SERVER()}/api/standards/import?take=look&kind=csv`, {
    headers: { 'content-type': 'text/csv', accept: 'application/x-ndjson' },
    data: 'no,such,table\n1,2,3\n',
  })
  const lines = (await asked.text()).trim().split('\n')
  expect(JSON.parse(lines.at(-1)!)).toMatchObject({ refused: { status: 400 } })

  // what is no such file, of another version, or too large
  await give('standards.json', json.replace('"version": 1', '"version": 2'))
  await expect(page.getByRole('alert')).toContainText('The file is of version 2, this Ocho reads version 1')
  await give('picture.png', 'x')
  await expect(page.getByRole('alert')).toContainText('ends in .json or .csv')
  const post = (data: string | Buffer) =>
    page.request.post(`${SERVER()}/api/standards/import?take=look&kind=csv`, {
      headers: { 'content-type': 'text/csv' },
      data,
    })
  const huge = await post(Buffer.alloc(50 * 1024 * 1024, 'a')).then(
    r => r.status(),
    () => 413,
  ) // refused, or cut off as it comes
  expect(huge).toBe(413)
  expect((await post(Buffer.from([0xff, 0xfe, 0x80]))).status()).toBe(400)
  expect((await post('')).status()).toBe(400)
  expect(
    (await page.request.post(`${SERVER()}/api/standards/import?take=everything&kind=csv`, { data: 'x' })).status(),
  ).toBe(400)
  await context.close()

  // a mechanic may measure, but files are the owner's
  await bench.context().clearCookies()
  await signIn(bench, shop, { name: 'Moss' })
  expect((await bench.request.get(`${SERVER()}/api/standards/export?as=json`)).status()).toBe(403)
  expect(
    (
      await bench.request.post(`${SERVER()}/api/standards/import?take=look&kind=csv`, {
        data: 'kind,entry,figure,value\n',
      })
    ).status(),
  ).toBe(403)
  await open(bench, '/standards/files')
  await expect(bench.getByText('An owner writes and takes files')).toBeVisible()
})
