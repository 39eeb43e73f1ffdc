import { z } from 'zod'
import type { Consideration } from '../advice/advise'
import { CAUSES } from '../advice/contract'
import { CAUSE_WORDS } from '../advice/explain'
import { keptBelief } from '../advice/know'
import { UNKNOWNS } from '../advice/prior'
import { PROOF_TESTS } from '../brake/proof'
import { BrakeParts, BRAKES } from '../brake/kinds'
import { faultOf } from '../brake/checks'
import { RUN_WORDS } from '../cable/housing'
import { LENGTH_READ, Run } from '../cable/run'
import { FRONT_CAUSES, type FrontAdvice } from '../front/advise'
import { FRONT_SEEN_WORDS } from '../front/moves'
import { FRONT_CAUSE_WORDS, FRONT_SET_WORDS } from '../front/words'
import { hubFault } from '../hub/checks'
import { HubParts } from '../hub/kinds'
import { hubTurnWords, READING_WORDS } from '../hub/words'
import { sayChance } from '../quantity/chance'
import { fromSixteenths, sayTurns } from '../quantity/turns'
import { gapNow, learntGapPerTurn } from '../rear/gap'
import { GET_HOME, SETTLE, settleForecast, TELL_RIDER, TELL_RIDER_HUB } from '../rear/settle'
import { drivetrainOf } from './drivetrain'
import { sayNet, SCREW_WORDS } from './net'
import { RearParts, sayNumbers } from './parts'
import { sayEvent } from './say'
import { barrelLeft, staysBecause, workOf, type JobState } from './reduce'

/** Which model froze a sheet: raised when a figure would come out otherwise. */
export const MODEL_VERSION = 2
/** Settle-in recall, days after hand-back. `practice` */
export const RECALL_DAYS = 14

const Fact = z.object({ what: z.string(), figure: z.string() })
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
  how: z.enum(['proven', 'unridable']),
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
  /** What the rider is told: settling to come, how to get home when it is not cured. */
  tell: z.array(z.string()).default([]),
  belief: z.partialRecord(z.enum(UNKNOWNS), z.object({ mean: z.number(), sd: z.number() })),
  work: z.number(),
})
export type Sheet = z.infer<typeof Sheet>
export type SheetFact = z.infer<typeof Fact>

const PART_WORDS = {
  cable: 'Cable and housing renewed',
  hanger: 'Hanger renewed',
  shifter: 'Shifter renewed',
  derailleur: 'Derailleur renewed',
  cassette: 'Cassette renewed',
} as const

/**
 * Freezes what was found, done and left. The same function shows the sheet before hand-back.
 * @param considered the belief at the end; null where there were no parts to judge
 * @param front the belief about the front; null where it was not worked on
 * @param recallOn date of the settle-in recall, yyyy-mm-dd, or null when the bike leaves unridable
 */
export function sheetOf(
  state: JobState,
  first: Consideration | null,
  considered: Consideration | null,
  at: string,
  by: string,
  how: 'proven' | 'unridable',
  recallOn: string | null,
  front: FrontAdvice | null = null,
): Sheet {
  const { parts } = state
  const left = barrelLeft(state)
  return {
    modelVersion: MODEL_VERSION,
    closedAt: at,
    by,
    how,
    parts,
    drivetrain: drivetrainOf(state),
    numbers: parts ? sayNumbers(parts) : [],
    found: [...foundIn(state, first), ...frontFound(state, front), ...hubFound(state)],
    done: doneIn(state),
    left: [
      ...(parts && left
        ? [
            {
              what: 'Barrel',
              figure: `${sayTurns(fromSixteenths(state.barrelSixteenths))} turns out${parts.barrel.assumed ? ' (counted from an assumed start)' : ''}`,
            },
            {
              what: 'Barrel left',
              figure: `${sayTurns(left.inTurns)} to slacken, ${sayTurns(left.outTurns)} to tighten`,
            },
          ]
        : []),
      ...gapFacts(state),
      ...(considered ? [{ what: 'Every gear clean', figure: `${sayChance(considered.advice.right)} sure` }] : []),
      ...(considered?.advice.windowTurns
        ? [
            {
              what: 'Clean between',
              figure: `${sayTurns(considered.advice.windowTurns.from)} and ${sayTurns(considered.advice.windowTurns.to)} turns out`,
            },
          ]
        : []),
      ...(front ? [{ what: 'Front, every shift clean', figure: `${sayChance(front.right)} sure` }] : []),
      ...(how === 'unridable'
        ? [{ what: 'Leaves unridable', figure: staysBecause(state) ?? 'the customer was told' }]
        : []),
    ],
    netSixteenths: state.netSixteenths,
    barrelSixteenths: state.barrelSixteenths,
    barrelAssumed: parts?.barrel.assumed ?? true,
    proofs: state.proofs,
    right: considered?.advice.right ?? null,
    recallOn,
    runs: [...state.noted.runs],
    hub: state.noted.hub.parts,
    brakes: BRAKES.flatMap(b => {
      const { parts: brake, close } = state.noted.brakes[b]
      return brake ? [{ parts: brake, barrelSixteenthsOut: close?.barrelSixteenthsOut ?? null }] : []
    }),
    tell: tellRider(state, considered, how),
    belief: considered ? keptBelief(considered.posterior, considered.analysis) : {},
    work: workOf(state),
  }
}

/** What goes with the bike in words: what will settle, or how to get home with what was not cured. */
function tellRider(state: JobState, considered: Consideration | null, how: 'proven' | 'unridable'): string[] {
  const out: string[] = []
  const settle = settleForecast({
    renewed: state.noted.renewed.includes('cable'),
    beddingShifts: state.noted.beddedShifts,
  })
  if (settle)
    out.push(
      `A new run beds in: expect the barrel ${sayTurns(settle.fromTurns)} to ${sayTurns(settle.toTurns)} turn out after ${SETTLE.rides} or ${SETTLE.weeks}${state.noted.beddedShifts ? ', less for the bedding shifts done' : ''}.`,
    )
  if (state.noted.hub.parts) out.push(TELL_RIDER_HUB)
  if (how === 'proven') return state.parts ? [...out, TELL_RIDER] : out
  const causes = considered?.advice.causes
  if (causes && causes.hanger >= NOT_CURED) out.push(GET_HOME.hanger)
  if (causes && causes.friction >= NOT_CURED) out.push(GET_HOME.friction)
  if (
    state.setup &&
    (state.barrelSixteenths === 0 || fromSixteenths(state.barrelSixteenths) >= state.setup.barrelTurnsRange - 1 / 8)
  )
    out.push(GET_HOME.barrel)
  return out
}
/** A cause this likely at the end was not cured. */
const NOT_CURED = 0.5

function foundIn(state: JobState, first: Consideration | null): SheetFact[] {
  const out: SheetFact[] = []
  const { said, sensed, gaps } = state.noted
  if (said) out.push({ what: 'Complaint', figure: sayEvent(said, []).replace('Customer says: ', '').toLowerCase() })
  if (sensed) out.push({ what: 'Sense check', figure: sayEvent(sensed, []).replace('Sense check: ', '') })
  if (gaps.length)
    out.push({
      what: 'B gap as found',
      figure: `${gaps[0].event.gapMm.toFixed(1)} mm${gaps[0].event.at === 'sagged' ? ' with sag' : ''}`,
    })
  for (const { event } of state.inForce) {
    if (event.kind === 'sight') out.push({ what: `${event.at} stop seen`, figure: sayOffset(event.offsetMm) })
    if (event.kind === 'gauge')
      out.push({
        what: 'Hanger',
        figure: `${event.acrossMm.toFixed(1)} mm across the wheel, camber ${event.camberDeg.toFixed(1)}°`,
      })
  }
  const heard = state.bench.filter(e => e.kind === 'shift')
  const bad = heard.filter(e => e.heard !== 'clean').length
  if (heard.length) out.push({ what: 'Shifts heard', figure: `${heard.length}, of them ${bad} not clean` })
  if (first && state.bench.some(e => e.kind !== 'sight')) {
    const causes = CAUSES.filter(c => first.advice.causes[c] >= 0.5)
    if (causes.length)
      out.push({
        what: 'Judged to be',
        figure: causes.map(c => `${CAUSE_WORDS[c].toLowerCase()} ${sayChance(first.advice.causes[c])}`).join(', '),
      })
  }
  return out
}

function frontFound(state: JobState, advice: FrontAdvice | null): SheetFact[] {
  const { log } = state.noted.front
  const first = log.find(e => e.kind === 'frontPosition' && e.heightMm !== null)
  const shifts = log.filter(e => e.kind === 'frontShift')
  const blamed = advice ? FRONT_CAUSES.filter(c => advice.causes[c] >= NOT_CURED) : []
  return [
    ...(first?.kind === 'frontPosition'
      ? [{ what: 'Front cage as found', figure: `${first.heightMm!.toFixed(1)} mm over the teeth` }]
      : []),
    ...(shifts.length
      ? [
          {
            what: 'Front shifts seen',
            figure: `${shifts.length}, of them ${shifts.filter(e => e.kind === 'frontShift' && e.seen !== 'clean').length} not clean`,
          },
        ]
      : []),
    ...(blamed.length
      ? [
          {
            what: 'Front, still likely',
            figure: blamed.map(c => `${FRONT_CAUSE_WORDS[c].toLowerCase()} ${sayChance(advice!.causes[c])}`).join(', '),
          },
        ]
      : []),
  ]
}

function hubFound(state: JobState): SheetFact[] {
  const log = state.inForce.map(t => t.event)
  const read = log.find(e => e.kind === 'hubRead')
  const slipped = [...new Set(log.flatMap(e => (e.kind === 'hubCount' && e.wheelTurns === null ? [e.gear] : [])))].sort(
    (a, b) => a - b,
  )
  const { parts } = state.noted.hub
  return [
    ...(parts && read
      ? [{ what: 'Hub as found', figure: `${READING_WORDS[parts.way].toLowerCase()} ${read.mm.toFixed(1)} mm` }]
      : []),
    ...(slipped.length ? [{ what: 'Hub slipped in gear', figure: slipped.join(', ') }] : []),
  ]
}

/** Gaps as the sheet says them, in the stand and with sag apart. */
function gapFacts(state: JobState): SheetFact[] {
  const seen = (at: 'stand' | 'sagged') =>
    state.noted.gaps
      .filter(g => g.event.at === at)
      .map(g => ({ turnsIn: fromSixteenths(g.bSixteenths), gapMm: g.event.gapMm }))
  const { mmPerTurn } = learntGapPerTurn(seen('stand'))
  return (['stand', 'sagged'] as const).flatMap(at => {
    const now = gapNow(seen(at), fromSixteenths(state.netSixteenths.B), mmPerTurn)
    return now === null ? [] : [{ what: at === 'stand' ? 'B gap' : 'B gap with sag', figure: `${now.toFixed(1)} mm` }]
  })
}

const sayOffset = (mm: number): string =>
  Math.abs(mm) < 0.05 ? 'in line' : `${Math.abs(mm).toFixed(1)} mm ${mm > 0 ? 'inboard' : 'outboard'}`

function doneIn(state: JobState): SheetFact[] {
  const out: SheetFact[] = []
  for (const screw of ['barrel', 'H', 'L', 'B'] as const)
    if (
      state.netSixteenths[screw] !== 0 ||
      state.inForce.some(({ event }) => event.kind === 'turn' && event.screw === screw)
    )
      out.push({
        what: SCREW_WORDS[screw],
        figure: `${sayNet(screw, state.netSixteenths[screw])}, net${state.restarted.has(screw) ? ' since it was renewed' : ''}`,
      })
  for (const { event } of state.inForce) {
    if (event.kind === 'reclamp')
      out.push({ what: 'Clamped again', figure: `barrel ${sayTurns(fromSixteenths(event.barrelSixteenthsOut))} out` })
    if (event.kind === 'bend')
      out.push({ what: 'Hanger levered', figure: `${event.tipMm.toFixed(1)} mm at ${event.hour} o’clock` })
  }
  const { housing, inner, cut, beddedShifts, proved, torqued, renewed } = state.noted
  for (const part of renewed) out.push({ what: PART_WORDS[part], figure: '' })
  for (const h of housing) out.push({ what: `Housing, ${h.place}`, figure: `${h.lengthMm} mm of ${h.of}, ${h.ends}` })
  const { front } = state.noted
  for (const screw of ['barrel', 'H', 'L'] as const)
    if (front.net[screw] !== 0)
      out.push({
        what: `Front ${screw === 'barrel' ? 'barrel' : `${screw} screw`}`,
        figure: `${sayNet(screw, front.net[screw])}, net`,
      })
  if (front.gaps.measured.inner) out.push({ what: 'Front inner gap', figure: `${front.gaps.innerMm.toFixed(1)} mm` })
  if (front.gaps.measured.outer) out.push({ what: 'Front outer gap', figure: `${front.gaps.outerMm.toFixed(1)} mm` })
  for (const e of front.log) if (e.kind === 'frontSet') out.push({ what: FRONT_SET_WORDS[e.what], figure: '' })
  if (front.open) out.push({ what: 'Front left', figure: FRONT_SEEN_WORDS[front.open.seen].toLowerCase() })
  for (const brake of BRAKES)
    for (const id of state.noted.brakes[brake].cured)
      out.push({
        what: `${brake === 'front' ? 'Front' : 'Rear'} brake, put right`,
        figure: (faultOf(state.noted.brakes[brake].parts?.kind, id)?.words ?? id).toLowerCase(),
      })
  for (const brake of BRAKES) {
    const { close, centring } = state.noted.brakes[brake]
    const which = brake === 'front' ? 'Front' : 'Rear'
    if (close)
      out.push({
        what: `${which} brake`,
        figure: `barrel ${sayTurns(fromSixteenths(close.barrelSixteenthsOut))} turns out${close.letOutMm === null ? '' : `, ${close.letOutMm} mm let out`}`,
      })
    if (centring.some(c => c.kind === 'turned')) out.push({ what: `${which} brake`, figure: 'centred' })
  }
  const { hub } = state.noted
  if (hub.parts) {
    const read = hub.readings.at(-1)
    if (read) out.push({ what: READING_WORDS[hub.parts.way], figure: `${read.mm.toFixed(1)} mm` })
    if (hub.net !== 0) out.push({ what: 'Hub cable', figure: `${hubTurnWords(hub.net)}, net` })
    for (const id of hub.cured) out.push({ what: 'Hub, put right', figure: (hubFault(id)?.words ?? id).toLowerCase() })
    if (hub.counts.length)
      out.push({
        what: 'Hub gears counted',
        figure: [...new Set(hub.counts.map(c => c.gear))].sort((a, b) => a - b).join(', '),
      })
    if (hub.proof) out.push({ what: 'Hub gear', figure: hub.proof.holds ? 'holds in every gear' : 'failed its proof' })
  }
  for (const run of state.noted.runs) {
    const done = state.noted.cabled[run.run] ?? []
    out.push({
      what: `${RUN_WORDS[run.run]} run`,
      figure: `${run.pieces
        .filter(p => p.kind === 'housing')
        .map(p => `${p.name} ${p.lengthMm} mm${p.read ? ` (${LENGTH_READ[p.read.by].short})` : ''}`)
        .join(', ')}${done.includes('clamped') ? ', renewed' : ', planned'}`,
    })
  }
  if (inner) out.push({ what: 'Inner', figure: `${inner.lengthMm} mm` })
  if (cut) out.push({ what: 'Cut and capped', figure: `${cut.tailMm} mm left` })
  if (beddedShifts) out.push({ what: 'Bedded', figure: `${beddedShifts} shifts` })
  for (const p of proved)
    out.push({
      what: p.ring ? `Proven, ${p.ring} ring` : p.what === 'road' ? 'Proven on the road' : 'Proven, several clicks',
      figure: p.exceptions.length
        ? `not clean ${p.exceptions.map(k => state.parts?.cassette.teeth[k] ?? `gear ${k + 1}`).join(', ')}`
        : 'clean',
    })
  if (torqued)
    out.push({
      what: 'Torques',
      figure: torqued.exceptions.length ? `to sheet but ${torqued.exceptions.length}` : 'all to sheet',
    })
  return out
}
