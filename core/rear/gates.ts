import { heardOf } from './arrivals'
import type { RearEvent } from './events'
import { leftOut } from './rings'
import type { Trace } from './trace'

/**
 * May the chain go onto the largest sprocket? Only once L was seen by hand, and nothing that it rests on has moved
 * since. Asked by stage, bench, front, advice and pass alike. `practice`: a chain behind it is in the spokes.
 */
export const mayReachLargest = (trace: Pick<Trace, 'seenL'> | null): boolean => trace?.seenL === true

/** Which stops were seen by hand and still stand so. */
export const stopsSeen = (trace: Pick<Trace, 'seenL' | 'seenH'> | null): { L: boolean; H: boolean } => ({
  L: mayReachLargest(trace),
  H: trace?.seenH === true,
})

/** Is the chain on the largest sprocket with this entry? @param n sprockets of the cassette */
export function reachesLargest(event: RearEvent, n: number): boolean {
  if (event.kind === 'pass') return true
  if (event.kind === 'proved') return !leftOut(event.ring, n).includes(n - 1) || event.exceptions.includes(n - 1)
  if (event.kind === 'went') return heardOf(event, event.from).some(e => e.to === n - 1)
  return event.kind === 'shift' ? event.to === n - 1 : event.kind === 'offset' && event.click === n - 1
}
/** What is asked where it was noted all the same: it is kept, and L is looked at now. */
export const L_UNSEEN = 'On the largest sprocket before L was seen by hand: see it now, or take this back'

/** The largest sprocket the lever may go to, counted from 0. @param n sprockets of the cassette */
export const lastReachable = (trace: Pick<Trace, 'seenL'> | null, n: number): number =>
  mayReachLargest(trace) ? n - 1 : n - 2

/** What is said where that gate is shut. */
export const L_FIRST = 'See L by hand first: until then the largest sprocket stays out of reach'
