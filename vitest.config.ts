import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'ops/**/*.test.ts', 'demo/**/*.test.ts'],
    globalSetup: ['ops/testDatabase.ts'],
    testTimeout: 60_000,
    pool: 'forks',
    maxWorkers: 2,
  },
})
