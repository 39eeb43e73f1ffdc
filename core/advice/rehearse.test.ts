import { describe, expect, test } from 'vitest'
import { advise, forgetBeliefs } from './advise'
import { rehearse } from './rehearse'
import { setupOfStandard } from '../response/testBikes'
import type { BenchEvent } from '../rear/benchEvents'

const SETUP = setupOfStandard('r14-11')
const LOG: BenchEvent[] = [
  { kind: 'sight', at: 'H', offsetMm: -0.4 },
  { kind: 'shift', from: 0, to: 1, heard: 'none' },
]

describe('a bench thought through before the first real one', () => {
  test('goes through to its end in steps, and changes no answer', async () => {
    forgetBeliefs()
    const before = advise(SETUP, LOG)
    forgetBeliefs()
    let steps = 0
    await rehearse(async () => void steps++)
    expect(steps).toBeGreaterThan(4)
    expect(advise(SETUP, LOG)).toEqual(before)
  })

  test('ends between two steps as soon as somebody asks', async () => {
    forgetBeliefs()
    let steps = 0
    const asked = async () => {
      if (++steps === 3) throw new Error('asked')
    }
    await expect(rehearse(asked)).rejects.toThrow('asked')
    expect(steps).toBe(3)
  })
})
