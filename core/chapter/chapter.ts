import type { z } from 'zod'
import type { Standards } from '../standards/inForce'
import type { EventId, PersonId } from './ids'
import type { FaultFound, RecordFigure, RecordRule } from './records'

/** What an entry says happened; each chapter has its own kinds. */
export type AnyEvent = { kind: string }

/** The schema of one kind of entry, which says its kind. */
export type EventSchema<E extends AnyEvent = AnyEvent> = z.ZodType<E> & { shape: { kind: z.ZodLiteral<E['kind']> } }

/** An entry as a chapter follows it: stored, or still waiting on a tablet. */
export type Told<E = AnyEvent> = {
  id: EventId
  at: string
  by: PersonId
  event: E
  signedBy?: PersonId | null
  seq?: number
  basedOn?: number
  /** When the server took it; left out while it waits on a tablet. */
  receivedAt?: string
}

/** Who answers for an entry: the mechanic who signed for a trainee, else who tapped it. */
export const handOf = (told: Told): PersonId => told.signedBy ?? told.by

/**
 * A line of the sheet. `brief` is the figure where there is room for little, left out where it is the figure itself.
 * `plain` is what a customer reads instead; left out where it tells them nothing. `used` are parts for the till.
 */
export type Fact = { what: string; figure: string; brief?: string; plain?: string; used?: string[] }
/** What a chapter says on the sheet: as found, done, as left; and what the rider is told. */
export type Facts = { found: Fact[]; done: Fact[]; left: Fact[]; tell: string[] }
const NO_FACTS: Facts = { found: [], done: [], left: [], tell: [] }

/**
 * Why a bike may not leave; `id` names the reason whatever its words. `found`: something is wrong with it. `open`: a
 * step or a proof is still to come, as on every bike until the end.
 */
export type Stay = { id: string; is: 'found' | 'open'; why: string }
/** Parts of a bike that are worked on, in the order they lie along it. */
export const PARTS_OF_JOB = ['front-brake', 'front', 'rear', 'hub', 'cables', 'rear-brake'] as const
export type PartOfJob = (typeof PARTS_OF_JOB)[number]
/** How a part stands in this job, in a few words: nothing done yet, in hand, right, or what keeps the bike. */
export type PartStands<P extends string = PartOfJob> = {
  part: P
  is: 'untouched' | 'hand' | 'right' | 'keeps'
  words: string
}
/** An entry that was kept but does not follow from what was known; the screen asks about it. */
export type Flag = { id: EventId; why: string }
/** Why an entry cannot be taken on the log as it stands, and what to do. */
export type Refusal = { field: string; message: string }

/**
 * One chapter of the ledger: what a bench notes, what follows from it, how it is said, and what it keeps a bike for.
 * Pages, server and sheet ask the same chapter. A new bench is one folder with a chapter, and one line in core/ledger.
 *
 * `Own` are its entries, `Heard` those of other chapters that it follows as well, `Job` the chapters it looks at,
 * `Opinion` what a belief beside the log says of it.
 */
export type Chapter<Own extends AnyEvent, Heard extends AnyEvent, State, Job, Opinion> = {
  /** Schemas of its entries, one a kind. */
  events: readonly EventSchema<Own>[]
  /** Kinds of other chapters' entries that it follows too; `all` where it follows every one. */
  hears: readonly Heard['kind'][] | 'all'
  /** Before the first entry. The whole log is given for what corrects it from the start. */
  start: (log: readonly Told<Own | Heard>[]) => State
  /** After one more entry. `job` is every chapter as it stood before that entry. */
  after: (was: State, told: Told<Own | Heard>, job: Job) => State
  /** An entry in a line of words; `teeth` names the sprockets. */
  say: (event: Own, teeth: readonly number[]) => string
  /** How many sprockets the bike must have for an entry to be possible; 0 where it names none. */
  sprockets: (event: Own) => number
  facts: (job: Job, opinion: Opinion | null, standards: Standards) => Facts
  records: {
    /** Every figure it may keep. */
    rules: readonly RecordRule[]
    /** Under which standards this visit counts as a bike. */
    standards: (job: Job) => string[]
    /** What the visit leaves; what was not measured or turned is left out. */
    figures: (job: Job, comesBack: boolean) => RecordFigure[]
    /** The figures that an entry typed by hand would make on this job. */
    typed: (event: Own, job: Job) => RecordFigure[]
    /** Faults that were found in this visit, by id: cured, or left. */
    faults: (job: Job) => FaultFound[]
    /** A standard of its records in words; null when it is none of its own. */
    named: (id: string) => string | null
  }
  gates: {
    /** What somebody answers for with this entry, as the signing dialog says it; null where it is no gate. */
    signs: (event: Own) => string | null
    /**
     * What this look takes back that kept the bike, with nothing signed after it; null where it takes back nothing.
     * Without a job: what it might.
     */
    clears: (event: Own, job: Job | null) => string | null
    /** An entry nobody signs that can still be nonsense as things stand: it is judged on the log all the same. */
    measures: (event: Own) => boolean
    /**
     * Why this entry cannot be taken as things stand; null when it can. Asked of what is signed, and of what `measures`
     * names.
     */
    refuses: (event: Own, job: Job) => Refusal | null
    /** What stands open, by name: an undo that opens more is itself a gate. */
    open: (job: Job) => string[]
    /** What went wrong, where the entry says so: noted on a bike that has left, its customer is called. */
    fails: (event: Own) => string | null
  }
  /** Why the bike may not leave. */
  stays: (job: Job) => Stay[]
  /** How each of its parts stands; none where this bike has no such part. */
  parts: (job: Job, opinion: Opinion | null) => PartStands[]
}

/** Declares a chapter; what a bench has no say in is left out. */
export function chapter<Own extends AnyEvent, Heard extends AnyEvent, State, Job, Opinion = null>(
  c: Pick<Chapter<Own, Heard, State, Job, Opinion>, 'events' | 'hears' | 'start' | 'after' | 'say'> & {
    sprockets?: Chapter<Own, Heard, State, Job, Opinion>['sprockets']
    facts?: Chapter<Own, Heard, State, Job, Opinion>['facts']
    records?: Partial<Chapter<Own, Heard, State, Job, Opinion>['records']>
    gates?: Partial<Chapter<Own, Heard, State, Job, Opinion>['gates']>
    stays?: Chapter<Own, Heard, State, Job, Opinion>['stays']
    parts?: Chapter<Own, Heard, State, Job, Opinion>['parts']
  },
): Chapter<Own, Heard, State, Job, Opinion> {
  return {
    ...c,
    sprockets: c.sprockets ?? (() => 0),
    facts: c.facts ?? (() => NO_FACTS),
    records: {
      rules: [],
      standards: () => [],
      figures: () => [],
      typed: () => [],
      faults: () => [],
      named: () => null,
      ...c.records,
    },
    gates: {
      signs: () => null,
      clears: () => null,
      measures: () => false,
      refuses: () => null,
      open: () => [],
      fails: () => null,
      ...c.gates,
    },
    stays: c.stays ?? (() => []),
    parts: c.parts ?? (() => []),
  }
}
