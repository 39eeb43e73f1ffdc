import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** What every project shares. */
// generous: how fast things are is measured by the benchmarks, and a busy machine takes twice as long
const test = { testTimeout: 120_000, pool: 'forks', environment: 'node' } as const

export default defineConfig({
  test: {
    // one more than the two cores this is measured on: those that ask a database wait
    maxWorkers: 3,
    projects: [
      // the trade and everything about it: no database, no browser
      // (it keeps no state between files, so they share their modules)
      { test: { ...test, name: 'core', include: ['core/**/*.test.ts'], pool: 'threads', isolate: false } },
      // what the browser keeps and sends, without a browser
      { resolve: { alias: { '~': here('app') } }, test: { ...test, name: 'app', include: ['app/**/*.test.ts'] } },
      // with a PostgreSQL cluster of their own; a file that changes its process puts it back at its end
      {
        test: {
          ...test,
          name: 'server',
          isolate: false,
          include: ['server/**/*.test.ts', 'ops/**/*.test.ts', 'demo/**/*.test.ts'],
          globalSetup: ['ops/testDatabase.ts'],
        },
      },
    ],
  },
})
