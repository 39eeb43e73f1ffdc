import type { AnyEvent, Chapter, Flag, Stay, Told as ToldOf } from '../chapter/chapter'
import type { EventId } from '../chapter/ids'
import { NEVER_UNDONE } from '../job/events'
import { CHAPTERS, type ChapterName } from './chapters'
import type { LedgerEvent } from './events'

export type Told = ToldOf<LedgerEvent>

type StateOf<C> = C extends Chapter<infer _Own, infer _Heard, infer State, infer _Job, infer _Opinion> ? State : never
/** Where each bench of a job stands, by the chapter that follows it. */
export type Chapters = { readonly [N in ChapterName]: StateOf<(typeof CHAPTERS)[N]> }
/** Where a job stands after its log. */
export type JobState = Chapters & {
  /** Entries in force, in order, undone ones and undos left out. */
  readonly inForce: readonly Told[]
  readonly undone: ReadonlySet<EventId>
  /** Some entries were written by a later version: nothing may be judged without them. */
  readonly unread: boolean
  /** Entries that were kept but do not follow from what was known; the screen asks about them. */
  readonly flagged: readonly Flag[]
}

/** A chapter as the fold sees it: which of its types go with which is held where it is declared. */
type Followed = Chapter<AnyEvent, AnyEvent, unknown, unknown, unknown>
const followed = Object.entries(CHAPTERS) as unknown as readonly (readonly [ChapterName, Followed])[]
const NAMES = followed.map(([name]) => name)
/** By kind of entry, who follows it. */
const FOLLOWERS = new Map<string, readonly (readonly [ChapterName, Followed])[]>(
  followed.flatMap(([, c]) =>
    c.events.map(e => {
      const kind = e.shape.kind.value
      return [kind, followed.filter(([, f]) => follows(f, kind))] as const
    }),
  ),
)
function follows(c: Followed, kind: string): boolean {
  return c.hears === 'all' || c.hears.includes(kind) || c.events.some(e => e.shape.kind.value === kind)
}

/**
 * State of a job: the same in browser, server and tests. An entry told twice counts once; an undo can be undone; what
 * closes or opens a job stands for good. Null stands for an entry that a later version wrote.
 */
export function reduce(entries: readonly (Told | null)[]): JobState {
  const once = [...new Map(entries.flatMap(e => (e ? [[e.id, e] as const] : []))).values()]
  const kindOf = new Map(once.map(e => [e.id, e.event.kind]))
  const gone = new Set<EventId>()
  for (const { id, event } of [...once].reverse())
    if (event.kind === 'undo' && !gone.has(id) && !NEVER_UNDONE.has(kindOf.get(event.undoes) ?? ''))
      gone.add(event.undoes)
  const inForce = once.filter(e => e.event.kind !== 'undo' && !gone.has(e.id))
  let state = Object.fromEntries(followed.map(([name, c]) => [name, c.start(inForce)])) as unknown as Chapters
  for (const told of inForce) {
    const before = state
    const changed = FOLLOWERS.get(told.event.kind)!.map(([name, c]) => [name, c.after(before[name], told, before)])
    state = { ...before, ...(Object.fromEntries(changed) as Partial<Chapters>) }
  }
  const place = new Map(inForce.map((e, i) => [e.id, i]))
  const flagged = NAMES.flatMap(name => (state[name] as { flagged?: readonly Flag[] }).flagged ?? []).sort(
    (a, b) => place.get(a.id)! - place.get(b.id)!,
  )
  return { ...state, inForce, undone: gone, unread: entries.includes(null), flagged }
}

/** Every reason why the bike may not leave, the first to be told first; none when it may. */
export function staysOf(state: JobState): Stay[] {
  const newer = state.unread ? [UNREAD] : []
  return [...newer, ...followed.flatMap(([, c]) => c.stays(state))]
}
/** What is said where an entry of a later version stands in the log. */
export const UNREAD: Stay = {
  id: 'unread',
  is: 'open',
  why: 'something here was noted by a later version of Ocho: reload to update',
}

/**
 * The last thing done as advised, unless it was said to have been wrong already; null when something else came after
 * it.
 */
export function lastTaken(state: JobState): Told | null {
  const last = state.inForce.findLast(({ event }) => event.kind !== 'wrong' && event.kind !== 'placed')
  const taken = last && 'advised' in last.event && last.event.advised?.taken
  return taken && !state.rear.wrong.includes(last.id) ? last : null
}

/** Kinds that the Take back key leaves alone: they are not done at a bench. */
const NOT_AT_A_BENCH: ReadonlySet<string> = new Set([...NEVER_UNDONE, 'placed'])

/** By kind of entry, whose it is. */
const CHAPTER_OF = new Map<string, ChapterName>(
  followed.flatMap(([name, c]) => c.events.map(e => [e.shape.kind.value, name] as const)),
)
/**
 * Whose Take back key it is: what this person did on this bench lately. Older entries are taken back from the ledger's
 * list.
 */
export type TakesBack = { chapters: readonly ChapterName[] | null; by: string; since: string }

/** Can an entry be taken back at all by a touch: anything done at a bench, never arrival or hand-back? */
export const takenBackAtAll = ({ event }: Told): boolean => !NOT_AT_A_BENCH.has(event.kind)

/**
 * The last touch that the Take back key takes back: all its entries, the last first, none where there is nothing. What
 * one touch noted bears one moment.
 * @param key whose key it is; anybody's, for anything, where left out
 */
export function undoable(state: JobState, key?: TakesBack): readonly Told[] {
  const taken = (told: Told): boolean =>
    takenBackAtAll(told) &&
    (!key ||
      (told.by === key.by &&
        told.at >= key.since &&
        (key.chapters === null || key.chapters.includes(CHAPTER_OF.get(told.event.kind)!))))
  const last = state.inForce.findLast(taken)
  return last ? state.inForce.filter(told => told.at === last.at && told.by === last.by && taken(told)).reverse() : []
}
