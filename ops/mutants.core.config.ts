import { defineConfig } from 'vitest/config'

/**
 * What the mutation tester runs over core: all its tests but the long simulations, which judge figures and not lines.
 */
export default defineConfig({
  test: {
    // a part that names its tests is judged by them alone: no mutant waits for tests that know nothing of it
    include: (process.env.OCHO_MUTANTS_TESTS ?? 'core/**/*.test.ts').split(','),
    exclude: ['core/bench/**', 'core/advice/grid.test.ts', 'core/advice/decide.test.ts', 'core/front/advise.test.ts'],
    // nor what plays many simulated bikes: it covers every line and would run for every mutant
    testNamePattern:
      /^(?!.*(simulated|unlike the diagnosis|followed to the end|of the population|throws no chain|exact solver|sixty pieces|planted filling|Bézier library|edges come first|two clicks at a stroke|climb, then L|is advised only where|by the first four nothing|tension first)).*/,
    testTimeout: 60_000,
    pool: 'threads',
  },
})
