import { describe, expect, test } from 'vitest'
import { backlashOfRun } from '../cable/backlash'
import { templateRun } from '../cable/templates'
import type { BenchEvent } from '../rear/benchEvents'
import { setupOfStandard } from '../response/testBikes'
import type { RearBike } from './rearBike'
import { rearStand } from './rearStand'
import { believedBikes, bikeToWorkOn, expectedOf, withOneBendLess, type Believed } from './whatIf'

const setup = setupOfStandard('r14-11')
/** A bike whose cable drags, as far as a few shifts into the same gears from both sides tell. */
const dragging: BenchEvent[] = [
  { kind: 'sight', at: 'L', offsetMm: 0 },
  { kind: 'sight', at: 'H', offsetMm: -0.4 },
  ...[1, 2, 3, 4, 5].map((to): BenchEvent => ({ kind: 'shift', from: to - 1, to, heard: 'slow' })),
  ...[4, 3, 2, 1].map((to): BenchEvent => ({ kind: 'shift', from: to + 1, to, heard: 'slow' })),
]
const believed = (log: readonly BenchEvent[]): Believed => ({ setup, log, options: {}, run: null })

describe('what if', () => {
  test('bikes are drawn as they are believed: a cable heard to drag has lost more than a usual one', () => {
    const lost = (log: readonly BenchEvent[]) => {
      const bikes = believedBikes(believed(log), 60, 1)
      expect(bikes).toHaveLength(60)
      return bikes.reduce((s, b) => s + b.backlashInMm + b.backlashOutMm, 0) / bikes.length
    }
    expect(lost(dragging)).toBeGreaterThan(2 * lost([]))
  })
  test('of a cable that drags a new one is expected to spare a part against a new hanger; the same question, the same answer', () => {
    const bikes = 3
    const cable = expectedOf(believed(dragging), 'cable', bikes)
    const hanger = expectedOf(believed(dragging), 'hanger', bikes)
    expect(cable.of).toBe(bikes)
    expect(cable.right).toBeGreaterThanOrEqual(hanger.right)
    expect(cable.touches).toBeGreaterThan(1)
    expect(cable.parts).toBeGreaterThanOrEqual(1)
    expect(cable.parts).toBeLessThan(hanger.parts)
    expect(cable).toEqual(expectedOf(believed(dragging), 'cable', bikes))
  }, 120_000)
  test('one of them can be worked on by hand: as it stands now, the same by its number, others by others', () => {
    const turned: BenchEvent[] = [...dragging, { kind: 'turn', screw: 'barrel', turns: 0.5 }]
    const bike = bikeToWorkOn(believed(turned), 'as-it-is', 4)
    expect(bike).toEqual(bikeToWorkOn(believed(turned), 'as-it-is', 4))
    expect(bike.hidden).not.toEqual(bikeToWorkOn(believed(turned), 'as-it-is', 5).hidden)
    expect(bike.setup).toEqual({ ...setup, barrelTurnsOut: setup.barrelTurnsOut + 0.5 })
    // at the stand it is that bike, nothing done yet, and the barrel has its way left
    const stand = rearStand(bike, 4, [])
    expect([stand.touches, stand.over, stand.trace.barrelTurns]).toEqual([0, false, setup.barrelTurnsOut + 0.5])
    expect(stand.hidden).toEqual(bike.hidden)
    expect(believedBikes(believed(turned), 1, 4)).toEqual([bike.hidden])
  })
  test('by hand with a new cable it drags less, with one bend less still less; what is wrong with it is said', () => {
    const lost = ({ hidden }: RearBike) => hidden.backlashInMm + hidden.backlashOutMm
    let [asItIs, cable, bend] = [0, 0, 0]
    for (let n = 1; n <= 12; n++) {
      asItIs += lost(bikeToWorkOn(believed(dragging), 'as-it-is', n))
      cable += lost(bikeToWorkOn(believed(dragging), 'cable', n))
      bend += lost(bikeToWorkOn(believed(dragging), 'bend', n))
    }
    expect(cable).toBeLessThan(asItIs / 1.5)
    expect(bend).toBeLessThan(cable)
    const drags = Array.from({ length: 12 }, (_, i) => bikeToWorkOn(believed(dragging), 'as-it-is', i + 1))
    expect(drags.filter(b => b.faults.includes('friction')).length).toBeGreaterThan(6)
  })
  test('nothing is written: log and options are what they were', () => {
    const asked = believed(Object.freeze([...dragging]) as BenchEvent[])
    const before = JSON.stringify(asked)
    expectedOf(asked, 'tensionFirst', 1)
    expect(JSON.stringify(asked)).toBe(before)
  }, 60_000)
  test('one bend less leaves what the run without it would lose; a run without bends loses nothing by it', () => {
    const run = templateRun('external', 'rear')
    const left = withOneBendLess(run)
    expect(left).toBeGreaterThan(0)
    expect(left).toBeLessThan(1)
    const straight = { ...run, pieces: run.pieces.filter(p => p.kind === 'bare') }
    expect(withOneBendLess(straight)).toBe(1)
    expect(backlashOfRun(run, 1)).toBeGreaterThan(backlashOfRun(straight, 1))
  })
})
