import type { Page } from '@playwright/test'
import type { SimulatedBench } from '#core/bench/bench'
import { stockParts } from '#core/rear/typedParts'
import { ORDERS } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { followAdvice, gapAt } from './follow'
import { bikeOnStand, expect, openBench, ready, saved, SERVER, settled, storedEvents, test } from './shop'

const kindsOf = (events: { body: unknown }[]) => events.map(e => (e.body as { kind: string }).kind)

async function seeStop(page: Page, bench: SimulatedBench, at: 'L' | 'H') {
  await page.locator(`[data-test=stop-${at}]`).click()
  for (let i = 0; i < 4; i++) {
    const seen = bench.perform({ do: 'sight', at })!
    await page.locator('[data-test=figure-typed]').fill(String('offsetMm' in seen ? seen.offsetMm : 0))
    await page.getByRole('button', { name: 'Note it' }).click()
    const good = page.locator('[data-test=stop-good]')
    const turn = page.locator('[data-test=stop-turned]')
    await expect(good.or(turn)).toBeVisible()
    if (await good.isVisible()) return
    const words = await turn.innerText()
    const amount = /(?:(\d+) )?(?:(\d+)\/(\d+))? ?(in|out)/.exec(words)!
    bench.perform({
      do: 'turn',
      screw: at,
      turns:
        (Number(amount[1] ?? 0) + (amount[2] ? Number(amount[2]) / Number(amount[3]) : 0)) *
        (amount[4] === 'in' ? 1 : -1),
    })
    await turn.click()
  }
}

/** What a mechanic does in each stage, by the page alone. */
const DO: Record<Exclude<Stage, 'handBack'>, (page: Page, bench: SimulatedBench) => Promise<unknown>> = {
  said: async page => {
    await page.locator('[data-test=says-all-chatter]').click()
    await page.locator('[data-test=answer-alike]').click()
    await expect(page.locator('[data-test=lead]')).toHaveText('Begin at index')
  },
  sense: async page => {
    await page.locator('[data-test=sense-note]').click()
    await expect(page.locator('[data-test=sense-head]')).toHaveText('All fine')
  },
  hanger: async (page, bench) => {
    for (const hour of [12, 3, 6, 9]) {
      await page.locator(`[data-test=hour-${hour}]`).click()
      await page.locator('[data-test=gap]').fill(gapAt(bench, hour))
    }
    await page.locator('[data-test=gauge-note]').click()
    await expect(page.locator('[data-test=plan]')).toContainText('leave it')
  },
  stops: async (page, bench) => {
    await seeStop(page, bench, 'L')
    await seeStop(page, bench, 'H')
  },
  cable: async page => {
    await page.locator('[data-test=cable-pieces]').click()
    await page.locator('[data-test=housing]').fill('285')
    await page.locator('[data-test=housing-note]').click()
  },
  index: async (page, bench) => {
    expect((await followAdvice(page, bench)).at(-1)).toBe('done')
    expect(bench.isRight()).toBe(true)
  },
  gap: async page => {
    await page.locator('[data-test="figure-4.5"]').click()
    await expect(page.locator('[data-test=gap-good]')).toBeVisible()
  },
  prove: async page => {
    await page.locator('[data-test=row-road]').click()
    await page.locator('[data-test=prove-note]').click()
    await page.locator('[data-test=torqued]').click()
  },
}

for (const order of ORDERS)
  test(`a whole job by the school "${order.name}" ends right`, async ({ bench: page, shop }) => {
    const number = await shop.takeIn('21', stockParts('r14-11'))
    await page.goto(`${SERVER()}/jobs/${number}`)
    await ready(page)
    await page.getByText('Schools on this job').click()
    await page.locator('[data-test=school-order]').selectOption(order.id)
    const bench = bikeOnStand(stockParts('r14-11'), { slackMm: 0.8, stopLMm: -0.4 }, 9)
    await page.locator('[data-test=stage-said]').click()
    const stages: Stage[] = ['said', ...order.stages, 'prove']
    for (const stage of stages) {
      await page.locator(`[data-test=stage-${stage}]`).click()
      await expect(page.locator(`[aria-current=step] [data-test=stage-${stage}]`)).toBeVisible()
      await DO[stage as 'said'](page, bench)
    }
    // what the advice holds for right is done on every stage's path, not on its own page alone
    if (stages.includes('index')) await expect(page.locator('[data-test=stage-index]')).toHaveText('Index, done')
    await page.locator('[data-test=stage-handBack]').click()
    await page.locator('[data-test=front-holds]').click()
    await page.locator('[data-test=rear-holds]').click()
    await page.locator('[data-test=hand-back]').click()
    await expect(page.locator('[data-test=handed-back]')).toHaveText('Handed back')
    expect(bench.chainOff()).toBe(false)
    const kinds = kindsOf(await storedEvents(shop, number))
    for (const kind of [
      'schools',
      'said',
      'sensed',
      'gauge',
      'sight',
      'housing',
      'gap',
      'proved',
      'torqued',
      'handedBack',
    ])
      expect(kinds).toContain(kind)
  })

test('a bent hanger is gauged on its clock and ends in a new one: no more than eight touches', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('22', stockParts('r14-11'))
  const bench = bikeOnStand(stockParts('r14-11'), { camberDeg: 2.4 }, 8)
  await openBench(page, number)
  const done = await followAdvice(page, bench, 'hanger')
  expect(done.at(-1)).toMatch(/^hanger/)
  await settled(page)
  let touches = 0
  const tap = async (name: string) => {
    touches++
    await page.locator(`[data-test=${name}]`).click()
  }
  await tap('stage-hanger')
  for (const hour of [12, 3, 6, 9]) {
    // a caliper types the figure and Enter goes on to the next place
    touches++
    await page.locator('[data-test=gap]').fill(gapAt(bench, hour))
    await page.locator('[data-test=gap]').press('Enter')
    await expect(page.locator(`[data-test=hour-${hour}]`)).toHaveAttribute('aria-label', /read/)
  }
  await expect(page.locator('[data-test=plan]')).toContainText('made to give way: a new one')
  await tap('gauge-note')
  await tap('new-hanger')
  expect(touches).toBeLessThanOrEqual(8)
  bench.perform({ do: 'replace', part: 'hanger', cause: 'hanger' })
  // after it both stops are to be seen again, then it is set right
  await page.locator('[data-test=stage-index]').click()
  await settled(page)
  await expect(page.locator('[data-test=move]')).toContainText('L stop')
  expect((await followAdvice(page, bench)).at(-1)).toBe('done')
  expect(bench.isRight()).toBe(true)
})

test('a steel dropout is bent in small steps with its history; titanium is refused; a bad reading is pointed out', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('23', stockParts('r17-8'))
  await page.goto(`${SERVER()}/jobs/${number}/stage/hanger`)
  const gauge = async (gaps: Record<number, number>) => {
    for (const [hour, gap] of Object.entries(gaps)) {
      await page.locator(`[data-test=hour-${hour}]`).click()
      await page.locator('[data-test=gap]').fill(String(gap))
    }
  }
  await gauge({ 12: 300 })
  await expect(page.locator('[data-test=hanger-wrong]')).toContainText('up to 150 mm')
  await expect(page.locator('[data-test=gauge-note]')).toHaveCount(0)
  await gauge({ 12: -90 })
  await expect(page.locator('[data-test=hanger-wrong]')).toContainText('closer − or wider +')
  await gauge({ 12: 63, 2: 61.5, 4: 62.8, 6: 57, 8: 58.5, 10: 61.5 })
  await expect(page.locator('[data-test=bad-reading]')).toContainText('4 o’clock')
  await gauge({ 4: 58.5 })
  await page.locator('[data-test=hanger-titanium]').click()
  await expect(page.locator('[data-test=plan]')).toContainText('Never bend titanium')
  await page.locator('[data-test=hanger-steel]').click()
  await page.locator('[data-test=gauge-note]').click()
  await expect(page.getByText('At 12 o’clock, tip 1.5 mm towards the rim')).toBeVisible()
  await page.locator('[data-test=bend]').click()
  await gauge({ 12: 61.5, 2: 60.8, 4: 59.3, 6: 58.5, 8: 59.3, 10: 60.8 })
  await page.locator('[data-test=gauge-note]').click()
  await expect(page.locator('[data-test=plan]')).toContainText('leave it')
  await expect(page.getByRole('img', { name: /each gauging in mm: 6\.0, 3\.0/ })).toBeVisible()
  // from a touch point at 12: closer −, wider +
  await gauge({ 12: 0, 3: -1.5, 6: -3 })
  await expect(page.locator('[data-test=across]')).toContainText('3.0 mm across')
  await gauge({ 12: 60, 3: 60, 6: 60 }) // all equal is simply true
  await expect(page.locator('[data-test=across]')).toContainText('0.0 mm across')
})

test('a sticky cable ends in "friction, renew the cable": the new one takes three touches', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('24', stockParts('r14-11'))
  const bench = bikeOnStand(stockParts('r14-11'), { backlashMm: 1.4 }, 4)
  await openBench(page, number)
  const done = await followAdvice(page, bench, 'replace')
  expect(done.at(-1)).toBe('replace cable')
  const replaced = (await storedEvents(shop, number)).at(-1)!.body as { advised: { cause: string } }
  expect(replaced.advised.cause).toBe('friction')
  // cut and capped as usual: the stage, its last part, one touch
  let touches = 0
  for (const name of ['stage-cable', 'cable-end', 'cut-note']) {
    touches++
    await page.locator(`[data-test=${name}]`).click()
  }
  expect(touches).toBeLessThanOrEqual(3)
  await expect(page.locator('[data-test=stage-cable] .sr-only')).toHaveText(', done')
})

test('a barrel at its end ends in a re-clamp with its recipe', async ({ bench: page, shop }) => {
  const parts = stockParts('r14-11')
  const number = await shop.takeIn('25', {
    ...parts,
    barrel: { ...parts.barrel, turnsOut: parts.barrel.rangeTurns, assumed: false },
  })
  const bench = bikeOnStand(
    { ...parts, barrel: { ...parts.barrel, turnsOut: parts.barrel.rangeTurns, assumed: false } },
    { slackMm: 1.8 },
    6,
  )
  await openBench(page, number)
  const done = await followAdvice(page, bench)
  expect(done).toContain('reclamp')
  expect(bench.isRight()).toBe(true)
  await page.locator('[data-test=stage-cable]').click()
  await expect(page.locator('[data-test=clamp-judged]')).toContainText('since the clamp')
  // a lost count: what cannot be is refused, what can be moves the barrel and nothing else
  await page.locator('[data-test=cable-count]').click()
  await page.locator('[data-test=count]').fill('11')
  await page.locator('[data-test=count-note]').click()
  await expect(page.getByText(/Its thread has \d+ turns: count once more/)).toBeVisible()
  await page.locator('[data-test=count]').fill('2.5')
  await page.locator('[data-test=count-note]').click()
  await expect(page.getByRole('img', { name: /Barrel 2 1\/2 turns out/ })).toBeVisible()
})

test('a bike that went into the spokes: no pedalling, L two turns in, seen again before the largest', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('26', stockParts('r14-11'))
  await page.goto(`${SERVER()}/jobs/${number}/stage/said`)
  await page.locator('[data-test=says-into-spokes]').click()
  await expect(page.getByText('No pedalling: lift the chain back by hand')).toBeVisible()
  await page.locator('[data-test=answer-past]').click()
  await page.locator('[data-test=lead]').click()
  await expect(page).toHaveURL(/stage\/stops/)
  await page.locator('[data-test=past]').click()
  await expect(page.getByRole('alert')).toContainText('Stop at once')
  await page.locator('[data-test=past-l]').click()
  await expect(page.locator('[data-test=net-L]')).toContainText('2 in')
  await page.locator('[data-test=stage-gap]').click()
  await expect(page.locator('[data-test=gap-barred]')).toContainText('see L by hand first')
  await page.locator('[data-test=stage-prove]').click()
  await expect(page.locator('[data-test=prove-note]')).toBeDisabled()
  const events = await storedEvents(shop, number)
  expect(events.at(-1)!.body).toMatchObject({ kind: 'turn', screw: 'L', sixteenths: 32 })
})

test('sense check: a stiff link is named before any screw, on the bench too, until it is put right', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('27')
  await page.goto(`${SERVER()}/jobs/${number}/stage/sense`)
  await page.locator('[data-test=sense-stiff-link]').click()
  await page.locator('[data-test=chain-wear]').fill('7')
  await page.locator('[data-test=sense-note]').click()
  await expect(page.getByRole('alert')).toContainText('from 0 to 3 %')
  expect(kindsOf(await storedEvents(shop, number))).toEqual(['arrived']) // nothing half-written
  await page.locator('[data-test=chain-wear]').fill('0,3')
  await page.locator('[data-test=sense-note]').click()
  await page.getByText('Chain length from chainstay').click()
  await page.locator('[data-test=chainstay]').fill('435')
  await page.locator('[data-test=ring]').fill('32')
  await expect(page.locator('[data-test=links]')).toContainText('links')
  await page.locator('[data-test=chainstay]').fill('4')
  await expect(page.locator('[data-test=links]')).toContainText('from 250 to 1200')
  await page.locator('[data-test=stage-index]').click()
  await expect(page.locator('[data-test=put-right]')).toContainText('A stiff link')
  await page.getByRole('link', { name: 'To the sense check' }).click()
  await page.locator('[data-test=sense-stiff-link]').click()
  await page.locator('[data-test=sense-note]').click()
  await page.locator('[data-test=stage-index]').click()
  await settled(page)
  await expect(page.locator('[data-test=put-right]')).toHaveCount(0)
})

test('B gap: measured, from centres, the turn learnt, more teeth than capacity', async ({ bench: page, shop }) => {
  const number = await shop.takeIn('28', stockParts('r11-12w'))
  await page.goto(`${SERVER()}/jobs/${number}/stage/gap`)
  await page.locator('[data-test=figure-typed]').fill('90')
  await page.getByRole('button', { name: 'Note it' }).first().click()
  await expect(page.getByRole('alert')).toContainText('from -20 to 60')
  await page.locator('[data-test=figure-typed]').fill('2')
  await page.getByRole('button', { name: 'Note it' }).first().click()
  await expect(page.locator('[data-test=gap-turn]')).toContainText('B screw in, gap grows')
  await page.locator('[data-test=gap-turned]').click()
  await expect(page.locator('[data-test=net-B]')).toContainText('2 in')
  await page.locator('[data-test="figure-4.5"]').click()
  await expect(page.locator('[data-test=gap-learnt]')).toContainText('as measured here')
  await page.getByText('From teeth and centres').click()
  await page.locator('[data-test=centres]').fill('136')
  await expect(page.locator('[data-test=gap-from-centres]')).toContainText('tips to tips')
  await page.locator('[data-test=centres]').fill('400')
  await expect(page.locator('[data-test=gap-from-centres]')).toContainText('check the distance')
  await page.getByText('Capacity').click()
  await page.locator('[data-test=rings]').fill('34 50')
  await page.locator('[data-test=capacity]').fill('41')
  await expect(page.locator('[data-test=capacity-words]')).toContainText('more than its capacity')
})

test('B gap without a figure: by eye, the smallest that clears, and the maker’s figure, which wins and stays', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('41', stockParts('r14-11'))
  await shop.seeL(number)
  await page.goto(`${SERVER()}/jobs/${number}/stage/gap`)
  await page.getByText('By eye or template').click()
  await page.locator('[data-test=gap-close]').click()
  await expect(page.locator('[data-test=gap-turn]')).toContainText('1/4')
  await page.locator('[data-test=gap-turned]').click()
  await expect(page.locator('[data-test=gap-again]')).toBeVisible()
  await page.locator('[data-test=gap-fine]').click()
  await expect(page.locator('[data-test=gap-good]')).toBeVisible()
  // the maker's figure: refused where it is none, then it rules
  await page.getByText('The maker’s figure').click()
  await page.locator('[data-test=maker-gap]').fill('60')
  await page.locator('[data-test=maker-note]').click()
  await expect(page.getByRole('alert')).toContainText('from 1 to 30')
  await page.locator('[data-test=maker-gap]').fill('9')
  await page.locator('[data-test=maker-note]').click()
  await expect(page.locator('[data-test=gap-by]')).toContainText('8.5 to 9.5')
  const other = await shop.takeIn('42', stockParts('r14-11'))
  await shop.seeL(other)
  await page.request.post(`${SERVER()}/api/shop/schools`, { data: { of: 'shop', choice: { gap: 'smallest-clear' } } })
  await page.goto(`${SERVER()}/jobs/${other}/stage/gap`)
  for (const [look, way] of [
    ['clears', 'out'],
    ['touches', 'in'],
  ] as const) {
    await page.locator(`[data-test=gap-${look}]`).click()
    await expect(page.locator('[data-test=gap-turn]')).toContainText(`B screw ${way}`)
    await page.locator('[data-test=gap-turned]').click()
    await expect(page.locator('[data-test=gap-again]')).toBeVisible()
  }
  await page.locator('[data-test=gap-clears]').click()
  await expect(page.locator('[data-test=gap-good]')).toBeVisible()
})

test('what they say: several complaints, what happened before, the sentence proposes, the test’s turn is counted', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('43') // "slow in the middle"
  await page.request.post(`${SERVER()}/api/jobs/${number}/details`, {
    data: { id: crypto.randomUUID(), basedOn: 1, complaint: 'Slow to the easier gears, fell over last week' },
  })
  await page.goto(`${SERVER()}/jobs/${number}/stage/said`)
  await expect(page.locator('[data-test=says-slow-in]')).toContainText('as written?')
  await expect(page.locator('[data-test=happened-fell]')).toContainText('as written?')
  await page.locator('[data-test=says-slow-in]').click()
  await page.locator('[data-test=happened-fell]').click()
  await expect(page.getByText('Look at the hanger and the cage first.')).toBeVisible()
  await page.locator('[data-test=answer-not]').click()
  await expect(page.locator('[data-test=net-barrel]')).toContainText('1/4 out')
  // answered otherwise, the turn is not counted again
  await page.locator('[data-test=answer-cured]').click()
  await page.locator('[data-test=says-one-end]').click()
  await expect(page.locator('[data-test=says-slow-in]')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.locator('[data-test=test]')).toContainText('Gauge the hanger')
  await page.locator('[data-test=says-one-end]').click() // taken back
  await expect(page.locator('[data-test=says-one-end]')).toHaveAttribute('aria-pressed', 'false')
  await expect(page.locator('[data-test=net-barrel]')).toContainText('1/4 out')
})

test('rings are named: two of them in the proof, pairs that cross left out; what is not clean counts as heard', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('44', stockParts('r14-10'))
  await shop.seeL(number)
  const stamp = { v: 1, at: new Date().toISOString(), basedOn: 2, by: await shop.person('Ishbel') }
  const seen = { sprockets: 10, rings: 2, lever: null, front: null, rear: null }
  await page.request.post(`${SERVER()}/api/jobs/${number}/events`, {
    data: { entries: [{ ...stamp, id: crypto.randomUUID(), event: { kind: 'seen', seen } }] },
  })
  await page.goto(`${SERVER()}/jobs/${number}/stage/prove`)
  await expect(page.locator('[data-test=row-middle]')).toHaveCount(0)
  await expect(page.locator('[data-test=cell-0-0]')).toHaveText('–') // small and small
  await expect(page.locator('[data-test=cell-1-9]')).toHaveText('–') // big and largest
  await page.locator('[data-test=row-big]').click()
  await page.locator('[data-test=cell-1-4]').click()
  await page.locator('[data-test=prove-note]').click()
  await page.locator('[data-test=stage-index]').click()
  await settled(page)
  await expect(page.locator('[data-test=ring]')).toContainText('big ring')
  // not clean in one gear: far from right
  expect(Number.parseInt(await page.locator('[data-test=right]').innerText())).toBeLessThan(85)
})

test('the clamp: where the barrel starts by its school, or typed; nonsense refused; how it was drawn is in the ledger', async ({
  bench: page,
  shop,
}) => {
  const number = await shop.takeIn('45', stockParts('r14-11'))
  await page.request.post(`${SERVER()}/api/shop/schools`, {
    data: { of: 'shop', choice: { barrel: 'in', clamp: 'one-click-take-up' } },
  })
  await page.goto(`${SERVER()}/jobs/${number}/stage/cable`)
  await expect(page.locator('[data-test=barrel-start]')).toContainText('fully in')
  await expect(page.getByText('release the lever by that click')).toBeVisible()
  await page.locator('[data-test=start-typed]').fill('40')
  await expect(page.getByRole('alert')).toContainText('From 0, fully in')
  await page.locator('[data-test=start-typed]').fill('1,5')
  await page.locator('[data-test=new-cable]').click()
  await saved(page)
  const bodies = (await storedEvents(shop, number)).map(e => e.body)
  expect(bodies.slice(-2)).toEqual([
    { kind: 'replace', part: 'cable' },
    { kind: 'reclamp', barrelSixteenthsOut: 24, how: 'one-click-take-up' },
  ])

  // how far the new run will go slack, and how soon by how much it is ridden: said in one touch
  await page.locator('[data-test=stage-prove]').click()
  await expect(page.locator('[data-test=forecast]')).toContainText('New run: expect the barrel')
  await page.locator('[data-test=ridden-seldom]').click()
  await page.locator('[data-test=ridden-daily]').click()
  await expect(page.getByRole('radio', { name: 'Daily' })).toBeChecked()
  await saved(page)
  expect((await storedEvents(shop, number)).at(-1)!.body).toEqual({ kind: 'ridden', how: 'daily' })
})

test("an owner chooses the shop's schools, a mechanic their own; what is not there is refused", async ({
  bench: page,
  shop,
}) => {
  await page.goto(`${SERVER()}/shop`)
  await ready(page)
  await page.locator('[data-test=school-step]').selectOption('quarter')
  await page.locator('[data-test=school-height]').selectOption('coin') // at once: neither is lost
  await expect(page.locator('[data-test=schools-kept]')).toBeVisible()
  await expect(page.locator('[data-test=school-step]')).toHaveValue('quarter')
  // arrow keys through a list keep the school where they stop, and none that they pass
  const kept: string[] = []
  page.on('request', r => {
    if (r.url().endsWith('/api/shop/schools'))
      kept.push((r.postDataJSON() as { choice: { order: string } }).choice.order)
  })
  await page.locator('[data-test=school-order]').focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Tab')
  await expect(page.locator('[data-test=schools-kept]')).toBeVisible()
  expect(kept).toEqual([ORDERS[2]!.id])
  await page.locator('[data-test=school-order]').focus()
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowUp')
  await expect.poll(() => kept).toEqual([ORDERS[2]!.id, ORDERS[0]!.id])
  const number = await shop.takeIn('29')
  await openBench(page, number)
  await page.keyboard.press(']')
  await expect(page.locator('[data-test=pending]')).toContainText('Barrel out 1/4')
  expect(
    (
      await page.request.post(`${SERVER()}/api/shop/schools`, { data: { of: 'shop', choice: { step: 'thumb' } } })
    ).status(),
  ).toBe(400)
  const moss = await shop.person('Moss')
  await page.request.post(`${SERVER()}/api/session/person`, { data: { person: moss, pin: '1357' } })
  expect((await page.request.post(`${SERVER()}/api/shop/schools`, { data: { of: 'shop', choice: {} } })).status()).toBe(
    403,
  )
  // a mechanic finds their own schools on the same page, and nothing of the owner's
  await page.goto(`${SERVER()}/shop`)
  await ready(page)
  await expect(page.locator('[data-test=schools-shop]')).toHaveCount(0)
  await expect(page.locator('[data-test=new-person]')).toHaveCount(0)
  await page.locator('[data-test=school-gap]').selectOption('with-sag')
  await expect(page.locator('[data-test=schools-kept]')).toBeVisible()
  await page.goto(`${SERVER()}/jobs/${number}/stage/gap`)
  await expect(page.locator('[data-test=gap-sagged]')).toBeVisible()
  // and turns the tick off for this device
  await page.locator('[data-test=person]').click()
  await page.locator('[data-test=habit-tick]').click()
  expect(await page.evaluate(() => localStorage.getItem('ocho-tick'))).toBe('off')
})

test('a friction lever has no clicks: stops, slack and gap only, with the cable it must pull', async ({
  bench: page,
  shop,
}) => {
  const parts = stockParts('r17-7')
  const number = await shop.takeIn('30', { ...parts, shifter: { ...parts.shifter, friction: true } })
  await page.goto(`${SERVER()}/jobs/${number}/rear`)
  await expect(page.locator('[data-test=friction-lever]')).toContainText('Nothing to index')
  await expect(page.locator('[data-test=travel]')).toHaveText('17.6 mm') // six gaps of 5.0 mm over the listed 1.7
  await expect(page.locator('[data-test=pass]')).toHaveCount(0)
  await expect(page.locator('[data-test=stage-index] .sr-only')).toHaveText(', done')
})

test('a low-normal derailleur is indexed from the largest, and barrel out goes towards the frame', async ({
  bench: page,
  shop,
}) => {
  const parts = stockParts('r17-8')
  const low = { ...parts, derailleur: { ...parts.derailleur, spring: 'low' as const } }
  const number = await shop.takeIn('31', low)
  await page.goto(`${SERVER()}/take-in`)
  await ready(page)
  await page.locator('[data-test=sprockets-8]').click()
  await page.locator('[data-test=fit-r17-8]').click()
  await page.locator('[data-test=figures]').click()
  await page.locator('[data-test=spring]').selectOption('low')
  await expect(page.locator('[data-test=match]')).toContainText('They go together')
  // the cable in the other place at its bolt: another ratio, and they do not
  await page.locator('[data-test=anchor]').selectOption('farther')
  await expect(page.locator('[data-test=match]')).toContainText(/too little|does not index|will not/i)
  await page.locator('[data-test=anchor]').selectOption('')
  await expect(page.locator('[data-test=match]')).toContainText('They go together')
  const bench = bikeOnStand(low, { slackMm: -0.9 }, 12) // slack under this spring lies inboard
  await openBench(page, number)
  await followAdvice(page, bench)
  expect(bench.isRight()).toBe(true)
  expect(bench.chainOff()).toBe(false)
  await page.locator('[data-test=stage-cable]').click()
  await expect(page.getByText('chain on the largest sprocket')).toBeVisible()
})

test('a hanger by eye heads the bench until it is gauged; parts that cannot index stop it until a mechanic works on by name', async ({
  bench: page,
  shop,
}) => {
  const stock = stockParts('r14-10')
  const hopeless = { ...stock, derailleur: { ...stock.derailleur, standard: null, pullRatio: 1.6 } }
  const number = await shop.takeIn('29', hopeless)
  await page.goto(`${SERVER()}/jobs/${number}/rear`)
  await expect(page.locator('[data-test=put-right]')).toContainText('Will not index')
  await expect(page.locator('[data-test=barred]')).toBeVisible()
  await expect(page.locator('[data-test=move]')).toHaveCount(0)
  // on any other bench too
  await page.goto(`${SERVER()}/jobs/${number}/front`)
  await expect(page.locator('[data-test=put-right]')).toContainText('Will not index')
  await page.locator('[data-test=waive]').click()
  await expect(page.locator('[data-test=put-right]')).toHaveCount(0)
  await page.goto(`${SERVER()}/jobs/${number}/stage/hanger`)
  await page.locator('[data-test=look-leans-in]').click()
  await page.goto(`${SERVER()}/jobs/${number}/rear`)
  await expect(page.locator('[data-test=move]')).toBeVisible()
  await expect(page.locator('[data-test=put-right]')).toContainText('leans in')
  await page.goto(`${SERVER()}/jobs/${number}/stage/hanger`)
  await page.locator('[data-test=look-straight]').click()
  await page.goto(`${SERVER()}/jobs/${number}/rear`)
  await expect(page.locator('[data-test=move]')).toBeVisible()
  await expect(page.locator('[data-test=put-right]')).toHaveCount(0)
})
