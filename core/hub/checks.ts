import { HUB_CHECK_NAMES, type HubCheckName } from './checkWords'
import type { HubWay } from './kinds'

export { ALL_GEARS, TICK } from './checkWords'

/** A look of one touch. */
export type HubCheck = HubCheckName & {
  /** What is looked at, as it is asked. */
  ask: string
  cost: number
  ways: readonly HubWay[]
}

/** What is asked, of which hubs, at which cost (`model`). Window, marks and play are readings, gears are counts. */
const ASKED: Readonly<Record<string, { ask: string; cost: number; ways: readonly HubWay[] }>> = {
  gears: {
    ask: 'Wheel off the ground, every gear tried by hand: does each hold?',
    cost: 2,
    ways: ['rod', 'marks', 'twin'],
  },
  tick: { ask: 'Highest gear, cranks held, wheel spun: does it run free and tick?', cost: 1, ways: ['rod'] },
  lock: { ask: 'Lock nut against the anchor: fingers only, does it turn?', cost: 1, ways: ['rod'] },
  screwed: { ask: 'Chain unhooked: does it screw further into the axle?', cost: 2, ways: ['rod'] },
  moved: {
    ask: 'Was the wheel out, or moved in its dropouts, since it last shifted right?',
    cost: 1,
    ways: ['rod', 'marks'],
  },
  wire: { ask: 'Lever slack, wire by hand: does it run?', cost: 2, ways: ['rod', 'marks', 'twin'] },
  washers: { ask: 'Anti-turn washers: the right pair, home in the dropouts?', cost: 1, ways: ['rod', 'marks'] },
  way: { ask: 'Grip from 1 towards 14: do the gears go up?', cost: 1, ways: ['twin'] },
  clicks: { ask: 'Grip from 1 to 14: are there 13 clicks?', cost: 1, ways: ['twin'] },
  coupling: { ask: 'Part each coupling and tug its wire', cost: 2, ways: ['twin'] },
}

export const HUB_CHECKS: readonly HubCheck[] = HUB_CHECK_NAMES.map(c => ({ ...c, ...ASKED[c.id]! }))

export const hubChecksFor = (way: HubWay): HubCheck[] => HUB_CHECKS.filter(c => c.ways.includes(way))
