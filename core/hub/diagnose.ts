import { jointOf, mutualInformation, normalised, rowsOf } from '../inference/information'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { HUB_FAULTS, HUB_SHOWS, hubChecksFor, type HubCheck, type HubFault } from './checks'
import { clicksFromSlack, gearAt, HUB_WAY, targetMm, type HubParts } from './kinds'
import { COUNT_SLIPS, countDensity, wheelTurnsOf, type HubCount } from './ratio'

export type HubSeen = { check: string; outcome: string }
/** The window, the marks or the play, in the setting gear, mm. */
export type HubReading = { mm: number }
/** What is known of a hub's setting since it was last changed. */
export type HubLog = { seen: readonly HubSeen[]; readings: readonly HubReading[]; counts: readonly HubCount[] }

/** How a hub answers its cable; all `model`. In clicks. */
export const HUB = {
  /** A gear holds within this of its place; beyond, up to where the next one takes, it slips or finds none. */
  holdClicks: 0.3,
  takesClicks: 0.66,
  readingSdMm: 0.35,
  wrongLook: 0.03,
  /** A gear that is gone inside turns as its neighbour or slips, half and half. */
  missingSlips: 0.5,
} as const
const SURE = 0.95
/** Chance weight, before anything is seen, that nothing is wrong. */
const NONE_WEIGHT = 8

/** One way a hub can be: a fault, how far the cable is out (slack +), how much it lags, which gear is gone inside, in clicks. */
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
      case 'inside':
        return hub.ratios.map((_, i) => one(f.id, f.weight / hub.ratios.length, { gone: i + 1 }))
      default:
        return [one(f.id, f.weight)]
    }
  }
  return [one('none', NONE_WEIGHT), ...HUB_FAULTS.filter(f => f.ways.includes(hub.way)).flatMap(ways)]
}

/** Chances of the gears a hub is truly in, asked for one, and of none or slip; counts are taken after shifting in from the slacker side. */
export function gearChances(
  hub: HubParts,
  h: HubHypothesis,
  asked: number,
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
    give(h.fault === 'crossed' ? hub.ratios.length + 1 - asked : asked, 1)
    return { gears, slips }
  }
  const last = hub.ratios.length - 1
  const place = Math.max(0, Math.min(last, clicksFromSlack(hub, asked) - h.offClicks - h.lagClicks / 2))
  const near = Math.round(place)
  const off = Math.abs(place - near)
  const holds =
    off <= HUB.holdClicks
      ? 1
      : off >= 1 - HUB.takesClicks
        ? Math.max(0, (0.5 - off) / (0.5 - HUB.holdClicks)) * 0.6
        : 0.8
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
const lookChance = (c: HubCheck, h: HubHypothesis, outcome: string): number =>
  (1 - HUB.wrongLook) * (looksLike(c, h) === outcome ? 1 : 0) + HUB.wrongLook / c.outcomes.length

function countChance(hub: HubParts, h: HubHypothesis, count: HubCount): number {
  const { gears, slips } = gearChances(hub, h, count.gear)
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
  const weights = all.map(h => {
    let w = h.weight * (cured.includes(h.fault) ? 0.1 : 1)
    for (const { check, outcome } of log.seen) {
      const c = checks.find(x => x.id === check)
      if (c) w *= lookChance(c, h, outcome)
    }
    const wanted = readingOf(hub, h, s)
    const spread = hub.way === 'twin' ? Math.max(sd, wanted * 0.25) : sd
    for (const { mm } of log.readings) w *= 0.98 * Math.exp(-0.5 * ((mm - wanted) / spread) ** 2) + 0.02 * 0.1
    for (const count of log.counts) w *= countChance(hub, h, count)
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
  const looked = (id: string) => times(log.seen.filter(s => s.check === id).length)
  const counted = (gear: number) => times(log.counts.filter(c => c.gear === gear).length)
  const rated: { next: HubNext; worth: number }[] = [
    ...checks
      .filter(c => looked(c.id) > 0)
      .map(check => ({
        next: { do: 'look', check } as HubNext,
        worth:
          (tells(h => new Map(check.outcomes.map(([o]) => [o, lookChance(check, h, o)]))) * looked(check.id)) /
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
            const { gears, slips } = gearChances(hub, h, gear)
            return new Map([['slips', slips], ...[...gears].map(([g, p]) => [`${g}`, p] as const)])
          }) *
            counted(gear)) /
          2,
      })),
  ]
  const best = rated.reduce<{ next: HubNext; worth: number } | null>((a, b) => (a && a.worth >= b.worth ? a : b), null)
  const top = faults[0]
  const found = top.chance < SURE ? null : top.id === 'none' ? NONE : HUB_FAULTS.find(f => f.id === top.id)!
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
    next: best && best.worth > TELLS_LEAST ? best.next : null,
    offClicks,
    turns: hub.way === 'twin' ? 0 : Math.round(((offClicks * stepMm) / pitchMm) * 4) / 4,
  }
}

/** What puts a found fault right: a turn of the adjuster where that is all, else the cure in words; null while nothing is found. */
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
