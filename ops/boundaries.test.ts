import { ESLint } from 'eslint'
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, normalize } from 'node:path'
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

test.each([
  [
    'server/db/bad.ts',
    "import { sql } from 'kysely'\nexport const bad = (name: string) => sql.raw(`select ${name}`)\n",
  ],
  ['server/api/bad.ts', "import { CompiledQuery } from 'kysely'\nexport const bad = CompiledQuery.raw('select 1')\n"],
  [
    'server/db/bad.ts',
    'export const bad = (pool: { query(s: string): unknown }, name: string) => pool.query(`select ${name}`)\n',
  ],
])(
  'no statement is made of text in %s: %#',
  async (path, text) => {
    const [result] = await new ESLint({ cwd: root }).lintText(text, { filePath: join(root, path) })
    expect(result.messages.filter(m => m.ruleId === 'no-restricted-syntax')).not.toEqual([])
  },
  60_000,
)

test('what is allowed passes', async () => {
  expect(
    await messages('server/db/good.ts', "import { reduce } from '../../core/ledger/reduce'\nconsole.log(reduce)\n"),
  ).toEqual([])
}, 60_000)

/** Folders of core, the lowest first: each imports only those before it, so that none goes round in a circle. */
const CORE_LAYERS = [
  'quantity',
  'inference',
  'standards',
  'response',
  'sound',
  'chapter',
  'procedure',
  'cable',
  'rear',
  'hearing',
  'job',
  'front',
  'brake',
  'hub',
  'sight',
  'advice',
  'habits',
  'bench',
  'practice',
  'ledger',
  'records',
  'travel',
  'paper',
  'recall',
  'shop',
  'http',
  'exchange',
]

/** Every file of a folder with what it imports of the project, each by its path from the root. */
function importsOf(folder: string): { file: string; to: string }[] {
  return readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter(f => /\.(ts|vue)$/.test(f) && !/\.test\.ts$|(^|\/)test[A-Z]\w*\.ts$/.test(f))
    .flatMap(f => {
      const file = join(folder, f)
      const text = readFileSync(join(root, file), 'utf8')
      return [...text.matchAll(/(?:from|import\() ?'([^']+)'/g)].flatMap(([, path]) => {
        if (path!.startsWith('#core/')) return [{ file, to: path!.replace('#core/', 'core/') }]
        return path!.startsWith('.') ? [{ file, to: normalize(join(dirname(file), path!)) }] : []
      })
    })
}

test('the folders of core are layers: each imports those below it alone', () => {
  const layer = (path: string) => path.split('/')[1]!
  const seen = importsOf('core').filter(({ file }) => file !== 'core/index.ts')
  const folders = readdirSync(join(root, 'core'), { withFileTypes: true }).filter(e => e.isDirectory())
  expect(new Set(folders.map(f => f.name))).toEqual(new Set(CORE_LAYERS))
  const upwards = seen.filter(({ file, to }) => CORE_LAYERS.indexOf(layer(to)) > CORE_LAYERS.indexOf(layer(file)))
  expect(upwards.map(({ file, to }) => `${file} imports ${to}`)).toEqual([])
})

test.each(['core', 'server', 'app'])('%s knows nothing of the demo, the tools or the tests', folder => {
  const found = importsOf(folder).filter(({ to }) => /^(demo|ops|e2e|bench)\//.test(to))
  expect(found.map(({ file, to }) => `${file} imports ${to}`)).toEqual([])
})
