import { Bezier } from 'bezier-js'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { setupOfStandard } from '../response/testBikes'
import { NEW_CABLE } from '../response/parameters'
import { againstHeard, backlashMm, backlashOfRun, oneBendLess, remedies, windowTurnsWith } from './backlash'
import { HOUSINGS, housingRefused, leastRadiusMm, RUNS, usualHousing } from './housing'
import { armTurnDeg, SuspensionLoop, suspensionGeometry, USUAL_SUSPENSION_LOOP } from './suspensionLoop'
import {
  apartMm,
  judgeLoop,
  loopAt,
  loopLengthMm,
  restingLoop,
  steeringAxis,
  turnAbout,
  type LoopGeometry,
  type Vec,
} from './loop'
import { Run, type Run as RunOf } from './run'
import { frictionAngle, lossAlong, MU, pullAtClamp } from './friction'
import { runGivesMm, runStiffness, SPRING_PULL_N, wireGivesMm, wireStiffness } from './stretch'
import { givesOf, innerLiesMm, innerNeededMm, innerToTake, stretches, usualBeyond, wireMm } from './wire'
import { piecesToCut, runsCut, type LaidOut } from './wanted'
import { smallParts } from './smallParts'
import { RUN_TEMPLATES, templateRun } from './templates'
import { BarLoop, leverSideOf, loopEndOf, loopGeometry, USUAL_BAR_LOOP } from './barLoop'

describe('stretch', () => {
  // Hooke with the strand's figures, from memory: 93 N/mm for a metre; 3.2 m gives 1.4 mm at 40 N, a brake wire 5.6 mm
  // at 300 N
  test('a metre of shift wire, and what a long bike loses', () => {
    expect(wireStiffness(1000, 'shift')).toBeCloseTo(92.3, 1)
    expect(wireGivesMm(3200, 'shift', 40)).toBeCloseTo(1.4, 1)
    expect(wireGivesMm(3200, 'brake', 300)).toBeCloseTo(5.6, 1)
    // housing and stops give as much again, over their own length and no more: hand sums
    expect(runGivesMm({ wireMm: 3200, housingMm: 3200 }, 'brake', 300)).toBeCloseTo(
      2 * wireGivesMm(3200, 'brake', 300),
      9,
    )
    expect(runGivesMm({ wireMm: 3000, housingMm: 800 }, 'shift', 40)).toBeCloseTo(
      (40 * (3000 + 800)) / (130_000 * 0.71),
      9,
    )
    expect(runGivesMm({ wireMm: 3000, housingMm: 0 }, 'shift', 40)).toBeCloseTo(wireGivesMm(3000, 'shift', 40), 12)
    expect(() => runStiffness({ wireMm: 100, housingMm: 200 }, 'shift')).toThrow(/housingMm/)
  })
  test.each([[0], [-5], [NaN]])('a wire of %f mm is refused', mm => {
    expect(() => wireStiffness(mm, 'shift')).toThrow(/lengthMm/)
  })
})

describe('housing', () => {
  // common practice, no source: shift housing can burst under a brake
  test.each(HOUSINGS.filter(h => h.startsWith('shift')))('%s never carries a brake', of => {
    expect(housingRefused('front-brake', of)).toMatch(/burst/)
    expect(housingRefused('rear-brake', of)).toMatch(/burst/)
    expect(housingRefused('rear', of)).toBeNull()
  })
  test('compressionless only where it is rated, and the usual one is never refused', () => {
    expect(housingRefused('rear-brake', 'compressionless')).toMatch(/not rated/)
    expect(housingRefused('rear-brake', 'compressionless, rated for brakes')).toBeNull()
    for (const run of RUNS) expect(housingRefused(run, usualHousing(run))).toBeNull()
  })
})

const rear: RunOf = {
  run: 'rear',
  condition: 'used',
  tailMm: 40,
  pieces: [
    { kind: 'housing', name: 'lever loop', lengthMm: 420, of: 'shift 4 mm', bends: [{ deg: 90, radiusMm: 90 }] },
    { kind: 'bare', name: 'down tube', lengthMm: 560 },
    { kind: 'guide', name: 'bracket guide', bend: { deg: 75, radiusMm: 60 } },
    { kind: 'bare', name: 'chainstay', lengthMm: 380 },
    { kind: 'housing', name: 'last loop', lengthMm: 290, of: 'shift 4 mm', bends: [{ deg: 150, radiusMm: 45 }] },
  ],
}

describe('a run', () => {
  test('loses pull at every bend by the capstan equation, more where it is too tight', () => {
    const losses = lossAlong(rear)
    expect(losses.map(l => [l.piece, l.tight])).toEqual([
      ['lever loop', false],
      ['bracket guide', false],
      ['last loop', true],
    ])
    expect(losses[0].after).toBeCloseTo(Math.exp((-MU.used * Math.PI) / 2), 9)
    expect(losses[2].after / losses[2].before).toBeCloseTo(Math.exp((-1.5 * MU.used * 150 * Math.PI) / 180), 9)
    expect(pullAtClamp(rear)).toBe(losses[2].after)
  })
  test('its wire, its inner, its small parts', () => {
    expect(wireMm(rear)).toBeCloseTo(420 + 560 + 380 + 290 + (60 * 75 * Math.PI) / 180, 6)
    // hand sum: 80 in the lever, 1,729 of run, 55 from the stop to the bolt, 40 of tail
    expect(innerLiesMm(rear)).toBeCloseTo(80 + wireMm(rear) + 55, 9)
    expect(innerNeededMm(rear)).toBe(1910)
    expect(innerToTake(rear)).toBe(2100)
    expect(innerToTake({ ...rear, pieces: [{ kind: 'bare', name: 'x', lengthMm: 3400 }, rear.pieces[0]] })).toBeNull() // never two joined
    expect(smallParts(rear)).toEqual({ ferrules: 4, inners: 1, caps: 1, noodles: 0 })
    const measured = { ...rear, beyond: { leverMm: 100, boltMm: 70 }, tailMm: 0 }
    expect(innerNeededMm(measured)).toBe(Math.ceil((wireMm(rear) + 170) / 10) * 10)
    expect(smallParts(measured).caps).toBe(0)
    const bare = {
      ...rear,
      pieces: rear.pieces.map(x => (x.name === 'last loop' ? { ...x, bare: ['to' as const] } : x)),
    } as RunOf
    expect(smallParts(bare).ferrules).toBe(3)
  })
  test('a long-john rear of 2,954 mm of run needs about 3,130 of inner', () => {
    const long = templateRun('long', 'rear')
    expect(wireMm(long)).toBeCloseTo(2954, 0)
    expect(innerNeededMm(long)).toBe(3130)
    expect(innerToTake(long)).toBe(3500)
  })
  test("a brake's inner by what it is clamped to: through the noodle and across the arms it is longest; unknown is taken as that", () => {
    const run = templateRun('external', 'rear-brake')
    const needs = (['linear-pull', 'dual-pivot', 'cable-disc'] as const).map(k => innerNeededMm(run, k))
    expect(needs[0]).toBeGreaterThan(needs[1]!)
    expect(needs[1]).toBeGreaterThan(needs[2]!)
    expect(innerNeededMm(run)).toBe(needs[0])
    expect(smallParts(run, 'linear-pull').noodles).toBe(1)
    expect(smallParts(run, 'dual-pivot').noodles).toBe(0)
    expect(usualBeyond('rear-brake').boltMm).toBe(usualBeyond('rear-brake', 'linear-pull').boltMm)
  })
  test.each([
    [
      'two of one name',
      { ...rear, pieces: [rear.pieces[0], { ...rear.pieces[4], name: 'Lever loop' }] },
      'Two pieces are called',
    ],
    ['no housing', { ...rear, pieces: [rear.pieces[1]] }, 'at least one piece of housing'],
    ['shift housing on a brake', { ...rear, run: 'front-brake' }, 'burst'],
    ['a piece of nothing', { ...rear, pieces: [{ ...rear.pieces[0], lengthMm: 0 }] }, 'at least 1 mm'],
    ['no pieces', { ...rear, pieces: [] }, 'at least one piece'],
    [
      'a bend backwards',
      { ...rear, pieces: [{ ...rear.pieces[0], bends: [{ deg: -20, radiusMm: 60 }] }] },
      'at least 0',
    ],
  ])('refuses %s', (_, run, words) => {
    const read = Run.safeParse(run)
    expect(read.success).toBe(false)
    expect(read.error?.issues.map(i => i.message).join()).toContain(words)
  })
  test.each(RUN_TEMPLATES.flatMap(t => t.runs.map(r => [`${t.id} ${r.run}`, t.id, r.run] as const)))(
    'template %s is a run, bends no tighter than it may',
    (_, id, name) => {
      const run = Run.parse(templateRun(id, name))
      for (const loss of lossAlong(run)) expect(loss.radiusMm, loss.piece).toBeGreaterThanOrEqual(leastRadiusMm(name))
    },
  )
})

describe('backlash of a run', () => {
  test('of one piece of housing with its bends over it is the formula; bare wire by hand', () => {
    const whole: RunOf = {
      run: 'rear',
      condition: 'dirty',
      tailMm: 40,
      beyond: { leverMm: 0, boltMm: 0 },
      pieces: [{ kind: 'housing', name: 'x', lengthMm: 1700, of: 'shift 4 mm', bends: [{ deg: 200, radiusMm: 80 }] }],
    }
    const k = runStiffness({ wireMm: 1700, housingMm: 1700 }, 'shift')
    expect(backlashOfRun(whole, 1.7)).toBeCloseTo(
      backlashMm({ ratio: 1.7, pullN: SPRING_PULL_N, stiffness: k, frictionAngle: frictionAngle(whole) }),
      9,
    )
    // a last loop with its bend at the derailleur, then 2 m of bare wire: the wire feels the whole bend and gives as
    // wire only
    const last = { ...whole.pieces[0], name: 'last', lengthMm: 300 } as RunOf['pieces'][number]
    const part = { ...whole, pieces: [{ kind: 'bare' as const, name: 'bare', lengthMm: 2000 }, last] }
    const a = 0.2 * ((200 * Math.PI) / 180)
    const perMm = SPRING_PULL_N / (130_000 * 0.71)
    const hand = perMm * (600 * 2 * ((Math.cosh(a) - 1) / a) + 2000 * 2 * Math.sinh(a))
    expect(backlashOfRun(part, 1.7)).toBeCloseTo(1.7 * hand, 9)
    // the other way round the bare wire is pulled against the spring alone
    expect(backlashOfRun({ ...part, pieces: [last, part.pieces[0]!] }, 1.7)).toBeCloseTo(
      1.7 * perMm * 600 * 2 * ((Math.cosh(a) - 1) / a),
      9,
    )
    expect(stretches(part).map(s => [s.wireMm, s.housingMm])).toEqual([
      [0, 0],
      [300, 300],
      [2000, 0],
      [0, 0],
    ])
    expect(() => backlashOfRun(part, 0)).toThrow(/ratio/)
  })
  test.each(RUN_TEMPLATES.map(t => [t.id]))('new, %s has a clean window', id => {
    const run: RunOf = { ...templateRun(id, 'rear'), condition: 'new' }
    for (const [standard, ratio] of [
      ['r14-11', 1.4],
      ['r17-10', 1.7],
    ] as const)
      expect(windowTurnsWith(setupOfStandard(standard), ratio, backlashOfRun(run, ratio))).toBeGreaterThan(1 / 16)
  })
})

describe('templates', () => {
  test.each(RUN_TEMPLATES.map(t => [t.id, t] as const))('%s has every run of a bike', (_, t) => {
    expect(t.runs.map(r => r.run)).toEqual([...RUNS])
  })
})

describe('backlash', () => {
  test('is the stretch between pulling in and letting out, integrated along the run (Simpson, in the test)', () => {
    for (const a of [0.05, 0.3, 1, 2.2]) {
      const n = 400
      const simpson = (f: (x: number) => number) => {
        let s = f(0) + f(1)
        for (let i = 1; i < n; i++) s += (i % 2 ? 4 : 2) * f(i / n)
        return s / (3 * n)
      }
      // tension along the run as the wire slides one way and the other, from the spring's pull at the derailleur
      const between = simpson(x => Math.exp(a * x)) - simpson(x => Math.exp(-a * x))
      expect(backlashMm({ ratio: 1.7, pullN: 20, stiffness: 25, frictionAngle: a })).toBeCloseTo(
        1.7 * (20 / 25) * between,
        8,
      )
    }
    expect(backlashMm({ ratio: 1.7, pullN: 20, stiffness: 25, frictionAngle: 0 })).toBe(0)
    expect(backlashMm({ ratio: 1.7, pullN: 20, stiffness: 25, frictionAngle: 1e-6 })).toBeCloseTo(1.7 * 0.8 * 1e-6, 12)
    expect(backlashMm({ ratio: 1.7, pullN: 20, stiffness: 25, frictionAngle: 0, dragN: 5 })).toBeCloseTo(1.7 * 0.2, 9)
  })
  test('of a usual new run is about what a new cable has in the model; a gritty one is clearly high (0.6 to 1.4 mm and over)', () => {
    const usual = {
      ...rear,
      pieces: rear.pieces.map(p =>
        p.name === 'last loop' && p.kind === 'housing' ? { ...p, bends: [{ deg: 150, radiusMm: 60 }] } : p,
      ),
    }
    expect(backlashOfRun({ ...usual, condition: 'new' }, 1.4)).toBeGreaterThan(NEW_CABLE.backlashMm / 2)
    expect(backlashOfRun({ ...usual, condition: 'new' }, 1.4)).toBeLessThan(NEW_CABLE.backlashMm * 2)
    expect(backlashOfRun({ ...usual, condition: 'gritty' }, 1.4)).toBeGreaterThan(0.6)
  })
  test('narrows the clean window, and each remedy widens it', () => {
    const setup = setupOfStandard('r14-11')
    const at = (run: RunOf) => windowTurnsWith(setup, 1.385, backlashOfRun(run, 1.385))
    const dirty: RunOf = { ...rear, condition: 'dirty' }
    expect(at(dirty)).toBeLessThan(at(rear))
    const found = remedies(dirty, leastRadiusMm('rear'))
    expect(found.map(r => r.what)).toEqual(['New wire and liner', 'Tight bends opened', 'One bend of 150° less'])
    for (const r of found) expect(at(r.run), r.what).toBeGreaterThan(at(dirty))
    // what was opened is as open as is asked and what was wider stays; nothing else of the run is touched
    const opened = remedies({ ...dirty, condition: 'new' }, 80).find(r => r.what === 'Tight bends opened')!
    const radii = (run: RunOf) => run.pieces.flatMap(p => (p.kind === 'housing' ? p.bends.map(b => b.radiusMm) : []))
    expect(radii(opened.run)).toEqual(radii(dirty).map(r => Math.max(80, r)))
    expect(opened.run.pieces.map(p => p.name)).toEqual(dirty.pieces.map(p => p.name))
    const tightest = Math.min(...radii(dirty))
    expect(remedies({ ...dirty, condition: 'new' }, tightest).map(r => r.what)).not.toContain('Tight bends opened')
    expect(
      remedies(
        {
          ...rear,
          condition: 'new',
          pieces: [{ kind: 'housing', name: 'x', lengthMm: 300, of: 'shift 4 mm', bends: [] }],
        },
        50,
      ),
    ).toEqual([])
  })
})

/** ∫ κ² ds of a polyline: turning angle squared over the mean link, node by node. */
function bendingOf(points: readonly Vec[]): number {
  let sum = 0
  for (let i = 1; i < points.length - 1; i++) {
    const a = points[i].map((x, k) => x - points[i - 1][k])
    const b = points[i + 1].map((x, k) => x - points[i][k])
    const [la, lb] = [Math.hypot(...a), Math.hypot(...b)]
    const angle = Math.acos(Math.min(1, Math.max(-1, (a[0] * b[0] + a[1] * b[1] + a[2] * b[2]) / (la * lb))))
    sum += angle ** 2 / ((la + lb) / 2)
  }
  return sum
}

const loop: LoopGeometry = {
  movingAt: [60, 210, 90],
  movingWay: [1, -0.35, -0.1],
  fixedAt: [-70, 22, -60],
  fixedWay: [-0.75, -0.2, -0.65],
  axis: steeringAxis(72),
  poses: [
    { name: 'straight', deg: 0 },
    { name: 'left', deg: 60 },
    { name: 'right', deg: -60 },
  ],
  leastRadiusMm: 50,
}

describe('what is still to be cut', () => {
  const laid = (cabled: LaidOut['cabled']): LaidOut => ({
    job: 7,
    tag: '46',
    runs: [templateRun('external', 'rear'), templateRun('external', 'rear-brake')],
    cabled,
  })
  test('the pieces of runs that are not cut, each under a name of its own', () => {
    expect(piecesToCut(laid({})).map(p => p.name)).toEqual([
      '46 rear derailleur, lever loop',
      '46 rear derailleur, last loop',
      '46 rear brake, lever loop',
      '46 rear brake, to the brake',
    ])
    expect(piecesToCut(laid({ rear: ['cut'] })).map(p => p.run)).toEqual(['rear-brake', 'rear-brake'])
  })
  test('a run lacking a piece that the wall was too short for is not cut', () => {
    const wanted = piecesToCut(laid({}))
    expect(runsCut(wanted, new Set(wanted.map(w => w.name)))).toEqual([
      { job: 7, run: 'rear' },
      { job: 7, run: 'rear-brake' },
    ])
    expect(runsCut(wanted, new Set(wanted.slice(0, 3).map(w => w.name)))).toEqual([{ job: 7, run: 'rear' }])
    expect(runsCut(wanted, new Set())).toEqual([])
  })
})

test('the shifting is set against the bends', () => {
  expect([0.2, 0.6, 1.5].map(mm => againstHeard(mm, { low: 0.4, high: 0.9 }))).toEqual(['more', 'agrees', 'less'])
})

describe('the loop at the bars', () => {
  test.each([60, 120, 200])(
    'between opposite ends %f mm radius apart it is a half circle, the exact elastica',
    radius => {
      const loop = restingLoop([0, 0, 0], [1, 0, 0], [0, 2 * radius, 0], [-1, 0, 0], Math.PI * radius)!
      expect(Math.abs(loop.minRadiusMm / radius - 1)).toBeLessThan(0.015)
      expect(Math.abs(loop.lengthMm / (Math.PI * radius) - 1)).toBeLessThan(0.002)
      for (const p of loop.points)
        expect(Math.abs(Math.hypot(p[0], p[1] - radius) - radius)).toBeLessThan(0.004 * radius)
    },
  )
  // Outside judge: bezier-js. A cubic with the same ends, directions and length may bend no less than the shape at
  // rest.
  test('no cubic spline of the same length and ends bends less (general Bézier library)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 240, noNaN: true }),
        fc.double({ min: -0.9, max: 0.9, noNaN: true }),
        fc.double({ min: 60, max: 200, noNaN: true }),
        (apart, turn, handle) => {
          const way = [-Math.cos(turn), Math.sin(turn)] as const
          const spline = new Bezier(0, 0, handle, 0, -way[0] * handle, apart - way[1] * handle, 0, apart)
          const ours = restingLoop([0, 0, 0], [1, 0, 0], [0, apart, 0], [way[0], way[1], 0], spline.length())!
          // both judged alike: ∫ κ² ds by the same chords
          const theirs = spline.getLUT(256).map(p => [p.x, p.y, 0] as Vec)
          expect(bendingOf(ours.points)).toBeLessThan(bendingOf(theirs) * 1.03)
          expect(Math.abs(ours.lengthMm / spline.length() - 1)).toBeLessThan(0.005)
        },
      ),
      { numRuns: 40, seed: 12 },
    )
  })
  test('turning about the steering axis keeps lengths, and comes back', () => {
    const axis = steeringAxis(72)
    expect(Math.hypot(...axis)).toBeCloseTo(1, 12)
    const v: Vec = [100, 200, -40]
    expect(Math.hypot(...turnAbout(v, axis, 47))).toBeCloseTo(Math.hypot(...v), 9)
    turnAbout(turnAbout(v, axis, 47), axis, -47).forEach((x, i) => expect(x).toBeCloseTo(v[i], 9))
    expect(turnAbout([1, 0, 0], [0, 0, 1], 90)[1]).toBeCloseTo(1, 12)
  })
  test('the length found reaches both locks and bends no tighter than it may; 5 mm less does not', () => {
    const length = loopLengthMm(loop)
    expect(length).toBeGreaterThan(200)
    expect(judgeLoop(loop, length).every(j => j.reaches && j.bendsWell)).toBe(true)
    expect(judgeLoop(loop, length - 5).every(j => j.reaches && j.bendsWell)).toBe(false)
    expect(Math.abs(loopAt(loop, length, 30)!.lengthMm / length - 1)).toBeLessThan(0.005)
  })
  test('more lock needs no shorter loop; a run that turns with the bars does not care', () => {
    const locked = (deg: number): LoopGeometry => ({
      ...loop,
      poses: [
        { name: 'straight', deg: 0 },
        { name: 'left', deg },
        { name: 'right', deg: -deg },
      ],
    })
    expect(loopLengthMm(locked(80))).toBeGreaterThanOrEqual(loopLengthMm(locked(20)))
    const judged = judgeLoop(locked(0), 400)
    expect(new Set(judged.map(j => j.minRadiusMm)).size).toBe(1)
  })
  test('a loop that cannot exist says what stands in the way; nonsense is named', () => {
    expect(() => loopLengthMm({ ...loop, leastRadiusMm: 600 })).toThrow(/no such loop.*may to 600/)
    expect(() => loopLengthMm({ ...loop, movingWay: [0, 0, 0] })).toThrow(/movingWay has no direction/)
    expect(() => steeringAxis(10)).toThrow(/headDeg/)
    expect(() => loopLengthMm({ ...loop, axis: [0, 0, 0] })).toThrow(/axis has no direction/)
    expect(() => loopLengthMm({ ...loop, poses: [{ name: 'left', deg: NaN }] })).toThrow(/poses\[0\]/)
    expect(() => loopLengthMm({ ...loop, fixedAt: [NaN, 0, 0] })).toThrow(/fixedAt\[0\]/)
    expect(() => loopLengthMm({ ...loop, movingAt: [60, 2000, 90] })).toThrow(/no such loop/)
  })
})

describe('the loop as the bars hold it', () => {
  const at = (change: object) => loopGeometry({ ...USUAL_BAR_LOOP, ...change }, 50)
  test("a left lever's loop is the right one's mirror: as long, and right lock does what left did", () => {
    const [left, right] = [at({ leverSide: 'left' }), at({ leverSide: 'right' })]
    expect(left.movingAt[1]).toBe(-right.movingAt[1])
    expect(left.fixedWay[1]).toBe(-right.fixedWay[1])
    expect(loopLengthMm(left)).toBe(loopLengthMm(right))
    const [l, r] = [judgeLoop(left, 400), judgeLoop(right, 400)]
    expect(l[1]!.slackMm).toBeCloseTo(r[2]!.slackMm, 9)
    expect(l[1]!.minRadiusMm).toBeCloseTo(r[2]!.minRadiusMm, 3)
    expect(l[1]!.slackMm).not.toBeCloseTo(l[2]!.slackMm, 0)
  })
  test('a brake on the fork turns with the bars: one pose, and no longer for a wider lock', () => {
    expect(loopEndOf('front-brake')).toBe('fork')
    expect(RUNS.filter(r => loopEndOf(r) === 'fork')).toEqual(['front-brake'])
    const fork = { end: 'fork', stopBehindMm: -40, stopBelowMm: 190, stopSideMm: 5 }
    expect(at(fork).poses.map(p => p.name)).toEqual(['straight'])
    expect(loopLengthMm(at({ ...fork, lockDeg: 90 }))).toBe(loopLengthMm(at({ ...fork, lockDeg: 0 })))
  })
  test('into the headset it goes down the steering axis', () => {
    const g = at({ end: 'headset' })
    g.fixedWay.forEach((v, i) => expect(v).toBeCloseTo(-steeringAxis(USUAL_BAR_LOOP.headDeg)[i]!, 12))
    expect(loopLengthMm(at({ end: 'headset', stopBehindMm: 0, stopBelowMm: 0, stopSideMm: 20 }))).toBeGreaterThan(200)
  })
  test('which side a brake lever is on is asked, a shift lever’s is known', () => {
    expect([leverSideOf('rear'), leverSideOf('front'), leverSideOf('front-brake')]).toEqual(['right', 'left', null])
    expect(BarLoop.safeParse({ ...USUAL_BAR_LOOP, leverSide: '' }).error?.issues[0]?.message).toContain(
      'say which side',
    )
  })
})

describe('the loop across a rear pivot', () => {
  test('a second pivot turns its link first: rigid about it, and with no turn of its own as if it were not there', () => {
    const one = suspensionGeometry(USUAL_SUSPENSION_LOOP, 50)
    const stop = { ...USUAL_SUSPENSION_LOOP, armBehindMm: 480, secondTurnsDeg: 25 }
    const two = suspensionGeometry(stop, 50)
    const full = two.poses[2]!.deg
    expect(apartMm(suspensionGeometry({ ...USUAL_SUSPENSION_LOOP, secondBehindMm: 100 }, 50), full)).toBe(
      apartMm(one, full),
    )
    // by hand: about the second pivot by 25°, then about the first
    const about: Vec = [-stop.secondBehindMm, 0, stop.secondAboveMm]
    const from: Vec = [two.movingAt[0] - about[0], 0, two.movingAt[2] - about[2]]
    const link = turnAbout(from, two.axis, 25)
    const end = turnAbout([link[0] + about[0], 0, link[2] + about[2]], two.axis, full)
    expect(apartMm(two, full)).toBeCloseTo(Math.hypot(two.fixedAt[0] - end[0], two.fixedAt[2] - end[2]), 9)
    expect(apartMm(two, 0)).toBeCloseTo(
      Math.hypot(two.fixedAt[0] - two.movingAt[0], two.fixedAt[2] - two.movingAt[2]),
      9,
    )
    expect(judgeLoop(two, loopLengthMm(two)).every(j => j.reaches && j.bendsWell)).toBe(true)
  })
  test("the arm turns by the chord of its axle's arc (plain trigonometry, law of cosines)", () => {
    for (const [axle, travel] of [
      [430, 140],
      [400, 200],
      [450, 0],
    ] as const) {
      const deg = armTurnDeg(axle, travel)
      expect(Math.sqrt(2 * axle * axle * (1 - Math.cos((deg * Math.PI) / 180)))).toBeCloseTo(travel, 9)
    }
  })
  test("compressing lifts the arm's end and keeps its distance from the pivot", () => {
    const g = suspensionGeometry(USUAL_SUSPENSION_LOOP, 50)
    const up = turnAbout(g.movingAt, g.axis, g.poses[2].deg)
    expect(up[2]).toBeGreaterThan(g.movingAt[2] + 30)
    expect(Math.hypot(...up)).toBeCloseTo(Math.hypot(...g.movingAt), 9)
  })
  test('the length found serves extended, sagged and full travel; without travel less will do', () => {
    const g = suspensionGeometry(USUAL_SUSPENSION_LOOP, 50)
    const length = loopLengthMm(g)
    expect(judgeLoop(g, length).map(j => [j.pose, j.reaches && j.bendsWell])).toEqual([
      ['extended', true],
      ['sagged', true],
      ['full-travel', true],
    ])
    expect(length).toBeGreaterThanOrEqual(
      loopLengthMm(suspensionGeometry({ ...USUAL_SUSPENSION_LOOP, travelMm: 0 }, 50)),
    )
    // a stop far below the pivot: the line is longest when compressed
    const low = suspensionGeometry({ ...USUAL_SUSPENSION_LOOP, frameAboveMm: -150, frameForwardMm: 60 }, 50)
    expect(apartMm(low, low.poses[2].deg)).toBeGreaterThan(apartMm(low, 0))
  })
  test.each([
    ['travelMm', 900, 'Travel at the axle, mm: from 0 to 260'],
    ['axleMm', 0, 'Pivot to axle, mm: from 150 to 700'],
    ['sagPercent', NaN, 'Sag, %: type a number'],
  ] as const)('%s of %f is refused', (key, value, words) => {
    expect(SuspensionLoop.safeParse({ ...USUAL_SUSPENSION_LOOP, [key]: value }).error?.issues[0].message).toBe(words)
  })
})

describe('one bend less', () => {
  const rear = templateRun('external', 'rear')
  const degrees = (run: RunOf) => run.pieces.flatMap(p => (p.kind === 'housing' ? p.bends.map(b => b.deg) : []))
  test('the widest goes, one of them where several are as wide, and guides stay', () => {
    const housing = rear.pieces.find(p => p.kind === 'housing')!
    const bends = (...degs: number[]) => ({ ...housing, bends: degs.map(deg => ({ deg, radiusMm: 60 })) })
    const run = { ...rear, pieces: [bends(20, 90), ...rear.pieces.filter(p => p.kind === 'guide'), bends(90, 40)] }
    const less = oneBendLess(run)!
    expect(less.deg).toBe(90)
    expect(degrees(less.run)).toEqual([20, 90, 40])
    expect(less.run.pieces.filter(p => p.kind === 'guide')).toEqual(rear.pieces.filter(p => p.kind === 'guide'))
    expect(oneBendLess({ ...rear, pieces: [bends()] })).toBeNull()
  })
  test('what gives under a pull: the wire with what lies in lever and clamp, and the housing’s own length', () => {
    const gives = givesOf(rear)
    expect(gives.housingMm).toBe(rear.pieces.reduce((s, p) => s + (p.kind === 'housing' ? p.lengthMm : 0), 0))
    expect(gives.housingMm).toBe(420 + 290)
    expect(gives.wireMm).toBeGreaterThan(wireMm(rear))
  })
})
