import { chapter, type AnyEvent } from '../chapter/chapter'
import { SCHOOLS, type SchoolKind } from '../procedure/schools'
import { DECLINABLE } from './declined'
import { sayNet } from '../chapter/screws'
import { DETAIL_WORDS, JOB_EVENTS, LEFT_WORDS, RIDER_WORDS, WAITS_WORDS, type JobEvent } from './events'
import { saySeen } from './seen'
import { jobAfter, noJob, type JobChapter } from './state'

const OWN: ReadonlySet<string> = new Set(JOB_EVENTS.map(e => e.shape.kind.value))

function sayJob(e: JobEvent): string {
  switch (e.kind) {
    case 'placed':
      return { stand: `On stand ${e.stand}`, rack: 'On the rail', door: 'By the door', gone: 'Collected' }[e.where]
    case 'schools':
      return `Schools: ${(Object.entries(e.choice) as [SchoolKind, string][])
        .map(([kind, id]) => SCHOOLS[kind].find(s => s.id === id)?.name ?? id)
        .join(', ')}`
    case 'wheelOut':
      return `${e.wheel === 'front' ? 'Front' : 'Rear'} wheel was out`
    case 'undo':
      return 'Took back an entry'
    case 'handedBack':
      return [LEFT_WORDS[e.how], ...(e.fault ? [DECLINABLE[e.fault].words.toLowerCase()] : [])].join(': ')
    case 'reopened':
      return 'Reopened'
    case 'edited':
      return `Put right: ${e.fields.map(f => DETAIL_WORDS[f]).join(', ')}`
    case 'seen':
      return `Seen at the door: ${saySeen(e.seen)}`
    case 'riderSaid':
      return `Its rider says: ${RIDER_WORDS[e.says]}${e.sixteenths ? `, turned the barrel ${sayNet('barrel', e.sixteenths)}` : ''}`
    case 'waits':
      return `Waits for ${e.for ? WAITS_WORDS[e.for] : 'nothing any more'}`
  }
}

/**
 * The job itself: where the bike is, the schools chosen, how it left. It follows every entry, to see what comes late.
 */
export const job = chapter<JobEvent, AnyEvent, JobChapter, { job: JobChapter }>({
  events: JOB_EVENTS,
  hears: 'all',
  start: () => noJob,
  after: (was, told) => jobAfter(was, told, OWN.has(told.event.kind)),
  say: sayJob,
})
