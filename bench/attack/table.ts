import { readFileSync, writeFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { ROOT } from '../../ops/server'
import type { Finding } from './rig'

const FILE = join(ROOT, 'docs', 'reliability.md')
const [BEGIN, END] = ['<!-- attack: begin -->', '<!-- attack: end -->']

/** Puts what was found into the documentation, in the place of what was found before. */
export function writeTable(findings: readonly Finding[], seed: number): void {
  const text = readFileSync(FILE, 'utf8')
  const [head, rest] = text.split(BEGIN)
  const tail = rest!.split(END)[1]!
  const rows = findings.map(
    f => `| ${f.what} | ${f.tries.toLocaleString('en')} | ${f.bad} | ${f.told.replaceAll('|', '/')} |`,
  )
  const made = `Made by \`npm run attack\` on ${new Date().toISOString().slice(0, 10)}, seed ${seed}, ${cpus().length} cores, Node.js ${process.versions.node}.`
  const table = ['| What was done | Times | Bad | What came of it |', '| --- | --: | --: | --- |', ...rows].join('\n')
  writeFileSync(FILE, `${head}${BEGIN}\n\n${made}\n\n${table}\n\n${END}${tail}`)
}
