import { BRAKE_CHECKS, type BrakeCheck } from '../brake/checks'
import { diagnose, type BrakeSeen } from '../brake/diagnose'
import { BRAKE_FAULTS, checksFor, signOf, writtenOrder, type BrakeFault } from '../brake/faults'
import { BRAKE_KINDS, type BrakeKind } from '../brake/kinds'
import { randomFrom, type Random } from '../quantity/random'

/** Kinds alike but for those that are met less. */
const KIND_WEIGHT: Record<BrakeKind, number> = {
  'linear-pull': 4,
  'dual-pivot': 3,
  cantilever: 1,
  'cable-disc': 3,
  drum: 1,
  roller: 1,
  coaster: 1,
}

function pick<T>(list: readonly T[], weight: (x: T) => number, random: Random): T {
  let left = random.next() * list.reduce((s, x) => s + weight(x), 0)
  return list.find(x => (left -= weight(x)) < 0) ?? list[0]!
}

/**
 * Brakes that do not show their faults as the diagnosis believes: every bike has its own chances of showing a sign,
 * some looks show nothing of their fault, some show what belongs to none; an eye slips in so many looks of a hundred;
 * one brake in ten has nothing wrong, one in ten two faults at once. What is published of the brake bench is measured
 * here.
 */
export type SimulatedBrake = { kind: BrakeKind; faults: readonly BrakeFault[]; wrongLooks: number }

/** How often an eye slips. */
export const WRONG_LOOKS = { brake: 0.05, 'brake-slips': 0.1 } as const
export type BrakeBench = keyof typeof WRONG_LOOKS

function seededBrake(seed: number, bench: BrakeBench): SimulatedBrake {
  const random = randomFrom(seed, 611)
  const kind = pick(BRAKE_KINDS, k => KIND_WEIGHT[k], random)
  const how = random.next()
  const first = pick(BRAKE_FAULTS[kind], f => f.weight * (0.6 + 0.8 * random.next()), random)
  const second = pick(
    BRAKE_FAULTS[kind].filter(f => f !== first),
    f => f.weight,
    random,
  )
  return { kind, faults: how < 0.1 ? [] : how < 0.2 ? [first, second] : [first], wrongLooks: WRONG_LOOKS[bench] }
}

/**
 * What a check truly looks like on this bike: its own chances, drawn once; the plainest fault shows where two would.
 */
function truly({ kind, faults }: SimulatedBrake, c: BrakeCheck, seed: number): string {
  const fine = c.outcomes[0]![0]
  for (const fault of faults) {
    const random = randomFrom(seed, 612, BRAKE_FAULTS[kind].indexOf(fault), BRAKE_CHECKS.indexOf(c))
    const shown = fault.shows[c.id]
    // a sign that belongs to no fault of its kind, now and then
    if (shown === undefined) {
      if (random.next() < STRAY) return c.outcomes[1 + random.below(c.outcomes.length - 1)]![0]
      continue
    }
    const table = typeof shown === 'string' ? { [shown]: 1 - HIDDEN, [fine]: HIDDEN } : shown
    const own = Object.entries(table).map(([o, p]) => [o, p * Math.exp(OWN * random.normal())] as const)
    const [outcome] = pick(own, o => o[1], random)
    if (outcome !== fine) return outcome
  }
  return fine
}
/**
 * A sign of its own that a fault does not show; one that belongs to none; how far a bike's chances differ, as a log.
 */
const HIDDEN = 0.06
const STRAY = 0.02
const OWN = 0.8

/** A look, slips and all: it sees the same brake each time, and slips anew. */
export function brakeLook(brake: SimulatedBrake, id: string, seed: number, time: number): string {
  const c = BRAKE_CHECKS.find(x => x.id === id)!
  const random = randomFrom(seed, 613, BRAKE_CHECKS.indexOf(c), time)
  const is = truly(brake, c, seed)
  if (random.next() >= brake.wrongLooks) return is
  const others = c.outcomes.filter(o => o[0] !== is)
  return others[random.below(others.length)]![0]
}

export type BrakePlayed = {
  kind: BrakeKind
  hidden: readonly string[]
  /** The cause that was named first, and how sure that was said to be. */
  first: string
  stated: number
  right: boolean
  solved: boolean
  looks: number
  needless: number
  /** The same cure was named a third time. */
  thrice: boolean
}

/** What the customer can have noticed, the plainest first. */
const NOTICED = ['lever', 'noise', 'arms', 'spin', 'backpedal']
/** Most cures that are tried before it is given up. */
const TRIES = 3

/** What the customer noticed, if anything: the plainest sign that is there. */
export function noticedOf(brake: SimulatedBrake, seed: number): BrakeSeen | null {
  for (const id of NOTICED) {
    const c = checksFor(brake.kind).find(x => x.id === id)
    const outcome = c ? brakeLook(brake, id, seed, 0) : ''
    if (c && outcome !== c.outcomes[0]![0]) return { check: id, outcome }
  }
  return null
}

/**
 * By the advice until the brake is right, as a proof would show, or it is given up; looks are made anew after each
 * cure.
 */
export function playBrake(seed: number, bench: BrakeBench): BrakePlayed {
  let brake = seededBrake(seed, bench)
  const hidden = brake.faults.map(f => f.id)
  let seen: BrakeSeen[] = []
  const noticed = noticedOf(brake, seed)
  if (noticed) seen = [noticed]
  const cured: string[] = []
  let looks = 0
  let first: { id: string; chance: number } | null = null
  let needless = 0
  for (;;) {
    const d = diagnose(brake.kind, seen, cured)
    if (d.next && !d.found && looks < 40) {
      looks++
      const { id } = d.next.check
      seen = [...seen, { check: id, outcome: brakeLook(brake, id, seed, looks) }]
      continue
    }
    const named = d.found?.id ?? d.faults[0]!.id
    const chance = d.faults.find(f => f.id === named)!.chance
    first ??= { id: named, chance }
    const done = (solved: boolean): BrakePlayed => ({
      kind: brake.kind,
      hidden,
      first: first!.id,
      stated: first!.chance,
      right: hidden.length ? hidden.includes(first!.id) : first!.id === 'none',
      solved,
      looks,
      needless,
      thrice: cured.some(c => cured.filter(x => x === c).length > 2),
    })
    if (named === 'none') {
      if (!brake.faults.length) return done(true)
      // the proof fails: it goes on being looked at, once
      if (cured.includes('none')) return done(false)
      cured.push('none')
      seen = []
      continue
    }
    cured.push(named)
    if (brake.faults.some(f => f.id === named)) brake = { ...brake, faults: brake.faults.filter(f => f.id !== named) }
    else needless++
    if (!brake.faults.length) return done(true)
    if (cured.length >= TRIES) return done(false)
    seen = []
  }
}

/**
 * By the written order: down the faults, each one's own sign looked for. What shows is put right and the brake tried;
 * not cured, the order goes on. Its first named cause is what it first puts right.
 */
export function playBrakeByOrder(seed: number, bench: BrakeBench): BrakePlayed {
  const brake = seededBrake(seed, bench)
  const hidden = brake.faults.map(f => f.id)
  let left = brake.faults
  let looks = 0
  let needless = 0
  let first: string | null = null
  const ended = (solved: boolean): BrakePlayed => ({
    kind: brake.kind,
    hidden,
    first: first ?? 'none',
    stated: 1,
    right: hidden.length ? hidden.includes(first ?? '') : first === null,
    solved,
    looks,
    needless,
    thrice: false,
  })
  for (const check of writtenOrder(brake.kind)) {
    const c = BRAKE_CHECKS.find(x => x.id === check)!
    const outcome = brakeLook({ ...brake, faults: left }, check, seed, ++looks)
    if (outcome === c.outcomes[0]![0]) continue
    for (const f of BRAKE_FAULTS[brake.kind].filter(x => signOf(x) === check)) {
      first ??= f.id
      if (left.includes(f)) left = left.filter(x => x !== f)
      else needless++
      if (hidden.length && !left.length) return ended(true)
    }
  }
  return ended(!left.length)
}
