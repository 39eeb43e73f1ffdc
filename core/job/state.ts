import { handOf, type AnyEvent, type Flag, type Told } from '../chapter/chapter'
import type { PersonId } from '../chapter/ids'
import type { SchoolChoice } from '../procedure/schools'
import type { RearEvent } from '../rear/events'
import type { Declinable } from './declined'
import type { JobEvent, Leaves, WaitsFor } from './events'
import type { Seen } from './seen'

export type Place = { where: 'rack' | 'stand' | 'door' | 'gone'; stand: number | null }

/** Where a job stands after its log, whatever its benches say. */
export type JobChapter = {
  /** Null before it has arrived. */
  arrived: { at: string } | null
  place: Place
  schools: SchoolChoice
  /** What it waits for; null when it can go on. */
  waits: WaitsFor | null
  /** Closed by hand-back: how, by whom, when. */
  handedBack: { how: Leaves; fault: Declinable | null; by: PersonId; at: string } | null
  /** What the eye counted at the door; null on a bike that was taken in without. */
  seen: Seen | null
  flagged: readonly Flag[]
}

export const noJob: JobChapter = {
  arrived: null,
  place: { where: 'rack', stand: null },
  schools: {},
  waits: null,
  handedBack: null,
  seen: null,
  flagged: [],
}

/** Entries that a closed job takes without a word: where it stands, and being opened again. */
const QUIET: ReadonlySet<string> = new Set<(JobEvent | RearEvent)['kind']>([
  'placed',
  'reopened',
  'handedBack',
  'riderSaid',
])

/** The job after one more entry of any bench. */
export function jobAfter(was: JobChapter, told: Told, own: boolean): JobChapter {
  const now = own ? after(was, told as Told<JobEvent>) : arrivedBy(was, told)
  if (!was.handedBack || QUIET.has(told.event.kind)) return now
  const why = 'Tapped after the bike was handed back: reopen the job, or take it back'
  return { ...now, flagged: [...now.flagged, { id: told.id, why }] }
}

const arrivedBy = (was: JobChapter, { event, at }: Told<AnyEvent>): JobChapter =>
  event.kind === 'arrived' ? { ...was, arrived: { at } } : was

function after(was: JobChapter, told: Told<JobEvent>): JobChapter {
  const { event, at } = told
  switch (event.kind) {
    case 'placed':
      return { ...was, place: { where: event.where, stand: event.stand } }
    case 'schools':
      return { ...was, schools: event.choice }
    case 'handedBack':
      return {
        ...was,
        handedBack: { how: event.how, fault: event.fault ?? null, by: handOf(told), at },
        // one that was cancelled was never here, or is not any more
        place: { where: event.how === 'cancelled' ? 'gone' : 'door', stand: null },
        waits: null,
      }
    case 'reopened':
      return { ...was, handedBack: null, place: { where: 'rack', stand: null } }
    case 'waits':
      return { ...was, waits: event.for }
    case 'seen':
      return { ...was, seen: event.seen }
    case 'edited':
    case 'riderSaid':
    case 'wheelOut':
    case 'undo':
      return was
  }
}
