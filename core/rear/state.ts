import type { Decline } from './declined'
import type { GapSeen } from './gapLook'
import type { HangerLook } from './hangerEye'
import type { Cabled } from '../cable/events'
import { usualTailMm } from '../cable/housing'
import type { CableState } from '../cable/state'
import type { PersonId } from '../chapter/ids'
import type { Flag, Told } from '../chapter/chapter'
import { askedBy, isLate, isUnaware, since, type Since } from '../chapter/late'
import { SCREWS, type ScrewName } from '../chapter/screws'
import type { Happened } from '../procedure/happened'
import type { Riding } from '../standards/riding'
import { fromSixteenths, sayTurns, toSixteenths } from '../quantity/turns'
import { checkSetup, type RearSetup } from '../response/setup'
import type { BenchEvent, Part } from './benchEvents'
import type { RearEvent, RearOf } from './events'
import { L_UNSEEN, mayReachLargest, reachesLargest } from './gates'
import { setupOf, type RearParts } from './parts'
import { benchEventsOf } from './project'
import { BEDDING_SHIFTS } from './settle'
import type { LFelt } from './stopFelt'
import { startOf, step, type Trace } from './trace'

/** Where the rear derailleur of a job stands after its log; the latest word on each thing that is not a screw. */
export type RearState = {
  /** Null on a bike without a derailleur. */
  parts: RearParts | null
  /** The drivetrain as it was put right later, if it was: the whole log is read with it, as if it had arrived so. */
  corrected: RearParts | null
  /** The contract's view: what the advice is asked with. */
  setup: RearSetup | null
  bench: readonly BenchEvent[]
  /** Who reported each event of `bench`, by its place. */
  benchBy: readonly PersonId[]
  trace: Trace | null
  /** Net since arrival, or since the clamp or part was renewed, in sixteenths: barrel + out, others + in. */
  net: Readonly<Record<ScrewName, number>>
  /** Screws whose count was restarted since arrival, and so cannot be put back "as it came in". */
  restarted: ReadonlySet<ScrewName>
  /** Screws that were turned at all. */
  turned: ReadonlySet<ScrewName>
  barrelSixteenths: number
  /**
   * How far out was counted, not taken as usual: as it came, at a clamp or a recount. A new cable drawn where it stood
   * tells nothing.
   */
  barrelCounted: boolean
  /** Place in the log of each screw's last turn. */
  lastTurnSeq: Readonly<Partial<Record<ScrewName, number>>>
  /** The last shift heard, and its place in the log. */
  lastHeard: { event: RearOf<'shift'>; seq: number } | null
  /** What the customer says, each complaint once, with the answer of its test. */
  said: readonly RearOf<'said'>[]
  /** What happened to the bike before it came. */
  happened: readonly Happened[]
  /** How much it is ridden, as its rider says; null where nobody asked. */
  riding: Riding | null
  /** Looks at the B gap without a figure, since it was last measured. */
  gapLooks: readonly GapSeen[]
  sensed: RearOf<'sensed'> | null
  sensedSince: Since | null
  /** When something that the stops rest on was last moved. */
  stopsMoved: Since | null
  gauges: readonly { event: RearOf<'gauge'>; at: string; bentBefore: RearOf<'bend'> | null }[]
  /** Everything a gauge or an eye found, also what no longer holds: for the sheet. */
  /**
   * L by thumb and ear, and how far its screw then stood in, sixteenths; null while nobody tried since it was last
   * seen.
   */
  felt: { what: LFelt; sixteenths: number } | null
  found: readonly (RearOf<'sight'> | RearOf<'gauge'>)[]
  gaps: readonly { event: RearOf<'gap'>; bSixteenths: number }[]
  sights: readonly { event: RearOf<'sight'>; sixteenths: number }[]
  housing: readonly RearOf<'housing'>[]
  inner: RearOf<'inner'> | null
  proved: readonly RearOf<'proved'>[]
  torqued: RearOf<'torqued'> | null
  cut: RearOf<'cut'> | null
  beddedShifts: number
  /** Barrel sixteenths since the inner was last clamped here; null when it was not. */
  sinceClamp: number | null
  renewed: readonly Part[]
  clamps: readonly RearOf<'reclamp'>[]
  bends: readonly RearOf<'bend'>[]
  /** Entries whose advice, once done, was said to have been wrong. */
  wrong: readonly string[]
  /** The hanger as it was last seen by eye, while no gauge and no new one says otherwise. */
  eyed: HangerLook | null
  /** What heads every bench and is worked on as it is. */
  waived: ReadonlySet<Waivable>
  /** What was advised and left. */
  declines: readonly Decline[]
  flagged: readonly Flag[]
}

const NONE: Omit<RearState, 'corrected'> = {
  parts: null,
  setup: null,
  bench: [],
  benchBy: [],
  trace: null,
  net: { barrel: 0, H: 0, L: 0, B: 0 },
  restarted: new Set(),
  turned: new Set(),
  barrelSixteenths: 0,
  barrelCounted: false,
  lastTurnSeq: {},
  lastHeard: null,
  said: [],
  happened: [],
  riding: null,
  gapLooks: [],
  sensed: null,
  sensedSince: null,
  stopsMoved: null,
  gauges: [],
  found: [],
  gaps: [],
  sights: [],
  felt: null,
  housing: [],
  inner: null,
  proved: [],
  torqued: null,
  cut: null,
  beddedShifts: 0,
  sinceClamp: null,
  renewed: [],
  clamps: [],
  bends: [],
  wrong: [],
  declines: [],
  eyed: null,
  waived: new Set(),
  flagged: [],
}

/** What heads every bench until it is cured or waived by name. */
export type Waivable = RearOf<'waived'>['what']

type Heard = RearEvent | Cabled

/** Before the first entry; a drivetrain put right later counts from the start. */
export function rearAtStart(log: readonly Told<Heard>[]): RearState {
  const last = log.findLast(t => t.event.kind === 'parts')?.event
  return { ...NONE, corrected: last?.kind === 'parts' ? last.parts : null }
}

/** The rear after one more entry. */
export function rearAfter(was: RearState, told: Told<Heard>, job: { cable: CableState }): RearState {
  if (told.event.kind !== 'cabled') return after(was, told as Told<RearEvent>)
  const means = meantByCable(told.event, was, job.cable)
  return means ? after(was, { ...told, event: means }) : was
}

/**
 * What a step on the cable bench means for a derailleur besides being done, so that one touch is one entry and one
 * undo: a run fed and clamped is a new cable, a bedded one settles less, a capped one is cut.
 */
function meantByCable(
  { run, step: done }: Cabled,
  { setup }: RearState,
  { runs, cabled }: CableState,
): RearEvent | null {
  if (run !== 'rear' || !setup) return null
  if (done === 'clamped') return cabled.rear?.includes('fed') ? { kind: 'replace', part: 'cable' } : null
  if (done === 'bedded') return { kind: 'bedded', shifts: BEDDING_SHIFTS }
  if (done === 'capped') return { kind: 'cut', tailMm: runs.find(r => r.run === 'rear')?.tailMm ?? usualTailMm() }
  return null
}

function after(was: RearState, told: Told<RearEvent>): RearState {
  const { event, at } = told
  switch (event.kind) {
    case 'arrived': {
      const parts = was.corrected ?? event.parts
      if (!parts) return was
      const setup = setupOf(parts)
      return {
        ...was,
        parts,
        setup,
        trace: startOf(setup),
        barrelSixteenths: toSixteenths(setup.barrelTurnsOut),
        barrelCounted: !parts.barrel.assumed,
      }
    }
    case 'parts':
      return { ...was, waived: without(was.waived, 'parts') }
    case 'turn':
      return onBench(sinceClamp(screwed(was, told, event.screw, event.sixteenths), event.screw, event.sixteenths), told)
    case 'edge':
      return onBench(sinceClamp(screwed(was, told, 'barrel', event.sixteenths), 'barrel', event.sixteenths), told)
    case 'reclamp':
      return {
        ...onBench(restart(was, ['barrel']), told),
        sinceClamp: 0,
        barrelCounted: true,
        cut: null,
        clamps: [...was.clamps, event],
      }
    case 'replace':
      return replaced(
        {
          ...onBench(restart(was, SCREWS_OF[event.part]), told),
          // the barrel came with what was renewed, or stands where it stood
          barrelCounted: was.barrelCounted && (event.part === 'cable' || !SCREWS_OF[event.part].includes('barrel')),
        },
        event.part,
        told,
      )
    case 'recount':
      return recounted(was, told, fromSixteenths(event.barrelSixteenthsOut))
    case 'bend': {
      const last = was.gauges.at(-1)
      return {
        ...onBench(was, told),
        gauges: last ? [...was.gauges.slice(0, -1), { ...last, bentBefore: event }] : was.gauges,
        stopsMoved: since(was.stopsMoved, told),
        sights: [],
        felt: null,
        gaps: [],
        gapLooks: [],
        bends: [...was.bends, event],
      }
    }
    case 'gauge':
      return {
        ...onBench(was, told),
        gauges: [...was.gauges, { event, at, bentBefore: null }],
        eyed: null,
        waived: without(was.waived, 'hanger'),
        found: [...was.found, event],
      }
    case 'sight':
      if (isUnaware(told, was.stopsMoved))
        return {
          ...was,
          stopsMoved: askedBy(was.stopsMoved, told),
          flagged: [...was.flagged, { id: told.id, why: seenBefore(event.at) }],
        }
      return {
        ...onBench({ ...was, flagged: was.flagged.filter(f => f.why !== seenBefore(event.at)) }, told),
        sights: [...was.sights, { event, sixteenths: was.net[event.at] }],
        felt: event.at === 'L' ? null : was.felt,
        found: [...was.found, event],
      }
    case 'shift':
      return onBench(heardTwice(was, told, event), told)
    case 'felt':
      return { ...onBench(was, told), felt: { what: event.what, sixteenths: was.net.L } }
    case 'pass':
    case 'went':
    case 'sounded':
    case 'offset':
      return onBench(was, told)
    case 'said':
      return {
        ...was,
        said: [...was.said.filter(x => x.complaint !== event.complaint), ...(event.withdrawn ? [] : [event])],
      }
    case 'happened':
      return { ...was, happened: event.what }
    case 'ridden':
      return { ...was, riding: event.how }
    case 'sensed':
      if (!was.sensed || !isLate(told, was.sensedSince))
        return { ...was, sensed: event, sensedSince: since(was.sensedSince, told) }
      // one that was made before adds, and takes nothing back
      return {
        ...was,
        sensed: { ...was.sensed, exceptions: [...new Set([...was.sensed.exceptions, ...event.exceptions])] },
        sensedSince: askedBy(was.sensedSince, told),
      }
    case 'gap':
      return { ...was, gaps: [...was.gaps, { event, bSixteenths: was.net.B }], gapLooks: [] }
    case 'gapSeen':
      return { ...was, gapLooks: [...was.gapLooks, { look: event.look, bSixteenths: was.net.B }] }
    case 'gapWanted':
      return was.parts
        ? { ...was, parts: { ...was.parts, derailleur: { ...was.parts.derailleur, makerGapMm: event.gapMm } } }
        : was
    case 'housing':
      return { ...was, housing: [...was.housing.filter(h => h.place !== event.place), event] }
    case 'inner':
      return { ...was, inner: event }
    case 'proved':
      return {
        ...onBench(was, told),
        proved: [...was.proved.filter(p => p.what !== event.what || p.ring !== event.ring), event],
      }
    case 'torqued':
      return { ...was, torqued: event }
    case 'cut':
      return { ...was, cut: event }
    case 'bedded':
      return { ...was, beddedShifts: was.beddedShifts + event.shifts }
    case 'wrong':
      return { ...was, wrong: [...was.wrong, event.about] }
    case 'eyed':
      return { ...onBench(was, told), eyed: event.hanger, waived: without(was.waived, 'hanger') }
    case 'waived':
      return { ...was, waived: new Set([...was.waived, event.what]) }
    case 'declined':
      return { ...was, declines: [...was.declines, { what: event.what, after: was.bench.length }] }
  }
}

/** What is asked, until it was seen again, where a look at a stop comes late, and is of the derailleur as it was. */
const seenBefore = (stop: 'H' | 'L'): string =>
  `${stop} was looked at before the hanger or a part was moved elsewhere: see it once more`

/** Screws whose count begins anew with a part. */
const SCREWS_OF: Record<Part, readonly ScrewName[]> = {
  cable: ['barrel'],
  shifter: ['barrel'],
  derailleur: SCREWS,
  hanger: [],
  cassette: [],
}

const without = (waived: ReadonlySet<Waivable>, what: Waivable): ReadonlySet<Waivable> =>
  new Set([...waived].filter(w => w !== what))

function replaced(was: RearState, part: Part, told: Told): RearState {
  const cable = part === 'cable' ? { sinceClamp: 0, cut: null } : {}
  const moved = part === 'hanger' || part === 'derailleur' || part === 'cassette'
  const places = moved
    ? {
        stopsMoved: since(was.stopsMoved, told),
        sights: [],
        felt: null,
        gaps: [],
        gapLooks: [],
        gauges: part === 'hanger' ? [] : was.gauges,
      }
    : {}
  const straight = part === 'hanger' ? { eyed: null, waived: without(was.waived, 'hanger') } : {}
  return { ...was, renewed: [...was.renewed, part], ...cable, ...places, ...straight }
}

const sinceClamp = (was: RearState, screw: ScrewName, sixteenths: number): RearState =>
  screw === 'barrel' && was.sinceClamp !== null ? { ...was, sinceClamp: was.sinceClamp + sixteenths } : was

/**
 * A screw turned. Two tablets may accept one move: a turn as advised, based on a log without the last turn of that
 * screw, is asked about.
 */
function screwed(
  was: RearState,
  { id, event, seq, basedOn }: Told<RearEvent>,
  screw: ScrewName,
  by: number,
): RearState {
  const last = was.lastTurnSeq[screw]
  const taken = 'advised' in event && event.advised?.taken === true
  const stale = taken && last !== undefined && basedOn !== undefined && basedOn < last
  return {
    ...was,
    net: { ...was.net, [screw]: was.net[screw] + by },
    turned: new Set([...was.turned, screw]),
    lastTurnSeq: seq === undefined ? was.lastTurnSeq : { ...was.lastTurnSeq, [screw]: seq },
    flagged: stale
      ? [...was.flagged, { id, why: 'Another tablet had just turned this screw. Was that the same turn, or another?' }]
      : was.flagged,
  }
}

/** Two tablets that heard the same shift, neither knowing of the other, and not the same of it. */
function heardTwice(was: RearState, { id, seq, basedOn }: Told<RearEvent>, event: RearOf<'shift'>): RearState {
  const { lastHeard: last } = was
  const apart = last !== null && basedOn !== undefined && basedOn < last.seq && last.event.to === event.to
  return {
    ...was,
    lastHeard: seq === undefined ? last : { event, seq },
    flagged:
      apart && last.event.heard !== event.heard
        ? [...was.flagged, { id, why: 'Two tablets heard this shift differently. Which was it? Take the other back' }]
        : was.flagged,
  }
}

function restart(was: RearState, screws: readonly ScrewName[]): RearState {
  const net = { ...was.net }
  for (const screw of screws) net[screw] = 0
  return { ...was, net, restarted: new Set([...was.restarted, ...screws]) }
}

/**
 * Follows an entry on the bench. One that the thread forbids is kept and flagged: the count of turns at arrival must
 * have been wrong, and the screen asks.
 */
function onBench(was: RearState, { id, event, by }: Told<RearEvent>): RearState {
  if (!was.setup || !was.trace)
    return { ...was, flagged: [...was.flagged, { id, why: 'noted before the drivetrain was known' }] }
  const { setup } = was
  let { trace } = was
  const bench = [...was.bench]
  const benchBy = [...was.benchBy]
  const flagged = [...was.flagged]
  if (reachesLargest(event, setup.teeth.length) && !mayReachLargest(trace)) flagged.push({ id, why: L_UNSEEN })
  for (const made of benchEventsOf(event, trace, setup)) {
    try {
      trace = step(trace, made, setup)
      bench.push(made)
      benchBy.push(by)
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      const past = made.kind === 'turn' || made.kind === 'edge'
      flagged.push({ id, why: past ? 'past the assumed thread: count the turns out again' : error.message })
    }
  }
  return { ...was, trace, bench, benchBy, flagged, barrelSixteenths: toSixteenths(trace.barrelTurns) }
}

/**
 * The count of the barrel was lost and taken anew: the turns noted stay, where they began is corrected, at arrival or
 * at the last clamp. A count that cannot be, with the turns noted since, is kept and asked about.
 */
function recounted(was: RearState, { id }: Told<RearEvent>, counted: number): RearState {
  if (!was.setup || !was.trace) return was
  const by = counted - was.trace.barrelTurns
  const clampedAt = was.bench.findLastIndex(e => e.kind === 'reclamp')
  const bench = was.bench.map((e, i): BenchEvent =>
    i === clampedAt && e.kind === 'reclamp' ? { ...e, barrelTurnsOut: e.barrelTurnsOut + by } : e,
  )
  const setup = clampedAt < 0 ? { ...was.setup, barrelTurnsOut: was.setup.barrelTurnsOut + by } : was.setup
  try {
    checkSetup(setup)
    const trace = bench.reduce((t, e) => step(t, e, setup), startOf(setup))
    return { ...was, setup, bench, trace, barrelSixteenths: toSixteenths(trace.barrelTurns), barrelCounted: true }
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    const why = `${sayTurns(counted)} turns out does not go with the turns noted since: count once more, or take one back`
    return { ...was, flagged: [...was.flagged, { id, why }] }
  }
}
