import { EventId, PersonId } from '#core/chapter/ids'
import { randomUUID } from 'node:crypto'
import { chromium } from '@playwright/test'
import { advise } from '#core/advice/advise'
import { simulatedBench } from '#core/bench/bench'
import { EVENT_VERSION } from '#core/ledger/events'
import { ledgerEventOf } from '#core/rear/fromBench'
import { setupOf } from '#core/rear/parts'
import { stockParts } from '#core/rear/typedParts'
import { quantile } from './figures'
import { buildDemo } from '../demo/build'
import { hiddenBike } from '../demo/bikes'
import { DEMO_ENV, DEMO_PEOPLE } from '../demo/people'
import { CHROMIUM } from '../ops/chromium'
import { startServer } from '../ops/server'
import { throwawayCluster } from '../ops/testDatabase'
import { connect, inShop } from '../server/db/connect'
import { takeIn } from '../server/db/jobs'
import { append } from '../server/db/ledger'
import { personByName } from '../server/db/people'

/**
 * Pages in a real browser: sums in their workers and frames while things move. npm run bench:page
 * [match|rear|cables|taps], after a build.
 */
const only = process.argv[2]
const wanted = (what: string) => only === undefined || only === what
const EVENTS = 60
const STOCK_MM = [12_000, 9000, 7400, 5000, 1900, 1400, 1100, 860, 640, 500, 410, 330]
/** From a touch on an eighth out to the frame that shows it, ms. */
const TAP = `new Promise(done => {
  const net = document.querySelector('[data-test=net-barrel]')
  const start = performance.now()
  new MutationObserver((_, watch) => { watch.disconnect(); requestAnimationFrame(() => done(performance.now() - start)) }).observe(net, { subtree: true, childList: true, characterData: true })
  document.querySelector('[data-test="turn-out-0.125"]').click()
})`
/** Thirty frames' lengths, ms; as text, since a compiled function would bring its helpers. */
const WATCH_FRAMES = `new Promise(done => {
  const out = []
  let before = performance.now()
  requestAnimationFrame(function tick(now) {
    out.push(now - before)
    before = now
    if (out.length < 30) requestAnimationFrame(tick)
    else done(out.slice(1))
  })
})`

const halfAndP95 = (ms: readonly number[], digits: number): string =>
  `median ${quantile(ms, 0.5).toFixed(digits)} ms, p95 ${quantile(ms, 0.95).toFixed(digits)} ms`

// first: where there is none, nothing is left running
const browser = await chromium.launch(CHROMIUM)
const { cluster, remove } = await throwawayCluster()
const db = connect(cluster.appUrl)
const shop = await buildDemo(db, { shop: { code: 'page', name: 'Page', zone: 'UTC' }, jobs: [], demo: false })
const person = PersonId.parse(await inShop(db, shop, async tx => (await personByName(tx, shop, 'Ishbel'))!.id))
const parts = stockParts('r11-12w')
const number = await takeIn(db, shop, person, null, {
  customer: { name: 'A', contact: '' },
  bike: { name: 'B', frameNumber: '' },
  tag: '1',
  promisedAt: new Date().toISOString(),
  complaint: 'c',
  parts,
  sameParts: false,
})
const bench = simulatedBench(setupOf(parts), hiddenBike(parts, { slackMm: 0.7 }), 3)
while (bench.log.length < EVENTS) {
  const { move } = advise(bench.setup, [...bench.log])
  if (!bench.perform(move)) bench.perform({ do: 'shift', to: 1 + (bench.log.length % 9) })
}
const entries = bench.log.flatMap((e, i) =>
  e.kind === 'unclean'
    ? []
    : [
        {
          id: EventId.parse(randomUUID()),
          v: EVENT_VERSION,
          at: new Date().toISOString(),
          basedOn: i + 1,
          by: person,
          event: ledgerEventOf(e),
          verified: true,
          signedBy: null,
        } as const,
      ],
)
await append(db, shop, number, null, entries)
const server = await startServer({ appUrl: cluster.appUrl, port: 0, env: DEMO_ENV })
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
const page = await context.newPage()
await page.request.post(`${server.url}/api/sign-in`, {
  data: { shop: 'page', name: 'Ishbel', password: DEMO_PEOPLE[0].password },
})
const settled = () => page.waitForSelector('section[aria-label="Next move"][aria-busy="false"]', { timeout: 30_000 })
const advice = () => page.evaluate(() => performance.getEntriesByName('advice').map(e => e.duration))

try {
  for (const throttle of wanted('match') ? [1, 4] : []) {
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: throttle })
    await page.goto(`${server.url}/standards/match`)
    await page.waitForSelector('[data-test=matrix]', { timeout: 30_000 })
    for (const id of ['r17-8', 'r11-9', 'r12-11', 'r15-10', 'r19-8']) {
      await page.locator('[data-test=pick-derailleur]').selectOption(id)
      await page.waitForTimeout(400)
    }
    const took = await page.evaluate(() => performance.getEntriesByName('matrix').map(e => e.duration))
    console.log(
      `match matrix in the worker, CPU ÷ ${throttle}: first ${took[0].toFixed(0)} ms, then median ${quantile(took.slice(1), 0.5).toFixed(0)} ms (target 100 ms)`,
    )
  }
  for (const throttle of wanted('rear') ? [1, 4] : []) {
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: throttle })
    await page.goto(`${server.url}/jobs/${number}/rear`)
    await settled()
    const [cold] = await advice()
    // since the page was gone to
    const shown = await page.evaluate(() => {
      const [first] = performance.getEntriesByName('advice')
      return first.startTime + first.duration
    })
    const frames: number[] = []
    for (let i = 0; i < 12; i++) {
      const watching = page.evaluate<number[]>(WATCH_FRAMES)
      await page.keyboard.press(i % 2 ? '[' : ']')
      await page.waitForTimeout(80) // keys in a rush would be a caliper's figure
      await page.keyboard.press('Enter')
      frames.push(...(await watching))
      await settled()
      await page.waitForTimeout(200)
    }
    const warm = (await advice()).slice(1)
    console.log(
      [
        `CPU ÷ ${throttle}, ${EVENTS}+ events: first advice ${cold.toFixed(0)} ms after its log, ${shown.toFixed(0)} after the page was gone to`,
        `warm ${halfAndP95(warm, 0)} (${warm.length} turns)`,
        `frames while a turn animates: ${halfAndP95(frames, 1)}`,
      ].join('; '),
    )
  }
  for (const throttle of wanted('cables') ? [1, 4] : []) {
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: throttle })
    const took = (name: string) => page.evaluate(n => performance.getEntriesByName(n).map(e => e.duration), name)
    await page.goto(`${server.url}/jobs/${number}/cables`)
    if (throttle === 1) await page.locator('[data-test=template-external]').click()
    await page.locator('[data-test=panel-loop]').click()
    const straight = page.locator('[data-test=pose-straight]')
    await straight.waitFor({ timeout: 60_000 })
    const frames: number[] = []
    for (const pose of ['left', 'right', 'left', 'straight']) {
      const watching = page.evaluate<number[]>(WATCH_FRAMES)
      await page.locator(`[data-test=pose-${pose}]`).click()
      frames.push(...(await watching))
    }
    const [loop] = await took('loop')
    await page.locator('[data-test=panel-cut]').click()
    if (throttle === 1)
      for (const lengthMm of STOCK_MM)
        await page.request.post(`${server.url}/api/cables/stock`, {
          data: { kind: 'shift 4 mm', lengthMm, roll: lengthMm > 3000, label: '' },
        })
    await page.reload()
    await page.locator('[data-test=panel-cut]').click()
    await page.getByText('Another piece').click()
    for (let i = 0; i < 58; i++) {
      await page.getByLabel('Name', { exact: true }).fill(`p${i}`)
      await page
        .locator('form', { has: page.locator('[data-test=extra-add]') })
        .getByLabel('Length, mm')
        .fill(String(150 + ((i * 137) % 640)))
      await page.locator('[data-test=extra-add]').click()
    }
    await page.locator('[data-test=work-out]').click()
    await page.locator('[data-test=plan]').waitFor({ timeout: 60_000 })
    const [cut] = await took('cut')
    console.log(
      [
        `cable bench, CPU ÷ ${throttle}: loop and its 25 shapes ${loop!.toFixed(0)} ms`,
        `cut list of 60 pieces from ${STOCK_MM.length} rolls and offcuts ${cut!.toFixed(0)} ms in the worker (target 1 s)`,
        `frames while the bars turn: ${halfAndP95(frames, 1)} (60 a second: 16.7)`,
      ].join('; '),
    )
    await page.goto(`${server.url}/jobs/${number}/front`)
    if (throttle === 1) await page.locator('[data-test=usual-double]').click()
    const front = page.locator('section[aria-label="Next move"][aria-busy="false"]')
    await front.waitFor({ timeout: 60_000 })
    for (let i = 0; i < 12; i++) {
      const before = (await took('front')).length
      await page.locator(`[data-test=shift-${i % 2 ? '1-0' : '0-1'}]`).click()
      await page
        .locator(
          `[data-test=seen-${['clean', 'clean', 'rubs-outer', 'clean', i % 2 ? 'no-drop' : 'no-climb', 'clean'][i % 6]}]`,
        )
        .click()
      await page.waitForFunction(n => performance.getEntriesByName('front').length > n, before)
      await front.waitFor()
    }
    const [first, ...next] = await took('front')
    console.log(
      `front, CPU ÷ ${throttle}: first advice ${first!.toFixed(0)} ms, next move median ${quantile(next, 0.5).toFixed(0)} ms, p95 ${quantile(next, 0.95).toFixed(0)} ms in the worker (target 50 ms)`,
    )
  }
  if (wanted('taps')) await taps()
} finally {
  await browser.close()
  await server.stop()
  await db.destroy()
  await remove()
}

/** How soon a tap's result is drawn, and seen on a second tablet. */
async function taps(): Promise<void> {
  await (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: 1 })
  const other = await context.newPage()
  await page.goto(`${server.url}/jobs/${number}/rear`)
  await other.goto(`${server.url}/jobs/${number}/rear`)
  await page.bringToFront()
  const net = (on: typeof page) => on.locator('[data-test=net-barrel]').textContent()
  const drawn: number[] = []
  const seen: number[] = []
  for (let i = 0; i < 7; i++) {
    await settled()
    await page.keyboard.press('e')
    await page.waitForSelector('[data-test="turn-out-0.125"]')
    drawn.push(await page.evaluate<number>(TAP))
    const start = performance.now()
    const mine = await net(page)
    while ((await net(other)) !== mine && performance.now() - start < 10_000) await other.waitForTimeout(20)
    seen.push(performance.now() - start)
  }
  console.log(
    [
      `a tap's result on screen: median ${quantile(drawn, 0.5).toFixed(0)} ms (target 100 ms), the server answering`,
      `on a second tablet after a median of ${quantile(seen, 0.5).toFixed(0)} ms, at most ${Math.max(...seen).toFixed(0)} ms (target 1 s)`,
    ].join('; '),
  )
}
