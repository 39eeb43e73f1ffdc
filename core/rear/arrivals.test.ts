import { describe, expect, test } from 'vitest'
import { setupOfStandard } from '../response/testBikes'
import { arrivalsOf, heardOf } from './arrivals'
import { REAR_EVENTS, sprocketsNeeded, type RearOf } from './events'
import { reachesLargest } from './gates'
import { benchEventsOf } from './project'
import { sayRear } from './say'
import { startOf } from './trace'

/* A pass as the model has it (docs/model.md, section 6): it enters the log as its shifts. */

const went = (over: Partial<RearOf<'went'>> = {}): RearOf<'went'> => ({
  kind: 'went',
  from: 0,
  to: 3,
  back: false,
  stop: null,
  ...over,
})

describe('a pass', () => {
  test('goes click by click, and back again', () => {
    expect(arrivalsOf(0, 3, false).map(a => a.to)).toEqual([1, 2, 3])
    expect(arrivalsOf(1, 3, true)).toEqual([
      { to: 2, way: 'spokes' },
      { to: 3, way: 'spokes' },
      { to: 2, way: 'frame' },
      { to: 1, way: 'frame' },
    ])
    expect(arrivalsOf(3, 0, false).map(a => a.way)).toEqual(['frame', 'frame', 'frame'])
    expect(arrivalsOf(2, 2, true)).toEqual([])
  })
  test('is clean up to where it stopped, and nothing is said of what lies behind', () => {
    const stop = { sprocket: 1, way: 'frame', heard: 'slow' } as const
    expect(heardOf({ to: 3, back: true, stop }, 1)).toEqual([
      { from: 1, to: 2, heard: 'clean' },
      { from: 2, to: 3, heard: 'clean' },
      { from: 3, to: 2, heard: 'clean' },
      { from: 2, to: 1, heard: 'slow' },
    ])
    expect(heardOf({ to: 0, back: false, stop: null }, 2)).toEqual([
      { from: 2, to: 1, heard: 'clean' },
      { from: 1, to: 0, heard: 'clean' },
    ])
  })
  test('is told from where the lever stands by the log, whatever the entry says of it', () => {
    const setup = setupOfStandard('r14-10')
    const trace = { ...startOf(setup), lever: 2 }
    const heard = benchEventsOf(went({ from: 0, to: 4 }), trace, setup)
    expect(heard.map(e => (e.kind === 'shift' ? [e.from, e.to] : e.kind))).toEqual([
      [2, 3],
      [3, 4],
    ])
    // an undo took the way to it away: what was heard is kept, and nothing is made up before it
    const stop = { sprocket: 1, way: 'spokes', heard: 'none' } as const
    expect(benchEventsOf(went({ to: 4, stop }), trace, setup)).toEqual([
      { kind: 'shift', from: 2, to: 1, heard: 'none' },
    ])
  })
  test('reaches the largest only where it arrived there', () => {
    expect(reachesLargest(went({ to: 9 }), 10)).toBe(true)
    expect(reachesLargest(went({ to: 8 }), 10)).toBe(false)
    expect(reachesLargest(went({ to: 9, stop: { sprocket: 4, way: 'spokes', heard: 'slow' } }), 10)).toBe(false)
    expect(reachesLargest(went({ to: 9, stop: { sprocket: 9, way: 'spokes', heard: 'rubs-in' } }), 10)).toBe(true)
    expect(reachesLargest(went({ from: 9, to: 0, back: true }), 10)).toBe(true)
  })
  test('is refused with a sprocket that is not there, or clean where it stopped', () => {
    const schema = REAR_EVENTS.find(e => e.shape.kind.value === 'went')!
    const stop = { sprocket: 2, way: 'spokes', heard: 'slow' }
    expect(schema.safeParse(went({ stop: stop as never })).success).toBe(true)
    expect(schema.safeParse(went({ stop: { ...stop, heard: 'clean' } as never })).success).toBe(false)
    expect(schema.safeParse(went({ to: -1 })).success).toBe(false)
    expect(schema.safeParse({ ...went(), stop: undefined }).success).toBe(false)
    expect(sprocketsNeeded(went({ to: 11 }))).toBe(12)
  })
  test('is said in a line', () => {
    const teeth = [11, 13, 15, 17]
    expect(sayRear(went(), teeth)).toBe('To the 17, clean')
    expect(sayRear(went({ back: true, stop: { sprocket: 2, way: 'frame', heard: 'rubs-in' } }), teeth)).toBe(
      'To the 17 and back, not clean on the 15: rubs-in',
    )
  })
})
