import { describe, expect, test } from 'vitest'
import { pulled, pulledQuiet, stood, stoodQuiet, type Pull, type Standing } from './settled'

// common practice, no source: how gauges on a line talk
describe('a length', () => {
  const meantIn = (stream: readonly (readonly [number, number])[]) => {
    let now: Standing = null
    return stream.flatMap(([value, at]) => {
      const step = stood(now, value, at)
      now = step.now
      return step.meant === null ? [] : [step.meant]
    })
  }
  const still = (value: number, from: number, ms: number) =>
    Array.from({ length: ms / 100 }, (_, i) => [value + (i % 2) * 0.02, from + i * 100] as const)
  const moving = (from: number, ms: number) =>
    Array.from({ length: ms / 100 }, (_, i) => [i * 0.4, from + i * 100] as const)
  test('is meant where it stands still, once, and not while the wheel turns', () => {
    expect(meantIn([...moving(0, 1_000), ...still(20.6, 1_000, 3_000), ...moving(4_000, 600)])).toEqual([20.6])
    expect(meantIn([...still(20.6, 0, 1_000), ...moving(1_000, 500), ...still(20.6, 1_500, 1_000)])).toEqual([
      20.6, 20.6,
    ])
    expect(meantIn(moving(0, 5_000))).toEqual([])
  })
  test('said once by a button is meant when nothing follows; said again it is meant again', () => {
    const first = stood(null, 12.3, 0)
    expect(first.meant).toBeNull()
    const quiet = stoodQuiet(first.now)
    expect(quiet.meant).toBe(12.3)
    expect(stoodQuiet(quiet.now).meant).toBeNull()
    expect(stoodQuiet(stood(quiet.now, 12.3, 4_000).now).meant).toBe(12.3)
  })
})

describe('a torque', () => {
  const meantIn = (stream: readonly number[]) => {
    let now: Pull = null
    return stream.flatMap(nm => {
      const step = pulled(now, nm)
      now = step.now
      return step.meant === null ? [] : [step.meant]
    })
  }
  test('is its highest before the hand lets go, once a pull, whichever way it turns', () => {
    expect(meantIn([0, 1, 3, 5.2, 5.4, 5.1, 2, 1.5, 0.6, 0, 0])).toEqual([5.4])
    expect(meantIn([0, 4, 5.4, 0.1, 0, -3, -9.1, 0])).toEqual([5.4, 9.1])
    // a second grip before it was let go quite is the same pull; after it another
    expect(meantIn([4, 5.4, 2, 4, 0, 6, 0])).toEqual([5.4, 6])
  })
  test('said once it is meant when nothing follows', () => {
    const { now, meant } = pulled(null, 9.1)
    expect(meant).toBeNull()
    expect(pulledQuiet(now)).toEqual({ now: null, meant: 9.1 })
    expect(pulledQuiet(null).meant).toBeNull()
  })
})
