import { randomBytes, randomUUID } from 'node:crypto'
import { expect, type Browser, type BrowserContext, type Page } from '@playwright/test'
import { EventId, PersonId } from '#core/chapter/ids'
import type { LedgerEvent } from '#core/ledger/events'
import { simulatedBench, type SimulatedBench } from '#core/bench/bench'
import { setupOf, type RearParts } from '#core/rear/parts'
import { buildDemo } from '../demo/build'
import { stockParts } from '#core/rear/typedParts'
import { hiddenBike, type Trouble } from '../demo/bikes'
import type { DemoJob } from '../demo/jobs'
import { DEMO_PEOPLE } from '../demo/people'
import { connect, inShop, type Db } from '../server/db/connect'
import { takeIn } from '../server/db/jobs'
import { append } from '../server/db/ledger'
import { personByName } from '../server/db/people'
import { test as base } from './profile'

export type TestShop = {
  code: string
  id: string
  db: Db
  person(name: string): Promise<string>
  /** @param long every word at the door as long as may be, with no room to break */
  takeIn(tag: string, parts?: RearParts | null, long?: boolean): Promise<number>
  /** L seen by hand on that job, so that the largest sprocket is free. */
  seeL(number: number): Promise<void>
}

export const SERVER = () => process.env.OCHO_E2E_URL!

/** Makes a shop with the demo's people and the given jobs, through the same services as the demo. */
export async function makeShop(db: Db, jobs: readonly DemoJob[] = [], demo = false): Promise<TestShop> {
  const code = `t-${randomBytes(6).toString('hex')}`
  const shop = { code, name: `Bench ${code}`, zone: 'Europe/Dublin' }
  const id = await buildDemo(db, { shop, jobs, demo, past: false })
  const person = (name: string) => inShop(db, id, async tx => (await personByName(tx, id, name))!.id)
  const put = async (number: number, event: LedgerEvent) => {
    const by = PersonId.parse(await person('Ishbel'))
    const stamp = { id: EventId.parse(randomUUID()), v: 1 as const, at: new Date().toISOString(), basedOn: 1, by }
    await append(db, id, number, null, [{ ...stamp, event, verified: true, signedBy: null }])
  }
  return {
    code,
    id,
    db,
    person,
    seeL: number => put(number, { kind: 'sight', at: 'L', offsetMm: 0 }),
    takeIn: async (tag, parts: RearParts | null = stockParts('r14-10'), long = false) =>
      takeIn(db, id, await person('Ishbel'), null, {
        customer: { name: long ? 'N'.repeat(80) : 'Hob Tarrant', contact: '085 555 0100' },
        bike: { name: long ? 'W'.repeat(80) : 'Marram quay', frameNumber: `F-${tag}` },
        tag,
        promisedAt: new Date(Date.now() + 86_400_000).toISOString(),
        complaint: long ? 'Ω'.repeat(280) : 'slow in the middle',
        parts,
        sameParts: false,
      }),
  }
}

/** A test with a shop of its own and a signed-in page; `demo` marks the shop as the demo's. */
export const test = base.extend<{ demo: boolean; shop: TestShop; bench: Page }>({
  demo: [false, { option: true }],
  shop: async ({ demo }, use) => {
    // a test that plays a whole bike computes for seconds on end, and its clock runs on meanwhile
    const db = connect(process.env.OCHO_E2E_APP!, 3, 60_000)
    await use(await makeShop(db, [], demo))
    await db.destroy()
  },
  bench: async ({ page, shop }, use) => {
    await signIn(page, shop)
    await use(page)
  },
})
export { expect } from '@playwright/test'

export async function signIn(page: Page, shop: TestShop, options: { name?: string; url?: string } = {}): Promise<void> {
  const { name = 'Ishbel', url = SERVER() } = options
  const person = DEMO_PEOPLE.find(p => p.name === name)!
  const answer = await page.request.post(`${url}/api/sign-in`, {
    data: { shop: shop.code, name, password: person.password },
    // a connection that a refusal before this one ended is opened anew
    maxRetries: 2,
  })
  if (!answer.ok()) throw new Error(`sign-in: ${answer.status()} ${await answer.text()}`)
}

export async function ready(page: Page): Promise<void> {
  await page.waitForSelector('[data-hydrated]')
}

/** Opens a job's rear bench and waits for the first advice. */
export async function openBench(page: Page, number: number, url = SERVER()): Promise<void> {
  await page.goto(`${url}/jobs/${number}/rear`)
  await settled(page)
}

/** A key as a hand presses it: keys in a rush would be a caliper's figure. */
export async function press(page: Page, key: string): Promise<void> {
  await page.keyboard.press(key, { delay: 60 })
}

/** A figure as a caliper types it: faster than any hand, however busy the machine is, and Enter at its end. */
export async function caliper(page: Page, figure: string): Promise<void> {
  await page.evaluate(
    keys => {
      for (const key of keys)
        (document.activeElement ?? document.body).dispatchEvent(
          new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }),
        )
    },
    [...figure, 'Enter'],
  )
}

/** Does something that changes the belief, and waits until the advice for it is drawn. */
export async function advised(page: Page, act: () => Promise<void>): Promise<void> {
  const asked = () => performance.getEntriesByName('advice').length
  const before = await page.evaluate(asked)
  await act()
  await page.waitForFunction(n => performance.getEntriesByName('advice').length > n, before)
  await settled(page)
}

/** The move has been there long enough to be seen: a touch on it counts. */
export const seen = (page: Page) => page.locator('[data-test=accept][aria-disabled=false]').waitFor()

/** The advice is drawn and no longer stale. */
export async function settled(page: Page): Promise<void> {
  await page.waitForSelector('section[aria-label="Next move"][aria-busy="false"]', { timeout: 60_000 })
}

export async function otherDevice(
  browser: Browser,
  shop: TestShop,
  name = 'Ishbel',
): Promise<{ page: Page; context: BrowserContext }> {
  const context = await browser.newContext()
  const page = await context.newPage()
  await signIn(page, shop, { name })
  return { page, context }
}

/** A simulated bike whose answers the test gives. */
export function bikeOnStand(parts: RearParts, trouble: Trouble, seed = 5): SimulatedBench {
  return simulatedBench(setupOf(parts), hiddenBike(parts, trouble), seed)
}

/** Posts entries to a job's log as a tablet does; answers what became of the one. */
export const sender =
  (page: Page, number: number, by: string, url = SERVER()) =>
  (event: unknown, id: string = randomUUID(), at = new Date().toISOString()) =>
    page.request
      .post(`${url}/api/jobs/${number}/events`, {
        data: { entries: [{ id, v: 1, at, basedOn: 1, by, event }] },
      })
      .then(
        async r => ((await r.json()) as { answers: { is: string; field?: string; message?: string }[] }).answers[0]!,
      )

/** Asks for the hand-back as the sheet's page does. */
export const handBack = (page: Page, number: number, order: object = {}) =>
  page.request.post(`${SERVER()}/api/jobs/${number}/hand-back`, {
    data: { id: randomUUID(), basedOn: 1, how: 'proven', fault: null, ...order },
  })

/** Nothing is on its way any more that would change how the page looks. */
export async function still(page: Page): Promise<void> {
  await page.waitForFunction(async () => {
    await document.fonts.ready
    const moving = document.getAnimations().some(a => a.playState === 'running')
    return !moving && !document.querySelector('[aria-busy=true]')
  })
}

/** Everything tapped here is on the server. */
export const saved = (page: Page) => expect(page.locator('[data-test=saved]')).toHaveText('saved')

/** Entries in the database: what was really kept. */
export const storedEvents = (shop: TestShop, number: number) =>
  inShop(shop.db, shop.id, tx =>
    tx
      .selectFrom('event')
      .innerJoin('job', j => j.onRef('job.shop', '=', 'event.shop').onRef('job.id', '=', 'event.job'))
      .select(['event.id', 'event.seq', 'event.body', 'event.verified', 'event.signed_by'])
      .where('job.shop', '=', shop.id)
      .where('job.number', '=', number)
      .orderBy('event.seq')
      .execute(),
  )
