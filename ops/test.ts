import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { say } from './say'
import { ROOT } from './server'

/** Runs everything in order, stops at the first step that fails, and ends with one line of counts. */
const reports = mkdtempSync(join(tmpdir(), 'ocho-reports-'))
const count = { passed: 0, failed: 0 }

async function step(what: string, command: string, args: string[], env: Record<string, string> = {}): Promise<boolean> {
  say(what)
  const child = spawn(command === 'npm' ? command : join(ROOT, 'node_modules', '.bin', command), args, {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  })
  const ok = await new Promise<boolean>((resolve, reject) =>
    child.on('error', reject).on('close', code => resolve(code === 0)),
  )
  say(`${what}: ${ok ? 'done' : 'failed'}`)
  return ok
}

function end(ok: boolean): never {
  if (!ok && count.failed === 0) count.failed = 1
  say(ok ? 'all is well' : 'something failed: see above')
  console.log(`${count.passed} passed, ${count.failed} failed`)
  process.exit(ok ? 0 : 1)
}

const unitReport = join(reports, 'unit.json')
const e2eReport = join(reports, 'e2e.json')

if (!(await step('preparing types', 'nuxt', ['prepare']))) end(false)
/** What the page of each browser test that failed had on it, in words: Playwright keeps it beside its picture. */
function pagesOfFailures(): string[] {
  const results = join(ROOT, 'test-results')
  if (!existsSync(results)) return []
  return readdirSync(results)
    .map(test => join(results, test, 'error-context.md'))
    .filter(file => existsSync(file))
    .map(file => readFileSync(file, 'utf8').slice(0, 6000))
}
/** One after the other, up to the first that fails. */
async function inTurn(...steps: (() => Promise<boolean>)[]): Promise<boolean> {
  for (const one of steps) if (!(await one())) return false
  return true
}
async function unitTests(): Promise<boolean> {
  const unit = await step('unit tests', 'vitest', [
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${unitReport}`,
  ])
  if (existsSync(unitReport)) {
    const told = JSON.parse(readFileSync(unitReport, 'utf8')) as { numPassedTests: number; numFailedTests: number }
    count.passed += told.numPassedTests
    count.failed += told.numFailedTests
  }
  return unit
}
// Each of the two keeps one core busy. The build writes its types anew as it starts; by when they are checked it has,
// and they are the same. (`npm run typecheck` would prepare them once more, under its feet.) The unit tests need
// neither, and fill the core that is free first.
const checked = await Promise.all([
  inTurn(() => step('building', 'nuxt', ['build']), unitTests),
  inTurn(
    () => step('formatting', 'oxfmt', ['--check']),
    () => step('linting', 'eslint', ['.', '--max-warnings', '0']),
    // the pages' by the compiler that knows them, all else by the one in machine code, in a fifth of the time
    () => step('checking types', 'npm', ['run', '--silent', 'types']),
  ),
])
if (!checked.every(Boolean)) end(false)
const e2e = await step('end-to-end tests', 'playwright', ['test'], { OCHO_E2E_REPORT: e2eReport })
if (existsSync(e2eReport)) {
  const { stats } = JSON.parse(readFileSync(e2eReport, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number }
  }
  count.passed += stats.expected + stats.flaky
  count.failed += stats.unexpected
}
// a failure on another machine is often all that is ever seen of it: so what its page showed is printed too
if (!e2e) pagesOfFailures().forEach(page => console.log(page))
end(e2e)
