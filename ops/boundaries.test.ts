import { ESLint } from 'eslint'
import { join } from 'node:path'
import { expect, test } from 'vitest'

const root = join(import.meta.dirname, '..')

/** Lints a text as if it stood at a path: the rule must really fire. */
async function messages(path: string, text: string): Promise<string[]> {
  const [result] = await new ESLint({ cwd: root }).lintText(text, { filePath: join(root, path) })
  return result.messages
    .filter(m => m.ruleId === 'import-x/no-restricted-paths' || m.ruleId === 'no-restricted-imports')
    .map(m => m.message)
}

test.each([
  [
    'core/advice/bad.ts',
    "import { connect } from '../../server/db/connect'\nconsole.log(connect)\n",
    'core imports nothing of the project outside core',
  ],
  ['core/advice/bad.ts', "import { ref } from 'vue'\nconsole.log(ref)\n", 'core is pure TypeScript'],
  [
    'core/advice/bad.ts',
    "import { readFileSync } from 'node:fs'\nconsole.log(readFileSync)\n",
    'core is pure TypeScript',
  ],
  [
    'app/stores/bad.ts',
    "import { connect } from '../../server/db/connect'\nconsole.log(connect)\n",
    'only in the HTTP contract',
  ],
  ['server/db/bad.ts', "import { kept } from '../../app/stores/kept'\nconsole.log(kept)\n", 'never app'],
])(
  '%s may not: %#',
  async (path, text, words) => {
    expect((await messages(path, text)).join()).toContain(words)
  },
  60_000,
)

test('what is allowed passes', async () => {
  expect(
    await messages('server/db/good.ts', "import { reduce } from '../../core/ledger/reduce'\nconsole.log(reduce)\n"),
  ).toEqual([])
}, 60_000)
