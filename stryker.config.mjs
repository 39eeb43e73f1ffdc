/**
 * Mutation tests (`npm run mutants`): does some test fail when the code is wrong? Not part of `./ocho test`; it takes
 * long. Words are left alone: what a person reads is no decision, and ids are the compiler's to check.
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  testRunner: 'vitest',
  vitest: { configFile: process.env.OCHO_MUTANTS_CONFIG ?? 'ops/mutants.core.config.ts' },
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  mutator: { excludedMutations: ['StringLiteral', 'Regex'] },
  // Nuxt's types are needed to read tsconfig.json
  ignorePatterns: ['!.nuxt', '.output', 'docs/screenshots', 'e2e', 'test-results', 'reports', '.data'],
  tempDirName: '.stryker-tmp',
  // of core, two at once take hours where one takes minutes (on two cores); the database waits more than it works
  concurrency: process.env.OCHO_MUTANTS_CONFIG?.includes('server') ? 2 : 1,
  timeoutMS: Number(process.env.OCHO_MUTANTS_PATIENCE_MS ?? 6_000),
  // every test once with each mutant counted: slower than the tests themselves
  dryRunTimeoutMinutes: 30,
  reporters: ['json', 'progress-append-only'],
  jsonReporter: { fileName: process.env.OCHO_MUTANTS_REPORT ?? 'reports/mutants.json' },
}
