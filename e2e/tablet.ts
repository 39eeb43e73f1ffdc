import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type BrowserContext } from '@playwright/test'
import config from '../playwright.config'

/** A name that only these browsers know, and that leads to loopback. */
export const HOST = 'ocho-shop.lan'
const launch = config.use!.launchOptions!

/**
 * A tablet of its own: with a memory, a list of authorities it trusts, and a network that knows the shop's machine by
 * name.
 */
export async function newTablet(names: Record<string, string> = { [HOST]: '127.0.0.1' }) {
  const home = mkdtempSync(join(tmpdir(), 'ocho-tablet-'))
  const trusted = join(home, '.pki', 'nssdb')
  mkdirSync(trusted, { recursive: true })
  const certutil = (...args: string[]) => execFileSync('certutil', ['-d', `sql:${trusted}`, ...args])
  certutil('-N', '--empty-password')
  let context: BrowserContext | undefined
  return {
    /** What its owner does in its settings, with the file that was downloaded. */
    trust(certificate: Buffer) {
      writeFileSync(join(home, 'authority.crt'), certificate)
      certutil('-A', '-t', 'C,,', '-n', 'shop', '-i', join(home, 'authority.crt'))
    },
    /** Switched on: what it trusts is read then. */
    async open(): Promise<BrowserContext> {
      await context?.close()
      const rules = Object.entries(names).map(([name, to]) => `MAP ${name} ${to}`)
      context = await chromium.launchPersistentContext(join(home, 'profile'), {
        ...launch,
        viewport: { width: 1024, height: 768 },
        serviceWorkers: 'allow',
        args: [
          ...launch.args!,
          `--host-resolver-rules=${rules.join(', ')}`,
          '--use-fake-device-for-media-stream',
          '--use-fake-ui-for-media-stream',
        ],
        env: { ...process.env, HOME: home } as Record<string, string>,
      })
      return context
    },
    async gone() {
      await context?.close()
      rmSync(home, { recursive: true, force: true })
    },
  }
}
