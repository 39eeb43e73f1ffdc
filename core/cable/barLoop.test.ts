import { describe, expect, test } from 'vitest'
import {
  BarLoop,
  EXITS,
  LOOP_ENDS,
  leverSideOf,
  loopEndOf,
  loopGeometry,
  SIDES,
  USUAL_BAR_LOOP,
  usualBarLoop,
} from './barLoop'
import { RUNS } from './housing'
import type { Vec } from './loop'

/** The bike seen in a mirror: left is right. y is to the left. */
const mirrored = ([x, y, z]: Vec): Vec => [x, y === 0 ? 0 : -y, z]
const of = (change: Partial<BarLoop> = {}) => loopGeometry({ ...USUAL_BAR_LOOP, ...change }, 45)

describe('the loop at the bars', () => {
  test('lies where the tape says: the lever before, above and on its side, the stop behind, below and on that side', () => {
    const { movingAt, fixedAt, leastRadiusMm } = of({ leverSide: 'right' })
    expect(movingAt).toEqual([60, -210, 90])
    expect(fixedAt).toEqual([-70, -22, -60])
    expect(leastRadiusMm).toBe(45)
    expect(of({ leverSide: 'left' }).movingAt).toEqual([60, 210, 90])
  })
  test.each(EXITS.flatMap(exit => LOOP_ENDS.flatMap(end => [false, true].map(crosses => ({ exit, end, crosses })))))(
    'of a left lever is the mirror of a right one: %o',
    change => {
      const [left, right] = SIDES.map(leverSide => of({ ...change, leverSide }))
      for (const key of ['movingAt', 'movingWay', 'fixedAt', 'fixedWay'] as const)
        left![key].forEach((v, i) => expect(v, `${key} ${i}`).toBeCloseTo(mirrored(right![key])[i]!, 12))
    },
  )
  test('a run that crosses ends on the other side of the frame, and its lever stays', () => {
    const [straight, crossed] = [of(), of({ crosses: true })]
    expect(crossed.fixedAt).toEqual(mirrored(straight.fixedAt))
    expect(crossed.movingAt).toEqual(straight.movingAt)
    expect(crossed.movingWay).toEqual(straight.movingWay)
  })
  // plain geometry: which way housing leaves what holds it
  test('leaves the lever forward, inward to the middle, or down; and runs on down and back where it ends', () => {
    for (const leverSide of SIDES) {
      const inward = leverSide === 'left' ? -1 : 1
      const way = (exit: BarLoop['exit']) => of({ exit, leverSide }).movingWay
      expect(way('forward')[0]).toBeGreaterThan(Math.abs(way('forward')[1]))
      expect(inward * way('inward')[1]).toBeGreaterThan(0.9)
      expect(way('down')[2]).toBeLessThan(-0.7)
      for (const exit of EXITS) expect(inward * way(exit)[1]).toBeGreaterThan(0)
      for (const end of LOOP_ENDS) expect(of({ end, leverSide }).fixedWay[2]).toBeLessThan(-0.6)
      expect(of({ end: 'frame', leverSide }).fixedWay[0]).toBeLessThan(0)
    }
  })
  test('into the headset it goes down the steering axis itself', () => {
    const { axis, fixedWay } = of({ end: 'headset' })
    fixedWay.forEach((v, i) => expect(v).toBeCloseTo(-axis[i]!, 12))
    expect(Math.hypot(...axis)).toBeCloseTo(1, 12)
  })
  test('is looked at straight and at both locks; a brake on the fork turns with the bars', () => {
    expect(of({ lockDeg: 70 }).poses.map(p => p.deg)).toEqual([0, 70, -70])
    expect(of({ end: 'fork' }).poses.map(p => p.deg)).toEqual([0])
  })
})

describe('what is usual', () => {
  // common practice: rear and hub shift on the right, front on the left; a brake's side follows the country's custom
  test('each run’s lever on its side, and none said for a brake', () => {
    expect(Object.fromEntries(RUNS.map(r => [r, leverSideOf(r)]))).toEqual({
      rear: 'right',
      front: 'left',
      hub: 'right',
      'hub-second': 'left',
      'front-brake': null,
      'rear-brake': null,
    })
  })
  test('a front brake’s loop ends over the wheel, every other at the frame; the side is asked where nobody said it', () => {
    for (const run of RUNS) {
      const side = leverSideOf(run)
      const usual = usualBarLoop(run, side)
      expect(usual.end).toBe(loopEndOf(run))
      expect(usual.leverSide).toBe(side ?? '')
      expect(BarLoop.safeParse(usual).success).toBe(side !== null)
      expect(BarLoop.safeParse({ ...usual, leverSide: 'left' }).success).toBe(true)
      if (run === 'front-brake') expect(usual).toMatchObject({ exit: 'down', stopBehindMm: -40, stopBelowMm: 190 })
      else expect({ ...usual, leverSide: 'right' }).toEqual(USUAL_BAR_LOOP)
    }
  })
})
