import { hubFaultWords } from './faultWords'
import type { HubWay } from './kinds'

/** Faults of a hub's setting, each with its cure; how often is `model`, the cures `practice`. */
export type HubFault = {
  id: string
  words: string
  weight: number
  ways: readonly HubWay[]
  cure: string
  caution?: string
}
const fault = (id: string, ways: HubWay[], weight: number, cure: string, caution?: string): HubFault => ({
  id,
  words: hubFaultWords(id) ?? id,
  weight,
  ways,
  cure,
  ...(caution ? { caution } : {}),
})
const CREEPS =
  'A loose lock nut lets the anchor creep: the hub drops into its highest gear and the chain can fall out. Not ridden until it is locked.'
const NEUTRAL = 'Neutral or slip between gears throws the rider and damages the hub: not ridden until it is set.'

export const HUB_FAULTS: readonly HubFault[] = [
  fault('slack', ['rod', 'marks'], 16, 'Tighter by the turns above, lock, every gear again.', NEUTRAL),
  fault('tight', ['rod', 'marks'], 10, 'Slacker by the turns above, lock, every gear again.', NEUTRAL),
  fault('lock-nut', ['rod'], 12, 'Set the rod in the window, then lock the nut against the anchor.', CREEPS),
  fault(
    'not-home',
    ['rod'],
    6,
    'Unhook, screw in finger tight, up to half a turn back so that it lines up, then set it anew.',
    NEUTRAL,
  ),
  fault(
    'axle',
    ['rod', 'marks'],
    12,
    'Chain slack 10 to 15 mm, washers home, nuts to torque; then the cable is set anew.',
    'Axle nuts to the maker’s torque before any test.',
  ),
  fault(
    'washers',
    ['rod', 'marks'],
    4,
    'The right pair, home in the dropouts; then the cable is set anew.',
    'An axle that turns winds up the cable and loosens its nuts: not ridden.',
  ),
  fault(
    'drag',
    ['rod', 'marks', 'twin'],
    9,
    'Renew wire and housing: the cable bench lays it out.',
    'Frayed ends stab and cut wire flies: goggles, and cap the end.',
  ),
  fault(
    'much-play',
    ['twin'],
    12,
    'Barrels out until the grip has about 2 mm of free play. The gears are picked inside the hub: slack never picks a wrong one.',
  ),
  fault('no-play', ['twin'], 8, 'Barrels in until the grip has about 2 mm of free play.'),
  fault(
    'coupling',
    ['twin'],
    8,
    'Wire flush with the coupling’s hole; one grub flush, then the other, 1.5 N·m; never unscrewed more than 2 mm.',
  ),
  fault(
    'crossed',
    ['twin'],
    5,
    'Seen from the front of the grip the lower inner’s head seats left, the upper’s right: swap them.',
  ),
  fault(
    'grip-apart',
    ['twin'],
    7,
    'Couplings parted, grip and hub both to gear 14, the hub by its rear cable; joined there, all 14 gears counted.',
  ),
  fault(
    'inside',
    ['rod', 'marks', 'twin'],
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
  'grip-apart': { clicks: 'fewer' },
}

/** The usual order of looking, played straight. `practice` where the trade has one; the rest is `model`. */
export const HUB_ORDER: Record<HubWay, readonly string[]> = {
  rod: ['lock', 'reading', 'moved', 'screwed', 'washers', 'wire', 'gears'],
  marks: ['reading', 'moved', 'washers', 'wire', 'gears'],
  twin: ['reading', 'way', 'clicks', 'coupling', 'wire', 'gears'],
}
