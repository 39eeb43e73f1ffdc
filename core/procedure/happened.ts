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

/** By how much what happened changes the odds of each cause. */
export function oddsOfHappened(what: readonly Happened[]): Partial<Record<Cause, number>> {
  const out: Partial<Record<Cause, number>> = {}
  for (const w of what)
    for (const [c, times] of Object.entries(ODDS[w]) as [Cause, number][]) out[c] = Math.max(out[c] ?? 1, times)
  return out
}
