import type { Cause } from '../response/causes'

/** What happened to a bike before it came in: each moves the odds. `practice`; how far is `model`. */
export const HAPPENED = ['fell', 'knocked', 'car', 'new-cable', 'wheel-out'] as const
export type Happened = (typeof HAPPENED)[number]
export const HAPPENED_WORDS: Record<Happened, string> = {
  fell: 'Fell over',
  knocked: 'Knocked',
  car: 'Rode in a car',
  'new-cable': 'Had a new cable',
  'wheel-out': 'Wheel was out',
}
const ODDS: Record<Happened, Partial<Record<Cause, number>>> = {
  fell: { hanger: 4, stops: 1.5 },
  knocked: { hanger: 3, stops: 1.5 },
  car: { hanger: 2 },
  'new-cable': { tension: 3 },
  'wheel-out': { hanger: 1.5 },
}
/** What to look at first because of it, in words. */
export const HAPPENED_ASKS: Record<Happened, string> = {
  fell: 'Look at the hanger and the cage first.',
  knocked: 'Look at the hanger and the cage first.',
  car: 'Look along the hanger: a rack or a boot leans on it.',
  'new-cable': 'Bedding in, or a ferrule not home: tug the inner first.',
  'wheel-out': 'See that the wheel is fully home before anything.',
}

/** By how much what happened changes the odds of each cause. */
export function oddsOfHappened(what: readonly Happened[]): Partial<Record<Cause, number>> {
  const out: Partial<Record<Cause, number>> = {}
  for (const w of what)
    for (const [c, times] of Object.entries(ODDS[w]) as [Cause, number][]) out[c] = Math.max(out[c] ?? 1, times)
  return out
}
