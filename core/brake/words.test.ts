import { describe, expect, test } from 'vitest'
import { PersonId } from '../chapter/ids'
import { AT, PERSON, telling, uuid } from '../chapter/testTold'
import { LedgerEvent } from '../ledger/events'
import { reduce, type Told } from '../ledger/reduce'
import { sayEvent } from '../ledger/say'
import { NOTHING_BELIEVED, sheetOf } from '../ledger/sheet'
import { centringMove, hasCentring, sayScrewTurn, type Centring } from './centring'
import { BRAKE_CHECKS, checkOf, looksRight } from './checks'
import { checksFor, curesOf, signOf, writtenOrder } from './faults'
import { diagnose, diagnosisOf } from './diagnose'
import { BRAKE_STEPS, stepsOf } from './fitting'
import { stepsAfter } from './stepWords'
import { BRAKE_KINDS, END_KINDS, type BrakeParts } from './kinds'
import { brakeProven, brakeStands, brakesStay, nextStep } from './state'
import {
  barrelTurnsFor,
  cableTakenMm,
  discFigures,
  discJudged,
  discWear,
  padGapMm,
  ROTOR_WITHIN_MM,
  straddleJudged,
  wearLeftMm,
} from './sums'
import { BRAKE_BARREL, MOST_LET_OUT_MM } from './barrel'

const told = telling<LedgerEvent>()
const bare = told({ kind: 'arrived', parts: null })
const front = (kind: BrakeParts['kind'], more: Partial<BrakeParts> = {}): BrakeParts => ({
  brake: 'front',
  kind,
  lever: null,
  leverSide: null,
  ...more,
})
const brakeOf = (...events: LedgerEvent[]) => reduce([bare, ...events.map(e => told(e))]).brake.front
const sheet = (...events: LedgerEvent[]) =>
  sheetOf(reduce([bare, ...events.map(e => told(e))]), NOTHING_BELIEVED, {
    at: AT,
    by: PERSON,
    how: 'proven',
    fault: null,
    recallOn: null,
  })

describe('each entry in a line', () => {
  test.each<[LedgerEvent, string]>([
    [{ kind: 'brakeParts', parts: front('drum') }, 'Front brake: drum'],
    [
      { kind: 'brakeParts', parts: front('linear-pull', { lever: 'long', leverSide: 'right' }) },
      'Front brake: linear-pull arms, long pull lever, lever on the right',
    ],
    [
      { kind: 'brakeParts', parts: { ...front('none'), brake: 'rear', none: 'fixed' } },
      'Rear brake: none, the gear is fixed',
    ],
    [
      { kind: 'brakeSeen', brake: 'front', check: 'noodle', outcome: 'out' },
      'Front brake: Is the noodle home in its bracket? Out',
    ],
    [{ kind: 'brakeSeen', brake: 'rear', check: 'of-next-year', outcome: 'odd' }, 'Rear brake: odd'],
    [{ kind: 'brakeStep', brake: 'front', step: 'of-next-year' }, 'Front brake: of-next-year'],
    [{ kind: 'brakeNearer', brake: 'front', nearer: 'even' }, 'Front brake: both pads stand alike'],
    [{ kind: 'brakeNearer', brake: 'front', nearer: 'left' }, 'Front brake: left pad stands nearer'],
    [{ kind: 'brakeScrew', brake: 'front', side: 'left', sixteenths: 2 }, 'Front brake, left screw 1/8 in'],
    [{ kind: 'brakeScrew', brake: 'rear', side: 'right', sixteenths: -4 }, 'Rear brake, right screw 1/4 out'],
    [
      { kind: 'brakeClose', brake: 'rear', barrelSixteenthsOut: 24, letOutMm: 5 },
      'Rear brake: barrel 1 1/2 turns out, 5 mm let out',
    ],
    [
      { kind: 'brakeClose', brake: 'rear', barrelSixteenthsOut: 24, letOutMm: null },
      'Rear brake: barrel 1 1/2 turns out',
    ],
    [{ kind: 'brakeCured', brake: 'front', fault: 'of-next-year' }, 'Front brake, put right: of-next-year'],
    [{ kind: 'proof', brake: 'front', holds: true }, 'Front brake holds'],
    [{ kind: 'proof', brake: 'front', holds: false }, 'Front brake failed'],
    [{ kind: 'proof', brake: 'front', holds: true, test: 'roll' }, 'Front brake, roll: passed'],
    [{ kind: 'proof', brake: 'rear', holds: false, test: 'roll' }, 'Rear brake, roll: failed'],
  ])('%o', (event, words) => {
    expect(sayEvent(event, []).toLowerCase()).toContain(words.toLowerCase().replace(/, the gear is fixed$/, ', '))
  })
  test('a step and a cure are said by what they are, not by their ids', () => {
    for (const steps of Object.values(BRAKE_STEPS))
      for (const s of steps)
        expect(sayEvent({ kind: 'brakeStep', brake: 'front', step: s.id }, []).length).toBeGreaterThan(15)
    const [cure] = curesOf('linear-pull')
    expect(sayEvent({ kind: 'brakeCured', brake: 'front', fault: cure!.id }, []).toLowerCase()).toContain(
      cure!.words.toLowerCase(),
    )
  })
  test('an outcome that its check does not have is no entry', () => {
    const seen = (check: string, outcome: string) =>
      LedgerEvent.safeParse({ kind: 'brakeSeen', brake: 'front', check, outcome }).success
    for (const c of BRAKE_CHECKS) for (const [outcome] of c.outcomes) expect(seen(c.id, outcome)).toBe(true)
    expect([seen('noodle', 'sings'), seen('sings', 'out')]).toEqual([false, false])
    expect([looksRight('sings', 'out'), checkOf('sings')]).toEqual([false, undefined])
  })
})

describe('what stands on the sheet', () => {
  test('what was put right, how close, that it was centred, and that there is none', () => {
    expect(sheet({ kind: 'brakeParts', parts: front('drum') }).done).toEqual([])
    expect(
      sheet(
        { kind: 'brakeParts', parts: front('linear-pull') },
        { kind: 'brakeCured', brake: 'front', fault: 'noodle-out' },
        { kind: 'brakeCured', brake: 'rear', fault: 'of-next-year' },
        { kind: 'brakeClose', brake: 'front', barrelSixteenthsOut: 16, letOutMm: null },
        { kind: 'brakeNearer', brake: 'front', nearer: 'left' },
        { kind: 'brakeNearer', brake: 'rear', nearer: 'left' },
        { kind: 'brakeScrew', brake: 'front', side: 'left', sixteenths: 2 },
      ).done.map(f => `${f.what}: ${f.figure}`),
    ).toEqual([
      expect.stringMatching(/^Front brake, put right: [a-z]/),
      'Front brake: barrel 1 turns out',
      'Front brake: centred',
      'Rear brake, put right: of-next-year',
    ])
    expect(sheet({ kind: 'brakeParts', parts: front('none', { none: 'coaster' }) }).left).toEqual([
      { what: 'Front brake', figure: expect.stringMatching(/^none: /) },
    ])
  })
  test('its line on a page: none, failed, holds, or still open; by whom', () => {
    expect(brakeStands(brakeOf())).toEqual({ is: 'open', words: 'not proven', by: null })
    expect(brakeStands(brakeOf({ kind: 'brakeParts', parts: front('none', { none: 'fixed' }) }))).toMatchObject({
      is: 'none',
      by: null,
    })
    const holds: LedgerEvent = { kind: 'proof', brake: 'front', holds: true }
    expect(brakeStands(brakeOf(holds))).toEqual({ is: 'holds', words: 'holds', by: PERSON })
    expect(brakeStands(brakeOf({ ...holds, holds: false }))).toEqual({ is: 'failed', words: 'failed', by: PERSON })
    const danger: LedgerEvent = { kind: 'brakeSeen', brake: 'front', check: 'noodle', outcome: 'out' }
    expect(brakeStands(brakeOf(holds, danger)).is).toBe('open')
    expect(brakeProven({ ...brakeOf(holds), seen: [{ check: 'noodle', outcome: 'out' }] })).toBe(false)
    expect(brakeProven({ ...brakeOf(holds), failed: { test: null, by: PERSON, at: AT } })).toBe(false)
    const signed = reduce([bare, told(holds, { signedBy: PersonId.parse(uuid(7)) } as Partial<Told>)])
    expect(brakeStands(signed.brake.front).by).toBe(uuid(7))
  })
})

describe('what follows from an entry', () => {
  test('a clamped wire is uncapped until it is capped, on either bench; no other step makes it so', () => {
    const step = (s: string): LedgerEvent => ({ kind: 'brakeStep', brake: 'front', step: s })
    const cabled = (s: 'fed' | 'clamped' | 'capped' | 'bedded'): LedgerEvent => ({
      kind: 'cabled',
      run: 'front-brake',
      step: s,
    })
    expect(brakeOf(step('pads')).uncapped).toBeNull()
    expect(brakeOf(step('clamped')).uncapped).not.toBeNull()
    expect(brakeOf(step('clamped'), step('pads')).uncapped).not.toBeNull()
    expect(brakeOf(step('clamped'), step('capped')).uncapped).toBeNull()
    expect(brakeOf(cabled('fed')).uncapped).toBeNull()
    expect(brakeOf(cabled('clamped')).uncapped).not.toBeNull()
    expect(brakeOf(cabled('clamped'), cabled('capped')).uncapped).toBeNull()
    expect(brakesStay(reduce([bare, told(cabled('clamped'))]).brake).map(s => s.id)).toContain('front-brake-uncapped')
  })
  test('bedding doubts a proof and answers no failure; feeding and clamping answer their looks', () => {
    const fail: LedgerEvent = { kind: 'proof', brake: 'front', holds: false }
    const holds: LedgerEvent = { kind: 'proof', brake: 'front', holds: true }
    const cabled = (s: 'fed' | 'clamped' | 'bedded' | 'measured'): LedgerEvent => ({
      kind: 'cabled',
      run: 'front-brake',
      step: s as never,
    })
    expect(brakeOf(fail, cabled('bedded')).failed).not.toBeNull()
    expect(brakeOf(holds, cabled('bedded')).proof).toBeNull()
    expect(brakeOf(fail, cabled('fed')).failed).toBeNull()
    const seen = (check: string, outcome: string): LedgerEvent => ({
      kind: 'brakeSeen',
      brake: 'front',
      check,
      outcome,
    })
    const both = [seen('wire', 'broken'), seen('anchor', 'slips')]
    expect(brakeOf(...both, cabled('fed')).seen.map(s => s.check)).toEqual(['anchor'])
    expect(brakeOf(...both, cabled('clamped')).seen.map(s => s.check)).toEqual(['wire'])
    expect(brakeOf(...both, cabled('bedded')).seen.map(s => s.check)).toEqual(['wire', 'anchor'])
  })
  test('which pad stands nearer is noted; only a brake that is not even is doubted', () => {
    const holds: LedgerEvent = { kind: 'proof', brake: 'front', holds: true }
    const nearer = (n: 'left' | 'even'): LedgerEvent => ({ kind: 'brakeNearer', brake: 'front', nearer: n })
    expect(brakeOf(holds, nearer('even')).proof?.holds).toBe(true)
    expect(brakeOf(holds, nearer('left')).proof).toBeNull()
    expect(
      brakeOf(nearer('left'), { kind: 'brakeScrew', brake: 'front', side: 'left', sixteenths: 2 }).centring,
    ).toEqual([
      { kind: 'seen', nearer: 'left' },
      { kind: 'turned', side: 'left', sixteenths: 2 },
    ])
  })
  test('the same brake named anew keeps its proof, with another lever it does not', () => {
    const holds: LedgerEvent = { kind: 'proof', brake: 'front', holds: true }
    const parts = (p: BrakeParts): LedgerEvent => ({ kind: 'brakeParts', parts: p })
    const long = front('linear-pull', { lever: 'long' })
    expect(brakeOf(parts(long), holds, parts({ ...long, leverSide: 'left' })).proof?.holds).toBe(true)
    expect(brakeOf(parts(long), holds, parts({ ...long, lever: 'short' })).proof).toBeNull()
    expect(brakeOf(parts(long), holds, parts(front('cantilever', { lever: 'long' }))).proof).toBeNull()
    expect(brakeOf(holds, parts(long)).proof).toBeNull()
  })
  test('the next step of fitting is the first that is open; none where there is no order', () => {
    const steps = stepsOf('dual-pivot')
    expect(nextStep(brakeOf())).toBeNull()
    expect(nextStep(brakeOf({ kind: 'brakeParts', parts: front('hydraulic-disc') }))).toBeNull()
    const parts: LedgerEvent = { kind: 'brakeParts', parts: front('dual-pivot') }
    expect(nextStep(brakeOf(parts))?.id).toBe(steps[0]!.id)
    const done = steps.map((s): LedgerEvent => ({ kind: 'brakeStep', brake: 'front', step: s.id }))
    expect(nextStep(brakeOf(parts, done[0]!))?.id).toBe(steps[1]!.id)
    expect(nextStep(brakeOf(parts, ...done))).toBeNull()
    for (const kind of END_KINDS)
      expect(stepsOf(kind).length > 0).toBe(BRAKE_KINDS.some(k => k === kind && BRAKE_STEPS[k] !== undefined))
    expect(stepsOf(undefined)).toEqual([])
    expect(stepsAfter(['inner', 'clamped', 'pads'], 'inner')).toEqual(['pads', 'inner'])
    expect(stepsAfter(['a', 'b'], 'a')).toEqual(['b', 'a'])
    expect(stepsAfter(['clamped'], 'inner')).toEqual(['clamped', 'inner']) // the first time opens nothing
  })
  test('a coaster at the rear excuses the front; no brake at either end never', () => {
    const none = (brake: 'front' | 'rear', why: 'coaster' | 'fixed'): LedgerEvent => ({
      kind: 'brakeParts',
      parts: { ...front('none'), brake, none: why },
    })
    const coaster: LedgerEvent = { kind: 'brakeParts', parts: { ...front('coaster'), brake: 'rear' } }
    const stays = (...e: LedgerEvent[]) => brakesStay(reduce([bare, ...e.map(x => told(x))]).brake).map(s => s.id)
    expect(stays(none('front', 'coaster'))).toEqual(['front-brake-missing', 'rear-brake-unproven'])
    expect(stays(none('front', 'coaster'), coaster)).toEqual(['rear-brake-unproven'])
    expect(stays(none('front', 'fixed'))).toEqual(['rear-brake-unproven'])
    expect(stays(none('front', 'fixed'), none('rear', 'fixed'))).toContain('no-brake')
  })
})

describe('the diagnosis of a brake as it stands', () => {
  test('is none until its kind is said, or where its kind is not diagnosed here', () => {
    expect(diagnosisOf(brakeOf())).toBeNull()
    expect(diagnosisOf(brakeOf({ kind: 'brakeParts', parts: front('hydraulic-rim') }))).toBeNull()
    expect(diagnosisOf(brakeOf({ kind: 'brakeParts', parts: front('drum') }))).not.toBeNull()
  })
  test('leaves out looks that mean nothing on that kind', () => {
    const parts: LedgerEvent = { kind: 'brakeParts', parts: front('drum') }
    const asked = new Set(checksFor('drum').map(c => c.id))
    const foreign = BRAKE_CHECKS.find(c => !asked.has(c.id))!
    const seen: LedgerEvent = {
      kind: 'brakeSeen',
      brake: 'front',
      check: foreign.id,
      outcome: foreign.outcomes.at(-1)![0],
    }
    expect(diagnosisOf(brakeOf(parts, seen))).toEqual(diagnosisOf(brakeOf(parts)))
    for (const kind of BRAKE_KINDS) expect(checksFor(kind).length).toBeLessThan(BRAKE_CHECKS.length)
  })
  test('asks next what tells most for its cost, and lists what has not been looked at', () => {
    const before = diagnose('linear-pull', [])
    const { check } = before.next!
    const after = diagnose('linear-pull', [{ check: check.id, outcome: check.outcomes[0]![0] }])
    expect(before.checks.map(c => c.id)).toContain(check.id)
    expect(after.checks.map(c => c.id)).not.toContain(check.id)
    expect(after.checks).toHaveLength(before.checks.length - 1)
    expect(before.found).toBeNull()
  })
  test('the written order is each fault’s surest sign', () => {
    for (const kind of BRAKE_KINDS) expect(writtenOrder(kind).every(id => checkOf(id))).toBe(true)
    expect(
      signOf({
        id: 'x',
        words: '',
        weight: 1,
        cure: '',
        renews: false,
        shows: { lever: { firm: 0.9 }, noodle: { home: 0.2 } } as never,
      }),
    ).toBe('noodle')
    expect(
      signOf({
        id: 'x',
        words: '',
        weight: 1,
        cure: '',
        renews: false,
        shows: { noodle: { home: 0.2 }, wire: 'broken' } as never,
      }),
    ).toBe('wire')
  })
  test('what can have been put right: of its kind, with a way out; on one not diagnosed, service', () => {
    expect(curesOf('hydraulic-disc').map(c => c.id)).toEqual(['hydraulic-service', 'other'])
    expect(curesOf('drum').map(c => c.id)).not.toContain('hydraulic-service')
    expect(curesOf('drum').at(-1)!.id).toBe('other')
    expect(curesOf(undefined).map(c => c.id)).not.toContain('noodle-out')
    expect(curesOf('linear-pull').map(c => c.id)).toContain('noodle-out')
  })
})

describe('centring to the letter (common practice, no source)', () => {
  const seen = (nearer: 'left' | 'right' | 'even') => ({ kind: 'seen', nearer }) as const
  const turned = (side: 'left' | 'right', sixteenths: number) => ({ kind: 'turned', side, sixteenths }) as const
  const turn = (kind: Parameters<typeof centringMove>[0], log: Centring) => {
    const move = centringMove(kind, log)
    return move.do === 'turn' ? move.turn : move.do
  }
  test('dual-pivot: the screw brings its own pad in; changed sides, half back; near its end, the body again', () => {
    expect(turn('dual-pivot', [seen('left')])).toBe('body')
    expect(turn('dual-pivot', [seen('left'), seen('left')])).toEqual({ side: 'right', sixteenths: 2 })
    expect(turn('dual-pivot', [seen('right'), seen('right')])).toEqual({ side: 'right', sixteenths: -2 })
    expect(turn('dual-pivot', [seen('left'), turned('right', 4), seen('right')])).toEqual({
      side: 'right',
      sixteenths: -2,
    })
    expect(turn('dual-pivot', [seen('right'), turned('right', -1), seen('left')])).toEqual({
      side: 'right',
      sixteenths: 1,
    })
    const far = [seen('left'), turned('right', 16), seen('left')] as const
    expect(turn('dual-pivot', far)).toBe('body')
    expect(turn('dual-pivot', [seen('left'), turned('right', 14), seen('left')])).toEqual({
      side: 'right',
      sixteenths: 2,
    })
    expect(turn('dual-pivot', [seen('left'), turned('right', 2)])).toBe('look')
    expect(turn('dual-pivot', [seen('even')])).toBe('done')
  })
  test('arms: a fault that crossed after a turn is halved; seen twice without a turn it is not', () => {
    expect(turn('linear-pull', [seen('left'), seen('right')])).toEqual({ side: 'right', sixteenths: 2 })
    expect(turn('linear-pull', [seen('even'), turned('left', 2), seen('right')])).toEqual({
      side: 'right',
      sixteenths: 2,
    })
    expect(turn('linear-pull', [seen('left'), turned('left', 4), seen('right')])).toEqual({
      side: 'left',
      sixteenths: -2,
    })
    expect(turn('linear-pull', [turned('left', 4), seen('right')])).toEqual({ side: 'right', sixteenths: 2 })
  })
  test('four times the same lazy arm: the other side is let out; turns out and of the other arm do not count', () => {
    const in4 = [1, 2, 3, 4].flatMap(() => [seen('left'), turned('left', 2)])
    expect(turn('linear-pull', [...in4, seen('left')])).toEqual({ side: 'right', sixteenths: -2 })
    expect(turn('linear-pull', [...in4.slice(2), seen('left')])).toEqual({ side: 'left', sixteenths: 2 })
    const others = [1, 2, 3, 4].flatMap(() => [seen('left'), turned('right', 2)])
    expect(turn('linear-pull', [...others, seen('left')])).toEqual({ side: 'left', sixteenths: 2 })
    const out = [1, 2, 3, 4].flatMap(() => [seen('left'), turned('left', -2)])
    expect(turn('linear-pull', [...out, seen('left')])).toEqual({ side: 'left', sixteenths: 2 })
  })
  test('a turn in words, and which kinds have such screws', () => {
    expect(sayScrewTurn({ side: 'left', sixteenths: 2 })).toBe('left screw 1/8 turn in')
    expect(sayScrewTurn({ side: 'right', sixteenths: -4 })).toBe('right screw 1/4 turn out')
    expect(BRAKE_KINDS.filter(hasCentring)).toEqual(['linear-pull', 'dual-pivot', 'cantilever'])
  })
})

describe('sums at their edges', () => {
  test('what was let out and a barrel may be at their end, and not beyond', () => {
    expect(padGapMm('linear-pull', MOST_LET_OUT_MM)).toBeGreaterThan(0)
    expect(() => padGapMm('linear-pull', MOST_LET_OUT_MM + 0.1)).toThrow(RangeError)
    expect(wearLeftMm('linear-pull', BRAKE_BARREL.turns)).toBe(0)
    expect(() => wearLeftMm('linear-pull', BRAKE_BARREL.turns + 0.1)).toThrow(RangeError)
    expect(() => cableTakenMm('drum', 1)).toThrow('no such sum')
    // a gap's change back and forth is the same turns, on a thread of 1 mm as many as mm of cable
    expect(barrelTurnsFor('linear-pull', -1, 1)).toBeCloseTo(-cableTakenMm('linear-pull', 1), 12)
    expect(barrelTurnsFor('linear-pull', 1, 2)).toBeCloseTo(cableTakenMm('linear-pull', 1) / 2, 12)
  })
  test('a disc judged in sentences: wear first, then its gap', () => {
    const { rotorNewMm, rotorScrapMm, padScrapMm, gapMm } = discFigures()
    const good = (gapMm.from + gapMm.to) / 2
    expect(discJudged(rotorNewMm, padScrapMm + 1, good)).toBe('Rotor and pads have life left.')
    expect(discJudged(rotorNewMm, padScrapMm + 1, gapMm.to + 0.1)).toMatch(/^Rotor and pads .*\. Pads too far/)
    expect(discJudged(rotorScrapMm, 2, gapMm.from - 0.1)).toMatch(/scrap .*\. Pads too near/)
    expect(discWear(rotorNewMm, padScrapMm)).toContain('Pads at')
    expect(discWear(rotorNewMm + ROTOR_WITHIN_MM, padScrapMm + 1)).toBeNull()
    expect(() => discWear(rotorNewMm + ROTOR_WITHIN_MM + 0.01, 2)).toThrow(RangeError)
  })
  test('a straddle: its clearance over the tyre first, both ends of it right', () => {
    const right = (deg: number, over: number | null) => straddleJudged(deg, over).right
    expect([right(90, null), right(90, 20), right(90, 200), right(90, 1)]).toEqual([true, true, false, false])
    expect(straddleJudged(90, 1).words).toContain('raise it')
    expect(straddleJudged(90, 200).words).toContain('lower it')
    expect([right(75, null), right(74.9, null), right(105, null), right(105.1, null)]).toEqual([
      true,
      false,
      true,
      false,
    ])
  })
})
