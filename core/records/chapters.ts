import { faultWords } from '../brake/faultWords'
import type { EndKind } from '../brake/kinds'
import type { AnyEvent, Chapter } from '../chapter/chapter'
import { figureRule, type FaultFound, type RecordFigure, type RecordRule } from '../chapter/records'
import { FRONT_CAUSE_WORDS, type FrontCause } from '../front/causes'
import { hubFaultWords } from '../hub/faultWords'
import { CHAPTERS } from '../ledger/chapters'
import type { LedgerEvent } from '../ledger/events'
import type { JobState } from '../ledger/reduce'
import { chapterOf } from '../ledger/say'
import { CAUSE_WORDS, type Cause } from '../response/causes'
import { figuresOfRun, RUN_RULES, runFigures, sayRunStandard } from './runs'

const chapters = Object.values(CHAPTERS) as unknown as readonly Chapter<
  AnyEvent,
  AnyEvent,
  unknown,
  JobState,
  unknown
>[]

/** Back with a fault within so many days is a comeback, and a cure has not held; later it is wear. `practice` */
export const HELD_DAYS = 60

/** What a visit leaves that no log of its own tells: when it came, and what the belief found. */
export const COMEBACK = 'comeback'
export const FRICTION = 'friction'
export const ROUNDS = 'rounds'
const OF_VISIT: readonly RecordRule[] = [
  figureRule(FRICTION, 'Cable lost to friction, as found', 'mm', 2, 0.1),
  figureRule(ROUNDS, 'Times a screw was turned', '', 0, 4),
  figureRule(COMEBACK, 'Came back with a fault after', 'days', 0, 30, ['later', 'sooner']),
]

/** Every figure that a shop keeps a record of. */
export const RECORD_RULES: readonly RecordRule[] = [
  ...chapters.flatMap(c => c.records.rules),
  ...RUN_RULES,
  ...OF_VISIT,
]
const BY_KEY = new Map(RECORD_RULES.map(r => [r.key, r]))
export const recordRule = (key: string): RecordRule | undefined => BY_KEY.get(key)

/**
 * Every standard a visit counts as a bike of: the drivetrain's, what else was worked on, and what its runs are kept
 * under.
 */
export const standardsOf = (state: JobState): string[] => [
  ...new Set([...chapters.flatMap(c => c.records.standards(state)), ...runFigures(state).map(f => f.standard)]),
]

/**
 * What a visit leaves for the records. What was not measured or turned is left out, never written as 0.
 * @param comesBack whether it came back from an earlier visit with the same parts: then what the barrel took is slack
 *   found
 */
export const recordsOf = (state: JobState, comesBack: boolean): RecordFigure[] => [
  ...chapters.flatMap(c => c.records.figures(state, comesBack)),
  ...runFigures(state),
]

/**
 * The recorded figures that an entry typed by hand would make on this job; of a run, those of pieces that were not so
 * before.
 */
export function figuresOfEvent(event: LedgerEvent, state: JobState): RecordFigure[] {
  if (event.kind !== 'run') return chapterOf(event).records.typed(event, state)
  const before = state.cable.runs.find(r => r.run === event.run.run)
  const same = new Map(before ? figuresOfRun(state, before).map(f => [f.figure, f.value]) : [])
  const used = event.run.pieces.filter(p => p.kind === 'housing' && p.read?.by !== 'template').map(p => p.name)
  return figuresOfRun(state, event.run).filter(f => used.includes(f.piece) && same.get(f.figure) !== f.value)
}

/** What turned out to be wrong in a visit, each under its standard. */
export const faultsOf = (state: JobState): FaultFound[] => chapters.flatMap(c => c.records.faults(state))

const FAULT = 'fault '
/** A fault found is kept beside the figures: 1 where it was cured, 0 where it was left. */
export const faultFigures = (found: readonly FaultFound[]): RecordFigure[] =>
  found.map(({ standard, fault, cured }) => ({ standard, figure: `${FAULT}${fault}`, value: cured ? 1 : 0 }))
export const isFault = (figure: string): boolean => figure.startsWith(FAULT)

/** A fault of the records in words, by the standard it was found under. */
export function sayFault(standard: string, figure: string): string {
  const id = figure.slice(FAULT.length)
  const [bench, kind] = standard.split(' ')
  const words =
    bench === 'brake'
      ? faultWords(kind as EndKind, id)
      : bench === 'hub'
        ? hubFaultWords(id)
        : bench === 'front'
          ? FRONT_CAUSE_WORDS[id as FrontCause]
          : CAUSE_WORDS[id as Cause]
  return words ?? id
}

/** What a standard of the records is, in numbers and words; null for one that only the shop's catalogue knows. */
export function sayStandard(id: string): string | null {
  for (const c of chapters) {
    const words = c.records.named(id)
    if (words) return words
  }
  return sayRunStandard(id)
}
