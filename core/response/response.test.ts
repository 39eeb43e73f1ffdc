import { describe, expect, test } from 'vitest'
import { partsOfStandard, perfectBike, setupOfStandard } from './testBikes'
import { arrivalChances, HEARD, reportedChance, thrownChance, type Arrival } from './heard'
import { errorPitch, freePlaceMm, restPlaceMm } from './pulley'
import { stopIsSafe } from './safe'
import { checkSetup, geometryOf } from './setup'
import { arrivalsAt, arrivesClean, cableWindowMm } from './window'

const inner: Arrival = { end: null, inward: true, alreadyThere: false }
const g = geometryOf(setupOfStandard('r14-11'))
const usual = { sharpness: 1, asymmetryPitch: 0 }
const mostLikely = (chances: Record<string, number>) => Object.entries(chances).sort((a, b) => b[1] - a[1])[0][0]

describe('what is heard (model, section 2)', () => {
  test('chances are chances: none negative, all together 1, everywhere', () => {
    for (const end of [null, 'smallest', 'largest'] as const)
      for (const inward of [true, false])
        for (const alreadyThere of [true, false])
          for (const q of [0.7, 1, 1.3])
            for (let z = -1.2; z <= 1.2; z += 0.05) {
              const chances = arrivalChances(z, { end, inward, alreadyThere }, q)
              expect(Math.min(...Object.values(chances))).toBeGreaterThanOrEqual(0)
              expect(Object.values(chances).reduce((s, c) => s + c, 0)).toBeCloseTo(1, 9)
              if (alreadyThere) expect(chances.none + chances.slow).toBe(0)
            }
  })
  test.each([
    [0, inner, 'clean'],
    [-0.22, inner, 'rubs-out'],
    [-0.34, inner, 'slow'],
    [-0.6, inner, 'none'],
    [0.3, inner, 'rubs-in'],
    [0.75, inner, 'jumps'],
    [0.34, { ...inner, inward: false }, 'slow'],
    [0.65, { ...inner, inward: false }, 'none'],
    [-0.65, { ...inner, inward: false }, 'jumps'],
    [-0.34, { ...inner, alreadyThere: true }, 'rubs-out'],
    [-0.35, { end: 'smallest', inward: false, alreadyThere: false }, 'clean'],
    [0.26, { end: 'largest', inward: true, alreadyThere: false }, 'clean'],
  ] as const)('at %f of a pitch the likeliest is as the model says', (z, arrival, heard) => {
    expect(mostLikely(arrivalChances(z, arrival, 1))).toBe(heard)
  })
  test('reports are wrong now and then, but over all answers still sum to 1', () => {
    const chances = arrivalChances(0.1, inner, 1)
    expect(HEARD.filter(h => h !== 'off').reduce((s, h) => s + reportedChance(chances[h]), 0)).toBeCloseTo(1, 9)
  })
  test('a chain is thrown only when the stop lets it', () => {
    expect(thrownChance('largest', 0.6, 0.1)).toBeLessThan(1e-4)
    expect(thrownChance('largest', 0.6, 0.9)).toBeGreaterThan(0.99)
    expect(thrownChance('largest', 0, 0.9)).toBeLessThan(1e-3)
    expect(thrownChance('smallest', -0.8, -0.2)).toBeLessThan(1e-4)
    expect(thrownChance('smallest', -0.8, -1)).toBeGreaterThan(0.99)
  })
})

describe('where the pulley stands (model, section 1)', () => {
  const bike = perfectBike(g)
  test('a perfect bike stands under every sprocket, half the backlash to each side', () => {
    for (let k = 0; k < g.n; k++) {
      expect(freePlaceMm(g, bike, k)).toBeCloseTo(g.placeMm[k], 9)
      if (k > 0 && k < g.n - 1)
        expect(restPlaceMm(g, bike, k, false) - restPlaceMm(g, bike, k, true)).toBeCloseTo(0.28, 9)
    }
  })
  test('a barrel turn out moves it inboard by thread × ratio', () => {
    const turned = { ...bike, cableMm: bike.cableMm + 0.8 }
    expect(freePlaceMm(g, turned, 4) - freePlaceMm(g, bike, 4)).toBeCloseTo(0.8 * g.fittedRatio, 9)
  })
  test('a bent hanger grows across the cassette, a stop holds', () => {
    const bent = { ...bike, camberTan: Math.tan(Math.PI / 90) }
    const errors = g.placeMm.map((_, k) => freePlaceMm(g, bent, k) - g.placeMm[k])
    expect(errors.every((e, k) => k === 0 || e > errors[k - 1])).toBe(true)
    expect(restPlaceMm(g, { ...bike, cableMm: -5 }, 0, false)).toBe(bike.stopHMm)
    expect(errorPitch(g, { ...bike, cableMm: 9 }, g.n - 1, true)).toBeCloseTo(
      (bike.stopLMm - g.placeMm[g.n - 1]) / g.pitchMm[g.n - 1],
      9,
    )
  })
  test.each([
    ['H', -0.61, false],
    ['H', -0.59, true],
    ['H', 0.24, true],
    ['H', 0.26, false],
    ['L', -0.26, false],
    ['L', 0.19, true],
    ['L', 0.21, false],
  ] as const)('%s at %f pitch: safe %s', (stop, pitch, safe) => {
    const end = stop === 'H' ? 0 : g.n - 1
    expect(stopIsSafe(g, stop, g.placeMm[end] + pitch * g.pitchMm[end])).toBe(safe)
  })
})

describe('the window', () => {
  // slow judge: the full chances at every offset
  const span = (bike: ReturnType<typeof perfectBike>) => {
    const right = (cableMm: number) =>
      g.placeMm.every((_, k) =>
        arrivalsAt(g, k).every(inward =>
          arrivesClean(g, k, inward, errorPitch(g, { ...bike, cableMm }, k, inward), usual),
        ),
      )
    const offsets = Array.from({ length: 2001 }, (_, i) => -2 + i / 500).filter(right)
    return offsets.length ? { from: offsets[0], to: offsets.at(-1)! } : null
  }
  test.each([
    [0.28, 0],
    [0.5, 0.01],
    [0.28, 0.015],
    [0.1, -0.01],
  ])('closed form agrees with the full chances (backlash %f, camber %f)', (backlash, camberTan) => {
    const bike = { ...perfectBike(g), backlashInMm: backlash / 2, backlashOutMm: backlash / 2, camberTan }
    const slow = span(bike)
    const fast = cableWindowMm(g, bike, usual, false)
    expect(fast.from).toBeCloseTo(slow!.from, 2)
    expect(fast.to).toBeCloseTo(slow!.to, 2)
  })
  test('all being well it is half a turn to 1.3 turns wide; friction of 1.2 mm leaves none', () => {
    const width = (w: { from: number; to: number }) => (w.to - w.from) / 0.8
    const well = width(cableWindowMm(g, perfectBike(g), usual, true))
    expect(well).toBeGreaterThan(0.5)
    expect(well).toBeLessThan(1.3)
    expect(
      width(cableWindowMm(g, { ...perfectBike(g), backlashInMm: 0.6, backlashOutMm: 0.6 }, usual, true)),
    ).toBeLessThan(0.125)
  })
  test('stops play no part in the gears between', () => {
    const bike = perfectBike(g)
    const moved = { ...bike, stopHMm: bike.stopHMm + 0.3, stopLMm: bike.stopLMm + 0.3 }
    for (let k = 1; k < g.n - 1; k++)
      for (const inward of [true, false]) expect(restPlaceMm(g, moved, k, inward)).toBe(restPlaceMm(g, bike, k, inward))
  })
})

describe('checkSetup', () => {
  const good = setupOfStandard('r17-9')
  test.each([
    ['teeth', { ...good, teeth: [] }],
    ['pitchMm', { ...good, pitchMm: [4] }],
    ['pullMm', { ...good, pullMm: [...good.pullMm, 2] }],
    ['pullRatio', { ...good, pullRatio: -1 }],
    ['barrelPitchMm', { ...good, barrelPitchMm: NaN }],
    ['barrelTurnsOut', { ...good, barrelTurnsOut: 9 }],
    ['barrelTurnsRange', { ...good, barrelTurnsRange: 0 }],
    ['teeth[0]', { ...good, teeth: [0, ...good.teeth.slice(1)] }],
  ])('names %s', (name, setup) => {
    expect(() => checkSetup(setup)).toThrow(RangeError)
    expect(() => checkSetup(setup)).toThrow(name)
  })
  test('takes every standard of the table', () => {
    for (const s of partsOfStandard) expect(() => checkSetup(setupOfStandard(s.id))).not.toThrow()
  })
})
