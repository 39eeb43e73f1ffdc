import { CAUSES, type Cause } from '../response/causes'
import { restPlaceMm } from '../response/pulley'
import { arrivalsAt, cleanErrors } from '../response/window'
import type { Consideration } from './advise'
import { sayMove } from './moveWords'
import { spreadOf, type GearBelief, type Spread } from './know'
import type { Advice } from './contract'
import { moveKey } from './moveKey'
import type { Advised } from '../rear/events'

/** Everything the bench screen shows of a belief: plain data, so that it crosses from the worker. */
export type Picture = Advice & {
  title: string
  /** What a barrel turn does, and why this move, apart. */
  effect: string | null
  because: string
  gears: GearBelief[]
  /** mm of pulley per mm of cable, as believed. */
  ratio: number
  barrelTurns: number
  /** Chance that the bike is right after the move, where the move is a turn. */
  after: number | null
  eighths: { turns: number; right: number }[]
  stops: { H: StopView; L: StopView }
  /** Chance that there is any setting of the barrel at which every gear is clean. */
  windowExists: number
  backlashMm: Spread
  atCost: number
}
export type StopView = { seen: boolean; offset: Spread; good: number }

/** The belief as the instruments draw it: the same state that gives the advice. */
export function pictureOf({ advice, effect, because, posterior, analysis, decision }: Consideration): Picture {
  const g = posterior.geometry
  const pairs = (f: (i: number) => number): [number, number][] => analysis.readings.map((r, i) => [f(i), r.weight])
  const b = analysis.readings.map(r => r.belief)
  const stop = (at: 'H' | 'L'): StopView => ({
    seen: at === 'H' ? posterior.trace.seenH : posterior.trace.seenL,
    offset: spreadOf(pairs(i => (at === 'H' ? b[i].stopHMm : b[i].stopLMm - g.placeMm[g.n - 1]))),
    good: analysis.stops[at].good,
  })
  const weightedMean = (f: (i: number) => number) => analysis.readings.reduce((s, r, i) => s + r.weight * f(i), 0)
  return {
    ...advice,
    effect,
    because,
    title: sayMove(advice.move, posterior.setup.teeth),
    gears: g.placeMm.map((place, k) => {
      const arriving = (inward: boolean) =>
        arrivalsAt(g, k).includes(inward) ? spreadOf(pairs(i => restPlaceMm(g, b[i], k, inward) - place)) : null
      return {
        inMm: arriving(true),
        outMm: arriving(false),
        cleanMm: {
          from: g.pitchMm[k] * weightedMean(i => cleanErrors(g, k, b[i]).from),
          to: g.pitchMm[k] * weightedMean(i => cleanErrors(g, k, b[i]).to),
        },
      }
    }),
    ratio: weightedMean(i => b[i].ratio),
    barrelTurns: posterior.trace.barrelTurns,
    after: advice.move.do === 'turn' && advice.move.screw === 'barrel' ? decision.best.right : null,
    eighths: analysis.eighths,
    stops: { H: stop('H'), L: stop('L') },
    windowExists: analysis.windowExists,
    backlashMm: spreadOf(pairs(i => b[i].backlashInMm + b[i].backlashOutMm)),
    atCost: posterior.trace.cost,
  }
}

/** From this chance of right some barrel setting, a clean window is drawn at all. `model` */
const DRAWN_FROM = 0.25

/** Is a window of clean turns known, believed not to exist, or not known yet? */
export function windowState(p: Picture): 'known' | 'none' | 'unknown' {
  if (p.windowExists < 0.5 || p.causes.wear > 0.5) return 'none'
  return p.windowTurns && Math.max(...p.eighths.map(e => e.right)) >= DRAWN_FROM ? 'known' : 'unknown'
}

/** The likeliest causes, that first. */
const byChance = (causes: Readonly<Record<Cause, number>>): Cause[] => [...CAUSES].sort((a, b) => causes[b] - causes[a])

/** The cause that a part is renewed for, else the likeliest: a gauge may be asked for so that another part is not. */
export const leadingCause = ({ move, causes }: Pick<Picture, 'move' | 'causes'>): Cause =>
  move.do === 'replace' ? move.cause : byChance(causes)[0]!

/** What the bench keeps of its advice with what was done instead or because of it. */
export const advisedBy = (p: Picture, taken: boolean): Advised => ({
  move: moveKey(p.move),
  right: p.right,
  after: p.after,
  cause: leadingCause(p),
  taken,
})

/**
 * Where the pulley is believed to stand with the chain on a sprocket, mm from the smallest; null before anything is
 * believed.
 */
export function restPlaceOf(
  picture: Picture,
  g: { placeMm: readonly number[] },
  chain: number,
  inward: boolean,
): number | null {
  const gear = picture.gears[chain]
  const spread = gear && ((inward ? gear.inMm : gear.outMm) ?? gear.inMm ?? gear.outMm)
  return spread ? g.placeMm[chain] + spread.mean : null
}
