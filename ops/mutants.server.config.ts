import { defineConfig } from 'vitest/config'

/** What the mutation tester runs over the server's database: its tests, with a cluster of their own. */
export default defineConfig({
  test: {
    include: ['server/**/*.test.ts'],
    globalSetup: ['ops/testDatabase.ts'],
    testTimeout: 60_000,
    pool: 'threads',
  },
})
