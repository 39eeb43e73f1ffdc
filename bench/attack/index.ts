import { load } from './load'
import { findings, rig } from './rig'

const asked = process.argv.slice(2)
const r = await rig()
try {
  if (!asked.length || asked.includes('load')) await load(r)
} finally {
  await r.end()
}
process.exitCode = findings.some(f => f.bad > 0) ? 1 : 0
