import { BRAKE_CHECKS } from '../brake/checks'
import { BRAKE_FAULTS, checksFor, signOf, writtenOrder, type BrakeFault } from '../brake/faults'
import { diagnose, outcomeChance, type BrakeSeen } from '../brake/diagnose'
import { BRAKE_KINDS, type BrakeKind } from '../brake/kinds'
import { randomFrom, type Random } from '../quantity/random'

/** A simulated brake with one hidden fault, met as often as such faults are; kinds alike but for coaster and drum, which are rarer. */
type HiddenBrake = { kind: BrakeKind; fault: BrakeFault }
const KIND_WEIGHT: Record<BrakeKind, number> = {
  'linear-pull': 4,
  'dual-pivot': 3,
  cantilever: 1,
  'cable-disc': 3,
  drum: 1,
  coaster: 1,
}

function pick<T>(list: readonly T[], weight: (x: T) => number, random: Random): T {
  let left = random.next() * list.reduce((s, x) => s + weight(x), 0)
  return list.find(x => (left -= weight(x)) < 0) ?? list[0]!
}

export function seededBrake(seed: number): HiddenBrake {
  const random = randomFrom(seed, 601)
  const kind = pick(BRAKE_KINDS, k => KIND_WEIGHT[k], random)
  return { kind, fault: pick(BRAKE_FAULTS[kind], f => f.weight, random) }
}

/** What a person sees at a check, wrong reports and all. The same check again looks the same. */
function seeing({ fault }: HiddenBrake, seed: number): (check: string) => string {
  return id => {
    const c = BRAKE_CHECKS.find(x => x.id === id)!
    const random = randomFrom(seed, 602, BRAKE_CHECKS.indexOf(c))
    return pick(c.outcomes, o => outcomeChance(fault, c, o[0]), random)[0]
  }
}

export type BrakePlayed = { seed: number; kind: BrakeKind; right: boolean; checks: number; cost: number; tries: number }

/** What the customer can have noticed, the plainest first. */
const NOTICED = ['lever', 'noise', 'arms', 'spin', 'backpedal']

/** By the advice: what the customer noticed, which costs no look, then the check that tells most, until the cause is sure. */
export function playBrake(seed: number): BrakePlayed {
  const brake = seededBrake(seed)
  const look = seeing(brake, seed)
  const possible = checksFor(brake.kind)
  const noticed = NOTICED.flatMap(id => {
    const c = possible.find(x => x.id === id)
    return c && look(id) !== c.outcomes[0]![0] ? [{ check: id, outcome: look(id) }] : []
  })[0]
  const seen: BrakeSeen[] = noticed ? [noticed] : []
  const told = seen.length
  let cost = 0
  for (;;) {
    const d = diagnose(brake.kind, seen)
    if (!d.next)
      return {
        seed,
        kind: brake.kind,
        right: (d.found?.id ?? d.faults[0]!.id) === brake.fault.id,
        checks: seen.length - told,
        cost,
        tries: 1,
      }
    seen.push({ check: d.next.check.id, outcome: look(d.next.check.id) })
    cost += d.next.check.cost
  }
}

/**
 * By the written order: down the faults, each one's own sign looked for. What shows is put right and the brake tried;
 * not cured, the order goes on. Trying a cure is counted apart. Wrong: the end is reached and nothing was cured.
 */
export function playBrakeByOrder(seed: number): BrakePlayed {
  const brake = seededBrake(seed)
  const look = seeing(brake, seed)
  let cost = 0
  let checks = 0
  let tries = 0
  for (const check of writtenOrder(brake.kind)) {
    const c = BRAKE_CHECKS.find(x => x.id === check)!
    const outcome = look(check)
    cost += c.cost
    checks++
    if (outcome === c.outcomes[0]![0]) continue
    for (const f of BRAKE_FAULTS[brake.kind].filter(x => signOf(x) === check && outcomeChance(x, c, outcome) > 0.3)) {
      tries++
      if (f.id === brake.fault.id) return { seed, kind: brake.kind, right: true, checks, cost, tries }
    }
  }
  return { seed, kind: brake.kind, right: false, checks, cost, tries }
}
