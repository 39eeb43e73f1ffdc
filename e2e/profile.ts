import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as base, type BrowserContext, type CDPSession } from '@playwright/test'

type Profile = { context: BrowserContext; cdp: CDPSession }

/** What a page keeps in its browser; not the pages themselves, nor what was compiled of them. */
const KEPT = 'local_storage,indexeddb,cache_storage,service_workers,file_systems'

/**
 * A test whose page is in a browser that its worker keeps: one made anew for each test fetches and compiles every
 * script again, which is a third of a test's work. Nothing of one test reaches the next: pages are closed, what they
 * kept, were allowed and were routed to is taken away. With `serviceWorkers: 'allow'` a test has a browser of its own,
 * as it has from `browser.newContext()`.
 */
export const test = base.extend<object, { profile: Profile }>({
  profile: [
    async ({ playwright }, use, { project }) => {
      const folder = mkdtempSync(join(tmpdir(), 'ocho-browser-'))
      const { launchOptions, contextOptions, viewport } = project.use
      const context = await playwright.chromium.launchPersistentContext(folder, {
        ...launchOptions,
        ...contextOptions,
        viewport,
        serviceWorkers: 'block',
      })
      // it stays open all the time: a browser without a page ends
      const [first] = context.pages()
      await use({ context, cdp: await context.newCDPSession(first!) })
      await context.close()
      rmSync(folder, { recursive: true, force: true })
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, profile, serviceWorkers, actionTimeout }, use) => {
    if (serviceWorkers === 'allow') {
      const own = await browser.newContext()
      await use(own)
      await own.close()
      return
    }
    const { context, cdp } = profile
    const [first] = context.pages()
    context.setDefaultTimeout(actionTimeout ?? 0)
    await use(context)
    await context.setOffline(false)
    await Promise.all(
      context
        .pages()
        .filter(page => page !== first)
        .map(page => page.close()),
    )
    await context.unrouteAll({ behavior: 'ignoreErrors' })
    await context.clearPermissions()
    await context.clearCookies()
    await cdp.send('Storage.clearDataForOrigin', { origin: process.env.OCHO_E2E_URL!, storageTypes: KEPT })
  },
})
