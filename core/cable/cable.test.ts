import { Bezier } from 'bezier-js'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { setupOfStandard } from '../response/testBikes'
import { NEW_CABLE } from '../response/parameters'
import { againstHeard, backlashMm, backlashOfRun, remedies, windowTurnsWith } from './backlash'
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
import { innerNeededMm, innerToTake, lossAlong, pullAtClamp, Run, smallParts, wireMm, type Run as RunOf } from './run'
import { runGivesMm, wireGivesMm, wireStiffness } from './stretch'
import { piecesToCut, runsCut, type LaidOut } from './wanted'
import { RUN_TEMPLATES, templateRun } from './templates'

describe('stretch', () => {
  // Hooke with the strand's figures, from memory: 93 N/mm for a metre; 3.2 m gives 1.4 mm at 40 N, a brake wire 5.6 mm at 300 N
  test('a metre of shift wire, and what a long bike loses', () => {
    expect(wireStiffness(1000, 'shift')).toBeCloseTo(92.3, 1)
    expect(wireGivesMm(3200, 'shift', 40)).toBeCloseTo(1.4, 1)
    expect(wireGivesMm(3200, 'brake', 300)).toBeCloseTo(5.6, 1)
    expect(runGivesMm(3200, 'brake', 300)).toBeCloseTo(2 * wireGivesMm(3200, 'brake', 300), 9) // housing and stops give as much again
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
    expect(losses[0].after).toBeCloseTo(Math.exp((-0.1 * Math.PI) / 2), 9)
    expect(losses[2].after / losses[2].before).toBeCloseTo(Math.exp((-0.15 * 150 * Math.PI) / 180), 9)
    expect(pullAtClamp(rear)).toBe(losses[2].after)
  })
  test('its wire, its inner, its small parts', () => {
    expect(wireMm(rear)).toBeCloseTo(420 + 560 + 380 + 290 + (60 * 75 * Math.PI) / 180, 6)
    expect(innerNeededMm(rear)).toBe(1770)
    expect(innerToTake(rear)).toBe(2100)
    expect(innerToTake({ ...rear, pieces: [{ kind: 'bare', name: 'x', lengthMm: 3400 }, rear.pieces[0]] })).toBeNull() // never two joined
    expect(smallParts(rear)).toEqual({ ferrules: 4, inners: 1, caps: 1 })
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
  // Outside judge: bezier-js. A cubic with the same ends, directions and length may bend no less than the shape at rest.
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

describe('the loop across a rear pivot', () => {
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
