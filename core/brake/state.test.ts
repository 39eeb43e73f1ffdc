import { describe, expect, test } from 'vitest'
import { PERSON, telling, uuid } from '../chapter/testTold'
import { brake as chapter } from './chapter'
import { answersDanger, checkOf, looksRight, stopsRiding } from './checks'
import { faultWords } from './faultWords'
import { BRAKE_FAULTS, checksFor, curesOf } from './faults'
import type { BrakeEvent } from './events'
import { BRAKE_KINDS, BrakeParts, END_KINDS, isDiagnosed, isHydraulic, type EndKind } from './kinds'
import { testsOf } from './proof'
import {
  beforeProof,
  brakeProven,
  brakesAfter,
  brakesStay,
  noBrakes,
  toldOf,
  type BrakeHeard,
  type BrakesState,
} from './state'

type Any = BrakeEvent | BrakeHeard
const told = telling<Any>()
const then = (s: BrakesState, ...events: Any[]) => events.reduce((was, e) => brakesAfter(was, told(e)), s)
const after = (...events: Any[]) => then(noBrakes, ...events)
const why = (s: BrakesState) => brakesStay(s).map(x => x.why)

const parts = (kind: EndKind, more: Partial<BrakeParts> = {}): BrakeEvent => ({
  kind: 'brakeParts',
  parts: { brake: 'rear', kind, lever: null, leverSide: null, ...more },
})
const proof = (holds: boolean, test?: 'squeeze' | 'hold' | 'backpedal' | 'roll' | 'ride'): BrakeEvent => ({
  kind: 'proof',
  brake: 'rear',
  holds,
  ...(test ? { test } : {}),
})
const saw = (check: string, outcome: string): BrakeEvent => ({ kind: 'brakeSeen', brake: 'rear', check, outcome })
const step = (id: string): BrakeEvent => ({ kind: 'brakeStep', brake: 'rear', step: id })
const cured: BrakeEvent = { kind: 'brakeCured', brake: 'rear', fault: 'slipped' }
const holding = after(parts('linear-pull', { lever: 'long' }), proof(true))

describe('each brake on its own', () => {
  test('a second look replaces the first; a cure starts the looking anew; another kind starts all anew', () => {
    const s = after(parts('linear-pull'), saw('arms', 'one'), saw('arms', 'dead'))
    expect(s.rear.seen).toEqual([{ check: 'arms', outcome: 'dead' }])
    expect(s.front.parts).toBeNull()
    const now = then(s, { kind: 'brakeCured', brake: 'rear', fault: 'spring-off' })
    expect(now.rear).toMatchObject({ seen: [], cured: ['spring-off'] })
    expect(then(now, parts('dual-pivot')).rear.cured).toEqual([])
    expect(then(now, parts('linear-pull', { lever: 'short' })).rear.cured).toEqual(['spring-off'])
  })
  test('a step that is done again opens what rests on it', () => {
    const done = after(step('inner'), step('clamped'), step('capped'))
    expect(done.rear.steps).toEqual(['inner', 'clamped', 'capped'])
    expect(then(done, step('clamped')).rear.steps).toEqual(['inner', 'clamped'])
    expect(then(done, step('inner')).rear.steps).toEqual(['inner'])
    expect(after(step('clamped'), step('inner')).rear.steps).toEqual(['clamped', 'inner']) // in whatever order
  })
})

describe('a proof rests on what it proved', () => {
  test.each<[string, Any]>([
    ['its wire clamped on the cable bench', { kind: 'cabled', run: 'rear-brake', step: 'clamped' }],
    ['its wire fed on the cable bench', { kind: 'cabled', run: 'rear-brake', step: 'fed' }],
    ['hard squeezes to bed it', { kind: 'cabled', run: 'rear-brake', step: 'bedded' }],
    ['a step of fitting', step('pads')],
    ['a small screw', { kind: 'brakeScrew', brake: 'rear', side: 'left', sixteenths: 2 }],
    ['how close it is', { kind: 'brakeClose', brake: 'rear', barrelSixteenthsOut: 56, letOutMm: null }],
    ['a cure', cured],
    ['something seen wrong', saw('lever', 'bar')],
    ['a pad that stands nearer', { kind: 'brakeNearer', brake: 'rear', nearer: 'left' }],
    ['another kind', parts('dual-pivot')],
    ['another lever', parts('linear-pull', { lever: 'short' })],
    ['its wheel out', { kind: 'wheelOut', wheel: 'rear' }],
    ['a new cassette, which takes the wheel out', { kind: 'replace', part: 'cassette' }],
    ['the job opened again', { kind: 'reopened' }],
    ['a failure', proof(false)],
  ])('%s takes it away', (_, event) => {
    const now = then(holding, event)
    expect(brakeProven(now.rear)).toBe(false)
    expect(why(now).some(w => w.startsWith('rear brake'))).toBe(true)
  })
  test.each<[string, Any]>([
    ['a good look', saw('lever', 'firm')],
    ['both pads alike', { kind: 'brakeNearer', brake: 'rear', nearer: 'even' }],
    ['a cap on the wire', step('capped')],
    ['a cap noted on the cable bench', { kind: 'cabled', run: 'rear-brake', step: 'capped' }],
    ['a look at the rim', step('looked')],
    ['the same said again', parts('linear-pull', { lever: 'long' })],
    ['which side its lever is on', parts('linear-pull', { lever: 'long', leverSide: 'left' })],
    ['the front wheel out', { kind: 'wheelOut', wheel: 'front' }],
    ['a derailleur’s wire', { kind: 'cabled', run: 'rear', step: 'clamped' }],
    ['a new gear cable', { kind: 'replace', part: 'cable' }],
  ])('%s leaves it', (_, event) => {
    expect(brakeProven(then(holding, event).rear)).toBe(true)
  })
})

describe('what failed has failed until something was put right', () => {
  const failed = then(holding, proof(false, 'squeeze'))
  test('it says which test, by whom, and keeps the bike', () => {
    expect(why(failed)).toContain('rear brake failed its hard squeeze')
    expect(toldOf(failed.rear)).toMatchObject({ holds: false, failed: 'squeeze', by: PERSON })
    expect(why(then(holding, proof(false)))).toContain('rear brake failed its proof')
  })
  test.each<[string, Any]>([
    ['all at once', proof(true)],
    ['the test it failed', proof(true, 'squeeze')],
  ])('%s cannot be said to hold after it: kept, asked about, not counted', (_, again) => {
    const now = then(failed, again)
    expect(brakeProven(now.rear)).toBe(false)
    expect(now.flagged.at(-1)!.why).toContain('say what was put right')
    expect(beforeProof(failed.rear, {})).toMatchObject({ field: 'cured' })
  })
  test.each<[string, Any]>([
    ['a look', saw('lever', 'bar')],
    ['the wheel out', { kind: 'wheelOut', wheel: 'rear' }],
    ['naming it another kind', parts('dual-pivot')],
    ['being opened again', { kind: 'reopened' }],
    ['a cap', step('capped')],
  ])('%s puts nothing right', (_, event) => {
    expect(why(then(failed, event))).toContain('rear brake failed its hard squeeze')
  })
  test('nor does saying that there is no brake', () => {
    const now = then(failed, parts('none', { none: 'fixed' }))
    expect(why(now)).toContain('rear brake failed its hard squeeze')
  })
  test('a cure does: then all of it is tried again', () => {
    const now = then(failed, cured)
    expect(why(now)).toEqual(['front brake not proven', 'rear brake not proven'])
    expect(brakeProven(then(now, proof(true)).rear)).toBe(true)
  })
})

describe('looks with which nobody rides', () => {
  const put = (fault: string): BrakeEvent => ({ kind: 'brakeCured', brake: 'rear', fault })
  test.each([
    ['noodle', 'out', step('noodle'), put('noodle-out')],
    ['anchor', 'slips', step('clamped'), put('slipped')],
    ['wire', 'broken', step('inner'), put('wire-broken')],
    ['seated', 'not', step('wheel'), put('not-home')],
    ['pads', 'worn', step('pads'), put('pads-worn')],
    ['body', 'strap', step('strap'), put('strap')],
    ['wire', 'broken', { kind: 'cabled', run: 'rear-brake', step: 'fed' } as Any, put('drag')],
    ['anchor', 'slips', { kind: 'cabled', run: 'rear-brake', step: 'clamped' } as Any, put('wire-broken')],
  ])('%s %s stays until it is answered, whatever is tried', (check, outcome, answer, itsCure) => {
    const seen = then(holding, saw(check, outcome))
    expect(beforeProof(seen.rear, {})).toMatchObject({ field: 'seen' })
    expect(brakeProven(then(seen, proof(true)).rear)).toBe(false)
    expect(why(seen).some(w => w.startsWith('rear brake found'))).toBe(true)
    // who cannot tell takes nothing back that was seen
    expect(why(then(seen, saw(check, 'unknown'), proof(true))).some(w => w.startsWith('rear brake found'))).toBe(true)
    expect(why(then(seen, answer)).some(w => w.includes('found'))).toBe(false)
    expect(brakeProven(then(seen, answer, proof(true)).rear)).toBe(true)
    expect(brakeProven(then(seen, itsCure, proof(true)).rear)).toBe(true)
    // something else put right answers it as little
    for (const other of ['wheel', 'other', 'lever-sticks']) {
      const still = then(seen, saw('noise', 'squeals'), put(other), proof(true))
      expect(still.rear.seen.map(s => s.check)).toEqual([check])
      expect(still.flagged.at(-1)?.why).toContain('Seen before')
      expect(brakeProven(still.rear)).toBe(false)
      expect(brakeProven(then(still, saw(check, checkOf(check)!.outcomes[0]![0]), proof(true)).rear)).toBe(true)
    }
  })
  test('a fault that is put right answers every such look that it shows', () => {
    for (const kind of BRAKE_KINDS)
      for (const f of BRAKE_FAULTS[kind])
        for (const [check, shown] of Object.entries(f.shows))
          for (const outcome of typeof shown === 'string' ? [shown] : Object.keys(shown))
            if (stopsRiding(check, outcome))
              expect(answersDanger(f.id, check, outcome), `${kind} ${f.id} ${check} ${outcome}`).toBe(true)
  })
  test('a tap that comes late answers nothing that was seen since it was made; one made after it does', () => {
    const at = (minute: number, came?: number) => ({
      at: `2026-12-01T10:${String(minute).padStart(2, '0')}:00.000Z`,
      ...(came === undefined ? {} : { receivedAt: `2026-12-01T10:${came}:00.000Z` }),
    })
    const named = brakesAfter(noBrakes, told(parts('linear-pull'), at(0)))
    const broken = brakesAfter(named, told(saw('wire', 'broken'), at(5)))
    for (const answer of [saw('wire', 'whole'), put('wire-broken'), step('inner')] as Any[]) {
      expect(why(brakesAfter(broken, told(answer, at(4)))), JSON.stringify(answer)).toContain(
        'rear brake found: wire broken or frayed',
      )
      expect(why(brakesAfter(broken, told(answer, at(6)))).some(w => w.includes('found'))).toBe(false)
      const twice = brakesAfter(broken, told(saw('wire', 'broken'), at(8)))
      expect(why(brakesAfter(twice, told(answer, at(6))))).toContain('rear brake found: wire broken or frayed')
      // a tablet whose clock is behind is believed when it says so again
      const again = brakesAfter(brakesAfter(broken, told(answer, at(3, 20))), told(answer, at(4, 21)))
      expect(why(again).some(w => w.includes('found'))).toBe(false)
      // not what its tablet had kept besides
      const kept = brakesAfter(brakesAfter(broken, told(answer, at(3, 20))), told(answer, at(4, 20)))
      expect(why(kept).some(w => w.includes('found'))).toBe(true)
      // what answers nothing uses that up as little
      const other = brakesAfter(brakesAfter(broken, told(saw('noise', 'quiet'), at(3, 20))), told(answer, at(4, 21)))
      expect(why(other)).toContain('rear brake found: wire broken or frayed')
    }
    const fed: Any = { kind: 'cabled', run: 'rear-brake', step: 'fed' }
    expect(brakesAfter(broken, told(fed, at(4))).rear.seen).toHaveLength(1)
    expect(brakesAfter(broken, told(fed, at(6))).rear.seen).toHaveLength(0)
    // a feel is no such look
    const squeals = brakesAfter(named, told(saw('noise', 'squeals'), at(5)))
    expect(brakesAfter(squeals, told(saw('noise', 'quiet'), at(4))).rear.seen).toEqual([
      { check: 'noise', outcome: 'quiet' },
    ])
  })
  test('nor is it talked away by naming another kind of brake, where that can be looked at on it', () => {
    const frayed = after(parts('linear-pull'), saw('wire', 'broken'), saw('noodle', 'out'), saw('seated', 'not'))
    const checks = (kind: EndKind) => then(frayed, parts(kind)).rear.seen.map(s => s.check)
    expect(checks('dual-pivot')).toEqual(['wire', 'seated'])
    expect(checks('drum')).toEqual(['wire'])
    expect(checks('coaster')).toEqual([])
    expect(why(then(frayed, parts('dual-pivot'), parts('linear-pull')))).toContain(
      'rear brake found: wire broken or frayed',
    )
    for (const kind of BRAKE_KINDS)
      for (const check of checks(kind))
        expect(
          checksFor(kind).map(c => c.id),
          `${kind} ${check}`,
        ).toContain(check)
  })
  test('the same seen again counts twice; who looks again and cannot tell is not asked again', () => {
    const twice = after(parts('drum'), saw('wire', 'broken'), saw('wire', 'broken'))
    expect(twice.rear.seen).toMatchObject([{ check: 'wire', outcome: 'broken', times: 2 }])
    expect(why(twice).filter(w => w.includes('found'))).toHaveLength(1)
    expect(then(twice, saw('wire', 'whole')).rear.seen).toEqual([{ check: 'wire', outcome: 'whole' }])
    expect(then(twice, saw('wire', 'unknown')).rear.seen).toMatchObject([
      { check: 'wire', outcome: 'broken', times: 2, unsure: true },
    ])
  })
  test('a feel that is not right asks for a proof, and no more', () => {
    const seen = then(holding, saw('noise', 'squeals'))
    expect(why(seen)).toContain('rear brake not proven')
    expect(brakeProven(then(seen, proof(true)).rear)).toBe(true)
    expect(stopsRiding('noise', 'squeals')).toBeNull()
    expect(looksRight('noise', 'quiet')).toBe(true)
    expect(looksRight('nothing', 'quiet')).toBe(false)
  })
})

describe('an uncapped wire keeps the bike, whichever bench noted it', () => {
  const clampedHere = then(holding, step('clamped'), proof(true))
  const clampedThere = then(holding, { kind: 'cabled', run: 'rear-brake', step: 'clamped' }, proof(true))
  test.each([
    ['here, capped there', clampedHere, { kind: 'cabled', run: 'rear-brake', step: 'capped' } as Any],
    ['there, capped here', clampedThere, step('capped')],
  ])('clamped %s', (_, s, cap) => {
    expect(why(s)).toContain('rear brake cable’s end is not capped')
    expect(why(then(s, cap))).toEqual(['front brake not proven'])
    // clamped again after the cap: it was cut free
    expect(why(then(s, cap, step('clamped')))).toContain('rear brake cable’s end is not capped')
  })
})

describe('every bike can tell the truth', () => {
  test('no brake at an end asks for none there, with a reason that fits', () => {
    const fixed = after(parts('none', { none: 'fixed' }), { kind: 'proof', brake: 'front', holds: true })
    expect(why(fixed)).toEqual([])
    expect(beforeProof(fixed.rear, {})).toMatchObject({ field: 'brake' })
    const front = (e: Partial<BrakeParts>): BrakeEvent => parts('none', { brake: 'front', ...e })
    const coaster = after(parts('coaster'), front({ none: 'coaster' }), proof(true))
    expect(why(coaster)).toEqual([])
    expect(why(after(parts('linear-pull'), front({ none: 'coaster' }), proof(true)))).toEqual([
      'front brake is missing: the other end has no coaster',
    ])
    expect(why(after(parts('none', { none: 'fixed' }), front({ none: 'fixed' })))).toEqual(['no brake at either end'])
  })
  test('none needs its reason, and nothing else may have one', () => {
    const base = { brake: 'front', lever: null, leverSide: null }
    expect(BrakeParts.safeParse({ ...base, kind: 'none' }).success).toBe(false)
    expect(BrakeParts.safeParse({ ...base, kind: 'none', none: 'fixed' }).success).toBe(true)
    expect(BrakeParts.safeParse({ ...base, kind: 'drum', none: 'fixed' }).success).toBe(false)
  })
  test('it is signed for, since it takes a proof off the list', () => {
    expect(chapter.gates.signs(parts('none', { none: 'fixed' }))).toContain('No brake at the rear')
    expect(chapter.gates.signs(parts('drum'))).toBeNull()
  })
  // common practice, no source: what each kind is proven by
  test.each<[EndKind | undefined, readonly string[]]>([
    [undefined, ['squeeze', 'roll', 'ride']],
    ['linear-pull', ['squeeze', 'roll', 'ride']],
    ['drum', ['squeeze', 'roll', 'ride']],
    ['coaster', ['backpedal', 'roll', 'ride']],
    ['hydraulic-disc', ['squeeze', 'hold', 'roll', 'ride']],
    ['hydraulic-rim', ['squeeze', 'hold', 'roll', 'ride']],
    ['none', []],
  ])('%s is proven by %j', (kind, tests) => {
    expect(testsOf(kind)).toEqual(tests)
  })
  test('one test after another comes to a proof once all of the kind are passed; another kind’s test is none', () => {
    const s = after(parts('hydraulic-disc'), proof(true, 'squeeze'), proof(true, 'roll'), proof(true, 'ride'))
    expect(s.rear.proof).toBeNull()
    expect(brakeProven(then(s, proof(true, 'hold')).rear)).toBe(true)
    expect(beforeProof(s.rear, { test: 'backpedal' })).toMatchObject({ field: 'test' })
    expect(beforeProof(after(parts('coaster')).rear, { test: 'squeeze' })?.message).toContain('hard squeeze')
  })
  test.each([
    ['leak', 'leaks'],
    ['hydraulic-lever', 'spongy'],
    ['hydraulic-lever', 'sinks'],
  ])('a hydraulic brake that %s %s stays', (check, outcome) => {
    const s = after(parts('hydraulic-disc'), saw(check, outcome))
    expect(why(then(s, proof(true))).some(w => w.includes('rear brake found'))).toBe(true)
    const serviced: BrakeEvent = { kind: 'brakeCured', brake: 'rear', fault: 'hydraulic-service' }
    expect(brakeProven(then(s, serviced, proof(true)).rear)).toBe(true)
  })
  test('kinds say whether they are diagnosed here, and what can have been put right on them', () => {
    expect(END_KINDS.filter(k => !isDiagnosed(k))).toEqual(['hydraulic-rim', 'hydraulic-disc', 'none'])
    expect(END_KINDS.filter(isHydraulic)).toEqual(['hydraulic-rim', 'hydraulic-disc'])
    for (const kind of [undefined, ...END_KINDS])
      for (const c of curesOf(kind)) expect(faultWords(kind, c.id), `${kind} ${c.id}`).toBe(c.words)
    expect(curesOf('hydraulic-disc').map(c => c.id)).toEqual(['hydraulic-service', 'other'])
    expect(curesOf(undefined).map(c => c.id)).toContain('slipped')
    for (const none of ['no-such', 'constructor', '__proto__']) expect(faultWords('coaster', none)).toBeUndefined()
  })
})

test('who signed for a trainee answers for the proof', () => {
  const signedBy = uuid(77) as never
  const s = brakesAfter(noBrakes, told(proof(true), { signedBy }))
  expect(s.rear.proof?.by).toBe(signedBy)
  expect(toldOf(s.rear)?.by).toBe(signedBy)
})
