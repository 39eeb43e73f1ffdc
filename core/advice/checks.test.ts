import { describe, expect, test } from 'vitest'
import type { BenchEvent } from '../rear/benchEvents'
import { arrivalChances, reportedChance, type Arrival } from '../response/heard'
import { EDGE, HEARING, MEASURE, WORN_SKIPS } from '../response/parameters'
import { errorPitch } from '../response/pulley'
import { geometryOf } from '../response/setup'
import { perfectBike, setupOfStandard } from '../response/testBikes'
import { consider } from './advise'
import type { Analysis, Reading } from './analysis'
import { asPass, chainMayBeThrown, checksFor, passRange, THROWN_LIMIT, worthOf, type Check } from './checks'
import type { Belief, Posterior } from './posterior'

/*
 * What a check tells, asked of a few bikes whose figures are given. Expected values are reckoned another way: as the
 * divergence of Jensen and Shannon, in nats, of what each bike would show (Lin 1991; any handbook), or as ln 2 for two
 * that are told apart for sure.
 */

const setup = setupOfStandard('r14-11') // barrel 3 of 6 turns out
const g = geometryOf(setup)
const last = g.n - 1
const well: Belief = { ...perfectBike(g), sharpness: 1, asymmetryPitch: 0, mmPerTurnH: 1, mmPerTurnL: 1 }
const SEEN: BenchEvent[] = [
  { kind: 'sight', at: 'L', offsetMm: 0 },
  { kind: 'sight', at: 'H', offsetMm: -0.5 },
]
const base = consider(setup, SEEN)
const no = { friction: false, hanger: false, mismatch: false }
/** A bike whose window lies at so many turns out; of no window at all when that is null. */
function bike(middle: number | null, of: Partial<Belief> = {}, atFault: Partial<typeof no> = {}): Reading {
  const window = middle === null ? { from: 1, to: 0 } : { from: middle - 0.5, to: middle + 0.5 }
  return {
    weight: 0,
    belief: { ...well, ...of },
    window,
    span: window,
    stopsSafe: true,
    stopSpoils: false,
    atFault: { ...no, ...atFault },
    needed: no,
    middle: middle ?? 3,
    outside: false,
  }
}
const believing = (bikes: readonly Reading[], over: Partial<Analysis> = {}): Analysis => ({
  ...base.analysis,
  readings: bikes.map(b => ({ ...b, weight: 1 / bikes.length })),
  wear: { any: 0, of: new Array<number>(g.n).fill(0) },
  right: 0.3,
  ...over,
})
const standing = (over: Partial<Posterior['trace']> = {}, more: Partial<Posterior> = {}): Posterior => ({
  ...base.posterior,
  trace: { ...base.posterior.trace, ...over },
  ...more,
})
type Asked = { do: Check['move']['do']; to?: number; click?: number; way?: 'out' | 'in' }
function told(
  bikes: readonly Reading[],
  move: Asked,
  { at = standing(), aim = 0, over = {} as Partial<Analysis> } = {},
) {
  const eighths = [{ turns: at.trace.barrelTurns, right: 0.3 }]
  const found = checksFor(at, believing(bikes, { eighths, ...over }), aim).find(c =>
    Object.entries(move).every(([k, v]) => (c.move as Record<string, unknown>)[k] === v),
  )
  return found ? found.tells : null
}
const entropy = (p: readonly number[]) => -p.reduce((s, x) => (x > 0 ? s + x * Math.log(x) : s), 0)
/** Divergence of rows of chances as likely as each other; each is brought to a sum of 1 together with the others. */
function divergence(rows: readonly number[][], shares = rows.map(() => 1 / rows.length)): number {
  const joint = rows.map((row, i) => row.map(x => x * shares[i]!))
  const all = joint.flat().reduce((s, x) => s + x, 0)
  const column = joint[0]!.map((_, j) => joint.reduce((s, row) => s + row[j]!, 0) / all)
  const kinds = joint.map(row => row.reduce((s, x) => s + x, 0) / all)
  return entropy(column) + entropy(kinds) - entropy(joint.flat().map(x => x / all))
}
/** What is reported of a bike's arrival, but skips and thrown chains. */
const shown = (b: Partial<Belief>, to: number, arrival: Arrival, ear = 0.05): number[] => {
  const of = { ...well, ...b }
  const z = errorPitch(g, of, to, arrival.inward) - of.asymmetryPitch
  const { off: _off, skips: _skips, ...chances } = arrivalChances(z, arrival, of.sharpness)
  return Object.values(chances).map(c => reportedChance(c, ear))
}
const inner: Arrival = { end: null, inward: true, alreadyThere: false }

describe('a shift', () => {
  const slack = { cableMm: -0.5 }
  const tight = { cableMm: 0.25 }
  const two = [bike(3.6, slack), bike(2.7, tight)]
  test('tells what its outcomes tell apart, by the bikes’ errors there', () => {
    for (const to of [1, 4, 7])
      expect(told(two, { do: 'shift', to })).toBeCloseTo(
        divergence([shown(slack, to, inner), shown(tight, to, inner)]),
        2,
      )
    expect(told([bike(3.6, slack), bike(2.7, slack)], { do: 'shift', to: 4 })).toBeCloseTo(0, 6)
  })
  test('arrives outward from beyond, and at an end as ends do', () => {
    const at = standing({ lever: 5, chain: 5, lastInward: true })
    const out: Arrival = { end: null, inward: false, alreadyThere: false }
    expect(told(two, { do: 'shift', to: 3 }, { at })).toBeCloseTo(
      divergence([shown(slack, 3, out), shown(tight, 3, out)]),
      2,
    )
    const largest: Arrival = { end: 'largest', inward: true, alreadyThere: false }
    expect(told(two, { do: 'shift', to: last }, { at })).toBeCloseTo(
      divergence([shown(slack, last, largest), shown(tight, last, largest)]),
      2,
    )
    const held = { stopHMm: 0.2 }
    const smallest: Arrival = { end: 'smallest', inward: false, alreadyThere: false }
    expect(told([bike(3.6, held), bike(2.7)], { do: 'shift', to: 0 }, { at })).toBeCloseTo(
      divergence([shown(held, 0, smallest), shown({}, 0, smallest)]),
      2,
    )
  })
  test('is judged as many turns on as the barrel is to go', () => {
    const on = (of: { cableMm: number }) => ({ cableMm: of.cableMm + 0.5 * g.threadMm })
    expect(told(two, { do: 'shift', to: 4 }, { aim: 0.5 })).toBeCloseTo(
      divergence([shown(on(slack), 4, inner), shown(on(tight), 4, inner)]),
      2,
    )
  })
  test('counts sharpness, asymmetry, friction and both stops', () => {
    const ways: Partial<Belief>[] = [
      { sharpness: 0.7 },
      { asymmetryPitch: 0.15 },
      { backlashInMm: 0.9 },
      { stopLMm: g.placeMm[4]! - 0.8 },
      { stopHMm: g.placeMm[4]! + 0.8 },
    ]
    for (const way of ways)
      expect(told([bike(3.6, way), bike(2.7)], { do: 'shift', to: 4 }), JSON.stringify(way)).toBeCloseTo(
        divergence([shown(way, 4, inner), shown({}, 4, inner)]),
        2,
      )
    const at = standing({ lever: 5, chain: 5 })
    const out: Arrival = { end: null, inward: false, alreadyThere: false }
    const stiff = { backlashOutMm: 0.9 }
    expect(told([bike(3.6, stiff), bike(2.7)], { do: 'shift', to: 4 }, { at })).toBeCloseTo(
      divergence([shown(stiff, 4, out), shown({}, 4, out)]),
      2,
    )
  })
  test('a poor ear is told less by it', () => {
    const poor = standing({}, { ear: 0.17 })
    const by = divergence([shown(slack, 4, inner, 0.17), shown(tight, 4, inner, 0.17)])
    expect(told(two, { do: 'shift', to: 4 }, { at: poor })).toBeCloseTo(by, 2)
    expect(by).toBeLessThan(told(two, { do: 'shift', to: 4 })!)
  })
  test('finds worn teeth by their skips, as likely as the sprocket is to be worn', () => {
    const of = new Array<number>(g.n).fill(0)
    of[4] = 0.2
    of[5] = 0.3
    const one = [bike(3)]
    const shares = [0.5, 0.5]
    const clean = shown({}, 4, inner)
    const skipping = (here: number) => [...clean.map(c => c * (1 - here * WORN_SKIPS)), here * WORN_SKIPS]
    for (const [to, here] of [
      [4, 0.4],
      [5, 0.6],
    ] as const)
      expect(told(one, { do: 'shift', to }, { over: { wear: { any: 0.5, of } } })).toBeCloseTo(
        divergence([[...shown({}, to, inner), 0], skipping(here)], shares),
        2,
      )
    // one that cannot be worn tells nothing of it
    expect(told(one, { do: 'shift', to: 7 }, { over: { wear: { any: 0.5, of } } })).toBeCloseTo(0, 2)
  })
})

describe('bikes count as different where something else would be done', () => {
  const far = { camberTan: Math.tan((4 * Math.PI) / 180) } // a gauge tells it from a straight one for sure
  const apart = (a: Reading, b: Reading) => told([a, b], { do: 'hanger' })!
  test('places of the barrel that lie apart, and not those beside each other', () => {
    expect(apart(bike(2), bike(4, far))).toBeCloseTo(Math.LN2, 3)
    expect(apart(bike(3), bike(3.02, far))).toBeCloseTo(0, 3)
  })
  test('without any window: by what alone is at fault, more than one, or none of these', () => {
    const kinds = [{ friction: true }, { hanger: true }, { mismatch: true }, { friction: true, hanger: true }, {}]
    kinds.forEach((a, i) =>
      kinds.forEach((b, j) => {
        expect(apart(bike(null, {}, a), bike(null, far, b)), `${i} ${j}`).toBeCloseTo(i === j ? 0 : Math.LN2, 3)
      }),
    )
    expect(
      apart(bike(null, {}, { friction: true, mismatch: true }), bike(null, far, { friction: true, hanger: true })),
    ).toBeCloseTo(0, 3)
    expect(apart(bike(3), bike(null, far))).toBeCloseTo(Math.LN2, 3)
  })
  test('seven places between the outermost, the rest beyond them: of many bikes on a line seven kinds are told', () => {
    // gauged for sure: each bike a camber of its own, so that what is told is the entropy of the kinds
    const many = Array.from({ length: 140 }, (_, i) =>
      bike((i * 6) / 140, { camberTan: Math.tan((((i - 70) * 0.95) / 70 / 180) * Math.PI) }),
    )
    const shares = told(many, { do: 'hanger' })!
    expect(shares).toBeGreaterThan(Math.log(4)) // a gauge blurs their borders
    expect(shares).toBeLessThan(Math.log(7))
  })
})

describe('a measurement', () => {
  /** Divergence of two bell curves so many spreads apart, by summing small steps. */
  const bells = (spreads: number) => {
    const bell = (x: number) => Math.exp(-0.5 * x * x) / Math.sqrt(2 * Math.PI)
    let sum = 0
    for (let x = -8; x < 8 + spreads; x += 0.01) {
      const [p, q] = [bell(x), bell(x - spreads)]
      const m = (p + q) / 2
      if (p > 0) sum += 0.005 * p * Math.log(p / m)
      if (q > 0) sum += 0.005 * q * Math.log(q / m)
    }
    return sum
  }
  test('of the hanger tells two apart by its own spread, whichever way they differ', () => {
    for (const spreads of [0, 1, 2, 4, 8])
      for (const way of [1, -1]) {
        const bent = { camberTan: Math.tan((way * spreads * MEASURE.hangerSdDeg * Math.PI) / 180) }
        expect(Math.abs(told([bike(2), bike(4, bent)], { do: 'hanger' })! - bells(spreads)), `${spreads}`).toBeLessThan(
          0.05,
        )
      }
  })
  test('of the pulley’s offset at the second, the middle and the last gear but one, arriving inward', () => {
    const offsets = checksFor(standing(), believing([bike(3)]), 0).flatMap(c =>
      c.move.do === 'offset' ? [c.move.click] : [],
    )
    expect(offsets.sort((a, b) => a - b)).toEqual([1, 5, last - 1])
    const apartMm = 2 * MEASURE.offsetSdMm
    const by = (b: Partial<Belief>) => told([bike(2), bike(4, b)], { do: 'offset', click: 5 })!
    expect(Math.abs(by({ cableMm: apartMm / g.fittedRatio }) - bells(2))).toBeLessThan(0.05)
    expect(Math.abs(by({ backlashInMm: well.backlashInMm + apartMm }) - bells(2))).toBeLessThan(0.05)
    expect(by({ backlashOutMm: 1.5 })).toBeCloseTo(0, 6)
    // bikes that differ only where the cable already ends: at the second gear they stand alike
    const steep = { ratio: g.fittedRatio * 1.05, cableMm: 0 }
    expect(told([bike(2), bike(4, steep)], { do: 'offset', click: 1 })!).toBeLessThan(by(steep))
  })
})

describe('an edge', () => {
  const perTurn = g.fittedRatio * g.threadMm
  /** A bike whose first rub outward in the middle gear is so many turns away, the notice included. */
  const rubIn = (turns: number, more: Partial<Belief> = {}): Partial<Belief> => {
    const place = g.placeMm[5]! + HEARING.rub * g.pitchMm[5]! + well.backlashInMm - (turns - EDGE.lateTurns) * perTurn
    return { cableMm: place / g.fittedRatio - g.cableMm[5]!, ...more }
  }
  const edge = (a: Partial<Belief>, b: Partial<Belief>, at = standing(), click = 5, way: 'out' | 'in' = 'out') =>
    told([bike(at.trace.barrelTurns - 1, a), bike(at.trace.barrelTurns + 1, b)], { do: 'edge', click, way }, { at })
  test('tells two apart that rub at different turns, and none that rub together or not at all', () => {
    expect(edge(rubIn(0.5), rubIn(1.5))).toBeCloseTo(Math.LN2, 2)
    expect(edge(rubIn(0.5), rubIn(0.5))).toBeCloseTo(0, 6)
    expect(edge(rubIn(2.6), rubIn(3))).toBeCloseTo(0, 3)
    expect(edge(rubIn(1.5), rubIn(3))).toBeCloseTo(Math.LN2, 2)
    // rubbing from the start: both are noticed at no turn
    expect(edge(rubIn(-0.5), rubIn(-1))).toBeCloseTo(0, 3)
    expect(edge(rubIn(-0.5), rubIn(0.5))).toBeCloseTo(Math.LN2, 2)
    // a little apart tells a little
    const little = edge(rubIn(0.75), rubIn(0.75 + EDGE.sdTurns))!
    expect(little).toBeGreaterThan(0.03)
    expect(little).toBeLessThan(0.25)
  })
  test('lies where the ear hears a rub: by sharpness and asymmetry, past the friction of the way taken', () => {
    // what moves the rub by a quarter turn and more, with the cable as it was
    const quarter = (0.4 * perTurn) / g.pitchMm[5]!
    expect(edge(rubIn(0.6), rubIn(0.6, { asymmetryPitch: quarter }))).toBeGreaterThan(0.5)
    expect(edge(rubIn(0.6), rubIn(0.6, { sharpness: 1 + quarter / HEARING.rub }))).toBeGreaterThan(0.5)
    expect(edge(rubIn(0.6), rubIn(0.6, { backlashInMm: well.backlashInMm + 0.4 * perTurn }))).toBeGreaterThan(0.5)
    // wound out, friction of the other way is not met
    expect(edge(rubIn(0.6), rubIn(0.6, { backlashOutMm: 1 }))).toBeCloseTo(0, 6)
    // wound in, the pulley first sits until the slack of both ways is taken up
    const inwardRub = (more: Partial<Belief> = {}): Partial<Belief> => ({ cableMm: 0.1, ...more })
    expect(
      edge(inwardRub(), inwardRub({ backlashOutMm: well.backlashOutMm + 0.5 * perTurn }), standing(), 5, 'in'),
    ).toBeGreaterThan(0.5)
    expect(edge(inwardRub(), inwardRub({ asymmetryPitch: -2 * quarter }), standing(), 5, 'in')).toBeGreaterThan(0.5)
  })
  test('is looked for in every inner gear, as far as two turns or the thread allow', () => {
    const of = (barrelTurns: number) =>
      checksFor(standing({ barrelTurns }), believing([bike(3)]), 0).flatMap(c => (c.move.do === 'edge' ? [c.move] : []))
    expect(of(3).map(m => m.click)).toEqual(expect.arrayContaining([1, last - 1]))
    expect(of(3)).toHaveLength(2 * (g.n - 2))
    expect(of(0).every(m => m.way === 'out')).toBe(true)
    expect(of(6).every(m => m.way === 'in')).toBe(true)
    expect(of(1 / 16)).toHaveLength(g.n - 2)
    expect(of(1 / 8)).toHaveLength(2 * (g.n - 2))
    // half a turn left: a rub at one turn is never come to
    const nearlyOut = standing({ barrelTurns: 5.5 })
    expect(edge(rubIn(1), rubIn(1.6), nearlyOut)).toBeCloseTo(0, 3)
    expect(edge(rubIn(0.25), rubIn(1.6), nearlyOut)).toBeGreaterThan(0.6)
  })
  test('costs the way back where the barrel stands well and is to stay', () => {
    const cost = (right: number, aim: number) =>
      checksFor(standing(), believing([bike(3)], { right }), aim).find(c => c.move.do === 'edge')!.cost
    expect([cost(0.51, 0), cost(0.5, 0), cost(0.9, 0.25)]).toEqual([3, 2, 2])
  })
})

describe('what is told apart', () => {
  const slack = { cableMm: -0.5 }
  const tight = { cableMm: 0.25 }
  /** Of two bikes that sound unlike each other, so much is told. */
  const shift = (a: Reading, b: Reading, eighths = [{ turns: 3, right: 0.3 }]) =>
    told([a, b], { do: 'shift', to: 4 }, { over: { eighths } })!
  test('is whether the best setting lies in the window and how far from it, not where in the window it lies', () => {
    expect(shift(bike(2.7, slack), bike(3.3, tight))).toBeCloseTo(0, 6)
    expect(shift(bike(2.7, slack), bike(3.6, tight))).toBeGreaterThan(0.1)
    expect(shift(bike(3, slack), bike(4.5, tight))).toBeGreaterThan(0.1)
    // beyond either edge: which way to go
    expect(shift(bike(2, slack), bike(4, tight))).toBeGreaterThan(0.1)
    // the best setting there is, wherever the barrel stands
    const two = [
      { turns: 3, right: 0.3 },
      { turns: 4, right: 0.4 },
    ]
    expect(shift(bike(3.6, slack), bike(4.4, tight), two)).toBeCloseTo(0, 6)
    expect(shift(bike(3.6, slack), bike(4.4, tight))).toBeGreaterThan(0.1)
  })
  test('and there, whether the stops are well', () => {
    for (const wrong of [{ stopsSafe: false }, { stopSpoils: true }])
      expect(shift(bike(3, slack), { ...bike(3, tight), ...wrong })).toBeGreaterThan(0.1)
    // where the barrel is to go elsewhere anyway that comes later
    expect(shift(bike(4, slack), { ...bike(4, tight), stopsSafe: false })).toBeCloseTo(0, 6)
  })
  test('with no window anywhere, what keeps it from having one', () => {
    const friction = { friction: true }
    expect(shift(bike(null, slack, friction), bike(null, tight, friction))).toBeCloseTo(0, 6)
    expect(shift(bike(null, slack, friction), bike(null, tight, { hanger: true }))).toBeGreaterThan(0.1)
  })
})

test('the one that is worth most for its cost comes first; a shift is worth a little more than it is reckoned to tell', () => {
  const checks = checksFor(standing(), believing([bike(2, { cableMm: 0.7 }), bike(4, { cableMm: -0.7 })]), 0)
  const worths = checks.map(worthOf)
  expect(worths).toEqual([...worths].sort((a, b) => b - a))
  for (const c of checks) {
    const more = worthOf(c) - c.tells / c.cost
    if (c.move.do === 'shift') expect(more).toBeGreaterThan(0)
    else expect(more).toBe(0)
  }
  const { hanger, shift, offset } = Object.fromEntries(checks.map(c => [c.move.do, c.cost]))
  expect({ hanger, shift, offset }).toEqual({ hanger: 4, shift: 1, offset: 2 })
})

describe('where the chain may go', () => {
  const past = bike(3, { stopLMm: g.placeMm[last]! + 3, cableMm: 2 })
  test('not to an end unseen, nor where it may be thrown', () => {
    const sound = believing([bike(3)])
    expect(passRange(standing(), sound)).toEqual({ from: 0, to: last })
    expect(passRange(standing({ seenL: false }), sound)).toEqual({ from: 0, to: last - 1 })
    expect(passRange(standing({ seenH: false }), sound)).toEqual({ from: 1, to: last })
    expect(chainMayBeThrown(standing(), believing([past]), 'largest')).toBe(true)
    expect(chainMayBeThrown(standing(), believing([past]), 'smallest')).toBe(false)
    const outside = bike(3, { stopHMm: -3, cableMm: -3 })
    expect(passRange(standing(), believing([outside]))).toEqual({ from: 1, to: last })
    const shifts = (a: Analysis, at = standing()) =>
      checksFor(at, a, 0).flatMap(c => (c.move.do === 'shift' ? [c.move.to] : []))
    expect(shifts(sound).sort((a, b) => a - b)).toEqual(Array.from({ length: g.n }, (_, k) => k))
    expect(shifts(believing([past]))).not.toContain(last)
    expect(shifts(believing([past]))).toContain(0)
    expect(shifts(believing([outside]))).not.toContain(0)
    expect(shifts(sound, standing({ seenH: false }))).not.toContain(0)
  })
  test('one bike among thousands does not shut it, and more do', () => {
    const some = (share: number) => {
      const a = believing([bike(3), past])
      return { ...a, readings: a.readings.map((r, i) => ({ ...r, weight: i ? share : 1 - share })) }
    }
    expect(chainMayBeThrown(standing(), some(THROWN_LIMIT / 2), 'largest')).toBe(false)
    expect(chainMayBeThrown(standing(), some(THROWN_LIMIT * 2), 'largest')).toBe(true)
  })
  test('a shift that tells becomes a pass to the end of its way and back; back only where that is safe', () => {
    const sound = believing([bike(3)])
    const at = (lever: number, more: object = {}) => standing({ lever, chain: lever, ...more })
    const pass = (to: number, posterior: Posterior, analysis = sound) =>
      asPass({ do: 'shift', to }, posterior, analysis)
    expect(pass(5, at(3))).toEqual({ do: 'pass', to: last, back: true })
    expect(pass(1, at(3))).toEqual({ do: 'pass', to: 0, back: true })
    expect(pass(5, at(3, { seenL: false }))).toEqual({ do: 'pass', to: last - 1, back: true })
    expect(pass(1, at(3, { seenH: false }))).toEqual({ do: 'pass', to: 1, back: true })
    expect(pass(4, at(0, { seenH: false }))).toEqual({ do: 'pass', to: last, back: false })
    expect(pass(4, at(last, { seenL: false }))).toEqual({ do: 'pass', to: 0, back: false })
    // the same gear again, or nowhere further to go: as it was
    expect(pass(3, at(3))).toEqual({ do: 'shift', to: 3 })
    expect(pass(last, at(last - 1, { seenL: false }))).toEqual({ do: 'shift', to: last })
  })
})
