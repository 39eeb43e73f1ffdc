import { UNKNOWN } from '../chapter/looks'
/** A check of one touch: what is done, and what can be seen; the first is how it looks when nothing is wrong. */
export type BrakeCheck = { id: string; ask: string; cost: number; outcomes: readonly (readonly [string, string])[] }

const check = (id: string, ask: string, cost: number, ...outcomes: [string, string][]): BrakeCheck => ({
  id,
  ask,
  cost,
  outcomes,
})

/** Every check, cheap looks first. Costs in looks. `practice`; the costs are `model`. */
export const BRAKE_CHECKS: readonly BrakeCheck[] = [
  check(
    'lever',
    'Squeeze hard: how is the lever?',
    1,
    ['firm', 'Firm, clear of the bar'],
    ['bar', 'Comes to the bar'],
    ['nothing', 'Nothing at all'],
    ['wooden', 'Firm and wooden, brakes weakly'],
    ['stiff', 'Stiff, hard to squeeze'],
    ['stiff-weak', 'Stiff, and brakes weakly'],
  ),
  check(
    'arms',
    'Squeeze and let go: what do the pads do?',
    1,
    ['alike', 'Both move alike and come back'],
    ['one', 'One moves more, or rubs'],
    ['dead', 'One does not move back at all'],
    ['slow', 'Both come back slowly'],
    ['short', 'Both move, and do not reach'],
    ['still', 'Neither moves'],
  ),
  check(
    'noise',
    'Roll and brake: what is heard?',
    1,
    ['quiet', 'Quiet'],
    ['squeals', 'Squeals'],
    ['grinds', 'Grinds, metal'],
    ['pulses', 'Once per wheel turn'],
  ),
  check(
    'spin',
    'Let go and spin the wheel: does it rub?',
    1,
    ['free', 'Free'],
    ['wobbles', 'Rubs once per turn'],
    ['side', 'Rubs on one side all round'],
  ),
  check(
    'release',
    'Quick release, lever catch or straddle: closed and hooked?',
    0.3,
    ['closed', 'Closed'],
    ['open', 'Left open'],
  ),
  check('noodle', 'Is the noodle home in its bracket?', 1, ['home', 'Home'], ['out', 'Out']),
  check(
    'slot',
    'Turn the barrel: does the wire go through its slot?',
    1,
    ['through', 'Turns freely'],
    ['beside', 'Wire beside the slot, hard to turn'],
  ),
  check('springs', 'Look at both return springs', 1, ['on', 'Both on their posts'], ['off', 'One off its post']),
  check(
    'pads',
    'Look at the pads',
    1,
    ['fine', 'Life left, on the track'],
    ['worn', 'Worn out'],
    ['part', 'Part worn, life left'],
    ['glazed', 'Glazed or oily'],
    ['off-track', 'Off the track, or not flat'],
  ),
  check('anchor', 'Pull the wire at its anchor', 1, ['holds', 'Holds'], ['slips', 'Slipped, or loose']),
  check(
    'wire',
    'Look along the wire and at its head',
    1,
    ['whole', 'Whole'],
    ['broken', 'Broken, frayed or pulled out'],
  ),
  check('seated', 'Is the wheel home in its dropouts?', 1, ['home', 'Home and tight'], ['not', 'Not home']),
  check(
    'wire-off',
    'Wire off at the brake: lever and wire by hand',
    3,
    ['free', 'Both run freely'],
    ['drags', 'Drags in the housing'],
    ['lever', 'The lever itself sticks'],
  ),
  check(
    'arm-off',
    'Wire off: move the brake itself by hand',
    3,
    ['free', 'Moves freely, springs back'],
    ['tight', 'Tight on its pivot'],
  ),
  check('class', 'Lever’s pull against the brake’s', 1, ['fits', 'They match'], ['other', 'They do not']),
  check(
    'body',
    'Is the brake fast on the frame?',
    1,
    ['fast', 'Fast and central'],
    ['turned', 'Loose or turned'],
    ['strap', 'Reaction arm or strap loose'],
  ),
  check(
    'straddle',
    'Look at straddle and yoke',
    1,
    ['square', 'About 90°, yoke 20 to 40 mm over the tyre'],
    ['high', 'Yoke high, straddle steep'],
    ['low', 'Yoke low, straddle flat'],
  ),
  check(
    'arm-rest',
    'Does the arm start at rest?',
    1,
    ['rest', 'At rest'],
    ['preloaded', 'Already part of the way'],
    ['far', 'Pads far from the rotor'],
  ),
  check(
    'backpedal',
    'Pedal back: how far until it bites?',
    1,
    ['short', 'Within 60°'],
    ['far', 'More than 60°'],
    ['none', 'Does not bite'],
  ),
]

/** Looks at a hydraulic brake: enough to keep it from riding, not to say what is wrong inside. `practice` */
export const HYDRAULIC_CHECKS: readonly BrakeCheck[] = [
  check(
    'hydraulic-lever',
    'Squeeze hard and hold: how is the lever?',
    1,
    ['firm', 'Firm, and stays so'],
    ['spongy', 'Spongy'],
    ['sinks', 'Sinks towards the bar'],
  ),
  check('leak', 'Look for fluid at lever, line and brake', 1, ['dry', 'Dry'], ['leaks', 'Fluid comes out']),
]

/** A look with which nobody rides: how it is told, and the faults that answer it once they are put right. */
type Danger = { told: string; answeredBy: readonly string[] }
const danger = (told: string, ...answeredBy: string[]): Danger => ({ told, answeredBy })
const SERVICE = 'hydraulic-service'
/**
 * Looks with which nobody rides, until they are put right or seen otherwise. A renewed wire is clamped anew, renewed
 * pads are set anew. `practice`
 */
const DANGERS: Readonly<Record<string, Readonly<Record<string, Danger>>>> = {
  noodle: { out: danger('noodle out of its bracket', 'noodle-out') },
  anchor: { slips: danger('wire slips at its anchor', 'slipped', 'take-up', 'wire-broken', 'drag') },
  wire: { broken: danger('wire broken or frayed', 'wire-broken', 'drag') },
  seated: { not: danger('wheel not home', 'not-home') },
  body: {
    turned: danger('loose on the frame', 'turned', 'not-central'),
    strap: danger('reaction arm loose', 'strap'),
  },
  pads: {
    worn: danger('pads worn out', 'pads-worn', 'glazed'),
    'off-track': danger('pads off the track', 'toe', 'pads-worn', 'glazed'),
  },
  backpedal: { none: danger('back-pedal does not bite', 'worn-inside', 'strap', 'free-play') },
  'hydraulic-lever': {
    spongy: danger('lever spongy', SERVICE),
    sinks: danger('lever sinks to the bar', SERVICE),
  },
  leak: { leaks: danger('fluid comes out', SERVICE) },
}
const dangerOf = (check: string, outcome: string): Danger | undefined => DANGERS[check]?.[outcome]
/** What is told of a look with which nobody rides; null of any other. */
export const stopsRiding = (check: string, outcome: string): string | null => dangerOf(check, outcome)?.told ?? null
/** Is such a look answered once this fault was put right? */
export const answersDanger = (fault: string, check: string, outcome: string): boolean =>
  dangerOf(check, outcome)?.answeredBy.includes(fault) ?? false

/** A look by its id, of any kind of brake. */
export const checkOf = (id: string): BrakeCheck | undefined =>
  [...BRAKE_CHECKS, ...HYDRAULIC_CHECKS].find(c => c.id === id)
/** An outcome of a look, in words. */
export const outcomeWords = (check: string, outcome: string): string =>
  outcome === UNKNOWN ? 'Don’t know' : (checkOf(check)?.outcomes.find(o => o[0] === outcome)?.[1] ?? outcome)
/** Does this look leave a proof as it was: as when nothing is wrong, or nothing seen? */
export const looksRight = (check: string, outcome: string): boolean =>
  outcome === UNKNOWN || checkOf(check)?.outcomes[0]?.[0] === outcome
