import { isDiagnosed } from './kinds'
import type { BrakeState } from './state'
import { jointOf, mutualInformation, normalised } from '../inference/information'
import { BRAKE_CHECKS, type BrakeCheck } from './checks'
import { BRAKE_FAULTS, checksFor, type BrakeFault } from './faults'
import type { BrakeKind } from './kinds'

/** What was seen at one check. */
export type BrakeSeen = { check: string; outcome: string }

/** A look is reported wrongly this often: a slip of the eye, or a brake that shows its fault otherwise. `model` */
const BRAKE_WRONG = 0.04
/** Said to be the cause from here. */
const SURE = 0.92
/** Chance, before anything is seen, that nothing is wrong with the brake. `model` */
const NONE_WEIGHT = 6

/** Nothing is wrong: every check as it should be. */
const NONE: BrakeFault = {
  id: 'none',
  words: 'Nothing found',
  weight: NONE_WEIGHT,
  cure: 'Prove it: hard squeeze, roll, ride.',
  shows: {},
}

/** Chance of an outcome of a check under a fault, wrong reports and all. */
export function outcomeChance(f: BrakeFault, c: BrakeCheck, outcome: string): number {
  const shown = f.shows[c.id] ?? c.outcomes[0]![0]
  const true_ = typeof shown === 'string' ? (shown === outcome ? 1 : 0) : (shown[outcome] ?? 0)
  return (1 - BRAKE_WRONG) * true_ + BRAKE_WRONG / c.outcomes.length
}

/** A fault that was put right is still there this seldom. `model` */
const CURE_FAILS = 0.1
/** How likely a fault still is after so many tries to cure it; after two it is looked for elsewhere. */
const afterCures = (times: number): number => (times >= 2 ? 0 : CURE_FAILS ** times)

export type Diagnosis = {
  /** Chances of every fault of the kind and of `none`, the likeliest first. */
  faults: { id: string; words: string; chance: number }[]
  /** The cause when it is sure enough, with its cure. */
  found: BrakeFault | null
  /** The check that splits what remains best for its cost; null when none tells anything more. */
  next: { check: BrakeCheck; tells: number } | null
  /** Checks that may still be made, the best first. */
  checks: BrakeCheck[]
}

/**
 * What is wrong with a brake, by Bayes' rule over its usual faults, one at a time, and the check to make next: the most
 * mutual information per cost.
 * @param cured faults already put right in this visit, once for each time: each makes it less likely, and nobody tries a third time
 * @throws RangeError for a check or outcome the kind does not have
 */
export function diagnose(kind: BrakeKind, seen: readonly BrakeSeen[], cured: readonly string[] = []): Diagnosis {
  const possible = [...BRAKE_FAULTS[kind], NONE]
  const weights = possible.map(f => f.weight * afterCures(cured.filter(id => id === f.id).length))
  for (const { check, outcome } of seen) {
    const c = BRAKE_CHECKS.find(x => x.id === check)
    if (!c || !c.outcomes.some(o => o[0] === outcome)) throw new RangeError(`check ${check} has no outcome ${outcome}`)
    possible.forEach((f, i) => {
      weights[i]! *= outcomeChance(f, c, outcome)
    })
  }
  const chances = normalised(weights)
  const rated = checksFor(kind)
    .map(check => {
      // looked at once, the same look tells little more: a slip of the eye at most
      const again = seen.some(s => s.check === check.id)
      if (again) return { check, tells: 0 }
      const shows = possible.map(f => check.outcomes.map(([o]) => outcomeChance(f, check, o)))
      return { check, tells: mutualInformation(jointOf(chances, [...possible.keys()], shows)) }
    })
    .sort((a, b) => b.tells / b.check.cost - a.tells / a.check.cost)
  const faults = possible
    .map((f, i) => ({ id: f.id, words: f.words, chance: chances[i]! }))
    .sort((a, b) => b.chance - a.chance)
  const top = faults[0]!
  const next = rated[0] && rated[0].tells > 0.01 ? rated[0] : null
  const found = top.chance >= SURE || (!next && top.chance >= 0.5) ? possible.find(f => f.id === top.id)! : null
  return {
    faults,
    found,
    next: found ? null : next,
    checks: rated.filter(r => !seen.some(s => s.check === r.check.id)).map(r => r.check),
  }
}

/** What a brake's looks say of its fault; null where it is not named, or of a kind that is not diagnosed here. */
export function diagnosisOf({ parts, seen, cured }: Pick<BrakeState, 'parts' | 'seen' | 'cured'>): Diagnosis | null {
  if (!parts || !isDiagnosed(parts.kind)) return null
  const asked = new Set(checksFor(parts.kind).map(c => c.id))
  return diagnose(
    parts.kind,
    seen.filter(s => asked.has(s.check)),
    cured,
  )
}
