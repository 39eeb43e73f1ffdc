import type { Page } from '@playwright/test'
import { axeFinds } from './axe'
import { templateRun } from '#core/cable/templates'
import { USUAL_FRONT } from '#core/front/parts'
import { expect, ready, sender, SERVER, settled, still, test, type TestShop } from './shop'

/* Every main page at five sizes: targets a knuckle can hit, nothing out sideways, nothing that axe finds. */

const SIZES = [
  [390, 844],
  [820, 1180],
  [1280, 620],
  [1280, 800],
  [1920, 1080],
] as const

/** Targets smaller than 44 px either way. A link inside a sentence is read, not aimed at (WCAG 2.5.8 leaves it out). */
const small = (page: Page) =>
  page.evaluate(() => {
    const out: string[] = []
    for (const el of document.querySelectorAll<HTMLElement>(
      'a[href], button, input:not([type=hidden]), select, textarea, summary, [role=tab], [role=radio], [role=option], svg [tabindex="0"]',
    )) {
      const box = el.getBoundingClientRect()
      const style = getComputedStyle(el)
      if (box.width === 0 || box.height === 0 || style.visibility === 'hidden') continue
      if (el.closest('.sr-only, [aria-hidden=true], [inert]') || el.classList.contains('sr-only')) continue
      if (el.tagName === 'A' && style.display === 'inline') continue
      // a field inside its label is aimed at by the label
      const label = el.closest('label')?.getBoundingClientRect()
      const high = Math.max(box.height, label?.height ?? 0)
      const wide = Math.max(box.width, label?.width ?? 0)
      // as many as the bike has sprockets stand side by side: each is as wide as its share, and high
      const share = /^(lane|mark|cell)-/.test(el.dataset.test ?? '') ? 30 : 43.5
      if (high < 43.5 || wide < share)
        out.push(
          `${el.tagName.toLowerCase()} ${el.dataset.test ?? el.getAttribute('aria-label') ?? el.textContent?.trim().slice(0, 30)}: ${Math.round(wide)}×${Math.round(high)}`,
        )
    }
    return [...new Set(out)]
  })

/** Words of drawings that are too small to be read at arm's length, or that lie over one another. */
const drawnWords = (page: Page) =>
  page.evaluate(() => {
    const LEAST_PX = 9.5
    const out: string[] = []
    for (const svg of document.querySelectorAll('svg[role=img]')) {
      const words = [...svg.querySelectorAll<SVGTextElement>('text')]
        .map(el => ({ el, box: el.getBoundingClientRect(), says: el.textContent!.trim() }))
        .filter(w => w.says && w.box.width > 0)
      for (const { el, says } of words) {
        const to = el.getScreenCTM()!
        const px = parseFloat(getComputedStyle(el).fontSize) * Math.hypot(to.a, to.b)
        if (px < LEAST_PX) out.push(`“${says}” is drawn ${px.toFixed(1)} px tall`)
      }
      words.forEach(({ box: a, says }, i) => {
        for (const { box: b, says: other } of words.slice(i + 1)) {
          // what is left around letters may touch
          const across = Math.min(a.right, b.right) - Math.max(a.left, b.left)
          const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
          if (across > 2 && down > 5) out.push(`“${says}” lies over “${other}”`)
        }
      })
    }
    return [...new Set(out)]
  })

/** What hangs on the bike at both ends, so that every bench draws it. */
async function allSaid(page: Page, shop: TestShop, number: number) {
  const put = sender(page, number, await shop.person('Ishbel'))
  await put({ kind: 'frontParts', parts: USUAL_FRONT.double })
  const lever = { lever: 'long', leverSide: 'right' } as const
  for (const brake of ['front', 'rear'] as const)
    await put({ kind: 'brakeParts', parts: { brake, kind: 'linear-pull', ...lever } })
  for (const [place, lengthMm] of [
    ['lever loop', 420],
    ['last loop', 290],
  ] as const)
    await put({ kind: 'housing', place, lengthMm, of: '4 mm', ends: 'metal' })
  await put({ kind: 'inner', lengthMm: 2000 })
  for (const run of ['rear', 'rear-brake'] as const) await put({ kind: 'run', run: templateRun('internal', run) })
}

/** In four parts, so that two can be looked at at once. */
const PARTS: Record<string, (job: string) => string[]> = {
  'the shop’s pages': () => ['/', '/take-in', '/shop', '/day', '/devices'],
  'what is known': () => ['/standards', '/standards/match', '/standards/measure', '/standards/records'],
  'a job and its benches': job => [
    job,
    ...['rear', 'front', 'cables', 'brakes', 'hub', 'sheet', 'measure', 'listen'].map(b => `${job}/${b}`),
  ],
  Practice: () => [
    '/practice',
    ...['rear', 'front', 'brake', 'hub'].map(b => `/practice/run?bench=${b}&level=one&bike=7`),
  ],
  'its stages': job => ['said', 'sense', 'hanger', 'stops', 'cable', 'gap', 'prove'].map(s => `${job}/stage/${s}`),
}

for (const [what, pagesOf] of Object.entries(PARTS))
  test(`${what} at five sizes: every target is 44 px, nothing runs out sideways, axe finds nothing, light and dim`, async ({
    bench,
    shop,
  }) => {
    test.setTimeout(240_000)
    const number = await shop.takeIn('51')
    await allSaid(bench, shop, number)
    const found: string[] = []
    const look = async (path: string, width: number, height: number) => {
      const where = `${path} at ${width}×${height}`
      for (const s of await small(bench)) found.push(`${where}: ${s}`)
      if (width === SIZES[0][0]) for (const w of await drawnWords(bench)) found.push(`${where}: ${w}`)
      const wide = await bench.evaluate(() => document.documentElement.scrollWidth)
      if (wide > width) found.push(`${where}: ${wide} px wide`)
      // a phone’s page and a wide one: between them only lengths change, which are measured above
      if (width !== 390 && height !== 800) return
      for (const theme of ['light', 'dim'] as const) {
        await bench.evaluate(t => document.documentElement.setAttribute('data-theme', t), theme)
        for (const f of await axeFinds(bench, theme === 'dim' ? 'colours' : 'all'))
          found.push(`${where}, ${theme}: ${f}`)
      }
    }
    for (const path of pagesOf(`/jobs/${number}`)) {
      await bench.setViewportSize({ width: SIZES[0][0], height: SIZES[0][1] })
      await bench.goto(`${SERVER()}${path}`)
      await (path.startsWith('/jobs/') ? bench.waitForSelector('main') : ready(bench))
      if (path.endsWith('/rear')) await settled(bench)
      for (const [width, height] of SIZES) {
        await bench.setViewportSize({ width, height })
        await still(bench)
        await look(path, width, height)
      }
    }
    expect(found).toEqual([])
  })

/** A desk, phones, and a desk's page at four times the size (WCAG 2.2, 1.4.10). */
const WIDTHS = [1280, 390, 360, 320]
test('a name that nothing breaks keeps every page within its width', async ({ bench, shop }) => {
  const number = await shop.takeIn('52', undefined, true)
  await shop.seeL(number)
  const wide: string[] = []
  const look = async (how: string) => {
    await still(bench)
    const over = await bench.evaluate(() => document.documentElement.scrollWidth - innerWidth)
    if (over > 0) wide.push(`${new URL(bench.url()).pathname} ${how}: ${over} px too wide`)
  }
  const letters = (px: number) => bench.evaluate(size => (document.documentElement.style.fontSize = `${size}px`), px)
  const jobs = ['', '/rear', '/front', '/cables', '/brakes', '/sheet'].map(of => `/jobs/${number}${of}`)
  for (const path of ['/', '/take-in', '/day', '/recalls', '/shop', '/standards/records', ...jobs])
    for (const width of WIDTHS) {
      await bench.setViewportSize({ width, height: 844 })
      if (width === WIDTHS[0]) {
        await bench.goto(`${SERVER()}${path}`)
        await (path.startsWith('/jobs/') ? bench.waitForSelector('main') : ready(bench))
        if (path.endsWith('/rear')) await settled(bench)
      }
      await look(`at ${width}`)
      // set half as large again, as eyes that are no longer young have it on a phone
      if (width !== 390) continue
      await letters(24)
      await look('at 390 in letters of 24 px')
      await letters(16)
    }
  // and what is found while it is typed, at the door and on the Floor
  await bench.goto(`${SERVER()}/take-in`)
  await ready(bench)
  await bench.getByLabel('Bike', { exact: true }).fill('W'.repeat(80))
  await bench.getByLabel('Tag, the next free one', { exact: true }).fill('W'.repeat(80))
  for (const [path, list] of [
    [null, 'brought'],
    ['/', 'found'],
  ] as const) {
    await bench.setViewportSize({ width: WIDTHS[0]!, height: 844 })
    if (path) await bench.goto(`${SERVER()}${path}`)
    await ready(bench)
    await bench.getByRole('combobox').first().fill('W'.repeat(80))
    await expect(bench.locator(`[data-test="${list}"]`)).toContainText('here now, tag 52')
    for (const width of WIDTHS) {
      await bench.setViewportSize({ width, height: 844 })
      await look(`with ${list} at ${width}`)
    }
  }
  expect(wide).toEqual([])
})
