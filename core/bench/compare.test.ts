import { describe, expect, test } from 'vitest'
import { geometryOf } from '../response/setup'
import { cableWindowMm } from '../response/window'
import { isRight, outcomeChances, seededBike, simulatedBench } from './bench'
import { AS_MODELLED, UNLIKE } from './physics'
import { PATIENCE } from '../rear/benchEvents'
import { adviceStrategy, play, woundOut } from './play'
import { THUMBS } from './thumb'
import { needless, truthOf } from './truth'

describe('the truth about a simulated bike', () => {
  test('its window, walked, is the closed form of the response model', () => {
    let compared = 0
    for (let seed = 1; seed < 40; seed++) {
      const { setup, hidden } = seededBike(seed)
      const g = geometryOf(setup)
      const { from, to } = cableWindowMm(g, hidden, hidden, true)
      const width = Math.max(0, (to - from) / setup.barrelPitchMm)
      const { windowTurns } = truthOf(g, setup, hidden, AS_MODELLED)
      if (width > 0.2) {
        expect(Math.abs(windowTurns - width)).toBeLessThan(0.07) // steps of 1/64, and the closed form leaves a small overlap out
        compared++
      }
    }
    expect(compared).toBeGreaterThan(15)
  })
  test('a right bike has no cause at fault, and every part on it would be needless', () => {
    for (let seed = 1; seed < 60; seed++) {
      const { setup, hidden } = seededBike(seed)
      const g = geometryOf(setup)
      const set = {
        ...hidden,
        cableMm: 0,
        backlashInMm: 0.12,
        backlashOutMm: 0.12,
        camberTan: 0,
        bowMm: 0,
        ratio: g.fittedRatio,
        sharpness: 1,
        stopHMm: -0.4,
        stopLMm: g.placeMm[g.n - 1],
        worn: new Set<number>(),
      }
      if (!isRight(g, set)) continue
      expect(Object.values(truthOf(g, setup, set, AS_MODELLED).causes).filter(Boolean)).toEqual([])
      for (const part of ['cable', 'hanger', 'cassette', 'shifter', 'derailleur'] as const)
        expect(needless(g, setup, set, part, AS_MODELLED)).toBe(true)
    }
  })
  test('what is bent, sticky or mismatched far enough is to blame, and its part is not needless', () => {
    const { setup, hidden } = seededBike(3)
    const g = geometryOf(setup)
    const well = {
      ...hidden,
      cableMm: 0,
      backlashInMm: 0.12,
      backlashOutMm: 0.12,
      camberTan: 0,
      bowMm: 0,
      ratio: g.fittedRatio,
      sharpness: 1,
      stopHMm: -0.4,
      stopLMm: g.placeMm[g.n - 1],
      worn: new Set<number>(),
    }
    expect(truthOf(g, setup, { ...well, camberTan: 0.05 }, AS_MODELLED).causes).toMatchObject({
      hanger: true,
      friction: false,
    })
    expect(needless(g, setup, { ...well, camberTan: 0.05 }, 'hanger', AS_MODELLED)).toBe(false)
    expect(needless(g, setup, { ...well, backlashInMm: 0.8, backlashOutMm: 0.8 }, 'cable', AS_MODELLED)).toBe(false)
    expect(needless(g, setup, { ...well, ratio: g.fittedRatio * 1.12 }, 'shifter', AS_MODELLED)).toBe(false)
    expect(needless(g, setup, { ...well, worn: new Set([3]) }, 'cassette', AS_MODELLED)).toBe(false)
  })
})

describe('benches unlike the model', () => {
  test('differ where they say, and nowhere else', () => {
    const { setup, hidden } = seededBike(5)
    const g = geometryOf(setup)
    const clean = (physics = AS_MODELLED, k = 3) =>
      outcomeChances(g, { ...hidden, worn: new Set(), cableMm: 0.2 }, k, true, false, physics).clean
    expect(clean(UNLIKE.thresholds)).not.toBeCloseTo(clean(), 3)
    expect(clean(UNLIKE.reports)).toBe(clean())
    expect(UNLIKE.friction.lag(1)).toBeGreaterThan(UNLIKE.friction.lag(0))
    expect(UNLIKE.thresholds.heardAs(UNLIKE.thresholds.rubsAt)).toBeCloseTo(0.18, 9) // an edge is where the ear hears the rub
  })
  test('wrong reports come as often as they say, and never name a thrown chain', () => {
    const { setup, hidden } = seededBike(5)
    const g = geometryOf(setup)
    const bench = simulatedBench(
      setup,
      {
        ...hidden,
        ...{
          cableMm: 0,
          backlashInMm: 0.1,
          backlashOutMm: 0.1,
          camberTan: 0,
          bowMm: 0,
          ratio: g.fittedRatio,
          sharpness: 1.2,
          asymmetryPitch: 0,
        },
        worn: new Set(),
      },
      1,
      UNLIKE.reports,
    )
    const heard = Array.from({ length: 3000 }, (_, i) => bench.perform({ do: 'shift', to: 3 + (i % 2) })).map(e =>
      e && 'heard' in e ? e.heard : '',
    )
    const wrong = heard.filter(h => h !== 'clean').length / 3000
    expect(Math.abs(wrong - 0.1)).toBeLessThan(0.03) // three standard errors, and a few true rubs
    expect(heard).not.toContain('off')
  })
})

describe('a strategy played to its end', () => {
  test('every rule of thumb stays within its patience, sees L first, and ends', () => {
    for (const rule of THUMBS)
      for (let seed = 20; seed < 26; seed++) {
        const played = play(seed, { id: rule.id, is: 'thumb', rule }, AS_MODELLED)
        expect(played.cost).toBeLessThan(PATIENCE + 16) // the last move may be a part
        expect(played.won).toBe(
          played.saidDone &&
            played.right &&
            played.needless === 0 &&
            played.thrown.largest + played.thrown.smallest === 0,
        )
      }
  })
  test('the same bike and strategy play the same', () => {
    expect(play(21, adviceStrategy, AS_MODELLED)).toEqual(play(21, adviceStrategy, AS_MODELLED))
  }, 30_000)
  test('stops wound out are where the advice must throw no chain', () => {
    for (let seed = 60; seed < 66; seed++) {
      const played = play(seed, adviceStrategy, UNLIKE.reports, { woundOut: true })
      expect(played.thrown).toEqual({ largest: 0, smallest: 0 })
      expect(woundOut(seededBike(seed).hidden).stopLMm).toBeGreaterThan(seededBike(seed).hidden.stopLMm)
    }
  }, 60_000)
})
