import { describe, expect, test } from 'vitest'
import { backlashOfRun } from '../cable/backlash'
import { templateRun } from '../cable/templates'
import type { BenchEvent } from '../rear/benchEvents'
import { setupOfStandard } from '../response/testBikes'
import { believedBikes, expectedOf, withOneBendLess, type Believed } from './whatIf'

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
