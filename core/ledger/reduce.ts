import type { BenchEvent, Part } from '../advice/contract'
import type { Brake } from '../brake/kinds'
import {
  marksAfter,
  PROOF_WORDS,
  proofOf,
  type Mark,
  type Proof,
  type ProofMarks,
  type ProofTest,
} from '../brake/proof'
import { brakesAfter, noBrakes, unproves, type BrakesState } from '../brake/state'
import { hubAfter, hubSetAnew, hubStays, isHubEvent, noHub, type HubState } from '../hub/state'
import { isBrake, RUN_WORDS, USUAL_TAIL_MM, type RunName } from '../cable/housing'
import type { Run } from '../cable/run'
import { capMissing, type CableStep } from '../cable/steps'
import type { SchoolChoice } from '../procedure/schools'
import { costOf } from '../advice/contract'
import { startOf, step, type Trace } from '../advice/trace'
import { frontAfter, isFrontEvent, noFront, type FrontState } from '../front/state'
import { fromSixteenths, sayTurns, toSixteenths } from '../quantity/turns'
import { BEDDING_SHIFTS } from '../rear/settle'
import { checkSetup, type RearSetup } from '../response/setup'
import type { EventId, LedgerEvent, PersonId } from './events'
import { setupOf, type RearParts } from './parts'
import { benchEventsOf } from './project'

/** An entry as the reducer needs it: stored or still waiting. */
export type Told = {
  id: EventId
  at: string
  by: PersonId
  event: LedgerEvent
  signedBy?: PersonId | null
  seq?: number
  basedOn?: number
}

export type ScrewName = 'barrel' | 'H' | 'L' | 'B'
export type Place = { where: 'rack' | 'stand' | 'door' | 'gone'; stand: number | null }

/** Where a job stands after its log. */
export type JobState = {
  parts: RearParts | null
  place: Place
  /** Net since arrival, or since the clamp or part was renewed, in sixteenths: barrel + out, others + in. */
  netSixteenths: Record<ScrewName, number>
  /** Screws whose count was restarted since arrival, and so cannot be put back "as it came in". */
  restarted: ReadonlySet<ScrewName>
  barrelSixteenths: number
  /** Place in the log of each screw's last turn. */
  lastTurnSeq: Partial<Record<ScrewName, number>>
  proofs: { front: Proof | null; rear: Proof | null }
  /** Squeeze, roll and ride of each brake, as far as they were marked since it was last worked on. */
  proofMarks: Record<Brake, ProofMarks>
  /** Closed by hand-back: how, by whom, when. */
  handedBack: { how: 'proven' | 'unridable'; by: PersonId; at: string } | null
  /** The contract's view: what the advice is asked with. */
  setup: RearSetup | null
  bench: BenchEvent[]
  trace: Trace | null
  /** Entries in force, in order, undone ones and undos left out. */
  inForce: Told[]
  undone: ReadonlySet<EventId>
  /** What was said of the bike before a screw was turned, and what was noted since; the latest of each. */
  noted: Noted
  /** Entries that were kept but do not follow from what was known; the screen asks about them. */
  flagged: { id: EventId; why: string }[]
}

/** The latest word on each thing that is not a screw. */
export type Noted = {
  said: Of<'said'> | null
  sensed: Of<'sensed'> | null
  schools: SchoolChoice
  gauges: { event: Of<'gauge'>; at: string; bentBefore: Of<'bend'> | null }[]
  gaps: { event: Of<'gap'>; bSixteenths: number }[]
  sights: { event: Of<'sight'>; sixteenths: number }[]
  housing: Of<'housing'>[]
  front: FrontState
  hub: HubState
  brakes: BrakesState
  /** The runs as they were planned or measured, and the steps of each that are done. */
  runs: readonly Run[]
  cabled: Partial<Record<RunName, readonly CableStep[]>>
  inner: Of<'inner'> | null
  proved: Of<'proved'>[]
  torqued: Of<'torqued'> | null
  cut: Of<'cut'> | null
  beddedShifts: number
  /** Barrel sixteenths since the inner was last clamped here; null when it was not. */
  sinceClamp: number | null
  renewed: readonly Part[]
  /** Entries whose advice, once done, was said to have been wrong. */
  wrong: readonly EventId[]
}
type Of<K extends LedgerEvent['kind']> = Extract<LedgerEvent, { kind: K }>

const nothingNoted: Noted = {
  said: null,
  sensed: null,
  schools: {},
  gauges: [],
  gaps: [],
  sights: [],
  housing: [],
  front: noFront,
  brakes: noBrakes,
  hub: noHub,
  runs: [],
  cabled: {},
  inner: null,
  proved: [],
  torqued: null,
  cut: null,
  beddedShifts: 0,
  sinceClamp: null,
  renewed: [],
  wrong: [],
}

const fresh = (): JobState => ({
  noted: nothingNoted,
  parts: null,
  place: { where: 'rack', stand: null },
  netSixteenths: { barrel: 0, H: 0, L: 0, B: 0 },
  restarted: new Set(),
  barrelSixteenths: 0,
  lastTurnSeq: {},
  proofs: { front: null, rear: null },
  proofMarks: { front: {}, rear: {} },
  handedBack: null,
  setup: null,
  bench: [],
  trace: null,
  inForce: [],
  undone: new Set(),
  flagged: [],
})

/** State of a job: the same in browser, server and tests. An entry told twice counts once; an undo can be undone. */
export function reduce(entries: readonly Told[]): JobState {
  const once = [...new Map(entries.map(e => [e.id, e])).values()]
  const gone = new Set<EventId>()
  for (const { id, event } of [...once].reverse()) if (event.kind === 'undo' && !gone.has(id)) gone.add(event.undoes)
  const inForce = once.filter(e => e.event.kind !== 'undo' && !gone.has(e.id))
  const corrected = inForce.findLast(e => e.event.kind === 'parts')?.event
  const parts = corrected?.kind === 'parts' ? corrected.parts : null
  const one = (s: JobState, told: Told): JobState => {
    const next = apply(s, told, parts)
    return { ...next, noted: note(next.noted, told, next) }
  }
  const state = inForce.reduce((s, told) => [told, ...alsoMeans(told, s)].reduce(one, s), fresh())
  return { ...state, inForce, undone: gone }
}

/**
 * What a step on the cable bench means for a derailleur besides being done, so that one touch is one entry and one undo:
 * a run fed and clamped is a new cable, a bedded one settles less, a capped one is cut.
 */
function alsoMeans(told: Told, { noted, setup }: JobState): Told[] {
  const { event } = told
  if (event.kind !== 'cabled') return []
  const means = (meant: LedgerEvent): Told[] => [{ ...told, event: meant }]
  if (event.run === 'front')
    return event.step === 'clamped' && noted.front.parts
      ? means({ kind: 'frontSet', what: noted.cabled.front?.includes('fed') ? 'cable' : 'clamp' })
      : []
  if (event.run !== 'rear' || !setup) return []
  if (event.step === 'clamped' && noted.cabled.rear?.includes('fed')) return means({ kind: 'replace', part: 'cable' })
  if (event.step === 'bedded') return means({ kind: 'bedded', shifts: BEDDING_SHIFTS })
  if (event.step === 'capped')
    return means({ kind: 'cut', tailMm: noted.runs.find(r => r.run === 'rear')?.tailMm ?? USUAL_TAIL_MM })
  return []
}

/** `corrected`: the drivetrain as it was put right later; the whole log is read with it, as if it had arrived so. */
function apply(s: JobState, told: Told, corrected: RearParts | null): JobState {
  const { event } = told
  if (isHubEvent(event) || isFrontEvent(event)) return s
  switch (event.kind) {
    case 'arrived': {
      const parts = corrected ?? event.parts
      if (!parts) return s
      const setup = setupOf(parts)
      return {
        ...s,
        parts,
        setup,
        trace: startOf(setup),
        bench: [],
        barrelSixteenths: toSixteenths(setup.barrelTurnsOut),
      }
    }
    case 'placed':
      return { ...s, place: { where: event.where, stand: event.stand } }
    case 'turn':
      return onBench(
        askIfStale(
          {
            ...s,
            netSixteenths: { ...s.netSixteenths, [event.screw]: s.netSixteenths[event.screw] + event.sixteenths },
          },
          told,
          event.screw,
        ),
        told,
      )
    case 'edge':
      return onBench(
        askIfStale(
          { ...s, netSixteenths: { ...s.netSixteenths, barrel: s.netSixteenths.barrel + event.sixteenths } },
          told,
          'barrel',
        ),
        told,
      )
    case 'reclamp':
      return onBench(restart(s, ['barrel']), told)
    case 'replace':
      return onBench(
        restart(
          s,
          event.part === 'cable' || event.part === 'shifter'
            ? ['barrel']
            : event.part === 'derailleur'
              ? ['barrel', 'H', 'L', 'B']
              : [],
        ),
        told,
      )
    case 'recount':
      return recounted(s, told, fromSixteenths(event.barrelSixteenthsOut))
    case 'bend':
      return onBench(s, told)
    case 'shift':
    case 'pass':
    case 'sight':
    case 'offset':
    case 'gauge':
      return onBench(s, told)
    case 'proof':
      return proven(s, event.brake, { holds: event.holds, by: told.signedBy ?? told.by, at: told.at }, event.test)
    case 'handedBack':
      return { ...s, handedBack: { how: event.how, by: told.by, at: told.at }, place: { where: 'door', stand: null } }
    case 'reopened':
      return {
        ...s,
        handedBack: null,
        proofs: { front: null, rear: null },
        proofMarks: { front: {}, rear: {} },
        place: { where: 'rack', stand: null },
      }
    case 'brakeParts':
    case 'brakeSeen':
    case 'brakeStep':
    case 'brakeNearer':
    case 'brakeScrew':
    case 'brakeClose':
    case 'brakeCured': {
      const brake = unproves(event)
      return brake ? unproven(s, brake) : s
    }
    case 'cabled':
      // a brake's wire clamped anew is proven anew
      return isBrake(event.run) && event.step === 'clamped'
        ? unproven(s, event.run === 'front-brake' ? 'front' : 'rear')
        : s
    case 'parts':
    case 'undo':
    case 'wrong':
    case 'said':
    case 'sensed':
    case 'housing':
    case 'run':
    case 'inner':
    case 'gap':
    case 'proved':
    case 'torqued':
    case 'cut':
    case 'bedded':
    case 'schools':
      return s
    default:
      return unreachable(event)
  }
}

function proven(s: JobState, brake: Brake, mark: Mark, test: ProofTest | undefined): JobState {
  const marks = marksAfter(s.proofMarks[brake], mark, test)
  return {
    ...s,
    proofMarks: { ...s.proofMarks, [brake]: marks },
    proofs: { ...s.proofs, [brake]: proofOf(marks, mark, test) },
  }
}
const unproven = (s: JobState, brake: Brake): JobState => ({
  ...s,
  proofs: { ...s.proofs, [brake]: null },
  proofMarks: { ...s.proofMarks, [brake]: {} },
})

/** Two tablets may accept one move: a turn as advised, based on a log without the last turn of that screw, is asked about. */
function askIfStale(s: JobState, { id, event, seq, basedOn }: Told, screw: ScrewName): JobState {
  const last = s.lastTurnSeq[screw]
  const stale =
    last !== undefined && basedOn !== undefined && basedOn < last && 'advised' in event && event.advised?.taken === true
  return {
    ...s,
    lastTurnSeq: seq === undefined ? s.lastTurnSeq : { ...s.lastTurnSeq, [screw]: seq },
    flagged: stale
      ? [...s.flagged, { id, why: 'Another tablet had just turned this screw. Was that the same turn, or another?' }]
      : s.flagged,
  }
}

function restart(s: JobState, screws: ScrewName[]): JobState {
  const netSixteenths = { ...s.netSixteenths }
  for (const screw of screws) netSixteenths[screw] = 0
  return { ...s, netSixteenths, restarted: new Set([...s.restarted, ...screws]) }
}

/**
 * Follows an entry on the bench. One that the thread forbids is kept and flagged: the count of turns at arrival must
 * have been wrong, so the barrel's place is moved to make room, and the screen asks.
 */
function onBench(s: JobState, { id, event }: Told): JobState {
  if (s.handedBack)
    s = {
      ...s,
      flagged: [...s.flagged, { id, why: 'Tapped after the bike was handed back: reopen the job, or take it back' }],
    }
  if (!s.setup || !s.trace)
    return { ...s, flagged: [...s.flagged, { id, why: 'noted before the drivetrain was known' }] }
  const { setup } = s
  let { trace } = s
  const bench = [...s.bench]
  const flagged = [...s.flagged]
  for (const made of benchEventsOf(event, trace, setup)) {
    try {
      trace = step(trace, made, setup)
      bench.push(made)
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      flagged.push({
        id,
        why:
          made.kind === 'turn' || made.kind === 'edge'
            ? 'past the assumed thread: count the turns out again'
            : error.message,
      })
    }
  }
  return { ...s, trace, setup, bench, flagged, barrelSixteenths: toSixteenths(trace.barrelTurns) }
}

/**
 * The count of the barrel was lost and taken anew: the turns noted stay, where they began is corrected, at arrival or
 * at the last clamp. A count that cannot be, with the turns noted since, is kept and asked about.
 */
function recounted(s: JobState, { id }: Told, counted: number): JobState {
  if (!s.setup || !s.trace) return s
  const by = counted - s.trace.barrelTurns
  const clampedAt = s.bench.findLastIndex(e => e.kind === 'reclamp')
  const bench = s.bench.map((e, i): BenchEvent =>
    i === clampedAt && e.kind === 'reclamp' ? { ...e, barrelTurnsOut: e.barrelTurnsOut + by } : e,
  )
  const setup = clampedAt < 0 ? { ...s.setup, barrelTurnsOut: s.setup.barrelTurnsOut + by } : s.setup
  try {
    checkSetup(setup)
    const trace = bench.reduce((t, e) => step(t, e, setup), startOf(setup))
    return { ...s, setup, bench, trace, barrelSixteenths: toSixteenths(trace.barrelTurns) }
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    return {
      ...s,
      flagged: [
        ...s.flagged,
        {
          id,
          why: `${sayTurns(counted)} turns out does not go with the turns noted since: count once more, or take one back`,
        },
      ],
    }
  }
}

function note(was: Noted, { event, at, by, signedBy }: Told, s: JobState): Noted {
  if (isFrontEvent(event)) return { ...was, front: frontAfter(was.front, event) }
  if (isHubEvent(event)) return { ...was, hub: hubAfter(was.hub, event, signedBy ?? by, at) }
  switch (event.kind) {
    case 'said':
      return { ...was, said: event }
    case 'sensed':
      return { ...was, sensed: event }
    case 'schools':
      return { ...was, schools: event.choice }
    case 'gauge':
      return { ...was, gauges: [...was.gauges, { event, at, bentBefore: null }] }
    case 'bend': {
      const last = was.gauges.at(-1)
      return {
        ...was,
        gauges: last ? [...was.gauges.slice(0, -1), { ...last, bentBefore: event }] : was.gauges,
        sights: [],
        gaps: [],
      }
    }
    case 'sight':
      return { ...was, sights: [...was.sights, { event, sixteenths: s.netSixteenths[event.at] }] }
    case 'gap':
      return { ...was, gaps: [...was.gaps, { event, bSixteenths: s.netSixteenths.B }] }
    case 'housing':
      return { ...was, housing: [...was.housing.filter(h => h.place !== event.place), event] }
    case 'brakeParts':
    case 'brakeSeen':
    case 'brakeStep':
    case 'brakeNearer':
    case 'brakeScrew':
    case 'brakeClose':
    case 'brakeCured':
      return { ...was, brakes: brakesAfter(was.brakes, event) }
    case 'reopened':
      return { ...was, hub: { ...was.hub, proof: null } }
    case 'run':
      return { ...was, runs: [...was.runs.filter(r => r.run !== event.run.run), event.run] }
    case 'cabled':
      return {
        ...was,
        ...(event.step === 'clamped' && (event.run === 'hub' || event.run === 'hub-second') && was.hub.parts
          ? { hub: hubSetAnew(was.hub) }
          : {}),
        cabled: {
          ...was.cabled,
          [event.run]: [...(was.cabled[event.run] ?? []).filter(s => s !== event.step), event.step],
        },
      }
    case 'wrong':
      return { ...was, wrong: [...was.wrong, event.about] }
    case 'inner':
      return { ...was, inner: event }
    case 'proved':
      return { ...was, proved: [...was.proved.filter(p => p.what !== event.what || p.ring !== event.ring), event] }
    case 'torqued':
      return { ...was, torqued: event }
    case 'cut':
      return { ...was, cut: event }
    case 'bedded':
      return { ...was, beddedShifts: was.beddedShifts + event.shifts }
    case 'turn':
      return event.screw === 'barrel' && was.sinceClamp !== null
        ? { ...was, sinceClamp: was.sinceClamp + event.sixteenths }
        : was
    case 'edge':
      return was.sinceClamp !== null ? { ...was, sinceClamp: was.sinceClamp + event.sixteenths } : was
    case 'reclamp':
      return { ...was, sinceClamp: 0, cut: null }
    case 'replace': {
      const moved = event.part === 'hanger' || event.part === 'derailleur' || event.part === 'cassette'
      return {
        ...was,
        renewed: [...was.renewed, event.part],
        sinceClamp: event.part === 'cable' ? 0 : was.sinceClamp,
        cut: event.part === 'cable' ? null : was.cut,
        ...(moved ? { sights: [], gaps: [], gauges: event.part === 'hanger' ? [] : was.gauges } : {}),
      }
    }
    default:
      return was
  }
}

const unreachable = (event: never): never => {
  throw new Error(`unhandled ledger event ${JSON.stringify(event)}`)
}

/** The last thing done as advised, unless it was said to have been wrong already; null when something else came after it. */
export function lastTaken(state: JobState): Told | null {
  const last = state.inForce.findLast(({ event }) => event.kind !== 'wrong' && event.kind !== 'placed')
  return last && 'advised' in last.event && last.event.advised?.taken && !state.noted.wrong.includes(last.id)
    ? last
    : null
}

/** The last entry that an undo would take back: anything done at the bench, never arrival or hand-back. */
export function undoable(state: JobState): Told | null {
  return (
    state.inForce.findLast(
      ({ event }) =>
        event.kind !== 'arrived' && event.kind !== 'handedBack' && event.kind !== 'reopened' && event.kind !== 'placed',
    ) ?? null
  )
}

/** What is left of the barrel each way, in turns. */
export const barrelLeft = (state: JobState): { inTurns: number; outTurns: number } | null =>
  state.setup && {
    inTurns: fromSixteenths(state.barrelSixteenths),
    outTurns: state.setup.barrelTurnsRange - fromSixteenths(state.barrelSixteenths),
  }

/** Turns that put a screw back as it came in; null where a part or clamp was renewed and there is nothing to go back to. */
export function asItCameIn(state: JobState): Partial<Record<ScrewName, number>> {
  const out: Partial<Record<ScrewName, number>> = {}
  for (const screw of ['barrel', 'H', 'L', 'B'] as const)
    if (!state.restarted.has(screw) && state.netSixteenths[screw] !== 0) out[screw] = -state.netSixteenths[screw]
  return out
}

/** May the bike leave? Words when not. */
export function staysBecause(state: JobState): string | null {
  const { front, rear } = state.proofs
  if (front && !front.holds) return `front brake failed its ${front.failed ? PROOF_WORDS[front.failed].name : 'proof'}`
  if (rear && !rear.holds) return `rear brake failed its ${rear.failed ? PROOF_WORDS[rear.failed].name : 'proof'}`
  if (!front && !rear) return 'brakes not proven'
  if (!front) return 'front brake not proven'
  if (!rear) return 'rear brake not proven'
  const bare = (Object.entries(state.noted.cabled) as [RunName, readonly CableStep[]][]).find(([run, done]) =>
    capMissing(run, done),
  )
  if (bare) return `${RUN_WORDS[bare[0]].toLowerCase()} cable’s end is not capped`
  return hubStays(state.noted.hub)
}

/** What the work so far has cost, in shifts listened to. */
export const workOf = (state: JobState): number => state.bench.reduce((sum, e) => sum + costOf(e), 0)
