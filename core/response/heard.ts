import { HEARING, THROWN, WRONG_REPORTS } from './parameters'

/** What a person reports of a shift: `rubs-in` chatters on the larger neighbour, `rubs-out` on the smaller. */
export const HEARD = ['clean', 'rubs-in', 'rubs-out', 'slow', 'none', 'jumps', 'off', 'skips'] as const
export type Heard = (typeof HEARD)[number]

/** Where on the cassette the shift ends, how it got there, and whether the chain lay there already. */
export type Arrival = { end: 'smallest' | 'largest' | null; inward: boolean; alreadyThere: boolean }

/** Chances of each outcome, by name. They sum to 1. */
type HeardChances = Record<Heard, number>

export const logistic = (x: number): number => 1 / (1 + Math.exp(-x))

/**
 * Chances of what a sound sprocket does on a shift into it, thrown chains left out.
 * @param z error in pitches, + inboard, already less the bike's asymmetry
 * @param sharpness multiplies every threshold, no unit
 */
export function arrivalChances(z: number, arrival: Arrival, sharpness: number): HeardChances {
  const { end, inward, alreadyThere } = arrival
  const short = inward ? -z : z // how far it stopped short, pitches
  const beyond = (threshold: number, by: number) => logistic((by - threshold * sharpness) / HEARING.width)
  const none = beyond(inward ? HEARING.noneInward : HEARING.noneOutward, short)
  const slow = Math.max(none, beyond(inward ? HEARING.slowInward : HEARING.slowOutward, short))
  const farRub =
    end === 'smallest' && !inward
      ? HEARING.smallestRough
      : end === 'largest' && inward
        ? HEARING.largestRough
        : HEARING.rub
  const shortRub = Math.max(slow, beyond(HEARING.rub, short))
  const jumps = end === null ? beyond(inward ? HEARING.jumpsInward : HEARING.jumpsOutward, -short) : 0
  const farSide = Math.max(jumps, beyond(farRub, -short))
  const total = Math.max(1, shortRub + farSide)
  const out: HeardChances = {
    clean: Math.max(0, 1 - shortRub - farSide),
    'rubs-in': 0,
    'rubs-out': 0,
    slow: 0,
    none: 0,
    jumps: jumps / total,
    off: 0,
    skips: 0,
  }
  const shortSide = inward ? 'rubs-out' : 'rubs-in'
  const farName = inward ? 'rubs-in' : 'rubs-out'
  out[farName] = (farSide - jumps) / total
  if (alreadyThere) out[shortSide] = shortRub / total
  else {
    out.none = none / total
    out.slow = (slow - none) / total
    out[shortSide] = (shortRub - slow) / total
  }
  return out
}

/**
 * Chance that the chain is thrown over an end. Stops are judged by their own place, friction and sharpness left out.
 * @param z error of the arrival at the end sprocket, pitches, + inboard
 * @param stopZ place of that end's stop in pitches from its sprocket's plane, + inboard
 */
export function thrownChance(end: 'smallest' | 'largest', z: number, stopZ: number): number {
  const reach =
    end === 'largest'
      ? Math.min(z + THROWN.overswing, stopZ) - THROWN.overLargest
      : -Math.max(z - THROWN.overswing, stopZ) - THROWN.overSmallest
  return logistic(reach / THROWN.width)
}

/** What is reported of what happened: a few reports name another outcome, but never invent or hide a thrown chain. */
export const reportedChance = (trueChance: number, wrongReports = WRONG_REPORTS): number =>
  (1 - wrongReports) * trueChance + (wrongReports / OTHERS) * (1 - trueChance)
/** Outcomes another one may be taken for. */
const OTHERS = HEARD.length - 2

/**
 * Chance that a report named another outcome than the true one, when reports as this one come so often, as
 * `reportedChance` says.
 */
export function chanceWrong(reported: number, wrongReports = WRONG_REPORTS): number {
  const named = wrongReports / OTHERS
  const trueChance = Math.min(1, Math.max(0, (reported - named) / (1 - wrongReports - named)))
  return (named * (1 - trueChance)) / reported
}
