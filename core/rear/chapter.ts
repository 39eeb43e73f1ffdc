import type { Cabled } from '../cable/events'
import type { CableState } from '../cable/state'
import { chapter, type Stay } from '../chapter/chapter'
import { SENSE_CHECK } from '../procedure/senseCheck'
import { REAR_EVENTS, sprocketsNeeded, type RearEvent } from './events'
import { rearFacts, type RearOpinion } from './facts'
import { mayReachLargest } from './gates'
import { REAR_RULES, rearFigures, sayRearStandard, standardOf, typedRear } from './records'
import { sayRear } from './say'
import { rearAfter, rearAtStart, type RearState } from './state'

type Job = { rear: RearState; cable: CableState }

/** What the sense check found that nobody rides with, until it is looked at anew. */
const keptBySense = ({ sensed }: RearState): Stay[] =>
  SENSE_CHECK.filter(i => i.stopsRiding && sensed?.exceptions.includes(i.id)).map(i => ({
    id: `sense-${i.id}`,
    is: 'found' as const,
    why: i.otherwise.toLowerCase(),
  }))

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
    standards: ({ rear }) => (rear.parts ? [standardOf(rear.parts)] : []),
    figures: rearFigures,
    typed: typedRear,
    named: sayRearStandard,
  },
  gates: {
    signs: e => (e.kind === 'sight' && e.at === 'L' ? 'L seen by hand' : null),
    open: ({ rear }) => (mayReachLargest(rear.trace) ? ['largest'] : []),
  },
  stays: ({ rear }) => keptBySense(rear),
})
