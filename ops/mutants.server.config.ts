import { defineConfig } from 'vitest/config'

/** What the mutation tester runs over the server's database: its tests, with a cluster of their own. */
export default defineConfig({
  test: {
    include: ['server/**/*.test.ts'],
    globalSetup: ['ops/testDatabase.ts'],
    // the same gate five hundred times would run for every mutant
    testNamePattern: /^(?!.*500).*/,
    testTimeout: 60_000,
    pool: 'threads',
  },
})
