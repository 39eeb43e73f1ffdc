import { lastReachable } from './gates'
import { senseOfShift, type Trace } from './trace'

/** A shift as it is aimed: where the lever goes, and whether that is towards the spokes. */
type Aim = { to: number; inward: boolean }

/**
 * The gear shifted into next: the one that is wanted, else the next on the way already taken, turning round at the
 * ends; never the largest before L was seen.
 * @param n sprockets of the cassette
 */
export function nextShift(trace: Trace, n: number, wanted: number | null): Aim {
  const last = lastReachable(trace, n)
  const { lever, lastInward } = trace
  const onward = lever + (lever === 0 ? 1 : lever >= last ? -1 : lastInward ? 1 : -1)
  const to = Math.max(0, Math.min(last, wanted ?? onward))
  return { to, inward: senseOfShift(trace, n, lever, to).inward }
}
