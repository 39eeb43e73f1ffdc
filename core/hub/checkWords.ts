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
