import type { BenchEvent } from '../rear/benchEvents'
import { describe, expect, test } from 'vitest'
import { perfectBike, setupOfStandard } from '../response/testBikes'
import { geometryOf } from '../response/setup'
import { simulatedBench, type HiddenBike } from '../bench/bench'
import { consider } from './advise'
import { chainMayBeThrown, checksFor, THROWN_LIMIT, worthOf } from './checks'
import type { Move } from './contract'
import { DECIDE } from './decide'
import { sayMove, sayWay } from './moveWords'

const setup = setupOfStandard('r14-11')
const g = geometryOf(setup)
const well: HiddenBike = {
  ...perfectBike(g),
  sharpness: 1,
  asymmetryPitch: 0,
  mmPerTurnH: 1,
  mmPerTurnL: 1,
  worn: new Set(),
}
const L = (offsetMm: number): BenchEvent => ({ kind: 'sight', at: 'L', offsetMm })
const H = (offsetMm: number): BenchEvent => ({ kind: 'sight', at: 'H', offsetMm })
const clean = (to: number): BenchEvent => ({ kind: 'shift', from: Math.max(0, to - 1), to, heard: 'clean' })

/** A log of everything clean and both edges where they should be: as sure as it gets. */
function sureLog(): BenchEvent[] {
  const bench = simulatedBench(setup, well, 3)
  for (const move of [
    { do: 'sight', at: 'L' },
    { do: 'sight', at: 'H' },
    { do: 'edge', click: 1, way: 'out' },
    { do: 'turn', screw: 'barrel', turns: -0.5 },
    { do: 'edge', click: 9, way: 'in' },
    { do: 'turn', screw: 'barrel', turns: 0.5 },
  ] as Move[])
    bench.perform(move)
  for (const to of [2, 4, 6, 8, 9, 7, 5, 3, 1]) bench.perform({ do: 'shift', to })
  return [...bench.log]
}

describe('what comes first', () => {
  test('L, then H, then a stop that is plainly wrong, before anything is listened to', () => {
    expect(consider(setup, []).decision.move).toEqual({ do: 'sight', at: 'L' })
    expect(consider(setup, [L(0)]).decision.move).toEqual({ do: 'sight', at: 'H' })
    const inboard = consider(setup, [L(1.9), H(-0.5)]).decision.move
    expect(inboard).toMatchObject({ do: 'turn', screw: 'L' })
    expect(inboard.do === 'turn' && sayWay(inboard as { screw: 'L'; turns: number })).toBe('in') // inboard of the largest: take travel away
    const outboard = consider(setup, [L(0), H(-4)]).decision.move
    expect(outboard).toMatchObject({ do: 'turn', screw: 'H' })
    expect(outboard.do === 'turn' && outboard.turns).toBeGreaterThan(0)
  })
  test('a stop within its place is left alone', () => {
    expect(consider(setup, [L(0.1), H(-0.85)]).decision.move.do).not.toBe('turn')
  })
})

describe('when to stop', () => {
  test('it says stop only when as sure as it asks for, and then gains nothing by another turn', () => {
    const { decision, analysis } = consider(setup, sureLog())
    if (decision.move.do === 'done') {
      expect(analysis.right).toBeGreaterThanOrEqual(DECIDE.doneLate)
      expect(decision.best.right - analysis.right).toBeLessThanOrEqual(DECIDE.lastTurnGain)
    } else expect(analysis.right).toBeLessThan(DECIDE.doneAt)
  })
  test('patience ends: at the budget it stops whatever is left open', () => {
    const long = [
      L(0),
      H(-0.5),
      ...Array.from(
        { length: DECIDE.budget },
        (_, i) => ({ kind: 'shift', from: 2, to: 2 + (i % 2), heard: i % 3 ? 'slow' : 'clean' }) as BenchEvent,
      ),
    ]
    expect(consider(setup, long).decision.move).toEqual({ do: 'done' })
  })
  test('a turn is never advised twice without a check between', () => {
    const log: BenchEvent[] = [
      L(0),
      H(-0.5),
      { kind: 'shift', from: 0, to: 3, heard: 'none' },
      { kind: 'turn', screw: 'barrel', turns: 0.5 },
    ]
    const { move } = consider(setup, log).decision
    expect(move.do === 'turn' && move.screw === 'barrel').toBe(false)
  })
})

describe('parts', () => {
  test('none is renewed on a first bad answer, and none for the same cause twice', () => {
    for (const heard of ['slow', 'none', 'jumps', 'skips'] as const)
      expect(consider(setup, [L(0), H(-0.5), { kind: 'shift', from: 0, to: 4, heard }]).decision.move.do).not.toBe(
        'replace',
      )
    const sticky = simulatedBench(setup, { ...well, backlashInMm: 0.8, backlashOutMm: 0.8 }, 4)
    let replaced = 0
    for (let i = 0; i < 60; i++) {
      const { move } = consider(setup, [...sticky.log]).decision
      if (move.do === 'done') break
      if (move.do === 'replace' && move.part === 'cable') replaced++
      sticky.perform(move)
    }
    expect(replaced).toBe(1)
  })
  test('a hanger is never renewed before it was gauged', () => {
    const bench = simulatedBench(setup, { ...well, camberTan: 0.05 }, 6)
    for (let i = 0; i < 40; i++) {
      const { move } = consider(setup, [...bench.log]).decision
      if (move.do === 'done') break
      if (move.do === 'replace' && move.part === 'hanger') expect(bench.log.some(e => e.kind === 'hanger')).toBe(true)
      bench.perform(move)
    }
  })
})

describe('checks', () => {
  test('tell no less than nothing, the one that tells most for its cost first', () => {
    const { posterior, analysis } = consider(setup, [L(0), H(-0.5), clean(1)])
    const checks = checksFor(posterior, analysis, 0)
    for (const c of checks) expect(c.tells).toBeGreaterThanOrEqual(0)
    for (let i = 1; i < checks.length; i++) expect(worthOf(checks[i - 1])).toBeGreaterThanOrEqual(worthOf(checks[i]))
  })
  test('none shifts into an end that was not seen, or where a chain may be thrown', () => {
    const unseen = consider(setup, [clean(1)])
    expect(chainMayBeThrown(unseen.posterior, unseen.analysis, 'largest')).toBe(true)
    expect(
      checksFor(unseen.posterior, unseen.analysis, 0).some(c => c.move.do === 'shift' && c.move.to === g.n - 1),
    ).toBe(false)
    // seen, but far past the largest, with the cable tight
    const past = consider(setup, [L(3.2), H(-0.5), { kind: 'shift', from: 0, to: 1, heard: 'jumps' }])
    expect(chainMayBeThrown(past.posterior, past.analysis, 'largest')).toBe(true)
    expect(checksFor(past.posterior, past.analysis, 0).some(c => c.move.do === 'shift' && c.move.to === g.n - 1)).toBe(
      false,
    )
    expect(THROWN_LIMIT).toBe(0.0005)
  })
  test('no edge is looked for where the barrel has no way to go', () => {
    const fullyOut = setupOfStandard('r14-11', 6)
    const { posterior, analysis } = consider(fullyOut, [L(0), H(-0.5)])
    const edges = checksFor(posterior, analysis, 0).flatMap(c => (c.move.do === 'edge' ? [c.move.way] : []))
    expect(edges).toContain('in')
    expect(edges).not.toContain('out')
  })
  test('a gauge tells more once the misfit may slope', () => {
    const tells = (log: BenchEvent[]) => {
      const { posterior, analysis } = consider(setup, log)
      return checksFor(posterior, analysis, 0).find(c => c.move.do === 'hanger')!.tells
    }
    const flat = [L(0), H(-0.5), clean(1), clean(5), clean(9)]
    const sloping: BenchEvent[] = [
      L(0),
      H(-0.5),
      { kind: 'shift', from: 0, to: 1, heard: 'clean' },
      { kind: 'shift', from: 8, to: 9, heard: 'jumps' },
      { kind: 'shift', from: 7, to: 8, heard: 'rubs-in' },
    ]
    expect(tells(sloping)).toBeGreaterThan(tells(flat))
  })
})

describe('words', () => {
  test.each<[Move, string]>([
    [{ do: 'shift', to: 3 }, `Shift to the ${setup.teeth[3]} and listen`],
    [{ do: 'turn', screw: 'barrel', turns: 0.375 }, 'Barrel out 3/8 turn'],
    [{ do: 'turn', screw: 'barrel', turns: -1.25 }, 'Barrel in 1 1/4 turns'],
    [{ do: 'turn', screw: 'H', turns: 0.25 }, 'H screw in 1/4 turn'],
    [{ do: 'turn', screw: 'L', turns: -0.5 }, 'L screw out 1/2 turn'],
    [{ do: 'sight', at: 'L' }, 'See L by hand'],
    [{ do: 'edge', click: 2, way: 'out' }, `On the ${setup.teeth[2]}, wind out to the rub`],
    [{ do: 'hanger' }, 'Gauge the hanger'],
    [{ do: 'reclamp', barrelTurnsOut: 2.5 }, 'Clamp again, barrel 2 1/2 out'],
    [{ do: 'replace', part: 'cable', cause: 'friction' }, 'Renew the cable and housing'],
    [{ do: 'done' }, 'Stop here'],
  ])('%o', (move, words) => {
    expect(sayMove(move, setup.teeth)).toBe(words)
  })
  test('every answer of the advice says why, in one line that ends', () => {
    const bench = simulatedBench(setup, { ...well, cableMm: -0.8 }, 2)
    for (let i = 0; i < 20; i++) {
      const { advice } = consider(setup, [...bench.log])
      expect(advice.why).toMatch(/^[A-Z0-9].+[.]$/)
      expect(advice.why).not.toMatch(/NaN|undefined|Infinity/)
      if (advice.move.do === 'done') break
      bench.perform(advice.move)
    }
  })
})
