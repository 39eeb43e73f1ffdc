import { UNKNOWN } from '../chapter/looks'
import { FITTING_LEVER, isDiagnosed } from './kinds'
import type { BrakeState } from './state'
import { jointOf, mutualInformation, normalised } from '../inference/information'
import { BRAKE_CHECKS, type BrakeCheck } from './checks'
import { BRAKE_FAULTS, checksFor, type BrakeFault } from './faults'
import type { BrakeKind } from './kinds'

/** What was seen at one check. */
export type BrakeSeen = { check: string; outcome: string }

/**
 * A look is reported wrongly this often: a slip of the eye. `model`, twice what careful eyes slip: what was claimed by
 * less was not so
 */
const BRAKE_WRONG = 0.06
/** A fault hides a sign of its own this often, and shows one that is not its own. `model` */
const HIDES = 0.06
const STRAYS = 0.02
/** Said to be the cause from here. */
const SURE = 0.9
/** A look that tells less than this for its cost is not asked for, nats. `model` */
const LEAST = 0.05
/**
 * Chance, before anything is seen, that nothing is wrong with the brake, and that two faults are there at once. `model`
 */
const NOTHING = 0.1
const TWO = 0.1
/**
 * A look speaks for a fault from this many times the chance it has when nothing is wrong; a renewal needs two of them.
 * `model`
 */
const SPEAKS = 3

/** Nothing is wrong: every check as it should be. */
const NONE: BrakeFault = {
  id: 'none',
  words: 'Nothing found',
  weight: 0,
  renews: false,
  cure: 'Prove it: hard squeeze, roll, ride.',
  shows: {},
}

/** Chance that a check truly looks so under a fault; signs it does not speak of look right, but for a stray one. */
function trueChance(f: BrakeFault, c: BrakeCheck, outcome: string): number {
  const fine = c.outcomes[0]![0]
  const shown = f.shows[c.id]
  if (shown === undefined)
    return f === NONE ? (outcome === fine ? 1 : 0) : outcome === fine ? 1 - STRAYS : STRAYS / (c.outcomes.length - 1)
  const told = typeof shown === 'string' ? (shown === outcome ? 1 : 0) : (shown[outcome] ?? 0)
  return (1 - HIDES) * told + (outcome === fine ? HIDES : 0)
}

/** As it is reported: a slip names any other outcome. */
const reported = (true_: number, c: BrakeCheck): number =>
  (1 - BRAKE_WRONG) * true_ + (BRAKE_WRONG * (1 - true_)) / (c.outcomes.length - 1)

/** Chance of an outcome of a check under a fault, wrong reports and all. */
export const outcomeChance = (f: BrakeFault, c: BrakeCheck, outcome: string): number =>
  reported(trueChance(f, c, outcome), c)

/** What may be wrong: nothing, one fault, or two at once; the plainer one shows. */
type Hypothesis = { faults: readonly BrakeFault[]; weight: number }

function chanceUnder({ faults }: Hypothesis, c: BrakeCheck, outcome: string): number {
  const [one = NONE, two] = faults
  if (!two) return outcomeChance(one, c, outcome)
  const fine = c.outcomes[0]![0]
  const [a, b] = [trueChance(one, c, outcome), trueChance(two, c, outcome)]
  if (outcome === fine) return reported(a * b, c)
  // where both show, either may be what is noticed
  const [aFine, bFine] = [trueChance(one, c, fine), trueChance(two, c, fine)]
  return reported((a * bFine + b * aFine + a * (1 - bFine) + b * (1 - aFine)) / (1 + (1 - aFine) * (1 - bFine)), c)
}

const hypotheses = new Map<BrakeKind, readonly Hypothesis[]>()
function hypothesesOf(kind: BrakeKind): readonly Hypothesis[] {
  const kept = hypotheses.get(kind)
  if (kept) return kept
  const faults = BRAKE_FAULTS[kind]
  const all = faults.reduce((s, f) => s + f.weight, 0)
  const pairs = faults.flatMap((a, i) =>
    faults.slice(i + 1).map(b => ({ faults: [a, b], weight: a.weight * b.weight })),
  )
  const allPairs = pairs.reduce((s, p) => s + p.weight, 0)
  const out = [
    { faults: [], weight: NOTHING },
    ...faults.map(f => ({ faults: [f], weight: ((1 - NOTHING - TWO) * f.weight) / all })),
    ...pairs.map(p => ({ ...p, weight: (TWO * p.weight) / allPairs })),
  ]
  hypotheses.set(kind, out)
  return out
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
 * @param cured faults already put right in this visit, once for each time: each makes it less likely, and nobody tries
 *   a third time
 * @throws RangeError for a check or outcome the kind does not have
 */
export function diagnose(kind: BrakeKind, seen: readonly BrakeSeen[], cured: readonly string[] = []): Diagnosis {
  const possible = hypothesesOf(kind)
  const weights = possible.map(h =>
    h.faults.reduce((w, f) => w * afterCures(cured.filter(id => id === f.id).length), h.weight),
  )
  for (const { check, outcome } of seen) {
    if (outcome === UNKNOWN) continue
    const c = BRAKE_CHECKS.find(x => x.id === check)
    if (!c || !c.outcomes.some(o => o[0] === outcome)) throw new RangeError(`check ${check} has no outcome ${outcome}`)
    possible.forEach((h, i) => {
      weights[i]! *= chanceUnder(h, c, outcome)
    })
  }
  const chances = normalised(weights)
  const rated = checksFor(kind)
    .map(check => {
      // looked at once, the same look tells little more: a slip of the eye at most
      if (seen.some(s => s.check === check.id)) return { check, tells: 0 }
      const shows = possible.map(h => check.outcomes.map(([o]) => chanceUnder(h, check, o)))
      return { check, tells: mutualInformation(jointOf(chances, [...possible.keys()], shows)) }
    })
    .sort((a, b) => b.tells / b.check.cost - a.tells / a.check.cost)
  const faults = [NONE, ...BRAKE_FAULTS[kind]]
    .map(f => ({
      id: f.id,
      words: f.words,
      chance: possible.reduce(
        (sum, h, i) => sum + ((f === NONE ? h.faults.length === 0 : h.faults.includes(f)) ? chances[i]! : 0),
        0,
      ),
    }))
    .sort((a, b) => b.chance - a.chance)
  const all = [NONE, ...BRAKE_FAULTS[kind]]
  const top = all.find(f => f.id === faults[0]!.id)!
  const left = rated.filter(r => !seen.some(s => s.check === r.check.id))
  const due = dueBefore(top, seen, left)
  const told = left[0] && left[0].tells / left[0].check.cost > LEAST ? left[0] : null
  const sure = faults[0]!.chance >= SURE
  const next = sure ? due : (told ?? due)
  const found = (sure && !due) || (!next && faults[0]!.chance >= 0.5) ? top : null
  return {
    faults,
    found,
    next: found ? null : next,
    checks: left.map(r => r.check),
  }
}

/**
 * The look that is due before the likeliest is named: along the wire before nothing is said to be wrong, and a second
 * sign before a part is bought. Null when none is due, or none is left.
 */
function dueBefore(
  top: BrakeFault,
  seen: readonly BrakeSeen[],
  left: readonly { check: BrakeCheck; tells: number }[],
): { check: BrakeCheck; tells: number } | null {
  if (top === NONE) return left.find(r => r.check.id === 'wire') ?? null
  if (!top.renews) return null
  const signs = seen.filter(({ check, outcome }) => {
    const c = BRAKE_CHECKS.find(x => x.id === check)!
    return outcome !== UNKNOWN && outcomeChance(top, c, outcome) > SPEAKS * outcomeChance(NONE, c, outcome)
  })
  return signs.length >= 2 ? null : (left.find(r => r.check.id in top.shows) ?? null)
}

/** What a brake's looks say of its fault; null where it is not named, or of a kind that is not diagnosed here. */
export function diagnosisOf({ parts, seen, cured }: Pick<BrakeState, 'parts' | 'seen' | 'cured'>): Diagnosis | null {
  if (!parts || !isDiagnosed(parts.kind)) return null
  const asked = new Set(checksFor(parts.kind).map(c => c.id))
  const looks = seen.filter(s => asked.has(s.check) && s.check !== 'class')
  // which lever it has is typed, and not asked again
  const fits = parts.lever && asked.has('class') ? (FITTING_LEVER[parts.kind] === parts.lever ? 'fits' : 'other') : null
  const said = fits ? [{ check: 'class', outcome: fits }] : seen.filter(s => s.check === 'class')
  return diagnose(parts.kind, [...looks, ...said], cured)
}
