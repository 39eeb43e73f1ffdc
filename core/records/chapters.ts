import type { AnyEvent, Chapter } from '../chapter/chapter'
import type { RecordFigure, RecordRule } from '../chapter/records'
import { CHAPTERS } from '../ledger/chapters'
import type { LedgerEvent } from '../ledger/events'
import type { JobState } from '../ledger/reduce'
import { chapterOf } from '../ledger/say'

const chapters = Object.values(CHAPTERS) as unknown as readonly Chapter<
  AnyEvent,
  AnyEvent,
  unknown,
  JobState,
  unknown
>[]

/** Every figure that a shop keeps a record of. */
export const RECORD_RULES: readonly RecordRule[] = chapters.flatMap(c => c.records.rules)
export const recordRule = (key: string): RecordRule | undefined => RECORD_RULES.find(r => r.key === key)

/** Every standard a visit counts as a bike of: the drivetrain's, and what else was worked on. */
export const standardsOf = (state: JobState): string[] => chapters.flatMap(c => c.records.standards(state))

/**
 * What a visit leaves for the records. What was not measured or turned is left out, never written as 0.
 * @param comesBack whether it came back from an earlier visit with the same parts: then what the barrel took is slack found
 */
export const recordsOf = (state: JobState, comesBack: boolean): RecordFigure[] =>
  chapters.flatMap(c => c.records.figures(state, comesBack))

/** The recorded figure that an entry typed by hand would make, if any. */
export const figureOfEvent = (event: LedgerEvent): { figure: string; value: number } | null =>
  chapterOf(event).records.typed(event)

/** What a standard of the records is, in numbers and words; null for one that only the shop's catalogue knows. */
export function sayStandard(id: string): string | null {
  for (const c of chapters) {
    const words = c.records.named(id)
    if (words) return words
  }
  return null
}
