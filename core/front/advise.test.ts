import { describe, expect, test } from 'vitest'
import { playFront } from '../bench/frontPlay'
import { simulatedFront } from '../bench/front'
import { adviseFront, adviseFrontInSteps } from './advise'
import { forgetFront } from './belief'
import type { FrontSight } from './events'
import { USUAL_FRONT } from './parts'
import {
  cageOffMm,
  CURED,
  frontFaults,
  frontGeometry,
  frontIsRight,
  frontWindow,
  shiftChances,
  STRAIGHT,
  type FrontBike,
} from './response'
import { frontSetupOf } from './setup'
import { explainFront, sayFrontMove } from './words'

const cassette = { teeth: [11, 13, 15, 17, 19, 21, 24, 28, 32, 37, 46], pitchMm: new Array<number>(10).fill(3.74) }
const double = frontSetupOf(USUAL_FRONT.double, cassette)
const triple = frontSetupOf(USUAL_FRONT.triple, cassette)
const g = frontGeometry(double)
const bike = (change: Partial<FrontBike> = {}): FrontBike => ({ ...STRAIGHT, backlashMm: 0.4, stroke: 1.02, ...change })
const look: FrontSight = { kind: 'frontPosition', heightMm: 2, angleDeg: 0 }
const saw = (
  from: number,
  to: number,
  seen: 'clean' | 'no-climb' | 'no-drop' | 'falls-inboard' | 'falls-outboard' | 'rubs-outer',
): FrontSight => ({ kind: 'frontShift', from, to, seen })

describe('how a front answers (common practice, no source)', () => {
  const mostly = (b: FrontBike, from: number, to: number) =>
    Object.entries(shiftChances(g, b, from, to)).sort((x, y) => y[1] - x[1])[0][0]
  test.each<[string, Partial<FrontBike>, number, number, string]>([
    ['set well, climbs clean', {}, 0, 1, 'clean'],
    ['set well, drops clean', {}, 1, 0, 'clean'],
    ['slack: will not climb', { slackMm: -2.5 }, 0, 1, 'no-climb'],
    ['tight: will not drop', { slackMm: 2.5 }, 1, 0, 'no-drop'],
    ['H too far in: will not climb', { stopHMm: -2 }, 0, 1, 'no-climb'],
    ['H too far out, cable tight: falls outboard', { stopHMm: 2.5, slackMm: 2.5 }, 0, 1, 'falls-outboard'],
    ['L too far out, cable slack: falls inboard', { stopLMm: -2.5, slackMm: -3 }, 1, 0, 'falls-inboard'],
    ['L too far in: will not drop', { stopLMm: 2 }, 1, 0, 'no-drop'],
    ['far too high: will not climb', { heightMm: 8 }, 0, 1, 'no-climb'],
    ['turned far: rubs', { angleDeg: 4 }, 0, 1, 'rubs-outer'],
  ])('%s', (_, change, from, to, seen) => {
    expect(mostly(bike(change), from, to)).toBe(seen)
  })

  test('barrel out is outboard, L in pushes the inner limit outboard, H in brings the outer one inboard', () => {
    const sim = (screw: 'barrel' | 'L' | 'H', sixteenths: number) => {
      const s = simulatedFront(double, { ...bike(), perL: 1, perH: 1, perBarrel: 0.8 }, 1)
      s.perform({ do: 'turn', screw, sixteenths })
      return s.hidden
    }
    expect(sim('barrel', 8).slackMm).toBeGreaterThan(0)
    expect(sim('L', 8).stopLMm).toBeGreaterThan(0)
    expect(sim('H', 8).stopHMm).toBeLessThan(0)
  })

  test('the closed-form window is where walking the cable finds every shift clean', () => {
    for (const change of [
      {},
      { backlashMm: 1.2 },
      { heightMm: 4.5 },
      { angleDeg: 0.8 },
      { stroke: 0.95 },
      { sharpness: 0.85 },
    ]) {
      const { slack } = frontWindow(g, bike(change))
      const clean = (slackMm: number) =>
        [
          [0, 1],
          [1, 0],
        ].every(
          ([from, to]) =>
            shiftChances(g, { ...bike(change), slackMm, stopLMm: -0.5, stopHMm: 0.5 }, from, to).clean >= 0.7,
        )
      const walked = Array.from({ length: 601 }, (_, i) => -3 + i / 100).filter(clean)
      expect(walked.length > 0).toBe(slack.to - slack.from > 0.02)
      if (!walked.length) continue
      expect(Math.abs(walked[0] - slack.from)).toBeLessThan(0.03)
      expect(Math.abs(walked.at(-1)! - slack.to)).toBeLessThan(0.03)
    }
  })

  test('a fault is blamed when it alone closes the window, and cured it is right', () => {
    for (const [fault, change] of [
      ['friction', { backlashMm: 2.8 }],
      ['height', { heightMm: 8 }],
      ['angle', { angleDeg: 3 }],
      ['pull', { stroke: 0.75 }],
    ] as const) {
      const ill = bike(change)
      expect(frontFaults(g, ill), fault).toMatchObject({
        height: false,
        angle: false,
        friction: false,
        pull: false,
        [fault]: true,
      })
      const well = { ...ill, ...CURED[fault] }
      const w = frontWindow(g, well)
      expect(frontIsRight(g, { ...well, slackMm: (w.slack.from + w.slack.to) / 2 })).toBe(true)
    }
    expect(Object.values(frontFaults(g, bike())).some(Boolean)).toBe(false)
  })

  test('friction holds the cage apart by its backlash, stops hold it at most', () => {
    expect(
      cageOffMm(g, bike({ stopHMm: 9, stroke: 1 }), 1, false) - cageOffMm(g, bike({ stopHMm: 9, stroke: 1 }), 1, true),
    ).toBeCloseTo(0.4, 9)
    expect(cageOffMm(g, bike({ slackMm: 5, stopHMm: 0.3 }), 1, true)).toBeCloseTo(0.3, 9)
  })
})

describe('the advice', () => {
  test('looks at the cage before a screw is turned', () => {
    expect(adviseFront(double, []).move).toEqual({ do: 'position' })
  })

  test('a cage that stands far too high is set anew, one that is turned likewise', () => {
    expect(adviseFront(double, [{ kind: 'frontPosition', heightMm: 9, angleDeg: 0 }]).move).toEqual({
      do: 'set',
      what: 'position',
    })
    expect(adviseFront(double, [{ kind: 'frontPosition', heightMm: 2, angleDeg: 6 }]).move).toEqual({
      do: 'set',
      what: 'position',
    })
  })

  test('a chain thrown outboard: no more shifts to the big ring, H or the cable first', () => {
    const a = adviseFront(double, [look, saw(0, 1, 'falls-outboard')])
    expect(a.causes.H).toBeGreaterThan(0.6)
    expect(a.thrown.outboard).toBeGreaterThan(0.05)
    expect(a.move.do === 'shift' && a.move.to === 1).toBe(false)
    if (a.move.do === 'turn') expect(a.move).toMatchObject({ screw: 'H' })
  })

  test('well behaved both ways with both gaps about a millimetre: sure of it, and says done', () => {
    const log: FrontSight[] = [
      look,
      saw(0, 1, 'clean'),
      saw(1, 0, 'clean'),
      { kind: 'frontGap', plate: 'inner', gapMm: 1 },
      { kind: 'frontGap', plate: 'outer', gapMm: 1 },
      { kind: 'frontHand', reach: 'there' },
      saw(0, 1, 'clean'),
      saw(1, 0, 'clean'),
    ]
    const a = adviseFront(double, log)
    expect(a.right).toBeGreaterThan(0.8)
    expect(
      adviseFront(double, [...log, saw(0, 1, 'clean'), saw(1, 0, 'clean'), saw(0, 1, 'clean'), saw(1, 0, 'clean')]).move
        .do,
    ).toBe('done')
  })

  test('clean only after a turn: what it promises is what it then believes, near enough', () => {
    const log: FrontSight[] = [
      look,
      saw(1, 0, 'clean'),
      saw(0, 1, 'no-climb'),
      { kind: 'frontHand', reach: 'there' },
      { kind: 'frontGap', plate: 'outer', gapMm: -1 },
    ]
    const a = adviseFront(double, log)
    expect(a.causes.tension).toBeGreaterThan(0.5)
    expect(a.move).toMatchObject({ do: 'turn', screw: 'barrel' })
    if (a.move.do !== 'turn') return
    expect(a.move.sixteenths).toBeGreaterThan(0) // tighter
    const then = adviseFront(double, [...log, { kind: 'frontTurn', screw: 'barrel', sixteenths: a.move.sixteenths }])
    expect(Math.abs(then.right - a.after!)).toBeLessThan(0.03)
  })

  test('same log and seed, same advice, warm or cold, in steps or at once', async () => {
    const log = [look, saw(0, 1, 'no-climb'), saw(1, 0, 'clean')]
    const warm = adviseFront(triple, log)
    forgetFront()
    expect(adviseFront(triple, log)).toEqual(warm)
    expect(await adviseFrontInSteps(triple, log, () => Promise.resolve())).toEqual(warm)
  })

  test('every move is said, with why', () => {
    const a = adviseFront(triple, [look, saw(1, 2, 'no-climb')])
    for (const move of [
      { do: 'turn', screw: 'L', sixteenths: -4 },
      { do: 'shift', from: 1, to: 2 },
      { do: 'gap', plate: 'inner' },
      { do: 'position' },
      { do: 'hand' },
      { do: 'undone' },
      { do: 'set', what: 'position' },
      { do: 'set', what: 'clamp' },
      { do: 'set', what: 'cable' },
      { do: 'set', what: 'lever' },
      { do: 'done' },
    ] as const) {
      expect(sayFrontMove(move, triple.parts).length).toBeGreaterThan(8)
      expect(explainFront({ ...a, move }, triple.parts).length).toBeGreaterThan(15)
    }
    expect(explainFront({ ...a, move: { do: 'turn', screw: 'L', sixteenths: -4 } }, triple.parts)).toContain(
      'Inner limit inboard',
    )
    expect(sayFrontMove({ do: 'turn', screw: 'L', sixteenths: -4 }, triple.parts)).toContain('L screw out')
  })

  test('nonsense is refused by name', () => {
    expect(() => adviseFront({ ...double, pitchMm: [] }, [])).toThrow(/pitchMm/)
    expect(() => adviseFront({ ...double, pitchMm: [3.7, -1] }, [])).toThrow(/pitchMm/)
  })
})

test('fourteen fronts of the population: more are won than by either written order', () => {
  const wins = (strategy: 'Ocho' | 'conventional' | 'rotating') =>
    Array.from({ length: 14 }, (_, i) => playFront(300 + i, strategy)).filter(p => p.won).length
  const ours = wins('Ocho')
  expect(ours).toBeGreaterThanOrEqual(9)
  expect(ours).toBeGreaterThan(wins('conventional') + 2)
  expect(ours).toBeGreaterThan(wins('rotating') + 2)
}, 120_000)
