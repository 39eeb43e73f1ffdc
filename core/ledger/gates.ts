import type { AnyEvent, Chapter, Refusal, Told as ToldOf } from '../chapter/chapter'
import type { EventId, PersonId, Role } from '../chapter/ids'
import { DECLINABLE, DECLINABLE_IDS, type Declinable } from '../job/declined'
import { BY_REQUEST, NEVER_UNDONE, UNPROVEN, type JobOf, type Leaves } from '../job/events'
import { CHAPTERS } from './chapters'
import type { LedgerEvent } from './events'
import { reduce, staysOf, UNREAD, type JobState, type Told } from './reduce'
import { chapterOf, sayEvent } from './say'

/*
 * Gates: functions of the log, one name each, asked by page, server and sheet. The server asks them under the job's
 * lock, on the log as it then stands.
 */

type Log = readonly (Told | null)[]

/**
 * Whose hand is at a gate: the person who works on the device, or the mechanic who signs for a trainee by name and PIN.
 */
export type Hand = {
  /** Who works on the device: only their own taps are signed. */
  person: PersonId
  role: Role
  /** Tapped there within the quarter hour, or typed the PIN just now. */
  fresh: boolean
}

const chapters = Object.values(CHAPTERS) as unknown as readonly Chapter<
  AnyEvent,
  AnyEvent,
  unknown,
  JobState,
  unknown
>[]

/** Why the bike stays, in a line; null when it may leave proven. */
export function whyStays(state: JobState): string | null {
  const stays = staysOf(state)
  return stays.length ? stays.map(s => s.why).join(', ') : null
}

/** Faults that this bike may leave with when its customer declines the cure. */
export const declinableOn = (state: JobState): Declinable[] =>
  DECLINABLE_IDS.filter(id => (DECLINABLE[id].of === 'front' ? state.front.parts !== null : state.rear.parts !== null))

/** May the bike be handed back so? Null when it may. */
export function mayLeave(state: JobState, how: Leaves, fault: Declinable | null = null): Refusal | null {
  const say = (message: string, field = 'how'): Refusal => ({ field, message })
  if (state.unread) return say(`The bike stays: ${UNREAD.why}`)
  if (state.job.handedBack) return say('This bike was handed back already: reopen the job to work on it')
  const stays = UNPROVEN.has(how) ? null : whyStays(state)
  if (stays) return say(`The bike stays: ${stays}`)
  if (how !== 'declined') return null
  if (!fault) return say('Name the fault the customer declined', 'fault')
  return declinableOn(state).includes(fault) ? null : say('This bike has nothing that this fault is of', 'fault')
}

/** May a person of this role let a bike leave so? A trainee hands over only what mechanics have proven. */
export const mayHandBack = (role: Role, how: Leaves): Refusal | null =>
  role === 'trainee' && how !== 'proven'
    ? { field: 'how', message: 'A mechanic lets a bike leave so: let one unlock this device' }
    : null

/** May the bike be put there? To the door, or gone, only when it may leave; a closed one nowhere else. */
function mayPlace(state: JobState, { where }: JobOf<'placed'>): Refusal | null {
  const say = (message: string): Refusal => ({ field: 'where', message })
  const { handedBack } = state.job
  const leaves = where === 'door' || where === 'gone'
  if (handedBack && !leaves) return say('This job is closed: reopen it first')
  if (!leaves) return null
  if (handedBack && UNPROVEN.has(handedBack.how)) return null
  const stays = whyStays(state)
  if (stays) return say(`The bike stays: ${stays}`)
  return !handedBack && where === 'gone' ? say('Hand it back first: its sheet goes with it') : null
}

/** Kinds that say what the bike is: a closed job's sheet has them, so they are changed on an open one only. */
const ON_OPEN_JOBS: ReadonlySet<string> = new Set<LedgerEvent['kind']>([
  'parts',
  'frontParts',
  'brakeParts',
  'hubParts',
])

/** Is anything that is done to this job itself refused until it is reopened? For parts, notes and photographs. */
export const mustReopen = (closed: boolean): Refusal | null =>
  closed ? { field: 'job', message: 'This job is closed: reopen it first' } : null

/** What an undo takes back and brings back that somebody answers for, in words; null when it is nothing of the kind. */
function undoSigns(log: Log, state: JobState, told: ToldOf<JobOf<'undo'>>): string | null {
  const after = reduce([...log, told as Told])
  const gates = (s: JobState) => new Map(s.inForce.filter(t => signsOf(t.event)).map(t => [t.id, t]))
  const [were, are] = [gates(state), gates(after)]
  const moved = [...were.values(), ...are.values()].find(t => were.has(t.id) !== are.has(t.id))
  const teeth = state.rear.setup?.teeth ?? []
  if (moved) return `${were.has(moved.id) ? 'Taken back' : 'Counts again'}: ${sayEvent(moved.event, teeth)}`
  const open = new Set(openOf(state))
  if (openOf(after).some(o => !open.has(o))) return 'Taken back what had shut a gate: it is open again'
  const stays = new Set(staysOf(after).map(s => s.id))
  return staysOf(state).some(s => !stays.has(s.id)) ? 'Taken back what kept the bike' : null
}

const openOf = (state: JobState): string[] => chapters.flatMap(c => c.gates.open(state))
const signsOf = (event: LedgerEvent): string | null => chapterOf(event).gates.signs(event)

/** Can this entry be one that a person signs by PIN? Not what is only set against the job before it is taken. */
export const takesHand = (event: LedgerEvent): boolean =>
  event.kind === 'undo' || signsOf(event) !== null || chapterOf(event).gates.clears(event, null) !== null

/**
 * Does this entry tell exactly which log it knew, and count nothing that waits on its tablet? What is signed, and what
 * says what the bike is: set against what was seen or said elsewhere since (`core/chapter/late.ts`).
 */
export const tellsWhatItKnew = (event: LedgerEvent): boolean => takesHand(event) || ON_OPEN_JOBS.has(event.kind)

/** What somebody answers for with this entry, as a dialog says it; null where it is no gate. */
export const signsFor = (log: Log, state: JobState, told: Pick<Told, 'event'> & Partial<Told>): string | null =>
  told.event.kind === 'undo'
    ? undoSigns(log, state, told as ToldOf<JobOf<'undo'>>)
    : (signsOf(told.event) ?? chapterOf(told.event).gates.clears(told.event, state))

/** Does this entry say that something failed? Noted on a bike that has left, its customer is called. */
export const failsBy = (event: LedgerEvent): string | null => chapterOf(event).gates.fails(event)

/** Must the log be read, under the job's lock, before this entry is taken? Else it is taken as it comes. */
export const needsJudging = (event: LedgerEvent): boolean =>
  BY_REQUEST.has(event.kind) ||
  takesHand(event) ||
  event.kind === 'placed' ||
  event.kind === 'waits' ||
  ON_OPEN_JOBS.has(event.kind) ||
  chapterOf(event).gates.measures(event) ||
  failsBy(event) !== null

/**
 * May this entry be appended to this log, by this hand? Refused is only what is nonsense or a gate; what merely does
 * not follow from the state is kept and flagged by the fold, because tablets can be offline.
 * @param log every entry in order, null for what a later version wrote
 */
export function mayAppend(log: Log, state: JobState, told: Told, hand: Hand): Refusal | null {
  const { event } = told
  if (BY_REQUEST.has(event.kind))
    return {
      field: 'event.kind',
      message: 'A bike is taken in, handed back, reopened and put right by its own request',
    }
  if (ON_OPEN_JOBS.has(event.kind)) {
    const closed = mustReopen(state.job.handedBack !== null)
    if (closed) return closed
  }
  if (event.kind === 'placed') {
    const shut = mayPlace(state, event)
    if (shut) return shut
  }
  if (event.kind === 'undo') {
    const cannot = mayUndo(log, event.undoes)
    if (cannot) return cannot
  }
  const signs = signsFor(log, state, told)
  const { measures, refuses } = chapterOf(event).gates
  // a plain figure is not refused over parts that a later version may have written otherwise
  if (signs === null) return measures(event) && !state.unread ? refuses(event, state) : null
  if (state.unread) return { field: 'event', message: `${UNREAD.why[0].toUpperCase()}${UNREAD.why.slice(1)}` }
  return unsigned(hand, told) ?? refuses(event, state)
}

/** Can this entry be taken back at all? What closes or opens a job stands for good: reopening is the way back. */
export function mayUndo(log: Log, id: EventId): Refusal | null {
  const target = log.find(t => t?.id === id)
  if (!target) return { field: 'undoes', message: 'There is no such entry on this job to take back' }
  if (!NEVER_UNDONE.has(target.event.kind)) return null
  const message =
    target.event.kind === 'edited'
      ? 'What was put right on the job’s own page is put right there again'
      : 'A hand-back or a reopening is not taken back: reopen the job instead'
  return { field: 'undoes', message }
}

/** Why this hand cannot sign; null when it can. */
function unsigned({ person, role, fresh }: Hand, { by }: Told): Refusal | null {
  if (by !== person)
    return { field: 'by', message: 'This is signed by who works on this device: choose your name, then do it again' }
  if (role === 'trainee') return { field: 'sign', message: 'A mechanic signs this: choose a name and type the PIN' }
  return fresh ? null : { field: 'sign', message: 'It is a while since you tapped here: type your PIN to sign this' }
}

/**
 * What a customer must be called for: the bike was handed back to be ridden, and what was noted since says otherwise.
 * Null when nothing was. @param state with every entry noted since
 */
export function callCustomer(state: JobState): string | null {
  const { handedBack } = state.job
  return handedBack && !UNPROVEN.has(handedBack.how) ? whyStays(state) : null
}
