import { describe, expect, test } from 'vitest'
import { arrivalsOf } from '../rear/arrivals'
import { passClicks, seededBike, simulatedBench } from '../bench/bench'
import { AS_MODELLED } from '../bench/physics'
import { costOf, PATIENCE, type BenchEvent } from '../rear/benchEvents'
import { asSeen, limitMoves, PLACING, stopTurn } from '../rear/asSeen'
import type { Heard } from '../response/heard'
import { geometryOf, type RearSetup } from '../response/setup'
import { perfectBike, setupOfStandard } from '../response/testBikes'
import { advise } from './advise'
import { ADVICE_ORDERS, type AdviceOptions, type Move } from './contract'
import { adviceBySchools } from './schools'
import { schoolsOf } from '../procedure/schools'
import { TABLE_ONLY } from '../standards/inForce'

const setup = setupOfStandard('r14-11')
const n = setup.teeth.length
const L = (offsetMm: number): BenchEvent => ({ kind: 'sight', at: 'L', offsetMm })
const H = (offsetMm: number): BenchEvent => ({ kind: 'sight', at: 'H', offsetMm })
const shift = (to: number, heard: 'clean' | 'rubs-in' | 'off' = 'clean'): BenchEvent => ({
  kind: 'shift',
  from: to - 1,
  to,
  heard,
})

type Followed = { move: Move; log: readonly BenchEvent[] }[]
/** What was followed already, by how: the same question has the same answer. */
const known = new Map<string, Followed>()
/** Every move advised on a simulated bike until done or patience is spent, each with the log it was advised on. */
function followed(seed: number, options: AdviceOptions): Followed {
  const how = JSON.stringify([seed, options])
  const moves = known.get(how) ?? follow(seed, options)
  known.set(how, moves)
  return moves
}
function follow(seed: number, options: AdviceOptions): Followed {
  const { setup: of, hidden } = seededBike(seed)
  const bench = simulatedBench(of, hidden, seed)
  const out: { move: Move; log: readonly BenchEvent[] }[] = []
  let cost = 0
  while (cost < PATIENCE) {
    const log = [...bench.log]
    const { move } = advise(of, log, options)
    out.push({ move, log })
    if (move.do === 'done') break
    const events = move.do === 'pass' ? passClicks(bench, move) : [bench.perform(move)!]
    cost += move.do === 'pass' ? 1 + 0.2 * (events.length - 1) : costOf(events[0]!)
  }
  return out
}
const sprockets = (seed: number) => seededBike(seed).setup.teeth.length
const SEEDS = [71, 72, 73]

describe('the order of the work is obeyed by the advice', () => {
  test.each(ADVICE_ORDERS)('%s: simulated bikes never see the largest before L, nor the smallest before H', order => {
    for (const seed of SEEDS) {
      const last = sprockets(seed) - 1
      for (const { move, log } of followed(seed, { order, passes: true })) {
        const seen = (at: 'H' | 'L') => log.some(e => e.kind === 'sight' && e.at === at)
        const lever = log.reduce((to, e) => (e.kind === 'shift' ? e.to : 'click' in e ? e.click : to), 0)
        const goes =
          move.do === 'shift'
            ? [move.to]
            : move.do === 'offset'
              ? [move.click]
              : move.do === 'pass'
                ? arrivalsOf(lever, move.to, move.back).map(a => a.to)
                : []
        if (!seen('L')) expect(goes).not.toContain(last)
        if (!seen('H') && move.do !== 'offset') expect(goes).not.toContain(0)
        if (move.do === 'done') expect(seen('L') && seen('H')).toBe(true)
        // no screw of a stop is turned that nobody has looked at
        if (move.do === 'turn' && move.screw !== 'barrel') expect(seen(move.screw)).toBe(true)
      }
    }
  })
  test('stops first: L, then H, then the index', () => {
    expect(advise(setup, []).move).toEqual({ do: 'sight', at: 'L' })
    expect(advise(setup, [L(0)]).move).toEqual({ do: 'sight', at: 'H' })
  })
  test('climb, then L: H at once, one click from the smallest, and L only when the others are right', () => {
    const order = 'climbThenL'
    expect(advise(setup, [], { order }).move).toEqual({ do: 'sight', at: 'H' })
    expect(advise(setup, [H(0)], { order }).move).toEqual({ do: 'shift', to: 1 })
    for (const seed of SEEDS) {
      const moves = followed(seed, { order, passes: true })
      const asked = moves.findIndex(m => m.move.do === 'sight' && m.move.at === 'L')
      expect(moves.slice(0, asked).some(({ move }) => ['shift', 'pass', 'edge'].includes(move.do))).toBe(true)
    }
  })
  test('tension first: the first move is one click, before any stop is looked at; then H, and L last', () => {
    const order = 'tensionFirst'
    expect(advise(setup, [], { order }).move).toEqual({ do: 'shift', to: 1 })
    for (const seed of SEEDS) {
      const moves = followed(seed, { order, passes: true }).map(m => m.move)
      const at = (stop: 'H' | 'L') => moves.findIndex(m => m.do === 'sight' && m.at === stop)
      expect(at('H')).toBeGreaterThan(0)
      expect(at('L')).toBeGreaterThan(at('H'))
    }
  })
})

describe('what was seen stands', () => {
  test('seen where it is wanted, or within a quarter millimetre, and nothing but clean since: left alone', () => {
    expect(asSeen('L', [L(0.4)], n)).toMatchObject({ stands: true, awayMm: null })
    expect(asSeen('L', [L(0.5)], n).stands).toBe(false)
    expect(asSeen('H', [H(-0.7)], n).stands).toBe(true)
    expect(asSeen('H', [H(-0.8)], n)).toMatchObject({ stands: false })
    expect(asSeen('H', [H(-0.8)], n).awayMm).toBeCloseTo(-0.3, 9)
  })
  test('turned since, heard not clean at its sprocket, or moved by other work: seen anew', () => {
    expect(asSeen('H', [H(0), { kind: 'turn', screw: 'H', turns: 0.25 }], n).stands).toBe(false)
    expect(asSeen('L', [L(0), { kind: 'turn', screw: 'H', turns: 0.25 }], n).stands).toBe(true)
    expect(asSeen('L', [L(0), shift(n - 1, 'rubs-in')], n).stands).toBe(false)
    expect(asSeen('L', [L(0), shift(3, 'rubs-in')], n).stands).toBe(true)
    for (const part of ['hanger', 'derailleur', 'cassette'] as const)
      expect(asSeen('L', [L(0), { kind: 'replace', part }], n)).toEqual({
        stands: false,
        shut: { inboard: false, outboard: false },
        awayMm: null,
      })
    expect(asSeen('L', [L(0), { kind: 'replace', part: 'cable' }], n).stands).toBe(true)
  })
  test('L in line or inboard is never turned towards the spokes', () => {
    const turned: BenchEvent = { kind: 'turn', screw: 'L', turns: 0.25 }
    expect(asSeen('L', [L(0), turned], n).shut).toEqual({ inboard: true, outboard: false })
    expect(asSeen('L', [L(-0.3), turned], n).shut.inboard).toBe(false)
    expect(asSeen('H', [H(1), { ...turned, screw: 'H' }], n).shut.inboard).toBe(false)
  })
  test('a stop that was seen too far one way is not moved further that way, until something unclean was heard there', () => {
    expect(asSeen('H', [H(1.9)], n).shut).toEqual({ inboard: true, outboard: false })
    expect(asSeen('H', [H(-1.4)], n).shut).toEqual({ inboard: false, outboard: true })
    expect(asSeen('L', [L(-2)], n).shut).toEqual({ inboard: false, outboard: true })
    expect(asSeen('L', [L(-2), shift(n - 1, 'off')], n).shut).toEqual({ inboard: false, outboard: false })
    expect(limitMoves('H', 0.5)).toBe('inboard')
    expect(limitMoves('L', 0.5)).toBe('outboard')
    // seen on the other side before, it is believed to stand between; what was seen last still stands
    const { move } = advise(setup, [L(0), H(0.4), H(-1.4)])
    expect(move.do === 'turn' && move.screw === 'H' && move.turns < 0).toBe(false)
  })
  test('of two sprockets the next is the largest: in no order is it reached before L was seen', () => {
    const two: RearSetup = { ...setup, teeth: [14, 24], pitchMm: [4], pullMm: [2.8], pullRatio: 1.4 }
    for (const order of ['stopsFirst', 'climbThenL', 'tensionFirst'] as const) {
      const log: BenchEvent[] = []
      for (let i = 0; i < 12; i++) {
        const { move } = advise(two, log, { order })
        const to = move.do === 'shift' ? move.to : move.do === 'offset' ? move.click : 0
        expect(to).toBe(0)
        if (move.do === 'shift') log.push({ kind: 'shift', from: 0, to: 0, heard: 'clean' })
        else if (move.do === 'offset') log.push({ kind: 'offset', click: 0, offsetMm: 0 })
        else if (move.do === 'turn') log.push({ kind: 'turn', screw: move.screw, turns: move.turns })
        else if (move.do === 'sight' && move.at === 'H') log.push(H(0))
        else break
      }
    }
  })
  test('no chance is more than one, though weights add up to a little more', () => {
    const four: RearSetup = {
      teeth: [10, 18, 31, 37],
      pitchMm: [5.309092663705669, 5.609442510925869, 5.489657303087365],
      pullMm: [2.771566009275098, 2.4509807881792267, 2.46789094652827],
      pullRatio: 2.15,
      barrelPitchMm: 1,
      barrelTurnsOut: 3.125,
      barrelTurnsRange: 5,
    }
    const went = (from: number, to: number, heard: Heard): BenchEvent => ({ kind: 'shift', from, to, heard })
    const edge = (click: number, way: 'in' | 'out', turns: number, found = true): BenchEvent => ({
      kind: 'edge',
      click,
      way,
      turns,
      found,
    })
    const log: BenchEvent[] = [
      L(1.1666666666666667),
      H(0.43333333333333335),
      { kind: 'turn', screw: 'L', turns: 0.75 },
      went(0, 1, 'clean'),
      went(1, 2, 'clean'),
      went(2, 3, 'clean'),
      went(3, 2, 'clean'),
      went(2, 1, 'none'),
      went(1, 1, 'rubs-in'),
      edge(2, 'in', -0.8125),
      edge(1, 'out', 2, false),
      { kind: 'turn', screw: 'barrel', turns: -1.375 },
      edge(1, 'out', 0),
      edge(2, 'out', 1.5),
    ]
    const { causes } = advise(four, log, { passes: true, seed: 55 })
    for (const chance of Object.values(causes)) expect(chance).toBeLessThanOrEqual(1)
  })
  test('over simulated bikes: no stop turn against sight', () => {
    for (const seed of [81, 82, 83, 84])
      for (const { move, log } of followed(seed, {})) {
        if (move.do !== 'turn' || move.screw === 'barrel') continue
        const { stands, shut } = asSeen(move.screw, log, sprockets(seed))
        expect(stands).toBe(false)
        expect(shut[limitMoves(move.screw, move.turns)]).toBe(false)
      }
  })
})

describe('where the school wants the stops', () => {
  const outboard = { H: { from: -2, to: -1 }, L: PLACING.L }
  test('a stop seen elsewhere is turned there, and one that stands there is not', () => {
    const move = advise(setup, [L(0), H(0)], { placing: outboard }).move
    expect(move).toMatchObject({ do: 'turn', screw: 'H' })
    expect(move.do === 'turn' && move.turns).toBeLessThan(0) // out: travel is given
    expect(advise(setup, [L(0), H(-1.5)], { placing: outboard }).move.do).not.toBe('turn')
    expect(advise(setup, [L(0), H(0)]).move.do).not.toBe('turn')
  })
  test('stage and advice ask the same function: within a quarter millimetre nothing is turned', () => {
    expect(stopTurn('H', -0.75, PLACING.H, 1)).toBe(0)
    expect(stopTurn('H', -0.8, PLACING.H, 1)).toBeCloseTo(0.75, 9)
  })
  test('the schools in force become the advice’s options', () => {
    const of = (choice: object) => adviceBySchools(schoolsOf(TABLE_ONLY, choice))
    expect(of({})).toEqual({
      passes: true,
      order: 'stopsFirst',
      listening: 'oneClick',
      startTurnsOut: 2,
      placing: PLACING,
    })
    expect(of({ barrel: 'in' }).startTurnsOut).toBe(0)
    expect(of({ order: 'climb-then-l' }).order).toBe('climbThenL')
    expect(of({ order: 'tension-first' }).order).toBe('tensionFirst')
    expect(of({ test: 'two-clicks' }).listening).toBe('twoClicks')
    expect(of({ test: 'while-pedalling' }).listening).toBe('findTheEdge')
    expect(of({ test: 'first-four' }).listening).toBe('firstFour')
    expect(of({ placing: 'outboard' }).placing!.H).toEqual({ from: -2, to: -1 })
  })
})

describe('the school of listening changes what is asked', () => {
  const moves = (listening: AdviceOptions['listening'], seed: number) =>
    followed(seed, listening === 'oneClick' ? {} : { listening })
  test('two clicks at a stroke are asked for where they tell enough', () => {
    const strokes = (listening: AdviceOptions['listening']) =>
      SEEDS.flatMap(seed => {
        let lever = 0
        return moves(listening, seed).filter(({ move, log }) => {
          lever = log.reduce((to, e) => (e.kind === 'shift' ? e.to : 'click' in e ? e.click : to), 0)
          return move.do === 'shift' && Math.abs(move.to - lever) === 2
        })
      }).length
    expect(strokes('twoClicks')).toBeGreaterThan(strokes('oneClick'))
  })
  test('edges come first, out to the larger neighbour; both of one gear for the middle of the rub', () => {
    const edges = (listening: AdviceOptions['listening']) =>
      SEEDS.flatMap(seed => moves(listening, seed).flatMap(({ move }) => (move.do === 'edge' ? [move] : [])))
    const share = (listening: AdviceOptions['listening']) => {
      const all = edges(listening)
      return all.filter(e => e.way === 'out').length / Math.max(1, all.length)
    }
    expect(share('findTheEdge')).toBeGreaterThan(share('oneClick') - 0.01)
    const pairs = edges('middleOfTheRub').filter(
      (e, i, all) => all[i + 1]?.click === e.click && all[i + 1]?.way !== e.way,
    )
    expect(pairs.length).toBeGreaterThan(0)
  })
  test('by the first four nothing is done before these were heard as things stand', () => {
    for (const seed of SEEDS) {
      const all = moves('firstFour', seed)
      const end = all.at(-1)!
      // late in one's patience it is let be
      if (end.move.do !== 'done' || end.log.reduce((sum, e) => sum + costOf(e), 0) > 60) continue
      const changed = end.log.findLastIndex(e => e.kind === 'turn' || e.kind === 'edge' || e.kind === 'replace')
      const heard = end.log.slice(changed + 1).flatMap(e => (e.kind === 'shift' ? [e.to] : []))
      expect(heard, `seed ${seed}`).toEqual(expect.arrayContaining([1, 2, 3]))
    }
  })
  test('a school that is not one is refused by its name', () => {
    expect(() => advise(setup, [], { listening: 'ears' as never })).toThrow(/listening must be one of/)
  })
})

describe('how the inner was drawn enters the belief', () => {
  const believed = (takeUpMm?: { from: number; to: number }) =>
    advise(setup, [L(0), H(-0.2), { kind: 'reclamp', barrelTurnsOut: 2, ...(takeUpMm ? { takeUpMm } : {}) }]).offsetMm
  test('a one-click take-up leaves more cable than snug, a trace of preload a little more', () => {
    const snug = believed()
    expect(believed({ from: 0, to: 2.5 }).mean - snug.mean).toBeGreaterThan(0.7)
    expect(believed({ from: 0, to: 0.6 }).mean - snug.mean).toBeGreaterThan(0.1)
    expect(believed({ from: -0.3, to: 0.3 }).mean).toBeCloseTo(snug.mean, 1)
  })
  test('nonsense is refused by its name', () => {
    const drawn = (from: number, to: number) =>
      advise(setup, [{ kind: 'reclamp', barrelTurnsOut: 2, takeUpMm: { from, to } }])
    expect(() => drawn(NaN, 1)).toThrow(/takeUpMm.from/)
    expect(() => drawn(2, 1)).toThrow(/takeUpMm must go/)
  })
})

describe('where the barrel starts, by its school', () => {
  // a barrel at its end and a cable far too slack: a clamp anew is what is left
  const far = { ...setup, barrelTurnsOut: setup.barrelTurnsRange - 0.25 }
  const clamped = (options: AdviceOptions): { move: Move; log: BenchEvent[] } => {
    const bench = simulatedBench(
      far,
      { ...seededBike(1).hidden, ...perfectBike(geometryOf(far)), cableMm: -3.2, worn: new Set() },
      3,
      { ...AS_MODELLED, wrongReports: 0 },
    )
    for (let i = 0; i < 40; i++) {
      const { move } = advise(far, bench.log, options)
      if (move.do === 'reclamp' || move.do === 'done') return { move, log: [...bench.log] }
      bench.perform(move)
    }
    throw new Error('no clamp was advised')
  }
  test('is asked for as long as the window is then within the thread', () => {
    const { move, log } = clamped({})
    expect(move.do).toBe('reclamp')
    const by = (startTurnsOut: number) => advise(far, log, { startTurnsOut }).move
    expect(by(1.5)).toEqual({ do: 'reclamp', barrelTurnsOut: 1.5 })
    // past the middle of the thread is no start
    expect(by(far.barrelTurnsRange)).toEqual(move)
    expect(() => by(-1)).toThrow(/startTurnsOut/)
  })
})

describe('a pass', () => {
  test('is advised only where it may be', () => {
    for (const seed of SEEDS) expect(followed(seed, {}).some(m => m.move.do === 'pass')).toBe(false)
    expect(SEEDS.some(seed => followed(seed, { passes: true }).some(m => m.move.do === 'pass'))).toBe(true)
  })
  test('ends at the first arrival that is not clean', () => {
    const { setup: of, hidden } = seededBike(71)
    const heard = passClicks(simulatedBench(of, { ...hidden, cableMm: hidden.cableMm - 3 }, 1), {
      do: 'pass',
      to: 5,
      back: false,
    })
    expect(heard.slice(0, -1).every(e => e.kind === 'shift' && e.heard === 'clean')).toBe(true)
    expect(heard.at(-1)).not.toMatchObject({ heard: 'clean' })
  })
})

test.each([
  [{ passes: 'yes' }, 'passes'],
  [{ order: 'gapFirst' }, 'order'],
  [{ placing: { H: { from: 0, to: 1 } } }, 'placing.L'],
  [{ placing: { H: { from: NaN, to: 1 }, L: PLACING.L } }, 'placing.H.from'],
  [{ placing: { H: { from: 1, to: 0 }, L: PLACING.L } }, 'placing.H'],
  [{ placing: null }, 'placing.H'],
])('%j is refused by name', (options, name) => {
  expect(() => advise(setup, [], options as never)).toThrow(RangeError)
  expect(() => advise(setup, [], options as never)).toThrow(name)
})

test('the same question has the same answer, whichever options were asked before', () => {
  const log = [L(0), H(0)]
  const plain = advise(setup, log)
  advise(setup, log, { passes: true, order: 'tensionFirst' })
  expect(advise(setup, log)).toEqual(plain)
})
