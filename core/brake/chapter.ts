import { otherSide, type Nearer } from './sides'
import { chapter, type Fact, type Facts, type PartStands } from '../chapter/chapter'
import { figureRule, keeping, turnsRule, type FaultFound, type RecordFigure } from '../chapter/records'
import { fromSixteenths, sayTurns } from '../quantity/turns'
import { listed } from '../quantity/words'
import { checkOf, outcomeWords, stopsRiding } from './checks'
import { faultWords } from './faultWords'
import { BRAKE_EVENTS, type BrakeEvent } from './events'
import { BRAKE_STEP_NAMES } from './stepWords'
import { BRAKE_KIND_WORDS, BRAKES, END_KINDS, LEVER_WORDS, NO_BRAKE, type Brake, type BrakeParts } from './kinds'
import { PROOF_WORDS } from './proof'
import {
  beforeProof,
  brakesAfter,
  brakesStay,
  brakeStands,
  dangersOf,
  noBrakes,
  type BrakeHeard,
  type BrakesState,
} from './state'

type Job = { brake: BrakesState }

export const BRAKE_WORDS: Record<Brake, string> = { front: 'Front brake', rear: 'Rear brake' }

function sayNearer({ nearer, by }: { nearer: Nearer; by?: 'rim' | undefined }): string {
  if (nearer === 'even') return by ? 'rim stays where it is' : 'both pads stand alike'
  return by ? `rim pushed to the ${otherSide(nearer)}, ${nearer} pad first` : `${nearer} pad stands nearer`
}

function sayPartsOf({ brake, kind, lever, leverSide, none }: BrakeParts): string {
  if (none) return `${BRAKE_WORDS[brake]}: none, ${NO_BRAKE[none]}`
  return [
    `${BRAKE_WORDS[brake]}: ${BRAKE_KIND_WORDS[kind].toLowerCase()}`,
    ...(lever ? [`${LEVER_WORDS[lever].toLowerCase()} lever`] : []),
    ...(leverSide ? [`lever on the ${leverSide}`] : []),
  ].join(', ')
}

function say(e: BrakeEvent): string {
  if (e.kind === 'brakeParts') return sayPartsOf(e.parts)
  const which = BRAKE_WORDS[e.brake]
  switch (e.kind) {
    case 'brakeSeen': {
      const check = checkOf(e.check)
      return `${which}: ${check ? `${check.ask} ` : ''}${outcomeWords(e.check, e.outcome)}`
    }
    case 'brakeStep': {
      const step = Object.values(BRAKE_STEP_NAMES)
        .flat()
        .find(s => s.id === e.step)
      return `${which}: ${listed([step?.what ?? e.step])}`
    }
    case 'brakeNearer':
      return `${which}: ${sayNearer(e)}`
    case 'brakeScrew':
      return `${which}, ${e.side} screw ${sayTurns(fromSixteenths(Math.abs(e.sixteenths)))} ${e.sixteenths > 0 ? 'in' : 'out'}`
    case 'brakeClose':
      return `${which}: ${sayClose(e)}`
    case 'brakeCured':
      return `${which}, put right: ${listed([faultWords(undefined, e.fault) ?? e.fault])}`
    case 'proof':
      return e.test
        ? `${which}, ${PROOF_WORDS[e.test].name}: ${e.holds ? 'passed' : 'failed'}`
        : `${which} ${e.holds ? 'holds' : 'failed'}`
  }
}

const sayClose = (c: { barrelSixteenthsOut: number; letOutMm: number | null }): string =>
  `barrel ${sayTurns(fromSixteenths(c.barrelSixteenthsOut))} turns out${c.letOutMm === null ? '' : `, ${c.letOutMm} mm let out`}`

function facts({ brake: brakes }: Job): Facts {
  const done: Fact[] = []
  for (const brake of BRAKES) {
    const { parts, cured, close, centring } = brakes[brake]
    for (const id of cured)
      done.push({
        what: `${BRAKE_WORDS[brake]}, put right`,
        figure: (faultWords(parts?.kind, id) ?? id).toLowerCase(),
        plain: `${BRAKE_WORDS[brake]} put right: ${(faultWords(parts?.kind, id) ?? id).toLowerCase()}.`,
        ...(id === 'pads-worn' ? { used: [`Brake pads, ${brake}`] } : {}),
      })
    if (close)
      done.push({ what: BRAKE_WORDS[brake], figure: sayClose(close), plain: `${BRAKE_WORDS[brake]} adjusted.` })
    if (centring.some(c => c.kind === 'turned'))
      done.push({ what: BRAKE_WORDS[brake], figure: 'centred', plain: `${BRAKE_WORDS[brake]} centred.` })
  }
  const left = BRAKES.flatMap((brake): Fact[] => {
    const { parts } = brakes[brake]
    return parts?.none ? [{ what: BRAKE_WORDS[brake], figure: `none: ${NO_BRAKE[parts.none]}` }] : []
  })
  return { found: [], done, left, tell: [] }
}

const PART_OF = { front: 'front-brake', rear: 'rear-brake' } as const
/** A brake's line in the row of parts; one nobody touched is not yet anything that keeps the bike in particular. */
function partOf(brake: Brake, b: BrakesState[Brake]): PartStands {
  const { is, words } = brakeStands(b)
  const part = PART_OF[brake]
  if (is === 'failed') return { part, is: 'keeps', words }
  if (is === 'holds' || is === 'none') return { part, is: 'right', words }
  const [danger] = dangersOf(b)
  if (danger) return { part, is: 'keeps', words: danger.told }
  const touched = b.parts !== null || b.seen.length > 0 || b.steps.length > 0 || b.cured.length > 0 || b.uncapped
  return { part, is: touched ? 'hand' : 'untouched', words }
}

export const brakeStandard = (p: BrakeParts): string => `brake ${p.kind}`
const STANDARDS = new Map<string, string>(END_KINDS.map(k => [`brake ${k}`, BRAKE_KIND_WORDS[k].toLowerCase()]))

function figures({ brake: brakes }: Job): RecordFigure[] {
  const { keep, kept } = keeping()
  for (const brake of BRAKES) {
    const { parts, close } = brakes[brake]
    if (!parts || !close) continue
    keep(brakeStandard(parts), `brake-barrel ${brake}`, fromSixteenths(close.barrelSixteenthsOut))
    keep(brakeStandard(parts), `brake-let-out ${brake}`, close.letOutMm)
  }
  return kept
}

/** A bike counts once, however many of its brakes are of that kind. */
const standards = ({ brake: brakes }: Job): string[] => [
  ...new Set(
    BRAKES.flatMap(b => {
      const { parts, close } = brakes[b]
      return parts && close ? [brakeStandard(parts)] : []
    }),
  ),
]
const faults = ({ brake: brakes }: Job): FaultFound[] =>
  BRAKES.flatMap(b => {
    const { parts, cured } = brakes[b]
    return parts ? cured.map(fault => ({ standard: brakeStandard(parts), fault, cured: true })) : []
  })

/** What somebody answers for: that a brake holds or failed, or that there is none at an end. */
function signs(e: BrakeEvent): string | null {
  if (e.kind === 'brakeParts')
    return e.parts.none ? `No brake at the ${e.parts.brake}: ${NO_BRAKE[e.parts.none]}` : null
  if (e.kind !== 'proof') return null
  const what = e.test ? `${BRAKE_WORDS[e.brake]}, ${PROOF_WORDS[e.test].name}` : BRAKE_WORDS[e.brake]
  return `${what} ${e.holds ? (e.test ? 'passed' : 'holds') : 'failed'}`
}

const refuses = (e: BrakeEvent, { brake: brakes }: Job) =>
  e.kind === 'proof' && e.holds ? beforeProof(brakes[e.brake], e) : null
function fails(e: BrakeEvent): string | null {
  if (e.kind === 'proof') return e.holds ? null : `${BRAKE_WORDS[e.brake].toLowerCase()} failed its proof`
  if (e.kind !== 'brakeSeen') return null
  const danger = stopsRiding(e.check, e.outcome)
  return danger && `${BRAKE_WORDS[e.brake].toLowerCase()} found: ${danger}`
}

/** Both brakes: what is at each end, what is wrong with it, how it was fitted, its proof. */
export const brake = chapter<BrakeEvent, BrakeHeard, BrakesState, Job>({
  events: BRAKE_EVENTS,
  hears: ['cabled', 'wheelOut', 'replace', 'reopened'],
  start: () => noBrakes,
  after: brakesAfter,
  say,
  facts,
  records: {
    rules: BRAKES.flatMap(b => [
      turnsRule(`brake-barrel ${b}`, `${BRAKE_WORDS[b]}, barrel as it left`, 1, 'out'),
      figureRule(`brake-let-out ${b}`, `${BRAKE_WORDS[b]}, cable let out`, 'mm', 1, 2),
    ]),
    standards,
    figures,
    typed: (e, { brake: brakes }) => {
      const parts = e.kind === 'brakeClose' ? brakes[e.brake].parts : null
      if (e.kind !== 'brakeClose' || !parts) return []
      const { keep, kept } = keeping()
      keep(brakeStandard(parts), `brake-barrel ${e.brake}`, fromSixteenths(e.barrelSixteenthsOut))
      keep(brakeStandard(parts), `brake-let-out ${e.brake}`, e.letOutMm)
      return kept
    },
    faults,
    named: id => STANDARDS.get(id) ?? null,
  },
  gates: {
    signs,
    refuses,
    fails,
  },
  stays: ({ brake: brakes }) => brakesStay(brakes),
  parts: ({ brake: brakes }) => BRAKES.map(brake => partOf(brake, brakes[brake])),
})
