import { ALL_GEARS, hubChecksFor, TICK } from '../hub/checks'
import { HUB_ORDER, HUB_SHOWS } from '../hub/faults'
import {
  allHoldChance,
  tickChance,
  gearChances,
  HUB,
  hypothesesOf,
  readingOf,
  type HubHypothesis,
  type HubLog,
} from '../hub/answers'
import { diagnoseHub } from '../hub/diagnose'
import { targetMm, usualHubs, type HubParts } from '../hub/kinds'
import { wheelTurnsOf } from '../hub/ratio'
import { randomFrom, type Random } from '../quantity/random'

/**
 * A simulated hub with one hidden fault; `more` or less wrong looks than the diagnosis believes make the bench unlike.
 */
type HiddenHub = { parts: HubParts; is: HubHypothesis }
export const HUB_BENCHES = {
  hub: { wrongLook: HUB.wrongLook, readingSdMm: HUB.readingSdMm },
  'hub-unlike': { wrongLook: 0.06, readingSdMm: 0.5 },
} as const
export type HubBench = keyof typeof HUB_BENCHES

/** Crank turns of a count, and how it is read: to a tenth. */
export const CRANK_TURNS = 5

export function pick<T>(list: readonly T[], weight: (x: T) => number, random: Random): T {
  let left = random.next() * list.reduce((s, x) => s + weight(x), 0)
  return list.find(x => (left -= weight(x)) < 0) ?? list[0]!
}

/** Rings, sprockets and sizes as they come: none lies on the diagnosis's own grid. */
export function seededHub(seed: number): HiddenHub {
  const random = randomFrom(seed, 701)
  const all = usualHubs()
  const usual = all[Math.floor(random.next() * all.length)]!.parts
  const parts: HubParts = {
    ...usual,
    ringTeeth: 36 + Math.floor(random.next() * 13),
    sprocketTeeth: 16 + Math.floor(random.next() * 6),
  }
  const is = pick(
    hypothesesOf(parts).filter(h => h.fault !== 'none'),
    h => h.weight,
    random,
  )
  const jitter = (x: number) => x * (0.85 + 0.3 * random.next())
  return {
    parts,
    is: { ...is, offClicks: jitter(is.offClicks), lagClicks: jitter(is.lagClicks), playMm: jitter(is.playMm) },
  }
}

/** What a person finds: a look, a reading, a count on a gear; the same thing once more has slips of its own. */
export function hubFinding({ parts, is }: HiddenHub, seed: number, bench: HubBench = 'hub') {
  const { wrongLook, readingSdMm } = HUB_BENCHES[bench]
  const checks = hubChecksFor(parts.way)
  return {
    look(id: string, time = 0): string {
      const i = checks.findIndex(c => c.id === id)
      const c = checks[i]!
      const random = randomFrom(seed, 702, i, time)
      if (id === ALL_GEARS && random.next() >= wrongLook)
        return random.next() < allHoldChance(parts, is) ? 'hold' : 'not'
      if (id === TICK && random.next() >= wrongLook) return random.next() < tickChance(parts, is) ? 'ticks' : 'not'
      return random.next() < wrongLook
        ? c.outcomes[Math.floor(random.next() * c.outcomes.length)]![0]
        : (HUB_SHOWS[is.fault]?.[id] ?? c.outcomes[0]![0])
    },
    read(time = 0): number {
      const random = randomFrom(seed, 703, time)
      const { from, to } = targetMm(parts)
      // where in its room it was set is the same however often it is read
      const inRoom = parts.way === 'twin' ? 0 : (randomFrom(seed, 705).next() - 0.5) * (to - from)
      return Math.round((readingOf(parts, is) + inRoom + readingSdMm * random.normal()) * 10) / 10
    },
    count(gear: number, time = 0): { gear: number; crankTurns: number; wheelTurns: number | null } {
      const random = randomFrom(seed, 704, gear, time)
      const { gears, slips } = gearChances(parts, is, gear)
      if (random.next() < slips) return { gear, crankTurns: CRANK_TURNS, wheelTurns: null }
      const [real] = pick([...gears], g => g[1], random)
      const slip = random.next()
      const whole = slip < 0.005 ? 1 : slip < 0.01 ? -1 : 0
      // both ends are read to a tenth
      const ends = (random.next() + random.next() - 1) * 0.1
      return {
        gear,
        crankTurns: CRANK_TURNS,
        wheelTurns: Math.max(0.1, Math.round((wheelTurnsOf(parts, real, CRANK_TURNS) + ends / 2 + whole) * 10) / 10),
      }
    },
  }
}

export type HubPlayed = {
  seed: number
  way: HubParts['way']
  right: boolean
  checks: number
  cost: number
  tries: number
}

/** By the advice: one gear counted because the customer said it, then what tells most, until the cause is sure. */
export function playHub(seed: number, bench: HubBench = 'hub'): HubPlayed {
  const hub = seededHub(seed)
  const find = hubFinding(hub, seed, bench)
  let log: HubLog = { seen: [], readings: [], counts: [] }
  let cost = 0
  for (let checks = 0; ; checks++) {
    const d = diagnoseHub(hub.parts, log)
    const { next } = d
    if (d.found || !next || checks > 30)
      return {
        seed,
        way: hub.parts.way,
        right: (d.found?.id ?? d.faults[0]!.id) === hub.is.fault,
        checks,
        cost,
        tries: 1,
      }
    if (next.do === 'look') {
      log = {
        ...log,
        seen: [
          ...log.seen,
          {
            check: next.check.id,
            outcome: find.look(next.check.id, log.seen.filter(s => s.check === next.check.id).length),
          },
        ],
      }
      cost += next.check.cost
    } else if (next.do === 'read') {
      log = { ...log, readings: [...log.readings, { mm: find.read(log.readings.length) }] }
      cost += 1.5
    } else {
      log = {
        ...log,
        counts: [...log.counts, find.count(next.gear, log.counts.filter(c => c.gear === next.gear).length)],
      }
      cost += 2
    }
  }
}

/**
 * By the usual order of looking, played straight: what shows is put right and every gear tried; not cured, the order
 * goes on. Last, every gear is counted, and one that does not follow is blamed on the inside.
 */
export function playHubByOrder(seed: number, bench: HubBench = 'hub'): HubPlayed {
  const hub = seededHub(seed)
  const { parts, is } = hub
  const find = hubFinding(hub, seed, bench)
  const SIGNS: Record<string, readonly string[]> = {
    lock: ['lock-nut'],
    screwed: ['not-home'],
    moved: ['axle'],
    washers: ['washers'],
    wire: ['drag'],
    way: ['crossed', 'coupling'],
    coupling: ['coupling'],
  }
  const out = { seed, way: parts.way, right: false, checks: 0, cost: 0, tries: 0 }
  const tried = (ids: readonly string[]): boolean => {
    for (const id of ids) {
      out.tries++
      if (id === is.fault) return (out.right = true)
    }
    return false
  }
  for (const step of HUB_ORDER[parts.way]) {
    if (step === 'gears') {
      let bad = false
      for (let g = 1; g <= parts.ratios.length; g++) {
        out.checks++
        out.cost += 2
        const { wheelTurns } = find.count(g)
        bad ||= wheelTurns === null || Math.abs(wheelTurns - wheelTurnsOf(parts, g, CRANK_TURNS)) > 0.2
      }
      if (bad && tried(['inside'])) return out
      continue
    }
    out.checks++
    if (step === 'reading') {
      out.cost += 1.5
      const mm = find.read()
      const { from, to } = targetMm(parts)
      const ids =
        mm > to
          ? parts.way === 'twin'
            ? ['much-play']
            : ['tight']
          : mm < from
            ? parts.way === 'twin'
              ? ['no-play']
              : ['slack']
            : []
      if (tried(ids)) return out
      continue
    }
    const c = hubChecksFor(parts.way).find(x => x.id === step)!
    out.cost += c.cost
    if (find.look(step) !== c.outcomes[0]![0] && tried(SIGNS[step]!)) return out
  }
  return out
}
