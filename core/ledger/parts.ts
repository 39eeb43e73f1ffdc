import { PARTS_OF_JOB, type AnyEvent, type Chapter, type PartOfJob, type PartStands } from '../chapter/chapter'
import { CHAPTERS, type ChapterName } from './chapters'
import { staysOf, type JobState } from './reduce'
import { countOf } from '../quantity/words'

/** A job's parts, and its sheet at the end. */
export type JobPart = PartOfJob | 'sheet'
/** What is believed of some of them, where a bench knows: the chance that every gear is right. */
export type Opinions = Partial<Record<ChapterName, { right: number; causes?: unknown }>>

export const JOB_PART_WORDS: Record<JobPart, string> = {
  'front-brake': 'Front brake',
  front: 'Front',
  rear: 'Rear',
  hub: 'Hub gear',
  cables: 'Cables',
  'rear-brake': 'Rear brake',
  sheet: 'Sheet',
}

const chapters = Object.entries(CHAPTERS) as unknown as readonly (readonly [
  ChapterName,
  Chapter<AnyEvent, AnyEvent, unknown, JobState, unknown>,
])[]

function sheetStands(state: JobState): PartStands<JobPart> {
  const { handedBack } = state.job
  if (handedBack) return { part: 'sheet', is: 'right', words: 'handed back' }
  const stays = staysOf(state)
  if (!stays.length) return { part: 'sheet', is: 'hand', words: 'ready to go' }
  const words = `${countOf(stays.length, 'thing keeps', 'things keep')} it`
  return { part: 'sheet', is: stays.some(s => s.is === 'found') ? 'keeps' : 'untouched', words }
}

/** Which parts of a bike were worked on in a job, for lists that never read its log. */
export const workedOn = (state: JobState): JobPart[] =>
  partsOf(state)
    .filter(p => p.part !== 'sheet' && p.is !== 'untouched')
    .map(p => p.part)

/** How a job's parts stand, as they lie along the bike, the sheet last. What this bike does not have is left out. */
export function partsOf(state: JobState, opinions: Opinions = {}): PartStands<JobPart>[] {
  const said = chapters.flatMap(([name, c]) => c.parts(state, opinions[name] ?? null))
  return [...said.sort((a, b) => PARTS_OF_JOB.indexOf(a.part) - PARTS_OF_JOB.indexOf(b.part)), sheetStands(state)]
}
