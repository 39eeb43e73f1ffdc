import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { ROOT } from './server'

const DOCS = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync(join(ROOT, 'docs')).flatMap(f => (f.endsWith('.md') ? [`docs/${f}`] : [])),
]
const scripts = Object.keys(
  (JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { scripts: object }).scripts,
)

/** What is written of the code must be found there: paths, links, commands. */
describe.each(DOCS)('%s', doc => {
  const text = readFileSync(join(ROOT, doc), 'utf8')
  const folder = join(ROOT, doc, '..')

  test('names only files and folders that are there', () => {
    const named = [...text.matchAll(/`((?:core|server|app|ops|demo|e2e|bench|docs)\/[\w./[\]-]+?)`/g)].map(m => m[1]!)
    expect(named.filter(path => !path.includes('…') && !existsSync(join(ROOT, path.replace(/\/$/, ''))))).toEqual([])
  })
  test('a file named beside another stands in its folder', () => {
    // as in: `core/rear/gap.ts`, `stops.ts`
    const lost = text.split('\n').flatMap(line => {
      let at = ''
      return [...line.matchAll(/`([\w./-]+\.ts)`/g)].flatMap(([, path]) => {
        if (path!.includes('/')) at = join(path!, '..')
        const full = path!.includes('/') ? path! : join(at, path!)
        return at && !existsSync(join(ROOT, full)) ? [full] : []
      })
    })
    expect(lost).toEqual([])
  })
  test('links lead somewhere', () => {
    const links = [...text.matchAll(/\]\((?!https?:|#)([^)#\s]+)/g)].map(m => m[1]!)
    expect(links.filter(link => !existsSync(join(folder, link)))).toEqual([])
  })
  test('npm commands are there', () => {
    const run = [...text.matchAll(/npm run ([\w:]+)/g)].map(m => m[1]!)
    expect(run.filter(name => !scripts.includes(name))).toEqual([])
  })
})
