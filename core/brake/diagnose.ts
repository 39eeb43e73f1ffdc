import type { Since } from '../chapter/late'
import { UNKNOWN } from '../chapter/looks'
import { FITTING_LEVER, isDiagnosed } from './kinds'
import type { BrakeState } from './state'
import { jointOf, mutualInformation, normalised } from '../inference/information'
import { BRAKE_CHECKS, stopsRiding, type BrakeCheck } from './checks'
import { BRAKE_FAULTS, checksFor, type BrakeFault } from './faults'
import type { BrakeKind } from './kinds'

/**
 * What was seen at one check; how many times running, where it was looked at again and seen so again; whether somebody
 * who looked again could not tell; and when, where nobody rides with it.
 */
export type BrakeSeen = { check: string; outcome: string; times?: number; unsure?: true; since?: Since }

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

/** Chance that a check is reported so, of how it truly looks: a slip names any other outcome. */
const reported = (c: BrakeCheck, truly: string, outcome: string): number =>
  truly === outcome ? 1 - BRAKE_WRONG : BRAKE_WRONG / (c.outcomes.length - 1)

/** Chance of an outcome of a check under a fault, wrong reports and all. */
export const outcomeChance = (f: BrakeFault, c: BrakeCheck, outcome: string): number =>
  looksChance({ faults: [f] }, c, [outcome])

/** What may be wrong: nothing, one fault, or two at once. */
type Hypothesis = { faults: readonly BrakeFault[]; weight: number }

/** Chance that a check truly looks so; where both of two faults show, either may be what is noticed. */
function trueUnder([one = NONE, two]: readonly BrakeFault[], c: BrakeCheck, outcome: string): number {
  if (!two) return trueChance(one, c, outcome)
  const fine = c.outcomes[0]![0]
  const [a, b] = [trueChance(one, c, outcome), trueChance(two, c, outcome)]
  if (outcome === fine) return a * b
  const [aFine, bFine] = [trueChance(one, c, fine), trueChance(two, c, fine)]
  return a * bFine + b * aFine + (a * (1 - bFine) + b * (1 - aFine)) / 2
}

/** Chance of what was reported at one check, looked at once or more: it looks the same each time, eyes slip anew. */
const looksChance = ({ faults }: Pick<Hypothesis, 'faults'>, c: BrakeCheck, outcomes: readonly string[]): number =>
  c.outcomes.reduce(
    (sum, [truly]) => sum + outcomes.reduce((p, o) => p * reported(c, truly, o), trueUnder(faults, c, truly)),
    0,
  )

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
  const looks = looksOf(seen)
  for (const { check, outcomes } of looks)
    possible.forEach((h, i) => {
      weights[i]! *= looksChance(h, check, outcomes)
    })
  const chances = normalised(weights)
  const rated = checksFor(kind)
    .map(check => {
      // looked at once, the same look tells little more: a slip of the eye at most
      if (seen.some(s => s.check === check.id)) return { check, tells: 0 }
      const shows = possible.map(h => check.outcomes.map(([o]) => looksChance(h, check, [o])))
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
  const left = rated.filter(r => !seen.some(s => s.check === r.check.id))
  const named = faults.map(f => (f.id === 'none' ? NONE : BRAKE_FAULTS[kind].find(x => x.id === f.id)!))
  const { cause: top, due } = beforeNaming(named, looks, left)
  const told = left[0] && left[0].tells / left[0].check.cost > LEAST ? left[0] : null
  const sure = faults[0]!.chance >= SURE
  const asked = sure ? due : (told ?? due)
  const found = (sure && !due) || (!asked && faults[0]!.chance >= 0.5) ? top : null
  // nothing else tells more, and nothing is likely enough to be named
  const danger = dangerIn(looks)
  const next = asked ?? (danger && danger.outcomes.length < LOOKS_AGAINST ? again(danger) : null)
  return {
    faults,
    found,
    next: found ? null : next,
    checks: left.map(r => r.check),
  }
}

/** All that was seen at one check, in the order it was seen. */
type Looks = { check: BrakeCheck; outcomes: string[]; unsure: boolean }
/** @throws RangeError for a check or outcome that no brake has */
function looksOf(seen: readonly BrakeSeen[]): Looks[] {
  const all: Looks[] = []
  for (const { check: id, outcome, times = 1, unsure = false } of seen) {
    if (outcome === UNKNOWN) continue
    const check = BRAKE_CHECKS.find(x => x.id === id)
    if (!check?.outcomes.some(o => o[0] === outcome)) throw new RangeError(`check ${id} has no outcome ${outcome}`)
    const before = all.find(l => l.check === check)
    const outcomes = [...(before?.outcomes ?? []), ...Array<string>(times).fill(outcome)]
    if (before) Object.assign(before, { outcomes, unsure })
    else all.push({ check, outcomes, unsure })
  }
  return all
}

type Rated = { check: BrakeCheck; tells: number }
/** A look at the same thing once more, of who can tell. */
const again = ({ check, unsure }: Looks): Rated | null => (unsure ? null : { check, tells: 0 })
/** How often a look that speaks against what would be named is made, before it is believed. */
const LOOKS_AGAINST = 2

/**
 * What would be named of what may be wrong, the likeliest first, and the look that is due before. What was seen beats
 * what was reasoned: nothing is said to be wrong only after the wire was looked at, and never while a look stands with
 * which nobody rides, which is made again and then named for itself; a part is bought only on two signs, and not
 * against a look at what would show it, until that was made again.
 */
function beforeNaming(
  [top, ...others]: readonly BrakeFault[],
  looks: readonly Looks[],
  left: readonly Rated[],
): { cause: BrakeFault | null; due: Rated | null } {
  if (top === NONE) {
    const wire = left.find(r => r.check.id === 'wire')
    if (wire) return { cause: NONE, due: wire }
    const danger = dangerIn(looks)
    if (!danger) return { cause: NONE, due: null }
    const seen = danger.outcomes.at(-1)!
    const agreed = danger.outcomes.filter(o => o === seen).length >= LOOKS_AGAINST
    if (!agreed) return { cause: null, due: again(danger) }
    return { cause: others.find(f => shows(f, danger.check, seen)) ?? null, due: null }
  }
  if (!top!.renews) return { cause: top!, due: null }
  const signs = looks.filter(
    ({ check, outcomes }) =>
      looksChance({ faults: [top!] }, check, outcomes) > SPEAKS * looksChance({ faults: [] }, check, outcomes),
  )
  const second = signs.length >= 2 ? null : left.find(r => r.check.id in top!.shows)
  if (second) return { cause: top!, due: second }
  const against = looks.find(
    ({ check, outcomes }) => typeof top!.shows[check.id] === 'string' && outcomes.at(-1) === check.outcomes[0]![0],
  )
  if (!against) return { cause: top!, due: null }
  return { cause: null, due: against.outcomes.length < LOOKS_AGAINST ? again(against) : null }
}
/** A look that stands with which nobody rides. */
const dangerIn = (looks: readonly Looks[]): Looks | undefined =>
  looks.find(l => stopsRiding(l.check.id, l.outcomes.at(-1)!) !== null)
/** Is this one of a fault's own looks? */
function shows(f: BrakeFault, check: BrakeCheck, outcome: string): boolean {
  const shown = f.shows[check.id]
  return typeof shown === 'string' ? shown === outcome : shown !== undefined && outcome in shown
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
