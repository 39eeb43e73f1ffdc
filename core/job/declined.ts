/**
 * Faults a bike may be ridden with when the customer declines the cure: of gears only, never of a brake, nor of a hub
 * that slips. Each with what gets its rider home. `practice`, no source.
 */
export const DECLINABLE = {
  hanger: {
    words: 'Bent hanger',
    of: 'rear',
    getHome:
      'Bent hanger: both stops are to be wound in so that the cage cannot reach the spokes; use the middle gears, ride gently. Never when the cage touches anything.',
  },
  friction: {
    words: 'Sticky gear cable',
    of: 'rear',
    getHome:
      'Sticky gear cable: it is set to favour the shifts towards the frame; towards the spokes push the lever a little past its click.',
  },
  barrel: {
    words: 'No barrel left',
    of: 'rear',
    getHome: 'No barrel left: it cannot be wound any tighter. Clamping it again takes five minutes and holds.',
  },
  mismatch: {
    words: 'Gear parts that do not match',
    of: 'rear',
    getHome: 'Parts that do not match: stay in the gears that run quietly, and ease off the pedals as you change.',
  },
  wear: {
    words: 'Worn chain or sprockets',
    of: 'rear',
    getHome: 'Worn chain or sprockets: they can jump under load. Stay seated, push gently, do not stand on the pedals.',
  },
  gear: {
    words: 'One gear that does not run clean',
    of: 'rear',
    getHome: 'One gear does not run clean: leave it out, shift past it with light pedals.',
  },
  front: {
    words: 'Front derailleur not right',
    of: 'front',
    getHome: 'Front derailleur not right: stay on the ring it stands on, and do not shift it under load.',
  },
} as const
export type Declinable = keyof typeof DECLINABLE
export const DECLINABLE_IDS = Object.keys(DECLINABLE) as [Declinable, ...Declinable[]]
