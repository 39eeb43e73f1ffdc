import { bodies } from './bodies'
import { fuzz } from './fuzz'
import { kills } from './kills'
import { load } from './load'
import { matrix } from './matrix'
import { races } from './races'
import { findings, rig } from './rig'
import { cutShort } from './cutShort'
import { writeTable } from './table'

/**
 * `npm run attack`: everything, about an hour, and writes docs/reliability.md's table. `npm run attack short` is a
 * tenth of it in a few minutes; `npm run attack fuzz kills` names parts. Loopback only; it ends by itself.
 */
const PARTS = ['matrix', 'fuzz', 'races', 'bodies', 'load', 'cutShort', 'kills'] as const
const asked = process.argv.slice(2)
const short = asked.includes('short')
const seed = Number(asked.find(a => /^seed=\d+$/.test(a))?.slice(5) ?? Date.now() % 1_000_000)
/** `kills=400` where a thousand would take too long: the table says how many there were. */
const killsAsked = Number(asked.find(a => /^kills=\d+$/.test(a))?.slice(6) ?? (short ? 16 : 1_000))
const named = asked.filter(a => (PARTS as readonly string[]).includes(a))
const does = (part: (typeof PARTS)[number]) => !named.length || named.includes(part)

const inRig = PARTS.slice(0, 5).filter(does)
if (inRig.length) {
  const r = await rig()
  try {
    if (does('matrix')) await matrix(r)
    if (does('load')) await load(r)
    if (does('races')) await races(r, short ? 4 : 40)
    if (does('bodies')) await bodies(r, !short)
    if (does('fuzz')) await fuzz(r, short ? 1_000 : 20_000, seed)
  } finally {
    await r.end()
  }
}
if (does('cutShort')) await cutShort(short ? 3 : 20, seed)
if (does('kills')) await kills(killsAsked, seed)
const broken = findings.filter(f => f.bad > 0)
if (!named.length && !short) writeTable(findings, seed)
console.log(broken.length ? `${broken.length} of ${findings.length} are broken` : `all ${findings.length} hold`)
process.exit(broken.length ? 1 : 0)
