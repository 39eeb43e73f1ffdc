import { defineConfig } from '@playwright/test'
import { CHROMIUM } from './ops/chromium'

export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/setup.ts',
  // one more than the two cores this is measured on: a test waits as often as it works
  workers: 3,
  fullyParallel: true,
  // generous: how fast things are is measured by the benchmarks, on a quiet machine
  timeout: 180_000,
  expect: { timeout: 25_000 },
  retries: 0,
  reporter: process.env.OCHO_E2E_REPORT
    ? [['list'], ['json', { outputFile: process.env.OCHO_E2E_REPORT }]]
    : [['list']],
  use: {
    // it would fetch all of the build for every test; those of being offline let it
    serviceWorkers: 'block',
    // nothing is told by a movement alone, and drawing each frame of one costs the machine
    contextOptions: { reducedMotion: 'reduce' },
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    actionTimeout: 40_000,
    launchOptions: CHROMIUM,
  },
})
