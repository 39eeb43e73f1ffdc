import { UNKNOWN } from '../chapter/looks'
import { jointOf, mutualInformation, normalised, rowsOf } from '../inference/information'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import {
  countChance,
  gearsOver,
  hypothesesOf,
  lookChance,
  readingOf,
  readingsChance,
  readingSd,
  soundChance,
  type HubHypothesis,
  type HubLog,
} from './answers'
import { ALL_GEARS, hubChecksFor, TICK, type HubCheck } from './checks'
import { HUB_FAULTS } from './faults'
import { HUB_WAY, targetMm, type HubParts } from './kinds'
import { gearsNotAsked } from './state'

/**
 * Said to be the cause from here. That it is inside must be surer: nothing here can try that. That nothing is wrong is
 * tried by a ride at once. `model`
 */
const SURE = 0.9
const SURE_INSIDE = 0.95
const SURE_NONE = 0.8
const sureAt = (id: string): number => (id === 'none' ? SURE_NONE : id === 'inside' ? SURE_INSIDE : SURE)
export type HubNext = { do: 'look'; check: HubCheck } | { do: 'read' } | { do: 'count'; gear: number }
export type HubDiagnosis = {
  /** Chances of each fault and of `none`, the likeliest first. */
  faults: { id: string; words: string; chance: number }[]
  found: { id: string; words: string; cure: string; caution?: string } | null
  next: HubNext | null
  /** How far the cable is out, believed, in clicks; slack +. */
  offClicks: number
  /** What puts it right at the adjuster: turns, + tighter; 0 where no turn does. */
  turns: number
}

/** How likely a fault still is after so many tries to cure it; after two it is looked for elsewhere. `model` */
const afterCures = (times: number): number => (times >= 2 ? 0 : 0.1 ** times)

const NONE = { id: 'none', words: 'Nothing found', cure: 'Every gear cycled, then a ride: prove it.' }
const TELLS_LEAST = 0.008
/** How often one thing is looked at at most, and what a second time is worth. `model` */
const TIMES = 2
const AGAIN_WORTH = 0.5

/**
 * What is wrong with a hub's setting, by Bayes' rule over its usual faults one at a time, the next thing to look at by
 * mutual information per cost, and the turns that would put the cable right.
 * @param cured faults already cured, no longer likely
 */
export function diagnoseHub(
  hub: HubParts,
  log: HubLog,
  cured: readonly string[] = [],
  s: Standards = TABLE_ONLY,
): HubDiagnosis {
  const all = hypothesesOf(hub, s)
  const checks = hubChecksFor(hub.way)
  const sd = readingSd(hub, s)
  /** A hub whose highest gear is heard at all. */
  const heard = checks.some(c => c.id === TICK)
  const weights = all.map(h => {
    let w = h.weight * afterCures(cured.filter(id => id === h.fault).length)
    for (const { check, outcome } of log.seen) {
      const c = checks.find(x => x.id === check)
      if (c) w *= lookChance(hub, c, h, outcome)
    }
    w *= readingsChance(
      hub,
      h,
      log.readings.map(r => r.mm),
      s,
    )
    for (const count of log.counts) w *= countChance(hub, h, count)
    if (log.tickOdds && heard) w *= soundChance(hub, h, log.tickOdds)
    return w
  })
  const chances = normalised(weights)
  const names = [...new Set(all.map(h => h.fault))]
  /** Which fault each hypothesis is of. */
  const kinds = all.map(h => names.indexOf(h.fault))
  const faults = names
    .map((id, k) => ({
      id,
      words: HUB_FAULTS.find(f => f.id === id)?.words ?? NONE.words,
      chance: chances.reduce((sum, c, i) => sum + (kinds[i] === k ? c : 0), 0),
    }))
    .sort((a, b) => b.chance - a.chance)

  /** What a thing to look at would tell of the fault, nats. */
  const tells = (outcomes: (h: HubHypothesis) => ReadonlyMap<string, number>): number =>
    mutualInformation(jointOf(chances, kinds, rowsOf(all.map(outcomes))))
  // the same thing once more is worth less than its sum says: eye and hand repeat their mistakes
  const times = (n: number): number => (n === 0 ? 1 : n < TIMES ? AGAIN_WORTH : 0)
  const looked = (id: string) => {
    const seen = log.seen.filter(l => l.check === id)
    if (seen.some(l => l.outcome === UNKNOWN)) return 0
    // two that disagree are settled by a third
    return seen.length === TIMES && seen[0]!.outcome !== seen[1]!.outcome ? AGAIN_WORTH : times(seen.length)
  }
  const counted = (gear: number) => times(log.counts.filter(c => c.gear === gear).length)
  const rated: { next: HubNext; worth: number }[] = [
    ...checks
      .filter(c => looked(c.id) > 0)
      .map(check => ({
        next: { do: 'look', check } as HubNext,
        worth:
          (tells(h => new Map(check.outcomes.map(([o]) => [o, lookChance(hub, check, h, o)]))) * looked(check.id)) /
          check.cost,
      })),
    ...(times(log.readings.length) === 0
      ? []
      : [
          {
            next: { do: 'read' } as HubNext,
            worth: (tells(h => readingBins(readingOf(hub, h, s), sd)) * times(log.readings.length)) / 1.5,
          },
        ]),
    ...hub.ratios
      .map((_, i) => i + 1)
      .filter(g => counted(g) > 0)
      .map(gear => ({
        next: { do: 'count', gear } as HubNext,
        worth:
          (tells(h => {
            const { gears, slips } = gearsOver(hub, h, gear)
            return new Map([['slips', slips], ...[...gears].map(([g, p]) => [`${g}`, p] as const)])
          }) *
            counted(gear)) /
          2,
      })),
  ]
  const best = rated.reduce<{ next: HubNext; worth: number } | null>((a, b) => (a && a.worth >= b.worth ? a : b), null)
  const top = faults[0]
  // the first act of all: what the gears do, in one answer; a cause is named only after it
  const gears = checks.find(c => c.id === ALL_GEARS)!
  const first: HubNext | null =
    log.seen.some(s => s.check === ALL_GEARS) || log.counts.length ? null : { do: 'look', check: gears }
  const due = first ?? (top.chance >= sureAt(top.id) ? dueBefore(top.id, hub, log, checks) : null)
  /** What had to be looked at first cannot be told: then nothing is named for it. */
  const open = (due?.do === 'look' && looked(due.check.id) === 0) || (due?.do === 'count' && counted(due.gear) === 0)
  const found =
    top.chance < sureAt(top.id) || due ? null : top.id === 'none' ? NONE : HUB_FAULTS.find(f => f.id === top.id)!
  const within = (id: string) => all.map((h, i) => (h.fault === id ? chances[i] : 0))
  const offOf = (p: readonly number[]) => {
    const mass = p.reduce((a, b) => a + b, 0)
    return mass > 0 ? p.reduce((s, x, i) => s + x * all[i].offClicks, 0) / mass : 0
  }
  const offClicks = offOf(found ? within(found.id) : chances)
  const { stepMm, pitchMm } = HUB_WAY[hub.way]
  return {
    faults,
    found,
    next: (open ? null : due) ?? (best && best.worth > TELLS_LEAST ? best.next : null),
    offClicks,
    turns: hub.way === 'twin' ? 0 : Math.round(((offClicks * stepMm) / pitchMm) * 4) / 4,
  }
}

/**
 * What must have been looked at before the likeliest is named: setting, wire and coupling before the inside of the hub
 * is blamed; every gear and the setting before nothing is said to be wrong; the wire twice, or a gear that goes with
 * it, before a run is renewed. Null when nothing is due.
 */
function dueBefore(id: string, hub: HubParts, log: HubLog, checks: readonly HubCheck[]): HubNext | null {
  const looked = (check: string) => log.seen.filter(s => s.check === check && s.outcome !== UNKNOWN).length
  const look = (check: string): HubNext | null => {
    const c = checks.find(x => x.id === check)
    return c ? { do: 'look', check: c } : null
  }
  const read: HubNext | null = log.readings.length ? null : { do: 'read' }
  if (id === 'none')
    return (
      read ??
      (looked(ALL_GEARS) > 1 || log.counts.length > 1 ? null : look(ALL_GEARS)) ??
      (looked('wire') ? null : look('wire')) ??
      (hub.way !== 'twin' || looked('coupling') ? null : look('coupling')) ??
      lookAgainAt(hub, log, checks)
    )
  if (id === 'inside')
    return (
      read ??
      (looked('wire') ? null : look('wire')) ??
      (hub.way !== 'twin' || looked('coupling') ? null : look('coupling'))
    )
  const dragged = log.seen.filter(s => s.check === 'wire' && s.outcome === 'drags').length
  return id === 'drag' && dragged < 2 ? look('wire') : null
}

/**
 * What was last seen otherwise than it should be, to be looked at once more: nothing is said to be wrong against it. A
 * wheel that was moved may well stand right.
 */
function lookAgainAt(hub: HubParts, log: HubLog, checks: readonly HubCheck[]): HubNext | null {
  const gear = gearsNotAsked({ parts: hub, counts: log.counts })[0]
  if (gear !== undefined) return { do: 'count', gear }
  const check = checks.find(c => {
    const last = log.seen.findLast(s => s.check === c.id && s.outcome !== UNKNOWN)
    return c.id !== 'moved' && last !== undefined && last.outcome !== c.outcomes[0][0]
  })
  return check ? { do: 'look', check } : null
}

/**
 * What puts a found fault right: a turn of the adjuster where that is all, else the cure in words; null while nothing
 * is found.
 */
export function hubCure(d: HubDiagnosis): { do: 'turn'; sixteenths: number } | { do: 'cure'; fault: string } | null {
  if (!d.found || d.found.id === 'none') return null
  const sixteenths = Math.round(d.turns * 16)
  return (d.found.id === 'slack' || d.found.id === 'tight') && sixteenths !== 0
    ? { do: 'turn', sixteenths }
    : { do: 'cure', fault: d.found.id }
}

/** A reading in bins of its spread, for what it would tell. */
function readingBins(mm: number, sd: number): Map<string, number> {
  const out = new Map<string, number>()
  for (const [z, p] of [
    [-1, 0.24],
    [0, 0.52],
    [1, 0.24],
  ] as const) {
    const bin = String(Math.round((mm + z * sd) / sd))
    out.set(bin, (out.get(bin) ?? 0) + p)
  }
  return out
}

/** Turns of the adjuster from a reading alone to the middle of what is wanted; + tighter. Its thread is `memory`. */
export function turnsFromReading(hub: HubParts, mm: number, s: Standards = TABLE_ONLY): number {
  const { from, to } = targetMm(hub, s)
  return Math.round((((from + to) / 2 - mm) / HUB_WAY[hub.way].pitchMm) * 8) / 8
}

/** Out by about a whole gear: every gear is one off, and grip and hub may stand a number apart. */
export const isGearOff = (d: HubDiagnosis): boolean =>
  (d.found?.id === 'slack' || d.found?.id === 'tight') && Math.abs(d.offClicks) >= WHOLE_GEAR
/** From here a hub is out by a gear rather than between two, clicks. `model` */
const WHOLE_GEAR = 0.8
/** The usual cause when every gear is one off. `practice` */
export const A_NUMBER_APART =
  'Every gear one off: look first whether it was joined with grip and hub a number apart; then join it anew at the slackest.'
