import { describe, expect, test } from 'vitest'
import type { BenchEvent } from '../rear/benchEvents'
import { startOf, step } from '../rear/trace'
import { geometryOf, snugCableMm } from '../response/setup'
import { perfectBike, setupOfStandard } from '../response/testBikes'
import { consider } from './advise'
import type { Analysis, Reading, StopJudgement } from './analysis'
import type { AdviceOptions, Move } from './contract'
import { decide, DECIDE } from './decide'

/*
 * Each rule of the decision by itself, at its threshold: what is believed is given, and one bike alone is possible
 * unless a test says otherwise, so that no check would tell anything. The thresholds are the model's (section 4).
 */

const setup = setupOfStandard('r14-11') // barrel 3 of 6 turns out
const g = geometryOf(setup)
const N = g.n
const belief = { ...perfectBike(g), sharpness: 1, asymmetryPitch: 0, mmPerTurnH: 1, mmPerTurnL: 1 }
const reading: Reading = {
  weight: 1,
  belief,
  window: { from: 2.5, to: 3.5 },
  span: { from: 2.5, to: 3.5 },
  stopsSafe: true,
  stopSpoils: false,
  atFault: { friction: false, hanger: false, mismatch: false },
  needed: { friction: false, hanger: false, mismatch: false },
  middle: 3,
  outside: false,
}
const good: StopJudgement = { safe: 1, good: 1, bestTurns: 0, bestGood: 1, offsetMm: { mean: 0, sd: 0.1 } }

const L = (offsetMm = 0.1): BenchEvent => ({ kind: 'sight', at: 'L', offsetMm })
const H = (offsetMm = -0.5): BenchEvent => ({ kind: 'sight', at: 'H', offsetMm })
const shift = (to: number, from = to - 1, heard: 'clean' | 'slow' = 'clean'): BenchEvent => ({
  kind: 'shift',
  from,
  to,
  heard,
})
const turn = (screw: 'barrel' | 'H' | 'L', turns: number): BenchEvent => ({ kind: 'turn', screw, turns })
const SEEN = [L(), H()] // costs 4
/** So many shifts that go back and forth between two gears in the middle, slow ones, so that no pass is counted. */
const costing = (units: number): BenchEvent[] =>
  Array.from({ length: units }, (_, i) => shift(4 + (i % 2), 5 - (i % 2), 'slow'))

const base = consider(setup, SEEN)
/** Right by so much as it stands, and better by a turn of the barrel, at its place in turns out. */
const chances = (now: number, ...better: [turns: number, right: number][]): Partial<Analysis> => ({
  right: now,
  eighths: [{ turns: 3, right: now }, ...better.map(([turns, right]) => ({ turns, right }))],
})
const asStands: Analysis = {
  ...base.analysis,
  ...chances(0.5),
  readings: [reading],
  wear: { ...base.analysis.wear, any: 0 },
  needed: { friction: 0, hanger: 0, mismatch: 0 },
  windowExists: 1,
  outOfReach: 0,
  stops: { H: good, L: good },
  offsetMm: { mean: 0, sd: 0.1 },
}
/** Two bikes as likely as each other, whose windows lie apart: a check tells much. */
const open: Pick<Analysis, 'readings'> = {
  readings: [-1, 1].map(cableMm => {
    const middle = 3 - cableMm / setup.barrelPitchMm
    const window = { from: middle - 0.5, to: middle + 0.5 }
    return { ...reading, weight: 0.5, belief: { ...belief, cableMm }, middle, window, span: window }
  }),
}
function answer(log: readonly BenchEvent[], over: Partial<Analysis> = {}, options: AdviceOptions = {}): Move {
  const trace = log.reduce((t, e) => step(t, e, setup), startOf(setup))
  return decide({ ...base.posterior, trace }, { ...asStands, ...over }, log, options).move
}
const sight = (at: 'H' | 'L'): Move => ({ do: 'sight', at })
const DONE: Move = { do: 'done' }
const barrel = (turns: number): Move => ({ do: 'turn', screw: 'barrel', turns })

describe('stops come by the order of the work', () => {
  test('stopsFirst: L, then H; with L left H all the same', () => {
    expect(answer([])).toEqual(sight('L'))
    expect(answer([L()])).toEqual(sight('H'))
    expect(answer([H()])).toEqual(sight('L'))
    expect(answer([], {}, { declined: ['sight L'] })).toEqual(sight('H'))
    expect(answer([H()], chances(0.99), { declined: ['sight L'] })).toEqual(sight('L')) // never done on one unseen
    expect(answer([L()], chances(0.99), { declined: ['sight H'] })).toEqual(sight('H'))
    expect(answer(SEEN, chances(0.99))).toEqual(DONE)
  })
  test('climbThenL: H at once; L once all else is sure, and late', () => {
    const order = 'climbThenL'
    expect(answer([], {}, { order })).toEqual(sight('H'))
    const l = (over: number): Partial<Analysis> => ({
      ...chances(over),
      stops: { H: good, L: { ...good, good: 1 } },
    })
    expect(answer([H(), shift(1)], l(0.85), { order })).toEqual(sight('L'))
    expect(answer([H(), shift(1)], { ...l(0.84), ...open }, { order })).not.toEqual(sight('L'))
    // its own doubt is left out: 0.6 of which 0.7 is L's leaves the others sure
    expect(
      answer([H(), shift(1)], { ...chances(0.6), stops: { H: good, L: { ...good, good: 0.7 } } }, { order }),
    ).toEqual(sight('L'))
    expect(
      answer([H(), shift(1)], { ...chances(0.5), ...open, stops: { H: good, L: { ...good, good: 0.7 } } }, { order }),
    ).not.toEqual(sight('L'))
    // a turn of the barrel is to come first
    expect(answer([H(), shift(1)], chances(0.8, [3.5, 0.9]), { order })).toEqual(barrel(0.5))
    expect(answer([H(), shift(1)], chances(0.83, [3.5, 0.9]), { order })).toEqual(sight('L'))
    // late, whatever is known: H costs 2
    expect(answer([H(), ...costing(DECIDE.lateCost - 2)], chances(0.3), { order })).toEqual(sight('L'))
    expect(answer([H(), ...costing(DECIDE.lateCost - 3)], { ...chances(0.3), ...open }, { order })).not.toEqual(
      sight('L'),
    )
    expect(answer([...SEEN, ...costing(50)], chances(0.99), { order })).toEqual(DONE)
  })
  test('tensionFirst: one click from the slack end; H once the tension is known, or by the sixth listening, or late', () => {
    const order = 'tensionFirst'
    const unknown = { offsetMm: { mean: 0, sd: DECIDE.tensionUnknownMm } }
    const known = { offsetMm: { mean: 0, sd: DECIDE.tensionUnknownMm - 0.01 } }
    expect(answer([], unknown, { order })).toEqual({ do: 'shift', to: 1 })
    // known beforehand, and nothing heard yet: neither a first click nor H
    expect(answer([], known, { order })).not.toEqual(sight('H'))
    expect(answer([], known, { order }).do).not.toBe('shift')
    for (const heard of [
      shift(1),
      { kind: 'edge', click: 1, way: 'out', turns: 0.5, found: true },
      { kind: 'offset', click: 1, offsetMm: 0 },
    ] as BenchEvent[]) {
      expect(answer([heard], known, { order })).toEqual(sight('H'))
      expect(answer([heard], unknown, { order })).not.toEqual(sight('H'))
      expect(answer([heard], unknown, { order })).not.toEqual({ do: 'shift', to: 1 })
    }
    expect(answer([turn('barrel', 0.5)], known, { order })).not.toEqual(sight('H'))
    expect(answer(costing(6), unknown, { order })).toEqual(sight('H'))
    expect(answer(costing(5), unknown, { order })).not.toEqual(sight('H'))
    const turns = Array.from({ length: DECIDE.lateCost }, (_, i) => turn('barrel', i % 2 ? -0.5 : 0.5))
    expect(answer(turns, unknown, { order })).toEqual(sight('H'))
    expect(answer(turns.slice(1), unknown, { order })).not.toEqual(sight('H'))
    // seen H is not asked again
    expect(answer([H(), shift(1)], known, { order })).not.toEqual(sight('H'))
    expect(answer([], unknown, { order, declined: ['listen'] }).do).not.toBe('shift')
  })
  test('the first click goes from wherever the slack end is, and only from an end', () => {
    const order = 'tensionFirst'
    const unknown = { offsetMm: { mean: 0, sd: 1 } }
    const from = (lever: number) =>
      decide(
        { ...base.posterior, trace: { ...startOf(setup), lever, chain: lever } },
        { ...asStands, ...unknown },
        [],
        { order },
      ).move
    expect(from(N - 1)).toEqual({ do: 'shift', to: N - 2 })
    expect(from(0)).toEqual({ do: 'shift', to: 1 })
    expect(from(4)).not.toMatchObject({ do: 'shift' })
    const rubbed: BenchEvent = { kind: 'unclean', to: 1, ways: ['spokes'] }
    expect(answer([rubbed], unknown, { order })).not.toEqual({ do: 'shift', to: 1 })
  })
})

describe('when it is done', () => {
  test('from a chance that falls as cost mounts: 0.95 up to 28, 0.88 from 54', () => {
    for (const [cost, at] of [
      [28, 0.95],
      [41, 0.915],
      [54, 0.88],
      [60, 0.88],
    ]) {
      expect(answer([...SEEN, ...costing(cost! - 4)], chances(at! + 0.001)), `${cost}`).toEqual(DONE)
      const short = { ...chances(at! - 0.002), ...open }
      expect(answer([...SEEN, ...costing(cost! - 4)], short).do, `${cost}`).not.toBe('done')
    }
  })
  test('with passes from 0.93, as these go over every sprocket first', () => {
    const been = [...SEEN, ...Array.from({ length: N - 1 }, (_, i) => shift(i + 1))]
    expect(answer(been, chances(0.931), { passes: true })).toEqual(DONE)
    expect(answer(been, { ...chances(0.928), ...open }, { passes: true })).not.toEqual(DONE)
    expect(answer(been, { ...chances(0.931), ...open })).not.toEqual(DONE)
  })
  test('a last turn must gain something, and can be left', () => {
    expect(answer(SEEN, chances(0.94, [3.25, 0.96]))).toEqual(barrel(0.25))
    expect(answer(SEEN, chances(0.95, [3.25, 0.964]))).toEqual(DONE)
    expect(answer(SEEN, chances(0.94, [3.25, 0.96]), { declined: ['turn barrel'] })).toEqual(DONE)
  })
  test('of equally good places the nearest, on either side', () => {
    expect(answer(SEEN, chances(0.5, [1, 0.97], [2.5, 0.97], [4, 0.97]))).toEqual(barrel(-0.5))
    expect(answer(SEEN, chances(0.5, [1, 0.97], [4, 0.98]))).toEqual(barrel(1))
    expect(answer(SEEN, chances(0.97, [2.5, 0.97], [4, 0.97]))).toEqual(DONE)
  })
  test('two units before patience ends', () => {
    const unsure = { ...chances(0.3), ...open }
    expect(answer([...SEEN, ...costing(DECIDE.budget - 2 - 4)], unsure)).toEqual(DONE)
    expect(answer([...SEEN, ...costing(DECIDE.budget - 3 - 4)], unsure)).not.toEqual(DONE)
  })
  test('with passes a clean click that goes on costs a fifth', () => {
    const walk = Array.from({ length: 78 }, (_, i): BenchEvent => {
      const to = 1 + Math.abs(((i + 7) % 14) - 7)
      const from = 1 + Math.abs(((i + 6) % 14) - 7)
      return shift(to, from)
    })
    const unsure = { ...chances(0.3), ...open }
    expect(answer([...SEEN, ...walk], unsure)).toEqual(DONE)
    expect(answer([...SEEN, ...walk], unsure, { passes: true })).not.toEqual(DONE)
    // each counts whole after one that was not clean, two clicks at once, or something between
    const slow = walk.map(e => ({ ...e, heard: 'slow' }) as BenchEvent)
    expect(answer([...SEEN, ...slow], unsure, { passes: true })).toEqual(DONE)
    const leaps = walk.map((_, i) => shift(i % 2 ? 3 : 5, i % 2 ? 5 : 3))
    expect(answer([...SEEN, ...leaps], unsure, { passes: true })).toEqual(DONE)
    const turned = walk.slice(0, 38).flatMap((e, i) => [e, turn('barrel', i % 2 ? -0.5 : 0.5)])
    expect(answer([...SEEN, ...turned, turn('barrel', -0.5)], unsure, { passes: true })).toEqual(DONE)
  })
  test('by the first four not before these were heard, unless left or late', () => {
    const listening = 'firstFour'
    expect(answer(SEEN, chances(0.99), { listening })).toEqual({ do: 'shift', to: 1 })
    expect(answer([...SEEN, shift(1), shift(3)], chances(0.99), { listening })).toEqual({ do: 'shift', to: 2 })
    expect(answer([...SEEN, shift(1), shift(2), shift(3)], chances(0.99), { listening })).toEqual(DONE)
    expect(answer(SEEN, chances(0.99), { listening, declined: ['listen'] })).toEqual(DONE)
    expect(answer([...SEEN, ...costing(DECIDE.budget - 10 - 4)], chances(0.99), { listening })).toEqual(DONE)
    expect(answer([...SEEN, ...costing(DECIDE.budget - 11 - 4)], chances(0.99), { listening })).toEqual({
      do: 'shift',
      to: 1,
    })
    expect(answer(SEEN, chances(0.99))).toEqual(DONE)
  })
  test('a last pass over the sprockets nobody was on, where a quarter of them is left', () => {
    const passes = true
    const pass = (to: number): Move => ({ do: 'pass', to, back: false })
    expect(answer(SEEN, chances(0.99), { passes })).toEqual(pass(N - 1))
    expect(answer(SEEN, chances(0.99), { passes, declined: ['listen'] })).toEqual(DONE)
    // been on all but three, the smallest among them (of eleven a quarter is three), and then on all but two
    const been = (to: number) => Array.from({ length: to }, (_, i) => shift(i + 1, i))
    expect(answer([...SEEN, ...been(8)], chances(0.99), { passes })).toEqual(pass(N - 1))
    expect(answer([...SEEN, ...been(9)], chances(0.99), { passes })).toEqual(DONE)
    // the way where more is left: from the middle, all above was heard
    const above = Array.from({ length: 6 }, (_, i) => shift(4 + i, 5 + i)).reverse()
    expect(answer([...SEEN, shift(N - 1, 0), ...above], chances(0.99), { passes })).toEqual(pass(0))
    // new teeth were heard by nobody
    const renewed: BenchEvent = { kind: 'replace', part: 'cassette' }
    expect(answer([...been(9), renewed, ...SEEN], chances(0.99), { passes })).toEqual(pass(N - 1))
    const cable: BenchEvent = { kind: 'replace', part: 'cable' }
    expect(answer([...been(10), cable, ...SEEN], chances(0.99), { passes })).toEqual(DONE)
    // what rubbed was been on too
    const rubbed = [8, 9].map((to): BenchEvent => ({ kind: 'unclean', to, ways: ['spokes'] }))
    expect(answer([...SEEN, ...been(7), ...rubbed], chances(0.99), { passes })).toEqual(DONE)
    // no time for it
    expect(answer([...SEEN, ...costing(DECIDE.budget - 10 - 4)], chances(0.99), { passes })).toEqual(DONE)
    expect(answer([...SEEN, ...costing(DECIDE.budget - 11 - 4)], chances(0.99), { passes })).toMatchObject({
      do: 'pass',
    })
  })
})

describe('a stop screw', () => {
  const stops = (at: 'H' | 'L', of: Partial<StopJudgement>): Partial<Analysis> => ({
    ...chances(0.99),
    stops: { H: good, L: good, [at]: { ...good, ...of } },
  })
  const wrong = { good: 0.5, bestGood: 0.9, bestTurns: 0.5 }
  // L in moves its limit outboard, H in inboard
  const inboard = { L: { ...wrong, bestTurns: -0.5 }, H: wrong }
  test('is turned where the chance of a well-set stop gains by it', () => {
    expect(answer([L(-2), H()], stops('L', inboard.L))).toEqual({ do: 'turn', screw: 'L', turns: -0.5 })
    expect(answer([L(), H(-3)], stops('H', inboard.H))).toEqual({ do: 'turn', screw: 'H', turns: 0.5 })
    const gains = (bestGood: number) => stops('L', { ...inboard.L, good: 0.95, bestGood })
    expect(answer([L(-2), H()], gains(0.985))).toMatchObject({ screw: 'L' })
    expect(answer([L(-2), H()], gains(0.975)).do).not.toBe('turn')
    expect(answer([L(-2), H()], stops('L', { ...wrong, bestTurns: 0 })).do).not.toBe('turn')
    expect(answer([L(-2), H()], stops('L', { ...inboard.L, good: 0.94 }), { declined: ['turn L'] }).do).not.toBe('turn')
  })
  test('never against what was seen: one that stands is left; L seen in line or inboard is not let towards the spokes', () => {
    expect(answer(SEEN, stops('L', { ...wrong, good: 0.94 })).do).not.toBe('turn')
    const out = { good: 0.94, bestGood: 0.99, bestTurns: -0.5 }
    expect(answer([L(0.9), H()], stops('L', out)).do).not.toBe('turn')
    expect(answer([L(-2), H()], stops('L', out))).toMatchObject({ screw: 'L', turns: -0.5 })
    expect(answer([L(), H(3)], stops('H', out))).toMatchObject({ screw: 'H', turns: -0.5 })
    // further that way than it was seen: not, unless something unclean was heard there since
    expect(answer([L(-2), H()], stops('L', { ...out, bestTurns: 0.5 })).do).not.toBe('turn')
    expect(answer([L(), H(-3)], stops('H', out)).do).not.toBe('turn')
    const jumped: BenchEvent = { kind: 'shift', from: 1, to: 0, heard: 'none' }
    expect(answer([L(), H(-3), jumped], stops('H', out))).toMatchObject({ screw: 'H', turns: -0.5 })
  })
  test('goes where a school wants it, from where it was seen', () => {
    const placing = { H: { from: -0.2, to: 0.2 }, L: { from: 0.4, to: 0.8 } }
    const at = (stop: 'H' | 'L', mean: number) => ({
      ...chances(0.99),
      stops: { H: good, L: good, [stop]: { ...good, offsetMm: { mean, sd: 0.1 } } },
    })
    expect(answer([L(-0.4), H(0)], at('L', -0.4), { placing })).toMatchObject({ do: 'turn', screw: 'L', turns: -1 })
    expect(answer([L(0.6), H(-0.8)], at('H', -0.8), { placing })).toMatchObject({ do: 'turn', screw: 'H', turns: 0.75 })
    expect(answer([L(0.6), H(0)], at('H', -0.8), { placing })).toEqual(DONE) // seen where it is wanted
    expect(answer([L(-0.4), H(0)], at('L', -0.4), { placing, declined: ['turn L'] })).toEqual(DONE)
  })
  test('that was turned is seen again where it is not sure', () => {
    const unsure = { good: 0.92, bestGood: 0.92 }
    expect(answer([L(-2), H(), turn('L', -0.5)], stops('L', unsure))).toEqual(sight('L'))
    expect(answer([L(-2), H(), turn('L', -0.5)], stops('L', { good: 0.98, bestGood: 0.98 }))).toEqual(DONE)
    // right by half: first the rest
    const halfway = { ...stops('L', { good: 0.94, bestGood: 0.94 }), ...chances(0.5) }
    expect(answer([L(-2), H(), turn('L', -0.5)], halfway)).not.toEqual(sight('L'))
    expect(answer([L(), H(-3), turn('H', 0.5)], stops('H', unsure))).toEqual(sight('H'))
    expect(answer([L(), H(-3), turn('H', 0.5)], { ...stops('H', unsure), ...chances(0.5) })).toEqual(sight('H'))
    expect(
      answer([L(-2), H(), turn('L', -0.5)], { ...stops('L', unsure), ...chances(0.96) }, { declined: ['sight L'] }),
    ).toEqual(DONE)
  })
  test('less sure than 0.98 is seen once more before "done", after the last pass, while patience is left', () => {
    const unsure = (at: 'H' | 'L', good1: number) => ({
      ...stops(at, { good: good1, bestGood: good1 }),
      ...chances(0.96),
    })
    expect(answer(SEEN, unsure('L', 0.979))).toEqual(sight('L'))
    expect(answer(SEEN, unsure('H', 0.979))).toEqual(sight('H'))
    expect(answer(SEEN, unsure('L', 0.98))).toEqual(DONE)
    expect(answer([...SEEN, L()], unsure('L', 0.97))).toEqual(sight('L'))
    expect(answer([...SEEN, L(), L()], unsure('L', 0.97))).toEqual(DONE)
    expect(answer(SEEN, unsure('L', 0.97), { declined: ['sight L'] })).toEqual(DONE)
    expect(answer([...SEEN, ...costing(65)], unsure('L', 0.97))).toEqual(sight('L'))
    expect(answer([...SEEN, ...costing(66)], unsure('L', 0.97))).toEqual(DONE)
    expect(answer(SEEN, unsure('L', 0.97), { passes: true }).do).toBe('pass')
    // the barrel comes first
    expect(answer(SEEN, { ...unsure('L', 0.97), ...chances(0.94, [3.25, 0.96]) })).toEqual(barrel(0.25))
  })
  test('least sure of the two is seen once more when all but it is known, at most three times', () => {
    const unsure = (good1: number, right: number): Partial<Analysis> => ({
      ...stops('L', { good: good1, bestGood: good1 }),
      ...chances(right),
    })
    expect(answer(SEEN, unsure(0.9, 0.8))).toEqual(sight('L'))
    expect(answer(SEEN, unsure(0.9, 0.76))).not.toEqual(sight('L')) // 0.85 of 0.9
    expect(answer(SEEN, unsure(0.93, 0.9))).not.toEqual(sight('L'))
    expect(answer([...SEEN, L()], unsure(0.9, 0.8))).toEqual(sight('L'))
    expect(answer([...SEEN, L(), L()], unsure(0.9, 0.8))).not.toEqual(sight('L'))
    // turned or renewed since: counted anew
    expect(answer([...SEEN, L(), L(), turn('L', 0.25), L()], unsure(0.9, 0.8))).toEqual(sight('L'))
    expect(answer([...SEEN, L(), L(), { kind: 'replace', part: 'cable' }, L()], unsure(0.9, 0.8))).toEqual(sight('L'))
    expect(answer([...SEEN, L(), L(), turn('H', 0.25), H()], unsure(0.9, 0.8))).not.toEqual(sight('L'))
    expect(answer(SEEN, { ...stops('H', { good: 0.9, bestGood: 0.9 }), ...chances(0.8) })).toEqual(sight('H'))
    expect(answer(SEEN, unsure(0.9, 0.8), { declined: ['sight L'] })).not.toEqual(sight('L'))
    // one not seen yet is no second look
    const climb: AdviceOptions = { order: 'climbThenL' }
    expect(answer([H(), shift(1)], { ...unsure(0.5, 0.35), ...open }, climb)).not.toEqual(sight('L'))
  })
})

describe('a part', () => {
  const needs = (cause: 'friction' | 'hanger' | 'mismatch', share: number): Partial<Analysis> => ({
    needed: { ...asStands.needed, [cause]: share },
    ...chances(0.3),
  })
  const gauged: BenchEvent = { kind: 'hanger', camberDeg: 2, toeDeg: 0 }
  const replace = (part: string, cause: string) => ({ do: 'replace', part, cause })
  test('at 0.95, falling to 0.77 as cost mounts from 22 to 60', () => {
    for (const [cost, at] of [
      [22, 0.95],
      [41, 0.86],
      [60, 0.77],
      [70, 0.77],
    ]) {
      const log = [...SEEN, shift(1, 0)]
      expect(answer(log, needs('friction', at! + 0.002)), `${cost}`).toEqual(replace('cable', 'friction'))
      const less = { ...needs('friction', at! - 0.002), ...open }
      expect(answer(log, less).do, `${cost}`).not.toBe('replace')
    }
  })
  test('worn sprockets are renewed when that sure', () => {
    const worn = (any: number) => ({ ...chances(0.3), wear: { ...asStands.wear, any }, ...open })
    expect(answer(SEEN, worn(0.96))).toEqual(replace('cassette', 'wear'))
    expect(answer(SEEN, worn(0.94)).do).not.toBe('replace')
  })
  test('not when it is likelier right by the barrel, not twice for one cause, and not when left', () => {
    const sure = { ...needs('friction', 0.96), ...open }
    expect(answer(SEEN, { ...sure, ...chances(0.3, [3.5, 0.94]) })).toEqual(replace('cable', 'friction'))
    expect(
      answer([...SEEN, ...costing(50)], {
        ...sure,
        needed: { friction: 0.8, hanger: 0, mismatch: 0 },
        ...chances(0.3, [3.5, 0.85]),
      }).do,
    ).not.toBe('replace')
    const cable: BenchEvent = { kind: 'replace', part: 'cable' }
    expect(answer([cable, ...SEEN], sure).do).not.toBe('replace')
    expect(answer(SEEN, sure, { declined: ['replace cable'] }).do).not.toBe('replace')
  })
  test('a hanger, or a shifter, only after a gauge; an eye is no gauge', () => {
    const hanger = needs('hanger', 0.97)
    expect(answer(SEEN, hanger)).toEqual({ do: 'hanger' })
    expect(answer([...SEEN, { ...gauged, sdDeg: 1 } as BenchEvent], hanger)).toEqual({ do: 'hanger' })
    expect(answer([...SEEN, gauged], hanger)).toEqual(replace('hanger', 'hanger'))
    const mismatch = needs('mismatch', 0.97)
    expect(answer(SEEN, mismatch)).toEqual({ do: 'hanger' })
    expect(answer([...SEEN, gauged], mismatch)).toEqual(replace('shifter', 'mismatch'))
    // a hanger just renewed is straight
    const renewed: BenchEvent = { kind: 'replace', part: 'hanger' }
    expect(answer([gauged, renewed, ...SEEN], mismatch)).toEqual(replace('shifter', 'mismatch'))
    // gauged before, and renewed since for something else: its own blame asks for the gauge again, or nothing
    expect(answer([gauged, renewed, ...SEEN], { ...hanger, ...open })).not.toEqual(replace('hanger', 'hanger'))
    // a mismatch where teeth may be worn is the cassette's; one of the three parts renewed is enough
    expect(answer([...SEEN, gauged], { ...mismatch, wear: { ...asStands.wear, any: 0.21 } })).toEqual(
      replace('cassette', 'mismatch'),
    )
    expect(answer([...SEEN, gauged], { ...mismatch, wear: { ...asStands.wear, any: 0.2 } })).toEqual(
      replace('shifter', 'mismatch'),
    )
    for (const part of ['shifter', 'derailleur', 'cassette'] as const)
      expect(answer([{ kind: 'replace', part }, ...SEEN, gauged], { ...mismatch, ...open }).do).not.toBe('replace')
    expect(answer([{ kind: 'replace', part: 'cable' }, ...SEEN, gauged], mismatch)).toEqual(
      replace('shifter', 'mismatch'),
    )
    for (const part of ['cassette', 'derailleur'] as const)
      expect(answer([{ kind: 'replace', part }, ...SEEN], needs('friction', 0.97))).toEqual(
        replace('cable', 'friction'),
      )
  })
})

describe('the barrel', () => {
  test('is clamped anew where its travel cannot reach the window that exists', () => {
    const far = (over: Partial<Analysis> = {}): Partial<Analysis> => ({
      ...chances(0.1),
      outOfReach: 0.6,
      windowExists: 0.9,
      readings: [{ ...reading, middle: 8 }],
      ...over,
    })
    // five turns too little: with the cable snug again the middle is that far off still; as much travel left as may be
    expect(answer(SEEN, far())).toMatchObject({ do: 'reclamp' })
    expect(answer(SEEN, far({ outOfReach: 0.5 })).do).not.toBe('reclamp')
    expect(answer(SEEN, far({ windowExists: 0.5 })).do).not.toBe('reclamp')
    expect(answer(SEEN, far(chances(0.1, [6, 0.5]))).do).not.toBe('reclamp')
    expect(answer(SEEN, far(chances(0.1, [6, 0.49])))).toMatchObject({ do: 'reclamp' })
    expect(answer(SEEN, far(), { declined: ['reclamp'] }).do).not.toBe('reclamp')
  })
  test('then stands where travel is left both ways, or where a school starts it as long as the window is in reach', () => {
    const snugMm = snugCableMm(g, belief)
    // a cable as tight as snug clamping leaves it: the middle lies as far off after the clamp as before
    const snug = (middle: number): Partial<Analysis> => ({
      ...chances(0.1),
      outOfReach: 0.6,
      windowExists: 0.9,
      readings: [{ ...reading, belief: { ...belief, cableMm: snugMm }, middle }],
    })
    const at = (middle: number, startTurnsOut?: number) => {
      const move = answer(SEEN, snug(middle), { startTurnsOut })
      return move.do === 'reclamp' ? move.barrelTurnsOut : move.do
    }
    expect(at(3)).toBe(3) // needs none: the middle of six
    expect(at(4)).toBe(2) // needs one out: starts so that it ends at the middle
    expect(at(2)).toBe(4)
    expect(at(8)).toBe(1.5) // never nearer an end than a turn and a half
    expect(at(-2)).toBe(4.5)
    expect(at(3.6)).toBe(2.5) // to the half turn
    expect(at(3, 2)).toBe(2)
    expect(at(1, 2)).toBe(2) // down to nothing left
    expect(at(0.9, 2)).toBe(4.5) // past fully in: as without a school
    expect(at(7, 2)).toBe(2) // up to all of it
    expect(at(7.1, 2)).toBe(1.5)
    expect(at(3, 3)).toBe(3)
    expect(at(2, 3.5)).toBe(4) // no school starts past the middle of its travel
  })
  test('is turned for a gain that is worth a check after it, not right after another turn, not when left', () => {
    expect(answer(SEEN, chances(0.5, [3.5, 0.59]))).toEqual(barrel(0.5))
    expect(answer([...SEEN, shift(1)], chances(0.5, [2.5, 0.59]))).toEqual(barrel(-0.5))
    expect(answer(SEEN, { ...chances(0.5, [3.5, 0.57]), ...open }).do).not.toBe('turn')
    expect(answer([...SEEN, turn('barrel', 0.5)], chances(0.5, [4, 0.7])).do).not.toBe('turn')
    expect(answer(SEEN, { ...chances(0.5, [3.5, 0.7]), ...open }, { declined: ['turn barrel'] }).do).not.toBe('turn')
  })
})

describe('an edge', () => {
  const listening = 'findTheEdge'
  const asked = (...log: BenchEvent[]) => answer([...SEEN, ...log], { ...chances(0.3), ...open }, { listening })
  const first = asked()
  const edge = (turns: number, more: object = {}) =>
    ({ ...first, kind: 'edge', turns, found: true, ...more }) as BenchEvent
  /** The same gear on its other side, and another gear; both as long as the barrel stays. */
  const other = (turns = 0) => edge(turns, { way: 'in' })
  const elsewhere = (turns = 0) => edge(turns, { click: first.do === 'edge' && first.click === 1 ? 2 : 1 })
  test('is asked for by who likes to find it', () => {
    expect(first).toMatchObject({ do: 'edge', way: 'out' })
  })
  test('is not asked for twice at once, whatever was listened to between', () => {
    expect(asked(edge(0.5))).not.toEqual(first)
    expect(asked(edge(0))).not.toEqual(first)
    expect(asked(edge(0.5), shift(5, 4))).not.toEqual(first)
    // the barrel, the clamp or a part moved since: it is another edge
    expect(asked(edge(0.5), turn('barrel', -0.5), shift(5, 4))).toEqual(first)
    expect(asked(edge(0.5), { kind: 'reclamp', barrelTurnsOut: 3 })).toEqual(first)
    expect(asked(edge(0.5), { kind: 'replace', part: 'cable' })).toEqual(first)
  })
  test('nor a third time since the barrel last went elsewhere', () => {
    expect(asked(edge(0), other())).toEqual(first)
    expect(asked(edge(0), elsewhere())).toEqual(first)
    expect(asked(edge(0), other(), edge(0), other())).not.toEqual(first)
    expect(asked(edge(0), elsewhere(), edge(0), elsewhere())).not.toEqual(first)
    // wound away for another one in between
    expect(asked(edge(0), other(-0.5), edge(0), other())).toEqual(first)
    expect(asked(edge(0), other(), edge(0), turn('barrel', 0.25), other())).toEqual(first)
  })
  test('tells before a turn, where one is due; a shift is heard as things then stand', () => {
    const due = { ...chances(0.3, [3.5, 0.6]), ...open }
    expect(answer(SEEN, due, { listening })).toMatchObject({ do: 'edge' })
    expect(answer(SEEN, { ...chances(0.3, [3.5, 0.6]) }, { listening })).toEqual(barrel(0.5))
    const told = decide(base.posterior, { ...asStands, ...due }, SEEN, { declined: ['turn barrel'] })
    expect(told.check?.move).toEqual(told.move)
  })
  test('a shift is walked as a pass where passes are wanted, and two clicks at a stroke where these are', () => {
    const clicks = { ...chances(0.3), ...open }
    const passes = true
    const log = [...SEEN, shift(1, 0)]
    const edges = [1, 2, 3, 4, 5, 6, 7, 8, 9].flatMap(c => [`edge ${c} out`, `edge ${c} in`])
    const declined = [...edges, 'hanger', 'offset 1', 'offset 5', 'offset 9']
    expect(answer(log, clicks, { declined })).toMatchObject({ do: 'shift' })
    expect(answer(log, clicks, { declined, passes })).toMatchObject({ do: 'pass' })
    expect(answer(log, clicks, { declined, passes, listening: 'twoClicks' })).toMatchObject({ do: 'shift' })
  })
})

describe('when no check tells enough', () => {
  test('a shift that tells nothing does not hide another that tells enough', () => {
    // one bike in 220 has a hanger that shifts the rub, and no arrival would tell it
    const bent = {
      ...reading,
      belief: { ...belief, camberTan: Math.tan((0.3 * Math.PI) / 180) },
      middle: 4,
      span: { from: 3.5, to: 4.5 },
      weight: 1 / 220,
    }
    const rare = { ...chances(0.3), readings: [{ ...reading, weight: 219 / 220 }, bent] }
    expect(answer(SEEN, rare)).toMatchObject({ do: 'edge' })
  })
  test('what is most blamed is cured, by a gauge first where a hanger is possible', () => {
    const blamed = (share: number, right = 0.3): Partial<Analysis> => ({
      ...chances(right),
      needed: { friction: share, hanger: 0, mismatch: 0 },
    })
    expect(answer(SEEN, blamed(0.61))).toEqual({ do: 'replace', part: 'cable', cause: 'friction' })
    expect(answer(SEEN, blamed(0.6))).toEqual(DONE)
    expect(answer(SEEN, blamed(0.61, 0.62))).toEqual(DONE)
    expect(answer([{ kind: 'replace', part: 'cable' }, ...SEEN], blamed(0.7))).toEqual(DONE)
    expect(answer(SEEN, blamed(0.7), { declined: ['replace cable'] })).toEqual(DONE)
    const hanger = { ...chances(0.3), needed: { friction: 0.61, hanger: 0.7, mismatch: 0.65 } }
    expect(answer(SEEN, hanger)).toEqual({ do: 'hanger' })
    expect(answer([...SEEN, { kind: 'hanger', camberDeg: 3, toeDeg: 0 }], hanger)).toEqual({
      do: 'replace',
      part: 'hanger',
      cause: 'hanger',
    })
  })
  test('else the barrel goes to the best that is left, for a little gain and not right after a turn; else it stops', () => {
    expect(answer(SEEN, chances(0.5, [3.5, 0.53]))).toEqual(barrel(0.5))
    expect(answer(SEEN, chances(0.5, [3.5, 0.519]))).toEqual(DONE)
    expect(answer([...SEEN, turn('barrel', 0.25)], chances(0.5, [3.5, 0.55]))).toEqual(DONE)
    expect(answer([...SEEN, turn('barrel', 0.25), shift(1)], chances(0.5, [3.5, 0.55]))).toEqual(barrel(0.25))
    expect(answer(SEEN, chances(0.5, [3.5, 0.55]), { declined: ['turn barrel'] })).toEqual(DONE)
  })
})
