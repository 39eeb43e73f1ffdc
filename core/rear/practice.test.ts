import { HANGER_KINDS, acrossTolerance } from './hangerLimit'
import { Matrix, inverse } from 'ml-matrix'
import { describe, expect, test } from 'vitest'
import { tailMm } from '../cable/housing'
import { TABLE_ONLY } from '../standards/inForce'
import { barrelStartTurns, clampJudged, lastLoopMm, reclampRecipe } from './clamp'
import { capacityNeeded, chainLinks, chainWearLimitPercent } from './chain'
import { B_SCREW, gapInStandFor, gapTurn, learntGapPerTurn } from './gap'
import { badReading, fitHanger, hangerMisfitMm, hangerPlan, hangerSpreadDeg, READING_SD_MM } from './hanger'
import { BEDDING_SHIFTS, sayForecast, settleForecast, usualSettling } from './settle'
import { stopTurn } from './asSeen'
import { lTargetMm, learntMmPerTurn } from './stops'
import { GAPS, PLACINGS, STEPS } from '../procedure/schools'
import { rearTorques } from '../procedure/torques'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import { setupOfStandard } from '../response/testBikes'
import { randomFrom } from '../quantity/random'

/** Figures of the trade at the rear. Common practice, no source, unless the row says otherwise. */
test.each<[string, unknown, unknown]>([
  ['hanger tolerance to 8 speeds, mm (from memory)', acrossTolerance(8), 4],
  ['hanger tolerance 9 and 10 speeds, mm (from memory)', [acrossTolerance(9), acrossTolerance(10)], [2, 2]],
  ['hanger tolerance from 11 speeds, mm (from memory)', [acrossTolerance(11), acrossTolerance(12)], [1, 1]],
  ['a reading by caliper and by eye, mm', READING_SD_MM, { caliper: 0.3, eye: 1 }],
  ['barrel before the clamp, turns out', barrelStartTurns(), { from: 1.5, to: 2 }],
  ['last loop, mm (from memory)', lastLoopMm(), { usual: { from: 250, to: 320 }, straight: { from: 180, to: 230 } }],
  ['inner past the bolt, mm', tailMm(), { from: 30, to: 50 }],
  [
    'chain renewed to 10 speeds, from 11 and on electric bikes, %',
    [chainWearLimitPercent(10), chainWearLimitPercent(11), chainWearLimitPercent(8, true)],
    [0.75, 0.5, 0.5],
  ],
  ['steps of a turn', STEPS.map(s => s.turns), [1 / 8, 1 / 4, 1 / 2, 1]],
  [
    'H centred, and 1 to 2 mm outboard',
    PLACINGS.map(p => p.targetMm),
    [
      { from: -0.5, to: 0.3 },
      { from: -2, to: -1 },
    ],
  ],
  [
    'B gaps, mm',
    GAPS.filter(g => ['close', 'start-wide'].includes(g.id)).map(g => g.targetMm),
    [
      { from: 3, to: 6 },
      { from: 6, to: 10 },
    ],
  ],
  [
    'settling after a new run, turns out',
    [sayForecast(settleForecast({ housingMm: null, bedded: false, riding: null }, usualSettling())), BEDDING_SHIFTS],
    ['1/4 to 5/8 turn out', 30],
  ],
  [
    'pinch and hanger bolt, N·m (from memory)',
    rearTorques(TABLE_ONLY)
      .filter(t => ['pinch-bolt', 'hanger-bolt'].includes(t.id))
      .map(t => [t.fromNm, t.toNm]),
    [
      [8, 10],
      [4, 7],
    ],
  ],
])('%s', (_, found, expected) => {
  expect(found).toEqual(expected)
})

describe('what follows from them', () => {
  test('a turn of an M5 barrel is 18 to 35 % of a pitch on every standard, an eighth too little to say less', () => {
    for (const s of DRIVETRAIN_STANDARDS) {
      const share = (0.8 * s.pitchMm) / s.pullMm / s.pitchMm // ISO 261: M5 coarse is 0.8 mm
      expect(share).toBeGreaterThan(0.18)
      expect(share).toBeLessThan(0.35)
    }
  })
  test('levering as told halves what the gauge shows, and goes on until it is within tolerance', () => {
    let b = 3.1,
      c = -1.2 // mm at the tip, harmonics of a bent steel dropout
    const gauged: number[] = []
    for (let i = 0; i < 12; i++) {
      const readings = [12, 2, 4, 6, 8, 10].map(hour => ({
        hour,
        gapMm: 55 + b * Math.cos((hour * Math.PI) / 6) + c * Math.sin((hour * Math.PI) / 6),
      }))
      const fit = fitHanger(readings, 311)
      gauged.push(fit.acrossMm)
      const plan = hangerPlan(fit, 10, 'steel')
      if (plan.do !== 'bend') break
      expect(plan.tipMm).toBeLessThanOrEqual(2) // small steps
      const angle = (plan.hour * Math.PI) / 6
      b -= plan.tipMm * Math.cos(angle)
      c -= plan.tipMm * Math.sin(angle)
    }
    expect(gauged.at(-1)).toBeLessThanOrEqual(2)
    expect([...gauged].sort((x, y) => y - x)).toEqual(gauged)
  })
  test('steel is bent, a replaceable one renewed, titanium and carbon refused; a true one is left whatever it is', () => {
    const bent = fitHanger(
      [12, 4, 8].map(hour => ({ hour, gapMm: 55 + 3 * Math.cos((hour * Math.PI) / 6) })),
      311,
    )
    expect(HANGER_KINDS.map(k => hangerPlan(bent, 11, k).do)).toEqual([
      'bend',
      'replace',
      'replace',
      'refuse',
      'refuse',
    ])
    const plan = hangerPlan(bent, 11, 'steel')
    expect(plan.do === 'bend' && plan.hour).toBe(12) // wider at 12: the tip goes towards the rim there
    expect(hangerPlan(bent, 11, 'steel').why).toContain('certainly bent')
    const true_ = fitHanger(
      [12, 4, 8].map(hour => ({ hour, gapMm: 55 })),
      311,
    )
    for (const k of HANGER_KINDS) expect(hangerPlan(true_, 12, k).do).toBe('leave')
    expect(hangerPlan({ ...bent, acrossMm: 3 }, 8, 'steel').do).toBe('leave') // 3 mm is allowed to 8 speeds
  })
  test('a bent hanger is right at one end and wrong at the other: the error grows with the sprocket', () => {
    const errors = hangerMisfitMm(setupOfStandard('r11-12w'), 1.5)
    for (let k = 1; k < errors.length; k++) expect(errors[k]).toBeGreaterThan(errors[k - 1])
    expect(errors[0]).toBeCloseTo(-errors.at(-1)!, 9)
    expect(hangerMisfitMm(setupOfStandard('r11-12w'), 0).every(e => Math.abs(e) < 1e-12)).toBe(true)
  })
  test('when the barrel runs out, drawing at the clamp gives back exactly what the barrel gives up', () => {
    const { barrelTurnsOut, drawMm } = reclampRecipe({ turnsOut: 6, wantedTurns: 0.75, rangeTurns: 6, threadMm: 0.8 })
    expect(barrelTurnsOut).toBe(2)
    expect(drawMm).toBeCloseTo((6 - 2 + 0.75) * 0.8, 9) // few mm
    expect(reclampRecipe({ turnsOut: 0, wantedTurns: -0.5, rangeTurns: 6, threadMm: 0.8 }).drawMm).toBeLessThan(0) // too tight: let out
    expect(() => reclampRecipe({ turnsOut: 7, wantedTurns: 0, rangeTurns: 6, threadMm: 0.8 })).toThrow(/turnsOut/)
    expect([0.5, -1, 1.5, 2.5].map(clampJudged)).toEqual(['good', 'good', 'fair', 'poor'])
  })
})

describe('chain', () => {
  // chain-drive handbook formula: 435 mm, 32/51 → 110.3, + 2, rounded up to 114
  test('length by the two-wheel formula', () => {
    const { exact, links } = chainLinks({ chainstayMm: 435, ringTeeth: 32, sprocketTeeth: 51 })
    expect(exact).toBeCloseTo(110.3, 1)
    expect(links).toBe(114)
    // the belt formula with the exact wrap agrees within a twentieth of a link at this spread of teeth
    const [C, R, r] = [435 / 12.7, 51 / (2 * Math.PI), 32 / (2 * Math.PI)]
    const a = Math.asin((R - r) / C)
    expect(Math.abs(2 * C * Math.cos(a) + (32 + 51) / 2 + (a * (51 - 32)) / Math.PI - exact)).toBeLessThan(0.05)
  })
  test.each([
    ['chainstayMm', { chainstayMm: 40, ringTeeth: 32, sprocketTeeth: 51 }],
    ['ringTeeth', { chainstayMm: 435, ringTeeth: 3, sprocketTeeth: 51 }],
    ['sprocketTeeth', { chainstayMm: 435, ringTeeth: 32, sprocketTeeth: NaN }],
  ])('refuses nonsense: %s', (name, p) => {
    expect(() => chainLinks(p)).toThrow(new RegExp(name))
  })
  test('capacity is the spread of rings and of sprockets together', () => {
    expect(capacityNeeded({ rings: [34, 50], smallest: 11, largest: 34 })).toBe(39)
    expect(capacityNeeded({ rings: [32], smallest: 10, largest: 51 })).toBe(41)
    expect(() => capacityNeeded({ rings: [], smallest: 10, largest: 51 })).toThrow(/rings/)
    expect(() => capacityNeeded({ rings: [32], smallest: 30, largest: 12 })).toThrow(/largest/)
  })
})

describe('learnt from this bike', () => {
  test('a stop screw: two sightings a turn apart move the usual figure towards what was seen', () => {
    expect(learntMmPerTurn('H', [])).toMatchObject({ mmPerTurn: 1 })
    const two = learntMmPerTurn('H', [
      { turnsIn: 0, offsetMm: -1.5 },
      { turnsIn: 1.5, offsetMm: 0.4 },
    ])
    expect(two.mmPerTurn).toBeGreaterThan(1)
    expect(two.mmPerTurn).toBeLessThan(1.9 / 1.5)
    expect(two.sdMm).toBeLessThan(learntMmPerTurn('H', []).sdMm)
    // L turned in goes outboard
    expect(
      learntMmPerTurn('L', [
        { turnsIn: 0, offsetMm: 1 },
        { turnsIn: 2, offsetMm: -1.4 },
      ]).mmPerTurn,
    ).toBeGreaterThan(1)
  })
  // Outside source: ridge least squares by matrix inverse, ml-matrix
  test('agrees with Bayesian least squares by a general matrix library', () => {
    const random = randomFrom(3)
    for (let i = 0; i < 20; i++) {
      const sights = Array.from({ length: 4 }, () => ({ turnsIn: random.next() * 3, offsetMm: random.normal() }))
      const X = new Matrix(sights.map(s => [1, s.turnsIn])).mul(1 / 0.35)
      const y = Matrix.columnVector(sights.map(s => s.offsetMm / 0.35))
      const prior = new Matrix([
        [1e-12, 0],
        [0, 1 / 0.15 ** 2],
      ])
      const A = X.transpose().mmul(X).add(prior)
      const solved = inverse(A).mmul(
        X.transpose()
          .mmul(y)
          .add(Matrix.columnVector([0, 1 / 0.15 ** 2])),
      )
      expect(learntMmPerTurn('H', sights).mmPerTurn).toBeCloseTo(solved.get(1, 0), 5)
      expect(learntMmPerTurn('H', sights).sdMm).toBeCloseTo(Math.sqrt(inverse(A).get(1, 1)), 5)
    }
  })
  test('the next turn goes to the middle of where it is to stand, in eighths, and none inside it', () => {
    expect(stopTurn('L', 1.5, lTargetMm(), 1)).toBeCloseTo(1.625, 9) // inboard: in
    expect(stopTurn('H', -2.9, PLACINGS[1].targetMm, 1)).toBeCloseTo(1.375, 9)
    expect(stopTurn('H', -1.2, PLACINGS[1].targetMm, 1)).toBe(0)
    expect(stopTurn('L', -2, lTargetMm(), 1)).toBeLessThan(0)
  })
  test('the B screw likewise; sag shifts what is wanted in the stand', () => {
    expect(learntGapPerTurn([]).mmPerTurn).toBe(B_SCREW.mmPerTurn)
    expect(
      learntGapPerTurn([
        { turnsIn: 0, gapMm: 4 },
        { turnsIn: 2, gapMm: 7.4 },
      ]).mmPerTurn,
    ).toBeGreaterThan(1.4)
    expect(gapTurn(2, { from: 3, to: 6 }, 1.25)).toBe(2)
    expect(gapTurn(5, { from: 3, to: 6 }, 1.25)).toBe(0)
    expect(gapInStandFor({ standMm: 6, saggedMm: 16.5, wantedMm: 15 })).toBeCloseTo(4.5, 9) // common practice: 15 sagged is 4 to 5 in the stand
    expect(() => gapInStandFor({ standMm: -1, saggedMm: 3, wantedMm: 3 })).toThrow(/standMm/)
    expect(() => gapTurn(NaN, { from: 3, to: 6 }, 1)).toThrow(/gapMm/)
  })
})

describe('gauge', () => {
  test('a reading that does not go with the others is pointed out, a good set is not', () => {
    const good = [12, 2, 4, 6, 8, 10].map(hour => ({ hour, gapMm: 60 + 1.5 * Math.cos((hour * Math.PI) / 6) }))
    expect(badReading(good, 311)).toBeNull()
    const bad = good.map(r => (r.hour === 4 ? { ...r, gapMm: r.gapMm + 4 } : r))
    expect(badReading(bad, 311)?.hour).toBe(4)
    expect(badReading(bad.slice(0, 4), 311)).toBeNull() // too few to say
  })
  // Outside source: covariance of least squares, σ²(XᵀX)⁻¹, ml-matrix
  test('its spread is that of the least squares', () => {
    const readings = [12, 3, 6, 9].map(hour => ({ hour, gapMm: 60 }))
    const X = new Matrix(readings.map(r => [1, Math.cos((r.hour * Math.PI) / 6), Math.sin((r.hour * Math.PI) / 6)]))
    const sd = 0.3 * Math.sqrt(inverse(X.transpose().mmul(X)).get(1, 1))
    expect(hangerSpreadDeg(readings, 311, 0.3)).toBeCloseTo((Math.atan(sd / 311) * 180) / Math.PI, 9)
  })
  test.each([
    [
      'twice',
      [
        { hour: 12, gapMm: 60 },
        { hour: 12, gapMm: 61 },
        { hour: 6, gapMm: 60 },
      ],
    ],
    [
      'gapMm',
      [
        { hour: 12, gapMm: -3 },
        { hour: 3, gapMm: 61 },
        { hour: 6, gapMm: 60 },
      ],
    ],
  ])('refuses %s', (words, readings) => {
    expect(() => fitHanger(readings, 311)).toThrow(words)
  })
})
