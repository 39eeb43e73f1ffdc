import { askedBy, isLate, isUnaware, since, type Since, type When } from '../chapter/late'
import { UNKNOWN, withSeenSince } from '../chapter/looks'
import type { Cabled } from '../cable/events'
import type { RunName } from '../cable/housing'
import { handOf, type Flag, type Refusal, type Stay, type Told } from '../chapter/chapter'
import type { JobOf } from '../job/events'
import type { RearOf } from '../rear/events'
import type { Centring } from './centring'
import { answersDanger, looksRight, stopsRiding } from './checks'
import type { BrakeSeen } from './diagnose'
import type { BrakeEvent, BrakeOf } from './events'
import { lookAnswered, stepNamesOf, stepsAfter, touches, type BrakeStepName } from './stepWords'
import { BRAKES, isDiagnosed, NO_BRAKE, type Brake, type BrakeParts, type EndKind } from './kinds'
import { marksAfter, PROOF_WORDS, proofOf, testsOf, type Proof, type ProofMarks, type ProofTest } from './proof'

/** What brakes follow besides their own entries: their wires, their wheels, and the job being opened again. */
export type BrakeHeard = Cabled | JobOf<'wheelOut' | 'reopened'> | RearOf<'replace'>

/** Where one brake of a job stands after its log. */
export type BrakeState = {
  parts: BrakeParts | null
  seen: readonly BrakeSeen[]
  cured: readonly string[]
  /** Steps of its order of fitting that are done. */
  steps: readonly string[]
  centring: Centring
  /** How close the rider likes it: barrel turns out, and what was let out. */
  close: { barrelSixteenthsOut: number; letOutMm: number | null } | null
  /** Tests as far as they were marked since it was last worked on. */
  marks: ProofMarks
  proof: Proof | null
  /** Failed, and nothing was put right since: the test it failed, null when none was named. */
  failed: ({ test: ProofTest | null; by: string } & Since) | null
  /** Its wire was clamped and its end not capped since, whichever bench noted it. */
  uncapped: Since | null
  /** When it was last touched, or found otherwise: a proof from before is none. */
  touched: Since | null
  /** When it was last said which brake it is: what was said before that is not it. */
  named: Since | null
}
export type BrakesState = Record<Brake, BrakeState> & { flagged: readonly Flag[] }

const untouched: BrakeState = {
  parts: null,
  seen: [],
  cured: [],
  steps: [],
  centring: [],
  close: null,
  marks: {},
  proof: null,
  failed: null,
  uncapped: null,
  touched: null,
  named: null,
}
export const noBrakes: BrakesState = { front: untouched, rear: untouched, flagged: [] }

/** The brake that a run works; a gear's works none. */
export const BRAKE_OF_RUN: Partial<Record<RunName, Brake>> = { 'front-brake': 'front', 'rear-brake': 'rear' }

/** Proven no more: it was found otherwise, or may be otherwise. What failed has still failed. */
const doubted = (b: BrakeState, told: When): BrakeState => ({
  ...b,
  marks: {},
  proof: null,
  touched: since(b.touched, told),
})
/** Worked on: whatever it was, it is proven anew, and a failure before that has been answered. */
const workedOn = (b: BrakeState, told: When): BrakeState => ({
  ...doubted(b, told),
  failed: isLate(told, b.failed) ? askedBy(b.failed, told) : null,
})
/** Its wire clamped, or its end capped; a cap from before the clamping caps nothing. */
function ended(b: BrakeState, step: string, told: When): BrakeState {
  if (step === 'clamped') return { ...b, uncapped: since(b.uncapped, told) }
  if (step !== 'capped') return b
  return { ...b, uncapped: isLate(told, b.uncapped) ? askedBy(b.uncapped, told) : null }
}
const without = (seen: readonly BrakeSeen[], check: string | null): readonly BrakeSeen[] =>
  seen.filter(s => s.check !== check)

/** The brakes after one more entry. */
export function brakesAfter(was: BrakesState, told: Told<BrakeEvent | BrakeHeard>): BrakesState {
  const { event } = told
  const on = (brake: Brake, change: (b: BrakeState) => BrakeState): BrakesState => ({
    ...was,
    [brake]: change(was[brake]),
  })
  switch (event.kind) {
    case 'cabled': {
      const brake = BRAKE_OF_RUN[event.run]
      return brake ? on(brake, b => cabled(b, event, told)) : was
    }
    case 'wheelOut':
      return on(event.wheel, b => doubted(b, told))
    case 'replace':
      // the wheel came out for it
      return event.part === 'cassette' ? on('rear', b => doubted(b, told)) : was
    case 'reopened':
      return { ...was, front: doubted(was.front, told), rear: doubted(was.rear, told) }
    case 'proof': {
      const before = event.holds ? beforeProof(was[event.brake], event) : null
      const { touched } = was[event.brake]
      const late = event.holds && isUnaware(told, touched) ? touched : null
      if (before || late)
        return {
          ...(late ? on(event.brake, b => ({ ...b, touched: askedBy(late, told) })) : was),
          flagged: [...was.flagged, { id: told.id, why: before?.message ?? triedBefore(event.brake) }],
        }
      const asked = was.flagged.filter(f => f.why !== triedBefore(event.brake))
      return { ...on(event.brake, b => proven(b, event, handOf(told), told.at)), flagged: asked }
    }
    case 'brakeParts': {
      const { parts } = event
      const before = otherwiseSince(was[parts.brake], parts)
      const why = namedBefore(parts.brake)
      if (isUnaware(told, before))
        return {
          ...on(parts.brake, b => ({ ...differing(b, before), named: askedBy(before, told) })),
          flagged: [...was.flagged, { id: told.id, why }],
        }
      const now = on(parts.brake, b => ({ ...named(b, parts, told), named: since(was[parts.brake].named, told) }))
      return { ...now, flagged: was.flagged.filter(f => f.why !== why) }
    }
    default:
      return on(event.brake, b => after(b, event, told))
  }
}

/** What is asked, until it was tried again, where a proof that comes late is of the brake as it was. */
const triedBefore = (brake: Brake): string =>
  `The ${WHICH[brake]} was tried before it was touched, or found otherwise, elsewhere: try it once more`

/** A proof from before it was said was of a brake they say otherwise of, whenever it comes. */
const differing = (b: BrakeState, said: Since): BrakeState =>
  Object.values(b.marks).some(m => m.at <= said.at) ? doubted(b, said) : { ...b, touched: since(b.touched, said) }
/** When it was last said to be another brake than this, or found with a danger that it has and this one cannot. */
function otherwiseSince(b: BrakeState, parts: BrakeParts): Since | null {
  const none = b.parts?.kind === parts.kind || b.parts?.kind === 'none'
  const found = none ? [] : b.seen.filter(s => stopsRiding(s.check, s.outcome) && !isAlso(parts.kind, s.check))
  return [sameBrake(b.parts, parts) ? null : b.named, ...found.map(s => s.since)].reduce<Since | null>(
    (last, s) => (s && (!last || s.at > last.at) ? s : last),
    null,
  )
}
/** What is asked, until it was said again, where somebody elsewhere said or found otherwise after that. */
const namedBefore = (brake: Brake): string =>
  `Two tablets differ on which ${WHICH[brake]} this is: look whether what stands is right`

type OfOne = Exclude<BrakeEvent, { kind: 'proof' | 'brakeParts' }>
function after(was: BrakeState, e: OfOne, told: When): BrakeState {
  const done = doneAfter(was, e, told)
  const now = { ...done, seen: withSeenSince(was.seen, done.seen, told) }
  // whoever proved it before that was answered proved it as it was
  return dangersOf(now).length < dangersOf(was).length ? { ...now, touched: since(now.touched, told) } : now
}
function doneAfter(b: BrakeState, e: OfOne, told: When): BrakeState {
  switch (e.kind) {
    case 'brakeSeen': {
      const was = b.seen.find(s => s.check === e.check)
      const look =
        was?.outcome === e.outcome
          ? { ...was, times: (was.times ?? 1) + 1, ...(was.since ? { since: since(was.since, told) } : {}) }
          : // who cannot tell takes nothing back that was seen
            was && e.outcome === UNKNOWN
            ? { ...was, unsure: true as const }
            : {
                check: e.check,
                outcome: e.outcome,
                ...(stopsRiding(e.check, e.outcome) ? { since: since(null, told) } : {}),
              }
      const now = { ...b, seen: [...without(b.seen, e.check), look] }
      return looksRight(e.check, e.outcome) ? now : doubted(now, told)
    }
    case 'brakeStep': {
      const now = { ...b, steps: stepsAfter(b.steps, e.step), seen: without(b.seen, lookAnswered(e.step)) }
      return ended(touches(e.step) ? workedOn(now, told) : now, e.step, told)
    }
    case 'brakeNearer': {
      const now: BrakeState = { ...b, centring: [...b.centring, { kind: 'seen', nearer: e.nearer }] }
      return e.nearer === 'even' ? now : doubted(now, told)
    }
    case 'brakeScrew':
      return workedOn(
        { ...b, centring: [...b.centring, { kind: 'turned', side: e.side, sixteenths: e.sixteenths }] },
        told,
      )
    case 'brakeClose':
      return workedOn({ ...b, close: { barrelSixteenthsOut: e.barrelSixteenthsOut, letOutMm: e.letOutMm } }, told)
    case 'brakeCured':
      return workedOn({ ...b, seen: stillStands(b.seen, e.fault), cured: [...b.cured, e.fault] }, told)
  }
}

/** What was put right is looked at anew; what nobody rides with stands, where that is not what was put right. */
const stillStands = (seen: readonly BrakeSeen[], fault: string): readonly BrakeSeen[] =>
  seen.filter(s => stopsRiding(s.check, s.outcome) !== null && !answersDanger(fault, s.check, s.outcome))

/** Said anew what it is: a proof was of the brake as it was said before. Which side its lever is on changes nothing. */
function named(b: BrakeState, parts: BrakeParts, told: When): BrakeState {
  const { parts: was } = b
  if (sameBrake(was, parts)) return { ...b, parts }
  if (was?.kind === parts.kind) return doubted({ ...b, parts }, told)
  const { failed, uncapped } = b
  // what nobody rides with is not talked away by another name
  const seen = b.seen.filter(s => stopsRiding(s.check, s.outcome) !== null && isAlso(parts.kind, s.check))
  return { ...untouched, parts, failed, uncapped, seen, touched: since(b.touched, told) }
}

const sameBrake = (was: BrakeParts | null, now: BrakeParts): boolean =>
  was !== null && was.kind === now.kind && was.lever === now.lever && was.none === now.none

/** Looks with which nobody rides that rim brakes and cable discs share, and those of any brake with a wire. */
const ON_RIM_OR_DISC: readonly string[] = ['seated', 'pads']
const ON_A_WIRE: readonly string[] = ['wire', 'anchor']
const isAlso = (kind: EndKind, check: string): boolean =>
  isDiagnosed(kind) &&
  kind !== 'coaster' &&
  (ON_A_WIRE.includes(check) || (ON_RIM_OR_DISC.includes(check) && kind !== 'drum' && kind !== 'roller'))

/** Steps of the cable bench that put hands on a brake: all but those that finish its end or squeeze it. */
function cabled(b: BrakeState, { step }: Cabled, told: When): BrakeState {
  if (step === 'capped') return ended(b, step, told)
  if (step === 'bedded') return doubted(b, told)
  const answered = step === 'fed' ? 'wire' : step === 'clamped' ? 'anchor' : null
  return ended(workedOn({ ...b, seen: withSeenSince(b.seen, without(b.seen, answered), told) }, told), step, told)
}

function proven(b: BrakeState, { holds, test }: BrakeOf<'proof'>, by: string, at: string): BrakeState {
  const tests = testsOf(b.parts?.kind)
  const mark = { holds, by, at }
  const marks = marksAfter(b.marks, mark, test, tests)
  return {
    ...b,
    marks,
    proof: proofOf(marks, mark, test, tests),
    // one that comes late is not the last: what was put right is set against that
    failed: holds || (b.failed && b.failed.at > at) ? b.failed : { test: test ?? null, by, at },
  }
}

const WHICH: Record<Brake, string> = { front: 'front brake', rear: 'rear brake' }
/** Looks that stand with which nobody rides, with how they are told. */
export const dangersOf = (b: BrakeState): { check: string; told: string }[] =>
  b.seen.flatMap(({ check, outcome }) => {
    const told = stopsRiding(check, outcome)
    return told ? [{ check, told }] : []
  })

/** What must come before a brake, or one test of it, can be said to hold; null when it can be tried. */
export function beforeProof(b: BrakeState, e: Pick<BrakeOf<'proof'>, 'test'>): Refusal | null {
  if (b.parts?.kind === 'none') return { field: 'brake', message: 'There is no brake at this end to prove' }
  if (e.test && !testsOf(b.parts?.kind).includes(e.test))
    return { field: 'test', message: `This kind of brake is not proven by the ${PROOF_WORDS[e.test].name}` }
  if (b.failed) return { field: 'cured', message: 'It failed: say what was put right, then try all of it again' }
  const [danger] = dangersOf(b)
  return danger ? { field: 'seen', message: `Seen before: ${danger.told}. Put it right, or look again` } : null
}

/** The step of its order of fitting that comes next; null when all are done, or there is none. */
export const nextStep = ({ parts, steps }: BrakeState): BrakeStepName | null =>
  stepNamesOf(parts?.kind).find(s => !steps.includes(s.id)) ?? null

/** Does this brake hold, by a named person, with nothing touched or found otherwise since? */
export const brakeProven = (b: BrakeState): boolean =>
  b.proof?.holds === true && b.failed === null && dangersOf(b).length === 0

/** What is to be told of a brake: its failure while it stands, else its proof while it holds, else nothing. */
export function toldOf(b: BrakeState): Proof | null {
  if (b.failed) return { holds: false, by: b.failed.by, at: b.failed.at, failed: b.failed.test }
  return brakeProven(b) ? b.proof : null
}

/** How a brake stands, for a line of a page; by whom where somebody said so. */
export function brakeStands(b: BrakeState): {
  is: 'none' | 'failed' | 'holds' | 'open'
  words: string
  by: string | null
} {
  if (b.parts?.none) return { is: 'none', words: `none: ${NO_BRAKE[b.parts.none]}`, by: null }
  if (b.failed) return { is: 'failed', words: 'failed', by: b.failed.by }
  if (b.proof && brakeProven(b)) return { is: 'holds', words: 'holds', by: b.proof.by }
  return { is: 'open', words: 'not proven', by: null }
}

/** Why a bike stays for its brakes. */
export function brakesStay(s: BrakesState): Stay[] {
  const out: Stay[] = []
  if (s.front.parts?.kind === 'none' && s.rear.parts?.kind === 'none')
    out.push({ id: 'no-brake', is: 'found', why: 'no brake at either end' })
  for (const brake of BRAKES) {
    const b = s[brake]
    const stay = (is: Stay['is'], id: string, why: string) =>
      out.push({ id: `${brake}-brake-${id}`, is, why: `${WHICH[brake]} ${why}` })
    if (b.failed) stay('found', 'failed', `failed its ${b.failed.test ? PROOF_WORDS[b.failed.test].name : 'proof'}`)
    if (b.parts?.kind === 'none') {
      const other = s[brake === 'front' ? 'rear' : 'front']
      if (b.parts.none === 'coaster' && other.parts?.kind !== 'coaster')
        stay('found', 'missing', 'is missing: the other end has no coaster')
      continue
    }
    for (const { check, told } of dangersOf(b)) stay('found', check, `found: ${told}`)
    if (!b.failed && !b.proof?.holds) stay('open', 'unproven', 'not proven')
    if (b.uncapped) stay('open', 'uncapped', 'cable’s end is not capped')
  }
  return out
}
