import { BRAKE_CHECKS, type BrakeCheck } from './checks'
import { faultWords, OTHER_CURES } from './faultWords'
import { isDiagnosed, type BrakeKind, type EndKind } from './kinds'

type Shows = Record<string, string | Readonly<Record<string, number>>>
/**
 * A fault with its cure; `weight` is how often it is met, `shows` what each check then looks like (else as if nothing
 * were wrong).
 */
export type BrakeFault = {
  id: string
  words: string
  weight: number
  cure: string
  caution?: string
  /** Its cure buys a part: one look alone is not enough for it. */
  renews: boolean
  shows: Shows
}

type Unnamed = Omit<BrakeFault, 'words'>
const fault = (id: string, weight: number, cure: string, shows: Shows, caution?: string): Unnamed => ({
  id,
  weight,
  cure,
  shows,
  renews: RENEWED.has(id),
  ...(caution ? { caution } : {}),
})
const RENEWED: ReadonlySet<string> = new Set([
  'drag',
  'pads-worn',
  'wire-broken',
  'glazed',
  'lever-class',
  'rotor-bent',
  'worn-inside',
])
const FRAYED = 'Frayed ends stab and cut wire flies: goggles, and cap the end.'
const OILY = 'Nothing oily near pads, rim or rotor.'

const drag = fault(
  'drag',
  8,
  'Renew wire and housing: the cable bench lays it out. Brake housing only.',
  { lever: { stiff: 0.6, 'stiff-weak': 0.15, firm: 0.25 }, arms: { slow: 0.9, alike: 0.1 }, 'wire-off': 'drags' },
  FRAYED,
)
const stickyLever = fault('lever-sticks', 3, 'Clean and grease the lever’s pivot; a bent blade is renewed.', {
  lever: { stiff: 0.6, 'stiff-weak': 0.15, firm: 0.25 },
  arms: { slow: 0.9, alike: 0.1 },
  'wire-off': 'lever',
})
const worn = fault(
  'pads-worn',
  12,
  'New pads; the barrel goes back in first. Flat, or 0.5 mm toe.',
  { lever: { bar: 0.85, firm: 0.15 }, pads: 'worn', noise: { grinds: 0.35, quiet: 0.65 } },
  OILY,
)
const slipped = fault(
  'slipped',
  10,
  'Loosen the anchor without removing it, pads on the rim, let out about 5 mm, tighten to torque.',
  { lever: { bar: 0.9, firm: 0.1 }, anchor: { slips: 0.9, holds: 0.1 } },
  FRAYED,
)
/** Nothing has slipped and nothing is worn out: the wire settled, or the pads are part worn. `practice` */
const takeUp = fault(
  'take-up',
  9,
  'Barrel out, or the anchor loosened and the wire drawn: pads part worn, or new wire settled. Nothing is renewed for it.',
  { lever: { bar: 0.8, firm: 0.2 }, arms: { short: 0.9, alike: 0.1 }, pads: { part: 0.6, fine: 0.4 } },
  FRAYED,
)
/** The cheapest look of all. `practice` */
const releaseOpen = (cure: string) =>
  fault('release-open', 9, cure, {
    lever: { bar: 0.9, firm: 0.1 },
    arms: { short: 0.7, alike: 0.3 },
    release: 'open',
  })
/** One that is only frayed still brakes. `practice` */
const broken = fault(
  'wire-broken',
  5,
  'Renew the wire: the cable bench lays it out. Never a joiner in a brake’s inner.',
  { lever: { nothing: 0.8, bar: 0.1, firm: 0.1 }, arms: { still: 0.8, alike: 0.2 }, wire: 'broken' },
  FRAYED,
)
const glazed = fault(
  'glazed',
  7,
  'Renew the pads, clean the braking surface without oil; sanding only helps glaze, not oil.',
  { lever: { firm: 0.5, wooden: 0.5 }, noise: { squeals: 0.75, quiet: 0.25 }, pads: 'glazed' },
  OILY,
)
const toe = fault(
  'toe',
  6,
  'Set them on the track, flat or the front 0.5 mm nearer by a thin shim under the rear while nipping.',
  { noise: { squeals: 0.8, quiet: 0.2 }, pads: { 'off-track': 0.75, fine: 0.25 } },
)
const wheel = fault('wheel', 7, 'True the wheel; until then 7 to 10 mm let out keeps it free.', {
  spin: { wobbles: 0.95, free: 0.05 },
  noise: { pulses: 0.6, quiet: 0.4 },
})
const notHome = fault(
  'not-home',
  7,
  'Wheel home and closed before anything on the brake is turned.',
  { spin: { side: 0.85, wobbles: 0.15 }, arms: { one: 0.6, alike: 0.4 }, seated: 'not' },
  'A wheel that is not home can come out: nothing else first.',
)
/** Drum and roller alike. */
const freeTravel = fault(
  'far',
  14,
  'Barrel out until it drags, then back until the wheel is free; bite by a third of the stroke.',
  { lever: { bar: 0.9, firm: 0.1 }, 'arm-rest': 'far' },
)
const reactionArm = fault(
  'strap',
  10,
  'Fasten it before any test.',
  { body: 'strap', arms: { one: 0.2, alike: 0.8 } },
  'A loose reaction arm lets the hub turn with the wheel: do not ride.',
)
const wrongLever = (feel: 'bar' | 'wooden') =>
  fault(
    'lever-class',
    4,
    feel === 'bar'
      ? 'A long-pull lever, or one that is switched to it.'
      : 'A short-pull lever, or one that is switched to it.',
    { lever: { [feel]: 0.9, firm: 0.1 }, class: 'other' },
  )

/**
 * The faults of each kind, in the usual order of checking where there is one. `practice` and `memory`; how often and
 * how surely are `model`.
 */
const FAULTS: Record<BrakeKind, readonly Unnamed[]> = {
  'linear-pull': [
    fault(
      'noodle-out',
      16,
      'Squeeze the arms together and put the noodle home. It is the wheel’s release: look after every wheel removal.',
      { lever: { nothing: 0.85, bar: 0.15 }, noodle: 'out', arms: { still: 0.7, alike: 0.3 } },
      'No brake at all until it is home.',
    ),
    fault('beside-slot', 8, 'Wire through the slot; right, the barrel turns freely.', {
      lever: { stiff: 0.75, firm: 0.25 },
      slot: 'beside',
      arms: { slow: 0.5, alike: 0.5 },
    }),
    fault('spring-off', 10, 'Hook it back behind its post.', {
      arms: { dead: 0.9, one: 0.1 },
      spin: { side: 0.85, free: 0.15 },
      springs: 'off',
    }),
    fault(
      'unequal',
      14,
      'Turn the lazy arm’s screw in an eighth, pump the lever, look again; both sides if both have one. Where only the other arm has a screw, turn that one out. Overdone, the fault changes sides.',
      { arms: { one: 0.93, alike: 0.07 }, spin: { side: 0.6, free: 0.4 } },
    ),
    takeUp,
    slipped,
    worn,
    broken,
    notHome,
    wheel,
    glazed,
    toe,
    drag,
    stickyLever,
    wrongLever('bar'),
    fault(
      'pivot-tight',
      4,
      'Arm off, post cleaned and greased; a post that was hammered or bent goes to a frame builder.',
      { arms: { dead: 0.5, slow: 0.5 }, 'arm-off': 'tight' },
    ),
  ],
  'dual-pivot': [
    fault(
      'turned',
      14,
      'Squeeze, shift the body until both pads touch together, nip while holding; fine by the centring screw (in brings that side’s pad towards the rim).',
      { arms: { one: 0.9, alike: 0.1 }, spin: { side: 0.7, free: 0.3 }, body: 'turned' },
    ),
    takeUp,
    slipped,
    worn,
    broken,
    notHome,
    wheel,
    glazed,
    toe,
    drag,
    stickyLever,
    wrongLever('wooden'),
    releaseOpen('Close it, and show the rider how it works. Nothing else was wrong.'),
    fault(
      'pivot-tight',
      6,
      'Clean and one drop of oil at the pivot, wiped off; none near the pads.',
      { arms: { slow: 0.85, one: 0.15 }, 'arm-off': 'tight' },
      OILY,
    ),
  ],
  cantilever: [
    fault(
      'yoke-high',
      10,
      'Lower yoke: more gain, less travel; start at a 90° straddle, 20 to 40 mm over the tyre.',
      { lever: { wooden: 0.75, firm: 0.25 }, straddle: 'high' },
      'A catch under the straddle, so that a broken cable cannot drop it onto the tyre.',
    ),
    fault(
      'yoke-low',
      6,
      'Raise it: the pads travel further.',
      { lever: { bar: 0.8, firm: 0.2 }, straddle: 'low' },
      'A catch under the straddle.',
    ),
    fault(
      'unequal',
      12,
      'The lazy arm’s screw in an eighth at a time, pump, look again; where only the other arm has one, that one out.',
      {
        arms: { one: 0.93, alike: 0.07 },
        spin: { side: 0.6, free: 0.4 },
      },
    ),
    takeUp,
    releaseOpen('Hook it in, and show the rider how it works. Nothing else was wrong.'),
    slipped,
    worn,
    broken,
    notHome,
    wheel,
    glazed,
    toe,
    drag,
    stickyLever,
    wrongLever('wooden'),
  ],
  'cable-disc': [
    fault('far', 14, 'Take wear up at the pads, never by preloading the arm: 0.2 to 0.4 mm a side.', {
      lever: { bar: 0.9, firm: 0.1 },
      'arm-rest': 'far',
    }),
    fault('preloaded', 8, 'Arm back to rest, then the pads in.', {
      lever: { bar: 0.5, wooden: 0.5 },
      'arm-rest': 'preloaded',
    }),
    fault(
      'not-central',
      12,
      'Bolts loose, lever held, tighten in turns, 6 to 8 N·m; on one-piston kinds the fixed pad nearest.',
      { spin: { side: 0.9, free: 0.1 }, body: 'turned' },
    ),
    fault(
      'rotor-bent',
      8,
      'True or renew it; at the minimum stamped on it, it is scrap (1.5 mm on most that began at 1.8).',
      {
        spin: { wobbles: 0.95, free: 0.05 },
        noise: { pulses: 0.6, quiet: 0.4 },
      },
    ),
    slipped,
    worn,
    broken,
    notHome,
    glazed,
    drag,
    stickyLever,
  ],
  drum: [
    freeTravel,
    reactionArm,
    fault(
      'glazed',
      6,
      'Linings renewed by who is trained for this hub.',
      { lever: { wooden: 0.8, firm: 0.2 }, noise: { squeals: 0.6, quiet: 0.4 } },
      OILY,
    ),
    slipped,
    broken,
    drag,
    stickyLever,
  ],
  roller: [
    freeTravel,
    reactionArm,
    fault(
      'dry',
      6,
      'Heat-proof grease made for roller brakes, through its port. It has no linings, and is never cleaned dry.',
      { lever: { wooden: 0.5, firm: 0.5 }, noise: { squeals: 0.6, grinds: 0.25, quiet: 0.15 } },
    ),
    slipped,
    broken,
    drag,
    stickyLever,
  ],
  coaster: [
    fault(
      'strap',
      16,
      'Secure the strap before any test.',
      { body: 'strap', backpedal: { far: 0.6, short: 0.4 } },
      'A loose strap lets the arm swing round: do not ride.',
    ),
    fault(
      'free-play',
      10,
      'Cones set or linings renewed by who is trained for this hub; at most 60° of free back-pedal.',
      { backpedal: { far: 0.9, short: 0.1 } },
    ),
    fault('worn-inside', 6, 'The hub is opened by who is trained for it.', {
      backpedal: { none: 0.85, far: 0.15 },
      noise: { grinds: 0.5, quiet: 0.5 },
    }),
    notHome,
  ],
}

const named = (kind: BrakeKind): readonly BrakeFault[] =>
  FAULTS[kind].map(f => ({ ...f, words: faultWords(kind, f.id) ?? f.id }))
/** The faults of each kind, by the words of that kind. */
export const BRAKE_FAULTS: Record<BrakeKind, readonly BrakeFault[]> = {
  'linear-pull': named('linear-pull'),
  'dual-pivot': named('dual-pivot'),
  cantilever: named('cantilever'),
  'cable-disc': named('cable-disc'),
  drum: named('drum'),
  roller: named('roller'),
  coaster: named('coaster'),
}

/** Checks that mean something on a kind of brake: those that some fault of it shows. */
export const checksFor = (kind: BrakeKind): BrakeCheck[] =>
  BRAKE_CHECKS.filter(c => BRAKE_FAULTS[kind].some(f => c.id in f.shows))

/** The usual order of checking, straight down the faults: each fault's own sure sign. `practice` for linear-pull */
export const writtenOrder = (kind: BrakeKind): string[] => [...new Set(BRAKE_FAULTS[kind].map(f => signOf(f)))]

/** The check that shows a fault most surely: what is looked for when it is suspected. */
export function signOf(f: BrakeFault): string {
  const sure = (v: string | Readonly<Record<string, number>>, id: string) =>
    typeof v === 'string' ? 2 : 1 - (v[BRAKE_CHECKS.find(c => c.id === id)!.outcomes[0]![0]] ?? 0)
  return Object.entries(f.shows).sort((a, b) => sure(b[1], b[0]) - sure(a[1], a[0]))[0]![0]
}

/** What can have been put right on a brake, to choose from; on one nobody has named, what is common to most. */
export function curesOf(kind: EndKind | undefined): { id: string; words: string }[] {
  if (kind && !isDiagnosed(kind)) return [...OTHER_CURES]
  const faults = kind ? BRAKE_FAULTS[kind] : BRAKE_FAULTS['linear-pull'].filter(f => COMMON.includes(f.id))
  return [...faults.map(({ id, words }) => ({ id, words })), ...OTHER_CURES.filter(o => o.id === 'other')]
}
const COMMON: readonly string[] = ['slipped', 'pads-worn', 'wire-broken', 'not-home', 'wheel', 'glazed', 'toe', 'drag']
