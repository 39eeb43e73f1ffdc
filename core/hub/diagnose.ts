import { UNKNOWN } from '../chapter/looks'
import { jointOf, mutualInformation, normalised, rowsOf } from '../inference/information'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { ALL_GEARS, hubChecksFor, TICK, type HubCheck } from './checks'
import { HUB_FAULTS, HUB_SHOWS, type HubFault } from './faults'
import { clicksFromSlack, gearAt, HUB_WAY, targetMm, type HubParts } from './kinds'
import { COUNT_SLIPS, countDensity, wheelTurnsOf, type HubCount } from './ratio'

export type HubSeen = { check: string; outcome: string }
/** The window, the marks or the play, in the setting gear, mm. */
export type HubReading = { mm: number }
/** What is known of a hub's setting since it was last changed. */
export type HubLog = {
  seen: readonly HubSeen[]
  readings: readonly HubReading[]
  counts: readonly HubCount[]
  /** Odds of the highest gear from its sound, as last noted; null for not listened to. */
  tickOdds?: number | null
}

/** How a hub answers its cable; all `model`. In clicks. */
export const HUB = {
  /** A gear holds within this of its place; beyond, up to where the next one takes, it slips or finds none. */
  holdClicks: 0.3,
  takesClicks: 0.66,
  readingSdMm: 0.35,
  wrongLook: 0.05,
  /** A fault hides a sign of its own this often. */
  hides: 0.06,
  /** A gear that is gone inside turns as its neighbour or slips, half and half. */
  missingSlips: 0.5,
} as const
/**
 * Said to be the cause from here. That it is inside must be surer: nothing here can try that. That nothing is wrong is
 * tried by a ride at once. `model`
 */
const SURE = 0.9
const SURE_INSIDE = 0.95
const SURE_NONE = 0.8
const sureAt = (id: string): number => (id === 'none' ? SURE_NONE : id === 'inside' ? SURE_INSIDE : SURE)
/** Chance weight, before anything is seen, that nothing is wrong. */
const NONE_WEIGHT = 8

/**
 * One way a hub can be: a fault, how far the cable is out (slack +), how much it lags, which gear is gone inside, in
 * clicks.
 */
export type HubHypothesis = {
  fault: string
  offClicks: number
  lagClicks: number
  gone: number | null
  playMm: number
  weight: number
}

/** Out by less than a gear holds is no fault that anybody meets. */
const SIZES = [0.32, 0.42, 0.55, 0.7, 0.9, 1.1] as const

/** Every way this hub can be, on a grid, with its weight before anything is seen. */
export function hypothesesOf(hub: HubParts, s: Standards = TABLE_ONLY): HubHypothesis[] {
  const target = targetMm(hub, s)
  const middle = (target.from + target.to) / 2
  const one = (fault: string, weight: number, change: Partial<HubHypothesis> = {}): HubHypothesis => ({
    fault,
    offClicks: 0,
    lagClicks: 0,
    gone: null,
    playMm: hub.way === 'twin' ? middle : 0,
    weight,
    ...change,
  })
  const spread = (fault: HubFault, offs: readonly number[]) =>
    offs.map(offClicks => one(fault.id, fault.weight / offs.length, { offClicks }))
  const ways = (f: HubFault): HubHypothesis[] => {
    switch (f.id) {
      case 'slack':
        return spread(f, SIZES)
      case 'tight':
        return spread(
          f,
          SIZES.map(s => -s),
        )
      case 'lock-nut':
        return spread(f, SIZES.slice(1))
      case 'not-home':
        return spread(f, SIZES.slice(2))
      case 'axle':
      case 'washers':
        return spread(f, [...SIZES.slice(0, 5), ...SIZES.slice(0, 5).map(s => -s)])
      case 'drag':
        return [0.5, 0.8, 1.1].map(lagClicks => one(f.id, f.weight / 3, { lagClicks }))
      case 'much-play':
        return [5, 8, 12].map(playMm => one(f.id, f.weight / 3, { playMm }))
      case 'no-play':
        return [one(f.id, f.weight, { playMm: 0 })]
      case 'grip-apart':
        return [-1, 1].map(offClicks => one(f.id, f.weight / 2, { offClicks }))
      case 'inside':
        return hub.ratios.map((_, i) => one(f.id, f.weight / hub.ratios.length, { gone: i + 1 }))
      default:
        return [one(f.id, f.weight)]
    }
  }
  return [one('none', NONE_WEIGHT), ...HUB_FAULTS.filter(f => f.ways.includes(hub.way)).flatMap(ways)]
}

/**
 * Chances of the gears a hub is truly in, asked for one, and of none or slip; counts are taken after shifting in from
 * the slacker side.
 */
export function gearChances(
  hub: HubParts,
  h: HubHypothesis,
  asked: number,
  /** How far from its place a gear holds, and where the next one takes it; as believed unless a hub's own are known. */
  { holdClicks, takesClicks }: { holdClicks: number; takesClicks: number } = HUB,
): { gears: Map<number, number>; slips: number } {
  const gears = new Map<number, number>()
  let slips = 0
  const give = (gear: number, chance: number) => {
    if (gear !== h.gone) return void gears.set(gear, (gears.get(gear) ?? 0) + chance)
    // gone inside: a neighbour answers, or nothing holds
    slips += chance * HUB.missingSlips
    const beside = gear > 1 ? gear - 1 : gear + 1
    gears.set(beside, (gears.get(beside) ?? 0) + chance * (1 - HUB.missingSlips))
  }
  if (hub.way === 'twin') {
    // the box in the hub clicks by itself: slack only plays, a slipped wire leaves it where it was
    const apart = h.fault === 'grip-apart' ? Math.sign(h.offClicks) : 0
    const to = Math.max(1, Math.min(hub.ratios.length, asked + apart))
    give(h.fault === 'crossed' ? hub.ratios.length + 1 - to : to, 1)
    return { gears, slips }
  }
  const last = hub.ratios.length - 1
  const place = Math.max(0, Math.min(last, clicksFromSlack(hub, asked) - h.offClicks - h.lagClicks / 2))
  const near = Math.round(place)
  const off = Math.abs(place - near)
  const holds =
    off <= holdClicks ? 1 : off >= 1 - takesClicks ? Math.max(0, (0.5 - off) / (0.5 - holdClicks)) * 0.6 : 0.8
  give(gearAt(hub, near), holds)
  slips += 1 - holds
  return { gears, slips }
}

/** What would be read in the setting gear, mm: more rod and a mark further on the tight side. */
export function readingOf(hub: HubParts, h: HubHypothesis, s: Standards = TABLE_ONLY): number {
  if (hub.way === 'twin') return h.playMm
  const { from, to } = targetMm(hub, s)
  return (from + to) / 2 - h.offClicks * HUB_WAY[hub.way].stepMm
}
/** Spread of a reading: the eye's, and for a window with room in it where in the room it was set. */
const readingSd = (hub: HubParts, s: Standards): number => {
  const { from, to } = targetMm(hub, s)
  return Math.hypot(HUB.readingSdMm, (to - from) / 4)
}

const looksLike = (c: HubCheck, h: HubHypothesis): string => HUB_SHOWS[h.fault]?.[c.id] ?? c.outcomes[0][0]
/** Hubs differ in how far from its place a gear still holds, and where the next one takes it, clicks. `model` */
const ANSWERS = [
  { holdClicks: 0.25, takesClicks: 0.6 },
  { holdClicks: HUB.holdClicks, takesClicks: HUB.takesClicks },
  { holdClicks: 0.37, takesClicks: 0.72 },
] as const

/** Gears and slips over hubs as they differ. */
function gearsOver(hub: HubParts, h: HubHypothesis, asked: number): { gears: Map<number, number>; slips: number } {
  const gears = new Map<number, number>()
  let slips = 0
  for (const answers of ANSWERS) {
    const one = gearChances(hub, h, asked, answers)
    slips += one.slips / ANSWERS.length
    for (const [gear, p] of one.gears) gears.set(gear, (gears.get(gear) ?? 0) + p / ANSWERS.length)
  }
  return { gears, slips }
}

/** Chance that every gear is there and holds when all are tried; one that gives its neighbour's is mostly noticed. */
export function allHoldChance(
  hub: HubParts,
  h: HubHypothesis,
  answers: { holdClicks: number; takesClicks: number } = HUB,
): number {
  return hub.ratios.reduce((all, _, i) => {
    const { gears, slips } = gearChances(hub, h, i + 1, answers)
    const other = h.gone === i + 1 ? [...gears].reduce((s, [g, p]) => s + (g === i + 1 ? 0 : p), 0) : 0
    return all * Math.max(0, 1 - slips - NOTICED * other)
  }, 1)
}
/** A gear that is its neighbour again is noticed by hand this often. */
const NOTICED = 0.6

/** Chance that the gear asked for as the highest is it: only that one runs free and ticks. */
export function tickChance(
  hub: HubParts,
  h: HubHypothesis,
  answers: { holdClicks: number; takesClicks: number } = HUB,
): number {
  const top = hub.ratios.length
  return gearChances(hub, h, top, answers).gears.get(top) ?? 0
}

/** Looks that the gears answer and no sign of a fault: how likely each is right, over hubs as they differ. */
const GEAR_LOOKS: Readonly<Partial<Record<string, typeof allHoldChance>>> = {
  [ALL_GEARS]: allHoldChance,
  [TICK]: tickChance,
}

/** The same gear by a microphone: its odds stand beside what a person says, and are no look. */
function soundChance(hub: HubParts, h: HubHypothesis, tickOdds: number): number {
  const ticks = ANSWERS.reduce((s, a) => s + tickChance(hub, h, a) / ANSWERS.length, 0)
  return (ticks * tickOdds + 1 - ticks) / Math.max(1, tickOdds)
}

function lookChance(hub: HubParts, c: HubCheck, h: HubHypothesis, outcome: string): number {
  if (outcome === UNKNOWN) return 1
  const fine = c.outcomes[0][0]
  const byGear = GEAR_LOOKS[c.id]
  const shows = byGear
    ? 1 - ANSWERS.reduce((s, a) => s + byGear(hub, h, a) / ANSWERS.length, 0)
    : looksLike(c, h) === fine
      ? 0
      : 1 - HUB.hides
  const abnormal = byGear ? c.outcomes[1]![0] : looksLike(c, h)
  const true_ = outcome === fine ? 1 - shows : outcome === abnormal ? shows : 0
  return (1 - HUB.wrongLook) * true_ + HUB.wrongLook / c.outcomes.length
}

function countChance(hub: HubParts, h: HubHypothesis, count: HubCount): number {
  const { gears, slips } = gearsOver(hub, h, count.gear)
  const { crankTurns, wheelTurns } = count
  if (wheelTurns === null) return (1 - HUB.wrongLook) * slips + HUB.wrongLook / 2
  const widest = wheelTurnsOf(hub, hub.ratios.length, crankTurns) * 1.3
  let sum = (slips * 0.3) / widest
  for (const [gear, chance] of gears) sum += chance * countDensity(hub, gear, { crankTurns, wheelTurns })
  return (1 - HUB.wrongLook) * sum + (HUB.wrongLook * COUNT_SLIPS.wrong) / widest
}

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
const TELLS_LEAST = 0.004
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
    const wanted = readingOf(hub, h, s)
    const spread = hub.way === 'twin' ? Math.max(sd, wanted * 0.25) : sd
    for (const { mm } of log.readings) w *= 0.98 * Math.exp(-0.5 * ((mm - wanted) / spread) ** 2) + 0.02 * 0.1
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
  const open = due !== null && due.do === 'look' && looked(due.check.id) === 0
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
  if (id === 'none') return read ?? (looked(ALL_GEARS) > 1 || log.counts.length > 1 ? null : look(ALL_GEARS))
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
