import { mostGapMm } from './endGaps'
import { FRONT_CAUSES, FRONT_CAUSE_WORDS, type FrontCause } from './causes'
import type { Cabled } from '../cable/events'
import type { CableState } from '../cable/state'
import { chapter, type Fact, type Facts, type PartStands } from '../chapter/chapter'
import { figureRule, keeping, turnsRule, type FaultFound, type RecordFigure } from '../chapter/records'
import { sayNet, SCREW_WORDS } from '../chapter/screws'
import { sayChance } from '../quantity/chance'
import { fromSixteenths } from '../quantity/turns'
import { listed } from '../quantity/words'
import { unnamedDerailleur, type Counted } from '../rear/counted'
import { INDEXED } from '../rear/progress'
import type { RearState } from '../rear/state'
import { FRONT_EVENTS, sprocketsNeeded, type FrontEvent, type FrontSet } from './events'
import { shiftsToSee } from './looks'
import { FRONT_SCREWS, FRONT_SEEN_WORDS, seenWords } from './moves'
import { FRONT_STEP_WORDS } from './stepWords'
import { CAGES, type FrontParts } from './parts'
import { frontAfter, frontCabled, noFront, type FrontState } from './state'
import { FRONT_SET_WORDS, HAND_WORDS } from './saidWords'

type Job = { front: FrontState; cable: CableState; rear: Pick<RearState, 'setup'>; job: { seen: Counted | null } }
/** What a belief says of a front as it leaves. */
type FrontOpinion = { right: number; causes: Record<FrontCause, number> }

/** From this chance a cause is named as still there. */
const NAMED = 0.5

function sayFront(e: FrontEvent, teeth: readonly number[]): string {
  switch (e.kind) {
    case 'frontParts':
      return `Front: ${e.parts.rings.join('/')}, chain line ${e.parts.chainLineMm} mm, ${e.parts.cage} cage`
    case 'frontShift':
      return `Front, ring ${e.from + 1} to ${e.to + 1}${e.sprocket === undefined ? '' : ` on the ${teeth[e.sprocket] ?? e.sprocket}`}: ${listed([FRONT_SEEN_WORDS[e.seen]])}`
    case 'frontRub':
      return `Front, ring ${e.ring + 1} on the ${teeth[e.sprocket] ?? e.sprocket}: ${e.plate ? `rubs the ${e.plate} plate` : 'quiet'}`
    case 'frontTurn':
      return `Front ${e.screw === 'barrel' ? 'barrel' : e.screw} ${sayNet(e.screw, e.sixteenths)}`
    case 'frontGap':
      return `Front, ${e.plate} gap ${about(e)}${e.gapMm.toFixed(1)} mm${e.byStop ? BY_STOP[e.plate] : ''}`
    case 'frontPosition': {
      const height = e.heightMm === null ? [] : [`${e.heightMm.toFixed(1)} mm over the teeth`]
      const angle = e.angleDeg === null ? [] : [`turned ${e.angleDeg.toFixed(1)}°`]
      return `Front cage: ${about(e)}${[...height, ...angle].join(', ')}`
    }
    case 'frontHand':
      return `Front wire pulled by hand: ${HAND_WORDS[e.reach].toLowerCase()}`
    case 'frontUndone':
      return `Front cable undone: ${e.drops ? 'drops by itself' : 'does not drop'}; clamped again`
    case 'frontSet':
      return FRONT_SET_WORDS[e.what]
    case 'frontStep':
      return `Front: ${listed([FRONT_STEP_WORDS[e.order].find(s => s.id === e.step)?.what ?? e.step])}`
  }
}

const about = (e: { byEye?: true | undefined }): string => (e.byEye ? 'about ' : '')
const BY_STOP = { inner: ' on L alone, cable slack', outer: ' on H alone, wire drawn' } as const

const screwWords = (screw: 'barrel' | 'H' | 'L'): string => (screw === 'barrel' ? 'barrel' : SCREW_WORDS[screw])

function facts({ front }: Job, opinion: FrontOpinion | null): Facts {
  const first = front.log.find(e => e.kind === 'frontPosition' && e.heightMm !== null)
  const shifts = front.log.filter(e => e.kind === 'frontShift')
  const blamed = opinion ? FRONT_CAUSES.filter(c => opinion.causes[c] >= NAMED) : []
  const found: Fact[] = []
  if (first?.kind === 'frontPosition')
    found.push({
      what: 'Front cage as found',
      figure: `${about(first)}${first.heightMm!.toFixed(1)} mm over the teeth`,
    })
  if (shifts.length) {
    const bad = shifts.filter(e => e.seen !== 'clean').length
    found.push({ what: 'Front shifts seen', figure: `${shifts.length}, of them ${bad} not clean` })
  }
  if (blamed.length)
    found.push({
      what: 'Front, still likely',
      figure: blamed.map(c => `${FRONT_CAUSE_WORDS[c].toLowerCase()} ${sayChance(opinion!.causes[c])}`).join(', '),
    })
  const done: Fact[] = []
  for (const screw of FRONT_SCREWS) {
    const net = sayNet(screw, front.net[screw])
    if (front.net[screw] !== 0)
      done.push({
        what: `Front ${screwWords(screw)}`,
        figure: `${net}, net`,
        brief: net,
        plain: screw === 'barrel' ? 'Front gear cable adjusted.' : 'Limit of the front derailleur’s travel set.',
      })
  }
  for (const plate of ['inner', 'outer'] as const)
    if (front.gaps.measured[plate])
      done.push({ what: `Front ${plate} gap`, figure: `${front.gaps[`${plate}Mm`].toFixed(1)} mm` })
  for (const plate of ['inner', 'outer'] as const)
    if (front.byStop[plate] !== null)
      done.push({ what: `Front ${plate} gap${BY_STOP[plate]}`, figure: `${front.byStop[plate]!.toFixed(1)} mm` })
  for (const e of front.log) if (e.kind === 'frontSet') done.push({ what: FRONT_SET_WORDS[e.what], figure: '' })
  if (front.open) done.push({ what: 'Front left', figure: seenWords(front.open.seen, front.open.on).toLowerCase() })
  const left = opinion ? [{ what: 'Front, every shift clean', figure: `${sayChance(opinion.right)} sure` }] : []
  return { found, done, left, tell: [] }
}

/**
 * A front is recorded by its rings, the line they run in, and how its cage swings: what sets its height, gaps and
 * turns.
 */
export const frontStandard = (p: FrontParts): string =>
  `front ${[...p.rings].reverse().join('-')} ${p.chainLineMm} ${p.cage}`
const FRONT_ID = new RegExp(`^front (\\d+(?:-\\d+){1,2}) (\\d+(?:\\.\\d+)?) (${CAGES.join('|')})$`)
/** What files of earlier versions call a front, rings and line untold. */
const EARLIER = new Map<string, string>(
  CAGES.flatMap(cage => [
    [`front 2 ${cage}`, `double, ${cage} cage`],
    [`front 3 ${cage}`, `triple, ${cage} cage`],
  ]),
)
/** "double 50/34, chain line 43.5 mm, conventional cage". */
function named(id: string): string | null {
  const [, rings, line, cage] = FRONT_ID.exec(id) ?? []
  if (!rings) return EARLIER.get(id) ?? null
  const teeth = rings.split('-')
  return `${teeth.length === 3 ? 'triple' : 'double'} ${teeth.join('/')}, chain line ${line} mm, ${cage} cage`
}

/** From so many sixteenths net a screw was wrong, and not only tried. `model` */
const TURNED = 2
const FAULT_OF_SET: Partial<Record<FrontSet, FrontCause>> = { position: 'height', cable: 'friction', lever: 'pull' }
function faults({ front }: Job): FaultFound[] {
  if (!front.parts) return []
  const standard = frontStandard(front.parts)
  const set = front.log.flatMap(e => (e.kind === 'frontSet' ? (FAULT_OF_SET[e.what] ?? []) : []))
  const turned = FRONT_SCREWS.filter(s => Math.abs(front.net[s]) >= TURNED)
  const found = [...turned.map(s => (s === 'barrel' ? 'tension' : s)), ...set]
  return [...new Set(found)].map(fault => ({ standard, fault, cured: true }))
}

const standards = ({ front }: Job): string[] => (front.parts && front.log.length ? [frontStandard(front.parts)] : [])

function figures({ front }: Job): RecordFigure[] {
  const { keep: keepUnder, kept } = keeping()
  if (!front.parts) return kept
  const under = frontStandard(front.parts)
  const keep = (figure: string, value: number | null) => keepUnder(under, figure, value)
  keep('front-height', front.position.byEye ? null : front.position.heightMm)
  keep('front-inner', front.gaps.measured.inner ? front.gaps.innerMm : null)
  keep('front-outer', front.gaps.measured.outer ? front.gaps.outerMm : null)
  for (const screw of FRONT_SCREWS) {
    const turned = front.log.some(e => e.kind === 'frontTurn' && e.screw === screw)
    keep(`front-${screw}`, turned ? fromSixteenths(front.net[screw]) : null)
  }
  return kept
}

function parts(state: Job, opinion: FrontOpinion | null): PartStands[] {
  const { front, rear } = state
  if (!front.parts && ((!rear.setup && !unnamedDerailleur(state)) || state.job.seen?.rings === 1)) return []
  const stands = (is: PartStands['is'], words: string): PartStands[] => [{ part: 'front', is, words }]
  if (!front.parts) return stands('untouched', 'not said yet')
  if (opinion && front.log.length && opinion.right >= INDEXED)
    return shiftsToSee(front.log, front.parts.rings.length).length
      ? stands('hand', 'shifts to see')
      : stands('right', `right, ${sayChance(opinion.right)}`)
  if (front.open) return stands('hand', seenWords(front.open.seen, front.open.on).toLowerCase())
  const { barrel } = front.net
  return front.log.length
    ? stands('hand', barrel ? `barrel ${sayNet('barrel', barrel)}` : 'in hand')
    : stands('untouched', 'untouched')
}

/** A gap is set against the cage it was read in. */
const measures = (e: FrontEvent): boolean => e.kind === 'frontGap'
/**
 * A gap that no cage can show: within the chain, or wider than the cage. Entries of earlier versions stay as they are.
 */
function refuses(e: FrontEvent, { front }: Job): { field: string; message: string } | null {
  if (e.kind !== 'frontGap') return null
  if (e.gapMm < 0) return { field: 'gapMm', message: 'a plate cannot stand inside the chain: 0 if it touches' }
  const most = front.parts && mostGapMm(front.parts)
  // by itself a stop may leave the plate far past its ring; held on the chain's own ring it cannot
  return most !== null && !e.byStop && e.gapMm > most
    ? { field: 'gapMm', message: `this cage has room for ${most.toFixed(1)} mm beside a chain at most: measure again` }
    : null
}

/** The front derailleur: position, stops, tension, rub. */
export const front = chapter<FrontEvent, Cabled, FrontState, Job, FrontOpinion>({
  events: FRONT_EVENTS,
  hears: ['cabled'],
  start: () => noFront,
  after: (was, { event }, job) =>
    event.kind === 'cabled' ? frontCabled(was, event, job.cable) : frontAfter(was, event),
  say: sayFront,
  sprockets: sprocketsNeeded,
  gates: {
    measures,
    refuses,
  },
  facts,
  records: {
    rules: [
      figureRule('front-height', 'Front cage over the teeth', 'mm', 1, 1),
      figureRule('front-inner', 'Front inner gap', 'mm', 1, 0.5),
      figureRule('front-outer', 'Front outer gap', 'mm', 1, 0.5),
      turnsRule('front-barrel', 'Front barrel, net', 0.5, 'out'),
      turnsRule('front-H', 'Front H screw, net', 0.25, 'in'),
      turnsRule('front-L', 'Front L screw, net', 0.25, 'in'),
    ],
    standards,
    figures,
    // what a stop leaves by itself is another figure than how the cage stands
    typed: (e, { front }) => {
      if (!front.parts) return []
      const standard = frontStandard(front.parts)
      if (e.kind === 'frontGap' && !e.byStop && !e.byEye)
        return [{ standard, figure: `front-${e.plate}`, value: e.gapMm }]
      if (e.kind === 'frontPosition' && !e.byEye && e.heightMm !== null)
        return [{ standard, figure: 'front-height', value: e.heightMm }]
      return []
    },
    faults,
    named,
  },
  parts,
})
