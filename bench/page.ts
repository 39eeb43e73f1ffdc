import { randomUUID } from 'node:crypto'
import { chromium } from '@playwright/test'
import { advise } from '#core/advice/advise'
import { simulatedBench } from '#core/bench/bench'
import { EVENT_VERSION, EventId, PersonId } from '#core/ledger/events'
import { ledgerEventOf } from '#core/ledger/fromBench'
import { setupOf } from '#core/ledger/parts'
import { stockParts } from '#core/ledger/typedParts'
import { buildDemo } from '../demo/build'
import { hiddenBike } from '../demo/bikes'
import { DEMO_PEOPLE } from '../demo/people'
import { startServer } from '../ops/server'
import { throwawayCluster } from '../ops/testDatabase'
import { connect, inShop } from '../server/db/connect'
import { takeIn } from '../server/db/jobs'
import { append } from '../server/db/ledger'
import { personByName } from '../server/db/people'

/** The bench page in a real browser: advice in the worker and frames while a turn animates. npm run bench:page, after a build. */
const quantile = (values: number[], share: number): number => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]
const EVENTS = 60
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

const { cluster, remove } = await throwawayCluster()
const db = connect(cluster.appUrl)
const shop = await buildDemo(db, { shop: { code: 'page', name: 'Page', zone: 'UTC' }, jobs: [], demo: false })
const person = PersonId.parse(await inShop(db, shop, async tx => (await personByName(tx, shop, 'Ishbel'))!.id))
const parts = stockParts('r11-12w')
const number = await takeIn(db, shop, person, null, { customer: { name: 'A', contact: '' }, bike: { name: 'B', frameNumber: '' }, tag: '1', promisedAt: new Date().toISOString(), complaint: 'c', parts, sameParts: false })
const bench = simulatedBench(setupOf(parts), hiddenBike(parts, { slackMm: 0.7 }), 3)
while (bench.log.length < EVENTS) {
  const { move } = advise(bench.setup, [...bench.log])
  if (!bench.perform(move)) bench.perform({ do: 'shift', to: 1 + (bench.log.length % 9) })
}
const entries = bench.log.flatMap((e, i) => (e.kind === 'unclean' ? [] : [{ id: EventId.parse(randomUUID()), v: EVENT_VERSION, at: new Date().toISOString(), basedOn: i + 1, by: person, event: ledgerEventOf(e), verified: true, signedBy: null } as const]))
await append(db, shop, number, null, entries)
const server = await startServer({ appUrl: cluster.appUrl, port: 0 })
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.request.post(`${server.url}/api/sign-in`, { data: { shop: 'page', name: 'Ishbel', password: DEMO_PEOPLE[0].password } })
const settled = () => page.waitForSelector('section[aria-label="Next move"][aria-busy="false"]', { timeout: 30_000 })
const advice = () => page.evaluate(() => performance.getEntriesByName('advice').map(e => e.duration))

try {
  for (const throttle of [1, 4]) {
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: throttle })
    await page.goto(`${server.url}/standards/match`)
    await page.waitForSelector('[data-test=matrix]', { timeout: 30_000 })
    for (const id of ['r17-8', 'r11-9', 'r12-11', 'r15-10', 'r19-8']) {
      await page.locator('[data-test=pick-derailleur]').selectOption(id)
      await page.waitForTimeout(400)
    }
    const took = await page.evaluate(() => performance.getEntriesByName('matrix').map(e => e.duration))
    console.log(`match matrix in the worker, CPU ÷ ${throttle}: first ${took[0].toFixed(0)} ms, then median ${quantile(took.slice(1), 0.5).toFixed(0)} ms (target 100 ms)`)
  }
  for (const throttle of [1, 4]) {
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: throttle })
    await page.goto(`${server.url}/jobs/${number}/rear`)
    await settled()
    const [cold] = await advice()
    const frames: number[] = []
    for (let i = 0; i < 12; i++) {
      const watching = page.evaluate<number[]>(WATCH_FRAMES)
      await page.keyboard.press(i % 2 ? '[' : ']')
      await page.waitForTimeout(80) // keys in a rush would be a caliper's figure
      await page.keyboard.press('Enter')
      frames.push(...await watching)
      await settled()
      await page.waitForTimeout(200)
    }
    const warm = (await advice()).slice(1)
    console.log(`CPU ÷ ${throttle}, ${EVENTS}+ events: first advice ${cold.toFixed(0)} ms; warm median ${quantile(warm, 0.5).toFixed(0)} ms, p95 ${quantile(warm, 0.95).toFixed(0)} ms (${warm.length} turns); frames while a turn animates: median ${quantile(frames, 0.5).toFixed(1)} ms, p95 ${quantile(frames, 0.95).toFixed(1)} ms`)
  }
  await (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: 1 })
  const other = await page.context().newPage()
  await other.goto(`${server.url}/jobs/${number}/rear`)
  await page.bringToFront()
  const net = (on: typeof page) => on.locator('[data-test=net-barrel]').textContent()
  const taps: number[] = []
  const seen: number[] = []
  for (let i = 0; i < 7; i++) {
    await settled()
    await page.keyboard.press('e')
    await page.waitForSelector('[data-test="turn-out-0.125"]')
    taps.push(await page.evaluate<number>(TAP))
    const start = performance.now()
    const mine = await net(page)
    while (await net(other) !== mine && performance.now() - start < 10_000) await other.waitForTimeout(20)
    seen.push(performance.now() - start)
  }
  console.log(`a tap's result on screen: median ${quantile(taps, 0.5).toFixed(0)} ms (target 100 ms), the server answering; on a second tablet after a median of ${quantile(seen, 0.5).toFixed(0)} ms, at most ${Math.max(...seen).toFixed(0)} ms (target 1 s)`)
} finally {
  await browser.close()
  await server.stop()
  await db.destroy()
  await remove()
}
