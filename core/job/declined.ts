/**
 * Faults a bike may be ridden with when the customer declines the cure: of gears only, never of a brake, nor of a hub
 * that slips. What gets its rider home: getHome.ts.
 */
export const DECLINABLE = {
  hanger: { words: 'Bent hanger', of: 'rear' },
  friction: { words: 'Sticky gear cable', of: 'rear' },
  barrel: { words: 'No barrel left', of: 'rear' },
  mismatch: { words: 'Gear parts that do not match', of: 'rear' },
  wear: { words: 'Worn chain or sprockets', of: 'rear' },
  gear: { words: 'One gear that does not run clean', of: 'rear' },
  front: { words: 'Front derailleur not right', of: 'front' },
} as const
export type Declinable = keyof typeof DECLINABLE
export const DECLINABLE_IDS = Object.keys(DECLINABLE) as [Declinable, ...Declinable[]]
