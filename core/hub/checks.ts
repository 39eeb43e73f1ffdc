import type { HubWay } from './kinds'

/** A look of one touch; the first outcome is how it is when nothing is wrong. */
export type HubCheck = {
  id: string
  /** What is looked at, in a word or two. */
  of: string
  ask: string
  cost: number
  outcomes: readonly (readonly [string, string])[]
  ways: readonly HubWay[]
}

const check = (
  id: string,
  of: string,
  ways: HubWay[],
  ask: string,
  cost: number,
  ...outcomes: [string, string][]
): HubCheck => ({
  id,
  of,
  ask,
  cost,
  outcomes,
  ways,
})

/** Every gear tried: one answer for all of them. */
export const ALL_GEARS = 'gears'

/** Looks at a hub's cable and nut. `practice`; costs are `model`. Window, marks and play are readings, gears are counts. */
export const HUB_CHECKS: readonly HubCheck[] = [
  check(
    ALL_GEARS,
    'all gears tried',
    ['rod', 'marks', 'twin'],
    'Wheel off the ground, every gear tried by hand: does each hold?',
    2,
    ['hold', 'All hold'],
    ['not', 'Some do not, or none is there'],
  ),
  check(
    'lock',
    'lock nut',
    ['rod'],
    'Lock nut against the anchor: fingers only, does it turn?',
    1,
    ['tight', 'Tight'],
    ['loose', 'Loose'],
  ),
  check(
    'screwed',
    'chain in the axle',
    ['rod'],
    'Chain unhooked: does it screw further into the axle?',
    2,
    ['home', 'Finger tight, at most half a turn back'],
    ['not', 'Goes further in'],
  ),
  check(
    'moved',
    'wheel moved since',
    ['rod', 'marks'],
    'Was the wheel out, or moved in its dropouts, since it last shifted right?',
    1,
    ['no', 'No'],
    ['yes', 'Yes'],
  ),
  check(
    'wire',
    'wire by hand',
    ['rod', 'marks', 'twin'],
    'Lever slack, wire by hand: does it run?',
    2,
    ['free', 'Runs freely'],
    ['drags', 'Drags, or comes back late'],
  ),
  check(
    'washers',
    'anti-turn washers',
    ['rod', 'marks'],
    'Anti-turn washers: the right pair, home in the dropouts?',
    1,
    ['home', 'Home'],
    ['not', 'Missing or turned'],
  ),
  check(
    'way',
    'gears along the grip',
    ['twin'],
    'Grip from 1 towards 14: do the gears go up?',
    1,
    ['up', 'Up'],
    ['down', 'Down'],
    ['still', 'Nothing moves one way'],
  ),
  check(
    'coupling',
    'couplings',
    ['twin'],
    'Part each coupling and tug its wire',
    2,
    ['holds', 'Both grubs hold'],
    ['slips', 'A wire slips'],
  ),
]

/** Faults of a hub's setting, each with its cure; how often is `model`, the cures `practice`. */
export type HubFault = {
  id: string
  words: string
  weight: number
  ways: readonly HubWay[]
  cure: string
  caution?: string
}
const fault = (
  id: string,
  ways: HubWay[],
  words: string,
  weight: number,
  cure: string,
  caution?: string,
): HubFault => ({ id, words, weight, ways, cure, ...(caution ? { caution } : {}) })
const CREEPS =
  'A loose lock nut lets the anchor creep: the hub drops into its highest gear and the chain can fall out. Not ridden until it is locked.'
const NEUTRAL = 'Neutral or slip between gears throws the rider and damages the hub: not ridden until it is set.'

export const HUB_FAULTS: readonly HubFault[] = [
  fault(
    'slack',
    ['rod', 'marks'],
    'Cable too slack',
    16,
    'Tighter by the turns above, lock, every gear again.',
    NEUTRAL,
  ),
  fault(
    'tight',
    ['rod', 'marks'],
    'Cable too tight',
    10,
    'Slacker by the turns above, lock, every gear again.',
    NEUTRAL,
  ),
  fault(
    'lock-nut',
    ['rod'],
    'Lock nut loose, the anchor crept',
    12,
    'Set the rod in the window, then lock the nut against the anchor.',
    CREEPS,
  ),
  fault(
    'not-home',
    ['rod'],
    'Chain not screwed home',
    6,
    'Unhook, screw in finger tight, up to half a turn back so that it lines up, then set it anew.',
    NEUTRAL,
  ),
  fault(
    'axle',
    ['rod', 'marks'],
    'Axle moved',
    12,
    'Chain slack 10 to 15 mm, washers home, nuts to torque; then the cable is set anew.',
    'Axle nuts to the maker’s torque before any test.',
  ),
  fault(
    'washers',
    ['rod', 'marks'],
    'Anti-turn washers wrong',
    4,
    'The right pair, home in the dropouts; then the cable is set anew.',
    'An axle that turns winds up the cable and loosens its nuts: not ridden.',
  ),
  fault(
    'drag',
    ['rod', 'marks', 'twin'],
    'Drag in the housing',
    9,
    'Renew wire and housing: the cable bench lays it out.',
    'Frayed ends stab and cut wire flies: goggles, and cap the end.',
  ),
  fault(
    'much-play',
    ['twin'],
    'Too much play in the grip',
    12,
    'Barrels out until the grip has about 2 mm of free play. The gears are picked inside the hub: slack never picks a wrong one.',
  ),
  fault('no-play', ['twin'], 'No play, grip stiff', 8, 'Barrels in until the grip has about 2 mm of free play.'),
  fault(
    'coupling',
    ['twin'],
    'A wire slips in its coupling',
    8,
    'Wire flush with the coupling’s hole; one grub flush, then the other, 1.5 N·m; never unscrewed more than 2 mm.',
  ),
  fault(
    'crossed',
    ['twin'],
    'Couplings or heads swapped',
    5,
    'Seen from the front of the grip the lower inner’s head seats left, the upper’s right: swap them.',
  ),
  fault(
    'inside',
    ['rod', 'marks', 'twin'],
    'Inside the hub',
    6,
    'The setting is right and a gear is still missing or slips: opened by who is trained for this hub.',
    'Not ridden: a hub that slips throws the rider.',
  ),
]
/** How a look is when this is the fault; all other looks are as if nothing were wrong. `practice` */
export const HUB_SHOWS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  'lock-nut': { lock: 'loose' },
  'not-home': { screwed: 'not' },
  axle: { moved: 'yes' },
  washers: { washers: 'not', moved: 'yes' },
  drag: { wire: 'drags' },
  coupling: { coupling: 'slips', way: 'still' },
  crossed: { way: 'down' },
}
export const HUB_FAULT_IDS: ReadonlySet<string> = new Set(HUB_FAULTS.map(f => f.id))

export const hubFault = (id: string): HubFault | undefined => HUB_FAULTS.find(f => f.id === id)
export const hubChecksFor = (way: HubWay): HubCheck[] => HUB_CHECKS.filter(c => c.ways.includes(way))

/** The usual order of looking, played straight. `practice` where the trade has one; the rest is `model`. */
export const HUB_ORDER: Record<HubWay, readonly string[]> = {
  rod: ['lock', 'reading', 'moved', 'screwed', 'washers', 'wire', 'gears'],
  marks: ['reading', 'moved', 'washers', 'wire', 'gears'],
  twin: ['reading', 'way', 'coupling', 'wire', 'gears'],
}
