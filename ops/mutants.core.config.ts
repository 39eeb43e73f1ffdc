import { defineConfig } from 'vitest/config'

/** What the mutation tester runs over core: all its tests but the long simulations, which judge figures and not lines. */
export default defineConfig({
  test: {
    include: ['core/**/*.test.ts'],
    exclude: ['core/bench/**', 'core/advice/grid.test.ts', 'core/advice/decide.test.ts', 'core/front/advise.test.ts'],
    testTimeout: 60_000,
    pool: 'threads',
  },
})
