import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { say } from './say'
import { ROOT } from './server'

/**
 * Runs the mutation tester over where a wrong line could hurt somebody, and prints its score per folder with every
 * mutant that no test noticed. `npm run mutants` for all, `npm run mutants -- brake hub` for some. All of
 * it takes four to five hours.
 */
/**
 * `tests`: those that are asked, where all of core's would take hours; `patienceMs`: how much longer than usual they
 * may take before a mutant counts as endless: too little on a busy machine, and what is merely slow counts as found.
 */
type Part = { files: string[]; config: 'core' | 'server'; goal: number; tests?: string; patienceMs?: number }
const CUT_METHODS = ['Problem', 'Fill', 'Improve', 'Branch'].map(f => `core/cable/cut${f}.ts`)
const PARTS: Record<string, Part> = {
  ledger: { files: ['core/ledger/*.ts', 'core/job/*.ts', 'core/chapter/*.ts'], config: 'core', goal: 90 },
  decision: {
    files: ['core/advice/decide.ts', 'core/advice/checks.ts'],
    config: 'core',
    goal: 80,
    tests: 'core/advice/checks.test.ts,core/advice/decideRules.test.ts',
    patienceMs: 5_000,
  },
  advice: {
    // one by one: the tester reads its list by commas
    files: [
      ...['explain', 'moveKey', 'moveWords', 'blames'].map(f => `core/advice/${f}.ts`),
      ...['stops', 'gap', 'hanger', 'clamp'].map(f => `core/rear/${f}.ts`),
    ],
    config: 'core',
    goal: 80,
    tests: 'core/advice/*.test.ts,core/rear/*.test.ts,core/ledger/*.test.ts',
    patienceMs: 5_000,
  },
  brake: { files: ['core/brake/*.ts'], config: 'core', goal: 80 },
  hub: { files: ['core/hub/*.ts'], config: 'core', goal: 80 },
  cable: {
    files: ['core/cable/*.ts', ...CUT_METHODS.map(f => `!${f}`)],
    config: 'core',
    goal: 80,
    tests: 'core/cable/*.test.ts',
    patienceMs: 5_000,
  },
  // loops within loops: many mutants never end, and each waits for its limit
  cut: { files: CUT_METHODS, config: 'core', goal: 80, tests: 'core/cable/cutMethods.test.ts', patienceMs: 6_000 },
  server: { files: ['server/db/*.ts'], config: 'server', goal: 80 },
}

type Mutant = { status: string; mutatorName: string; replacement?: string; location: { start: { line: number } } }
type Report = { files: Record<string, { source: string; mutants: Mutant[] }> }
const FOUND = new Set(['Killed', 'Timeout', 'RuntimeError'])
const MISSED = new Set(['Survived', 'NoCoverage'])

const asked = process.argv.slice(2)
const unknown = asked.filter(a => !(a in PARTS))
if (unknown.length) {
  console.error(`No such part: ${unknown.join(', ')}. There are ${Object.keys(PARTS).join(', ')}`)
  process.exit(2)
}

let short = 0
for (const name of asked.length ? asked : Object.keys(PARTS)) {
  const { files, config, goal, tests, patienceMs } = PARTS[name]!
  const report = join('reports', `mutants-${name}.json`)
  say(`mutants of ${name}`)
  spawnSync(
    join(ROOT, 'node_modules', '.bin', 'stryker'),
    ['run', '-m', [...files, '!**/*.test.ts', '!**/test*.ts', '!**/*.d.ts'].join(',')],
    {
      cwd: ROOT,
      stdio: ['ignore', 2, 2],
      env: {
        ...process.env,
        OCHO_MUTANTS_CONFIG: `ops/mutants.${config}.config.ts`,
        OCHO_MUTANTS_REPORT: report,
        ...(tests && { OCHO_MUTANTS_TESTS: tests }),
        ...(patienceMs && { OCHO_MUTANTS_PATIENCE_MS: String(patienceMs) }),
      },
    },
  )
  if (!existsSync(join(ROOT, report))) {
    console.error(`${name}: the mutation tester gave no report: see above`)
    process.exit(1)
  }
  const { files: told } = JSON.parse(readFileSync(join(ROOT, report), 'utf8')) as Report
  const all = Object.entries(told).flatMap(([file, f]) =>
    f.mutants.map(m => ({ ...m, where: `${file}:${m.location.start.line}` })),
  )
  const missed = all.filter(m => MISSED.has(m.status))
  const found = all.filter(m => FOUND.has(m.status)).length
  for (const m of missed)
    console.log(`  ${m.where} ${m.mutatorName}: ${(m.replacement ?? '').replace(/\s+/g, ' ').slice(0, 90)}`)
  const score = (100 * found) / (found + missed.length)
  if (score < goal) short++
  const endless = all.filter(m => m.status === 'Timeout').length
  console.log(
    `${name}: ${found} of ${found + missed.length} noticed, ${endless} of them by time, ${score.toFixed(1)} % (goal ${goal} %)`,
  )
}
process.exit(short ? 1 : 0)
