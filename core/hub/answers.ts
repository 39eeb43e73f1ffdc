import type { Since } from '../chapter/late'
import { UNKNOWN } from '../chapter/looks'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import { ALL_GEARS, TICK, type HubCheck } from './checks'
import { HUB_FAULTS, HUB_SHOWS, type HubFault } from './faults'
import { clicksFromSlack, gearAt, HUB_WAY, targetMm, type HubParts } from './kinds'
import { COUNT_SLIPS, countDensity, wheelTurnsOf, type HubCount } from './ratio'

/*
 * What a hub would show, for every way it can be: its gears, its reading, its looks, and how likely each is. What is
 * wrong with one is told from it by `diagnose.ts`.
 */

/** A look at a hub; when, where what was seen keeps the bike. */
export type HubSeen = { check: string; outcome: string; since?: Since }
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
export const readingSd = (hub: HubParts, s: Standards): number => {
  const { from, to } = targetMm(hub, s)
  return Math.hypot(HUB.readingSdMm, (to - from) / 4)
}

/**
 * How likely readings are together: where in its room the window was set is the same for all of them, the eye errs
 * anew each time.
 */
export function readingsChance(hub: HubParts, h: HubHypothesis, mms: readonly number[], s: Standards): number {
  if (!mms.length) return 1
  const wanted = readingOf(hub, h, s)
  const { from, to } = targetMm(hub, s)
  const twin = hub.way === 'twin'
  const sd = twin ? Math.max(readingSd(hub, s), wanted * TWIN_PLAY_SPREAD) : HUB.readingSdMm
  const places = twin ? [0] : PLACES.map(p => p * (to - from))
  const at = (place: number) =>
    mms.reduce((c, mm) => c * (0.98 * Math.exp(-0.5 * ((mm - wanted - place) / sd) ** 2) + 0.02 * 0.1), 1)
  return places.reduce((sum, place) => sum + at(place), 0) / places.length
}
/** Where in its room, of its whole width from the middle; play is read within a quarter of itself. `model` */
const PLACES = [-0.4, -0.2, 0, 0.2, 0.4] as const
const TWIN_PLAY_SPREAD = 0.25

const looksLike = (c: HubCheck, h: HubHypothesis): string => HUB_SHOWS[h.fault]?.[c.id] ?? c.outcomes[0][0]
/** Hubs differ in how far from its place a gear still holds, and where the next one takes it, clicks. `model` */
const ANSWERS = [
  { holdClicks: 0.25, takesClicks: 0.6 },
  { holdClicks: HUB.holdClicks, takesClicks: HUB.takesClicks },
  { holdClicks: 0.37, takesClicks: 0.72 },
] as const

/**
 * The hubs this way of being wrong is met in: out by less than a hub holds is no fault of it, so that one which is out
 * holds less far than that.
 */
const answersFor = (h: HubHypothesis) => {
  if (h.offClicks === 0) return ANSWERS
  const met = ANSWERS.filter(a => a.holdClicks < Math.abs(h.offClicks))
  return met.length ? met : ANSWERS.slice(0, 1)
}

/** Gears and slips over hubs as they differ. */
export function gearsOver(
  hub: HubParts,
  h: HubHypothesis,
  asked: number,
): { gears: Map<number, number>; slips: number } {
  const gears = new Map<number, number>()
  let slips = 0
  const over = answersFor(h)
  for (const answers of over) {
    const one = gearChances(hub, h, asked, answers)
    slips += one.slips / over.length
    for (const [gear, p] of one.gears) gears.set(gear, (gears.get(gear) ?? 0) + p / over.length)
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

const overHubs = (h: HubHypothesis, of: (a: (typeof ANSWERS)[number]) => number): number => {
  const over = answersFor(h)
  return over.map(of).reduce((a, b) => a + b, 0) / over.length
}

/** The same gear by a microphone: its odds stand beside what a person says, and are no look. */
export function soundChance(hub: HubParts, h: HubHypothesis, tickOdds: number): number {
  const ticks = overHubs(h, a => tickChance(hub, h, a))
  return (ticks * tickOdds + 1 - ticks) / Math.max(1, tickOdds)
}

export function lookChance(hub: HubParts, c: HubCheck, h: HubHypothesis, outcome: string): number {
  if (outcome === UNKNOWN) return 1
  const fine = c.outcomes[0][0]
  const byGear = GEAR_LOOKS[c.id]
  const shows = byGear ? 1 - overHubs(h, a => byGear(hub, h, a)) : looksLike(c, h) === fine ? 0 : 1 - HUB.hides
  const abnormal = byGear ? c.outcomes[1]![0] : looksLike(c, h)
  const true_ = outcome === fine ? 1 - shows : outcome === abnormal ? shows : 0
  return (1 - HUB.wrongLook) * true_ + HUB.wrongLook / c.outcomes.length
}

export function countChance(hub: HubParts, h: HubHypothesis, count: HubCount): number {
  const { gears, slips } = gearsOver(hub, h, count.gear)
  const { crankTurns, wheelTurns } = count
  if (wheelTurns === null) return (1 - HUB.wrongLook) * slips + HUB.wrongLook / 2
  const widest = wheelTurnsOf(hub, hub.ratios.length, crankTurns) * 1.3
  let sum = (slips * 0.3) / widest
  for (const [gear, chance] of gears) sum += chance * countDensity(hub, gear, { crankTurns, wheelTurns })
  return (1 - HUB.wrongLook) * sum + (HUB.wrongLook * COUNT_SLIPS.wrong) / widest
}
