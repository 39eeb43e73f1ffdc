import { defineConfig } from 'vitest/config'

/** What the mutation tester runs over core: all its tests but the long simulations, which judge figures and not lines. */
export default defineConfig({
  test: {
    include: ['core/**/*.test.ts'],
    exclude: ['core/bench/**', 'core/advice/grid.test.ts', 'core/advice/decide.test.ts', 'core/front/advise.test.ts'],
    // nor what plays many simulated bikes: it covers every line and would run for every mutant
    testNamePattern: /^(?!.*(simulated|followed to the end|of the population|throws no chain|random batches)).*/,
    testTimeout: 60_000,
    pool: 'threads',
  },
})
