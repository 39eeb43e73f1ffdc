import type { Page } from '@playwright/test'

/**
 * JavaScript that a page waits for, kB as sent by brotli, by file; workers included, what is fetched ahead while idle
 * left out.
 */
export async function scriptsOf(bench: Page, url: string): Promise<{ kb: number; files: number }> {
  const context = await bench
    .context()
    .browser()!
    .newContext({ storageState: await bench.context().storageState() })
  const page = await context.newPage()
  const urls = new Set<string>()
  page.on('request', r => {
    const ahead = 'sec-purpose' in r.headers() || 'purpose' in r.headers()
    if (!ahead && /\.js$/.test(new URL(r.url()).pathname)) urls.add(r.url())
  })
  await page.goto(url)
  await page.waitForSelector('main')
  await page.waitForLoadState('networkidle')
  const sizes = new Map<string, number>()
  for (const script of urls) {
    const got = await bench.request.get(script, { headers: { 'accept-encoding': 'br' }, maxRetries: 2 })
    if (!script.endsWith('/sw.js')) sizes.set(script.split('/').pop()!, Number(got.headers()['content-length']))
  }
  await context.close()
  return { kb: [...sizes.values()].reduce((a, b) => a + b, 0) / 1000, files: urls.size }
}
