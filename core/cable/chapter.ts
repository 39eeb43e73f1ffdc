import { chapter, type Fact, type Facts, type PartStands } from '../chapter/chapter'
import { countOf, listed } from '../quantity/words'
import { CABLE_EVENTS, type CableEvent } from './events'
import { RUN_WORDS } from './housing'
import { LENGTH_READ, type Run } from './run'
import { cablesAfter, noCables, type CableState } from './state'
import { runKindOf, stepName, type CableStep } from './stepNames'
import { headOf } from './heads'
import { smallParts } from './smallParts'

type Job = { cable: CableState }

/** A run's pieces with their lengths, and how each was read: "lever loop 420 mm (old piece), last loop 290 mm". */
const sayPieces = (run: Run): string =>
  run.pieces
    .filter(p => p.kind === 'housing')
    .map(p => `${p.name} ${p.lengthMm} mm${p.read ? ` (${LENGTH_READ[p.read.by].short})` : ''}`)
    .join(', ')

function factOf(run: Run, done: readonly CableStep[]): Fact {
  const what = `${RUN_WORDS[run.run]} run`
  if (!done.includes('clamped')) return { what, figure: `${sayPieces(run)}, planned` }
  const housing = run.pieces.filter(p => p.kind === 'housing')
  const lengthMm = housing.reduce((sum, p) => sum + p.lengthMm, 0)
  const { ferrules, caps } = smallParts(run)
  return {
    what,
    figure: `${sayPieces(run)}, renewed${done.includes('greased') ? ', greased' : done.includes('dry') ? ', run dry' : ''}`,
    plain: `${RUN_WORDS[run.run]} cable and housing renewed.`,
    used: [
      `Inner, ${RUN_WORDS[run.run].toLowerCase()}${headOf(run) ? `, ${headOf(run)}` : ''}`,
      `Housing ${lengthMm} mm in ${countOf(housing.length, 'piece')}`,
      [countOf(ferrules, 'ferrule'), ...(caps ? ['1 end cap'] : [])].join(', '),
    ],
  }
}

const facts = ({ cable: { runs, cabled } }: Job): Facts => ({
  found: [],
  done: runs.map(run => factOf(run, cabled[run.run] ?? [])),
  left: [],
  tell: [],
})

function parts({ cable: { runs, cabled } }: Job): PartStands[] {
  const begun = Object.entries(cabled).filter(([, steps]) => steps.length > 0)
  const renewed = begun.filter(([, steps]) => steps.includes('clamped')).length
  const many = countOf(runs.length, 'run')
  const stands = (is: PartStands['is'], words: string): PartStands[] => [{ part: 'cables', is, words }]
  if (begun.length === 0) return runs.length ? stands('hand', `${many} planned`) : stands('untouched', 'untouched')
  return stands(renewed === begun.length ? 'right' : 'hand', renewed ? `${renewed} renewed` : 'in hand')
}

/** The cable bench. What its steps mean for a derailleur, a brake or a hub is followed there. */
export const cable = chapter<CableEvent, never, CableState, Job>({
  events: CABLE_EVENTS,
  hears: [],
  start: () => noCables,
  after: (was, told) => cablesAfter(was, told.event),
  say: e =>
    e.kind === 'run'
      ? `${RUN_WORDS[e.run.run]} run: ${e.run.pieces.map(p => (p.kind === 'guide' ? p.name : `${p.name} ${p.lengthMm}`)).join(', ')} mm`
      : `${RUN_WORDS[e.run]}: ${listed([stepName(runKindOf(e.run), e.step)])}`,
  facts,
  parts,
})
