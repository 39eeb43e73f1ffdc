/**
 * A look at a hub by name with its answers; what is asked stands in `checks.ts`, which only the bench asks. The first
 * answer is how it is when nothing is wrong.
 */
export type HubCheckName = { id: string; of: string; outcomes: readonly (readonly [string, string])[] }

/** Every gear tried: one answer for all of them. */
export const ALL_GEARS = 'gears'
/** The highest gear heard: it runs free of drag and ticks its own way; any other does not. */
export const TICK = 'tick'

/** Looks at a hub's cable and nut. `practice` */
export const HUB_CHECK_NAMES: readonly HubCheckName[] = [
  {
    id: 'gears',
    of: 'all gears tried',
    outcomes: [
      ['hold', 'All hold'],
      ['not', 'Some do not, or none is there'],
    ],
  },
  {
    id: 'tick',
    of: 'highest gear heard',
    outcomes: [
      ['ticks', 'Free, and ticks'],
      ['not', 'Drags, or does not tick'],
    ],
  },
  {
    id: 'lock',
    of: 'lock nut',
    outcomes: [
      ['tight', 'Tight'],
      ['loose', 'Loose'],
    ],
  },
  {
    id: 'screwed',
    of: 'chain in the axle',
    outcomes: [
      ['home', 'Finger tight, at most half a turn back'],
      ['not', 'Goes further in'],
    ],
  },
  {
    id: 'moved',
    of: 'wheel moved since',
    outcomes: [
      ['no', 'No'],
      ['yes', 'Yes'],
    ],
  },
  {
    id: 'wire',
    of: 'wire by hand',
    outcomes: [
      ['free', 'Runs freely'],
      ['drags', 'Drags, or comes back late'],
    ],
  },
  {
    id: 'washers',
    of: 'anti-turn washers',
    outcomes: [
      ['home', 'Home'],
      ['not', 'Missing or turned'],
    ],
  },
  {
    id: 'way',
    of: 'gears along the grip',
    outcomes: [
      ['up', 'Up'],
      ['down', 'Down'],
      ['still', 'Nothing moves one way'],
    ],
  },
  {
    id: 'clicks',
    of: 'clicks of the grip',
    outcomes: [
      ['all', '13'],
      ['fewer', 'Fewer: it stops short'],
    ],
  },
  {
    id: 'coupling',
    of: 'couplings',
    outcomes: [
      ['holds', 'Both grubs hold'],
      ['slips', 'A wire slips'],
    ],
  },
]

/**
 * Looks with which nobody rides, until they are put right or seen otherwise: how they are told, and the faults and
 * steps that answer them. `practice`
 */
const DANGERS: Readonly<Record<string, { outcome: string; told: string; answeredBy: readonly string[] }>> = {
  screwed: { outcome: 'not', told: 'hub’s chain not home in the axle', answeredBy: ['not-home', 'home'] },
  washers: { outcome: 'not', told: 'hub’s anti-turn washers missing or turned', answeredBy: ['washers'] },
  coupling: {
    outcome: 'slips',
    told: 'a wire of the hub slips in its coupling',
    answeredBy: ['coupling', 'grip-apart', 'front-coupled'],
  },
}
/** What is told of such a look; null of any other. */
export const hubDanger = (check: string, outcome: string): string | null => {
  const danger = DANGERS[check]
  return danger?.outcome === outcome ? danger.told : null
}
/** Is what is seen at this check answered once this fault was put right, or this step done? */
export const answersHubDanger = (done: string, check: string): boolean =>
  DANGERS[check]?.answeredBy.includes(done) ?? false
