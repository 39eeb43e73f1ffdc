import type { Cabled } from '../cable/events'
import type { CableState } from '../cable/state'
import { chapter, type PartStands, type Stay } from '../chapter/chapter'
import { sayNet } from '../chapter/screws'
import { SENSE_CHECK } from '../procedure/senseCheck'
import { sayChance } from '../quantity/chance'
import { unnamedDerailleur, type Counted } from './counted'
import { REAR_EVENTS, sprocketsNeeded, type RearEvent, type RearOf } from './events'
import { rearFacts, type RearOpinion } from './facts'
import { mayReachLargest } from './gates'
import { rearFaults } from './faultsFound'
import { REAR_RULES, rearFigures, rearStandards, sayRearStandard, typedRear } from './records'
import { sayRear, WAIVED_WORDS } from './say'
import { indexHeard } from './toIndex'
import { INDEXED } from './progress'
import { rearAfter, rearAtStart, type RearState } from './state'

type Job = {
  rear: RearState
  cable: CableState
  job: { seen: Counted | null; handedBack?: { fault: string | null } | null }
}

/** What a sense check found that nobody rides with. */
const stopsRiding = (sensed: RearOf<'sensed'> | null) =>
  SENSE_CHECK.filter(i => i.stopsRiding && sensed?.exceptions.includes(i.id))
/** That keeps the bike until it is looked at anew. */
const keptBySense = ({ sensed }: RearState): Stay[] =>
  stopsRiding(sensed).map(i => ({ id: `sense-${i.id}`, is: 'found' as const, why: i.otherwise.toLowerCase() }))
/** Nothing is proven after it: a crack or a split housing is seen to be none by a mechanic. */
function clears(e: RearEvent, job: Job | null): string | null {
  if (e.kind !== 'sensed') return null
  const gone = job ? stopsRiding(job.rear.sensed).filter(i => !e.exceptions.includes(i.id)) : SENSE_CHECK
  return gone[0] ? `Looked at anew: ${gone[0].fine.toLowerCase()}` : null
}
const fails = (e: RearEvent): string | null =>
  e.kind === 'sensed' ? (stopsRiding(e)[0]?.otherwise.toLowerCase() ?? null) : null

function parts(state: Job, opinion: Pick<RearOpinion, 'right'> | null): PartStands[] {
  const { rear } = state
  const stands = (is: PartStands['is'], words: string): PartStands[] => [{ part: 'rear', is, words }]
  if (!rear.setup) return unnamedDerailleur(state) ? stands('untouched', 'not named yet') : []
  const [kept] = keptBySense(rear)
  if (kept) return stands('keeps', kept.why)
  if (opinion && indexHeard(rear) && opinion.right >= INDEXED)
    return stands('right', `right, ${sayChance(opinion.right)}`)
  if (rear.proved.at(-1)?.exceptions.length === 0) return stands('right', 'proven')
  const turned = Object.values(rear.net).some(n => n !== 0)
  const looked = rear.said.length > 0 || rear.sensed !== null || rear.proved.length > 0 || rear.gaps.length > 0
  const touched = rear.bench.length > 0 || turned || looked
  const { barrel } = rear.net
  return touched
    ? stands('hand', barrel ? `barrel ${sayNet('barrel', barrel)}` : 'in hand')
    : stands('untouched', 'untouched')
}

/** The rear derailleur: hanger, stops, cable, index, gap. */
export const rear = chapter<RearEvent, Cabled, RearState, Job, RearOpinion>({
  events: REAR_EVENTS,
  hears: ['cabled'],
  start: rearAtStart,
  after: rearAfter,
  say: sayRear,
  sprockets: sprocketsNeeded,
  facts: rearFacts,
  records: {
    rules: REAR_RULES,
    standards: rearStandards,
    figures: rearFigures,
    typed: typedRear,
    faults: rearFaults,
    named: sayRearStandard,
  },
  gates: {
    fails,
    clears,
    signs: e =>
      e.kind === 'sight' && e.at === 'L' ? 'L seen by hand' : e.kind === 'waived' ? WAIVED_WORDS[e.what] : null,
    open: ({ rear }) => (mayReachLargest(rear.trace) ? ['largest'] : []),
  },
  stays: ({ rear }) => keptBySense(rear),
  parts,
})
