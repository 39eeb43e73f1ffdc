import { z } from 'zod'
import type { Consideration } from '../advice/advise'
import { keptBelief } from '../advice/know'
import { UNKNOWNS } from '../advice/prior'
import { BrakeParts, BRAKES, NO_BRAKE, type Brake } from '../brake/kinds'
import { PROOF_TESTS, PROOF_WORDS } from '../brake/proof'
import { toldOf } from '../brake/state'
import { RunName } from '../cable/housing'
import { HOUSING_PLACES } from '../cable/places'
import { Run } from '../cable/run'
import type { AnyEvent, Chapter, Facts } from '../chapter/chapter'
import type { FrontAdvice } from '../front/contract'
import { HubParts } from '../hub/kinds'
import { DECLINABLE, DECLINABLE_IDS, type Declinable } from '../job/declined'
import { GET_HOME } from '../job/getHome'
import { LEAVES, UNPROVEN, type Leaves } from '../job/events'
import { barrelAssumed, type RearOpinion } from '../rear/facts'
import { gapLeft } from '../rear/gapNext'
import { lengthsFitted } from '../rear/lengths'
import { RearParts } from '../rear/parts'
import { sayNumbers } from '../rear/partsInWords'
import { newRunOf } from '../rear/newRun'
import { slackMargin } from '../rear/settle'
import { RIDINGS } from '../standards/riding'
import { barrelLeft, workOf } from '../rear/ofState'
import { indexHeard } from '../rear/toIndex'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { CHAPTERS, type ChapterName } from './chapters'
import { drivetrainOf } from './drivetrain'
import { whyStays } from './gates'
import type { JobState } from './reduce'

/** Which model froze a sheet: raised when a figure would come out otherwise. */
const MODEL_VERSION = 4
const Fact = z.object({
  what: z.string(),
  figure: z.string(),
  brief: z.string().optional(),
  plain: z.string().optional(),
  used: z.array(z.string()).optional(),
})
const BrakeLeft = z.object({ parts: BrakeParts, barrelSixteenthsOut: z.int().nullable() })
export type BrakeLeft = z.infer<typeof BrakeLeft>
const ProofView = z
  .object({ holds: z.boolean(), by: z.string(), at: z.string(), failed: z.enum(PROOF_TESTS).nullable().default(null) })
  .nullable()

/** A setup sheet, frozen at hand-back. People by id: names live in their own rows. */
export const Sheet = z.object({
  modelVersion: z.int(),
  closedAt: z.string(),
  by: z.string(),
  how: z.enum(LEAVES),
  /** The fault it leaves with, where its customer declined the cure. */
  fault: z.enum(DECLINABLE_IDS).nullable().default(null),
  /** Null on a bike without a derailleur. */
  parts: RearParts.nullable(),
  drivetrain: z.string(),
  /** Pull, ratio and pitch, each as measured or assumed. Sheets from before it was kept have none. */
  numbers: z.array(Fact).default([]),
  found: z.array(Fact),
  done: z.array(Fact),
  left: z.array(Fact),
  netSixteenths: z.object({ barrel: z.int(), H: z.int(), L: z.int(), B: z.int() }),
  barrelSixteenths: z.int(),
  barrelAssumed: z.boolean(),
  proofs: z.object({ front: ProofView, rear: ProofView }),
  right: z.number().nullable(),
  recallOn: z.string().nullable(),
  /** The cable runs as they left, for the next visit. Sheets from before they were kept have none. */
  runs: z.array(Run).default([]),
  /** Hub and brakes by their numbers, and how close each brake was left, for the next visit. */
  hub: HubParts.nullable().default(null),
  brakes: z.array(BrakeLeft).default([]),
  /** What the rider is told: settling to come, how to get home with what was declined. */
  tell: z.array(z.string()).default([]),
  belief: z.partialRecord(z.enum(UNKNOWNS), z.object({ mean: z.number(), sd: z.number() })),
  work: z.number(),
  /**
   * Cable lost to friction as it was found, mm both ways, where what was heard told it; sheets from before it was kept
   * say nothing.
   */
  frictionMm: z.number().nullable().default(null),
  /**
   * Lengths of housing that are this bike's own, and its B gap in the stand; sheets from before they were kept have
   * none.
   */
  lengths: z.array(z.object({ run: RunName, place: z.enum(HOUSING_PLACES), lengthMm: z.number() })).default([]),
  gapMm: z.number().nullable().default(null),
  /**
   * The run that was renewed, and how far it may go slack before a gear is off: what its return teaches. Null where
   * none was.
   */
  settle: z
    .object({
      housingMm: z.number().nullable(),
      bedded: z.boolean(),
      riding: z.enum(RIDINGS).nullable().default(null),
      marginTurns: z.number().nullable(),
    })
    .nullable()
    .default(null),
})
export type Sheet = z.infer<typeof Sheet>

/**
 * What beliefs say of a job: the rear before the barrel was first turned and at the end, the front at the end; null
 * where there is none.
 */
export type Believed = { first: Consideration | null; rear: Consideration | null; front: FrontAdvice | null }
export const NOTHING_BELIEVED: Believed = { first: null, rear: null, front: null }

/** How a bike leaves, when, and by whose hand. */
export type Leaving = {
  at: string
  by: string
  how: Leaves
  fault: Declinable | null
  /** Date of the settle-in recall, yyyy-mm-dd; null when it leaves unridable. */
  recallOn: string | null
}

const rearOpinion = ({ first, rear }: Believed): RearOpinion | null =>
  rear && {
    asFound: (first ?? rear).advice.causes,
    right: rear.advice.right,
    causes: rear.advice.causes,
    windowTurns: rear.advice.windowTurns,
  }

/** What every chapter says of the job, one after the other. */
function factsOf(state: JobState, believed: Believed, s: Standards): Facts {
  const opinions: Partial<Record<ChapterName, unknown>> = { rear: rearOpinion(believed), front: believed.front }
  const said = Object.entries(CHAPTERS).map(([name, c]) =>
    (c as unknown as Chapter<AnyEvent, AnyEvent, unknown, JobState, unknown>).facts(
      state,
      opinions[name as ChapterName] ?? null,
      s,
    ),
  )
  return {
    found: said.flatMap(f => f.found),
    done: said.flatMap(f => f.done),
    left: said.flatMap(f => f.left),
    tell: said.flatMap(f => f.tell),
  }
}

/** Freezes what was found, done and left. The same function shows the sheet before hand-back. */
export function sheetOf(state: JobState, believed: Believed, leaving: Leaving, s: Standards = TABLE_ONLY): Sheet {
  const { rear, hub, brake, cable } = state
  const facts = factsOf(state, believed, s)
  return {
    modelVersion: MODEL_VERSION,
    closedAt: leaving.at,
    by: leaving.by,
    how: leaving.how,
    fault: leaving.fault,
    parts: rear.parts,
    drivetrain: drivetrainOf(state),
    numbers: rear.parts ? sayNumbers(rear.parts) : [],
    found: facts.found,
    done: facts.done,
    left: [...facts.left, ...leavesWith(state, leaving)],
    netSixteenths: { ...rear.net },
    barrelSixteenths: rear.barrelSixteenths,
    barrelAssumed: barrelAssumed(rear),
    proofs: { front: toldOf(brake.front), rear: toldOf(brake.rear) },
    right: indexHeard(rear) ? (believed.rear?.advice.right ?? null) : null,
    recallOn: leaving.recallOn,
    runs: [...cable.runs],
    hub: hub.parts,
    brakes: BRAKES.flatMap(b => {
      const { parts, close } = brake[b]
      return parts ? [{ parts, barrelSixteenthsOut: close?.barrelSixteenthsOut ?? null }] : []
    }),
    tell: toldRider(leaving, facts.tell),
    belief: believed.rear ? keptBelief(believed.rear.posterior, believed.rear.analysis) : {},
    work: workOf(rear),
    frictionMm: frictionFound(believed.first ?? believed.rear),
    settle: settleOf(state, believed),
    lengths: lengthsFitted(rear, cable),
    gapMm: gapLeft(rear, 'stand'),
  }
}

function settleOf({ rear, cable }: JobState, believed: Believed): Sheet['settle'] {
  const run = newRunOf(rear, cable)
  const window = believed.rear?.advice.windowTurns ?? null
  return run && { ...run, marginTurns: slackMargin(barrelLeft(rear)?.inTurns ?? 0, window) }
}

/**
 * Nearer than this, in logarithms, the shifts told the friction, and not what is usual: a bike nobody heard has half as
 * much again. `model`
 */
const FRICTION_TOLD = 0.3
function frictionFound(heard: Consideration | null): number | null {
  const found = heard && keptBelief(heard.posterior, heard.analysis).lnBacklash
  return found && found.sd <= FRICTION_TOLD ? Math.exp(found.mean) : null
}

const leavesWith = (state: JobState, { how, fault }: Leaving): Facts['left'] =>
  UNPROVEN.has(how)
    ? [{ what: UNPROVEN_WORDS[how] ?? '', figure: whyStays(state) ?? 'the customer was told' }]
    : fault
      ? [{ what: 'Left as it is, the customer declined', figure: DECLINABLE[fault].words.toLowerCase() }]
      : []

const UNPROVEN_WORDS: Partial<Record<Leaves, string>> = {
  unridable: 'Leaves unridable',
  unrepaired: 'Fetched with the work not done',
  cancelled: 'Cancelled',
}

/** A bike that must not be ridden tells its rider nothing of riding it. */
const toldRider = ({ how, fault }: Leaving, tell: string[]): string[] =>
  UNPROVEN.has(how) ? [] : [...(fault ? [GET_HOME[fault]] : []), ...tell]

/** What stands on top of a sheet in brick, before anything else; null on a bike that left proven. */
export function headOfSheet({ how, fault }: Pick<Sheet, 'how' | 'fault'>): { title: string; words: string } | null {
  if (how === 'unridable')
    return { title: 'Not to be ridden', words: 'The customer was told. It leaves as it is, to be carried or driven.' }
  if (how === 'unrepaired')
    return {
      title: 'Fetched unrepaired',
      words: 'Its customer fetched it with the work not done. What is not named here as proven was not proven.',
    }
  if (how === 'cancelled') return { title: 'Cancelled', words: 'Nothing of this was done on a customer’s bike.' }
  if (how === 'proven' || !fault) return null
  return {
    title: `Rideable, but: ${DECLINABLE[fault].words.toLowerCase()}`,
    words: 'The customer declined the cure and was told how to get home with it. Brakes are proven.',
  }
}

/** What a sheet says of one brake, by whom and when: the same on screen, on paper and in the PDF. */
export function brakeOnSheet(
  sheet: Pick<Sheet, 'brakes' | 'proofs'>,
  brake: Brake,
): { words: string; by: string | null; at: string | null } {
  const none = sheet.brakes.find(b => b.parts.brake === brake)?.parts.none
  if (none) return { words: `none: ${NO_BRAKE[none]}`, by: null, at: null }
  const proof = sheet.proofs[brake]
  if (!proof) return { words: 'not proven', by: null, at: null }
  const failed = proof.failed ? `FAILED the ${PROOF_WORDS[proof.failed].name}` : 'FAILED'
  return { words: proof.holds ? 'holds' : failed, by: proof.by, at: proof.at }
}

/** What a bike by the door was given, short enough for a line: the first two things done, and how many more. */
export function briefOf({ done }: Pick<Sheet, 'done'>): string {
  const said = done.slice(0, 2).map(f => [f.what, f.brief ?? f.figure].filter(Boolean).join(' '))
  return done.length > 2 ? `${said.join(', ')} and ${done.length - 2} more` : said.join(', ') || 'nothing turned'
}
