import { sayTurns, toEighth } from '../quantity/turns'
import { normalBelow } from '../quantity/normal'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'
import type { Riding } from '../standards/riding'
import type { Settled } from '../standards/settled'

/*
 * How a run beds in after new cable or housing: how far it will have gone slack by a day, what this shop's returns say
 * of that, and when the bike should be looked at again. Slack is in turns of the barrel that take it up.
 */

/** After which rides or weeks a new run has bedded in. `practice`, no source */
export const SETTLE = { rides: '1 to 3 rides', weeks: '2 to 3 weeks' } as const
/** Firm full-range shifts before hand-back that take some of it out; only after L is seen. `practice` */
export const BEDDING_SHIFTS = 30

/** What decides how far a new run settles. */
export type NewRun = {
  /** Housing on the run, mm; null where it was not measured. */
  housingMm: number | null
  bedded: boolean
  /** How much the bike is ridden; null where nobody said. */
  riding: Riding | null
}
/** Logarithms: of the whole slack of a usual run in turns; of its growth with length; of what bedding leaves. */
type Three = [number, number, number]
export type SettleBelief = { mean: Three; covariance: [Three, Three, Three]; returns: number }

/** Housing of a usual rear run, mm; the sum of the usual outside run's pieces (`memory`). */
const USUAL_HOUSING_MM = 710
/** The slack comes with the rides: within so many days all but a third. `model` */
const BEDS_IN_DAYS = 9
/** Rides a day beside those of who says nothing, for whom the rule is: how fast it beds in. `model` */
const PACE: Record<Riding, number> = { daily: 1.7, weekly: 0.8, seldom: 0.4 }
/** The middle of the two to three weeks of the rule. */
const RULE_DAYS = 17
/** Half of it is left by thirty firm shifts, give or take. `model` */
const BEDDED_SHARE = 0.5
/**
 * How far runs of a shop differ from the rule, with length, and in what bedding leaves; and one run from the next.
 * Logarithms, `model`
 */
const SD: Three = [0.3, 0.3, 0.35]
const RUN_SD = 0.4
/** Less than this a barrel is not turned: nothing found is half of it. */
const LEAST_TURNS = 1 / 16

/** Share of the whole slack that has come by a day. */
const come = (days: number, riding: Riding | null): number =>
  1 - Math.exp((-Math.max(0, days) * (riding === null ? 1 : PACE[riding])) / BEDS_IN_DAYS)
const about = ({ housingMm, bedded }: Pick<NewRun, 'housingMm' | 'bedded'>): Three => [
  1,
  Math.log((housingMm ?? USUAL_HOUSING_MM) / USUAL_HOUSING_MM),
  bedded ? 1 : 0,
]
const dot = (a: Three, b: Three): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const times = (m: SettleBelief['covariance'], v: Three): Three => [dot(m[0], v), dot(m[1], v), dot(m[2], v)]

/**
 * What is believed of a shop's runs before any came back: the standards' rule, which the shop may have set otherwise.
 */
export function usualSettling(s: Standards = TABLE_ONLY): SettleBelief {
  const { from, to } = targetIn(s, 'settle')
  return {
    mean: [Math.log(Math.sqrt(from * to) / come(RULE_DAYS, null)), 0.5, Math.log(BEDDED_SHARE)],
    covariance: [
      [SD[0] ** 2, 0, 0],
      [0, SD[1] ** 2, 0],
      [0, 0, SD[2] ** 2],
    ],
    returns: 0,
  }
}

/**
 * The same after what came back: a linear regression of logarithms, brought up one return at a time (Kalman's update of
 * a constant state, `std`; the order does not matter). A run nobody noted the length of is taken as usual.
 */
export const learnSettling = (before: SettleBelief, returns: readonly Settled[]): SettleBelief =>
  returns.filter(r => r.days >= 1).reduce(withReturn, before)

function withReturn({ mean, covariance, returns }: SettleBelief, r: Settled): SettleBelief {
  const x = about(r)
  const seen = Math.log(Math.max(r.turns, LEAST_TURNS / 2)) - Math.log(come(r.days, r.riding))
  const cx = times(covariance, x)
  // a barrel is read to a sixteenth: of little slack the logarithm tells little
  const spread = dot(x, cx) + RUN_SD ** 2 + (LEAST_TURNS / Math.max(r.turns, LEAST_TURNS)) ** 2
  const gain: Three = [cx[0] / spread, cx[1] / spread, cx[2] / spread]
  const off = seen - dot(x, mean)
  return {
    mean: [mean[0] + gain[0] * off, mean[1] + gain[1] * off, mean[2] + gain[2] * off],
    covariance: covariance.map((row, i) => row.map((c, j) => c - gain[i]! * cx[j]!)) as SettleBelief['covariance'],
    returns: returns + 1,
  }
}

/** What is believed of this shop's runs, by the standards and by what came back here. */
export const settlingIn = (s: Standards): SettleBelief => learnSettling(usualSettling(s), s.settled)

/** How far a run will have settled by a day: logarithm's mean and spread. */
const byDay = (belief: SettleBelief, run: NewRun, days: number) => {
  const x = about(run)
  return {
    mean: dot(x, belief.mean) + Math.log(come(days, run.riding)),
    sd: Math.sqrt(dot(x, times(belief.covariance, x)) + RUN_SD ** 2),
  }
}

/** Two thirds of runs lie within one spread. */
export function settleForecast(
  run: NewRun,
  belief: SettleBelief,
  days = RULE_DAYS,
): { turns: number; fromTurns: number; toTurns: number } {
  const { mean, sd } = byDay(belief, run, days)
  return { turns: Math.exp(mean), fromTurns: Math.exp(mean - sd), toTurns: Math.exp(mean + sd) }
}

/** "1/4 to 5/8 turn out": said in eighths, as it is turned. */
export const sayForecast = ({ fromTurns, toTurns }: { fromTurns: number; toTurns: number }): string => {
  const [from, to] = [fromTurns, toTurns].map(t => Math.max(1 / 8, toEighth(t)))
  return from === to ? `${sayTurns(from!)} turn out` : `${sayTurns(from!)} to ${sayTurns(to!)} turn out`
}

/** Chance that a run has gone slack by more than so many turns on a day. */
export function chanceSlackBeyond(marginTurns: number, run: NewRun, belief: SettleBelief, days: number): number {
  if (days <= 0) return 0
  const { mean, sd } = byDay(belief, run, days)
  return 1 - normalBelow((Math.log(Math.max(marginTurns, LEAST_TURNS / 2)) - mean) / sd)
}

/**
 * Turns a bike may go slack before a gear is off, where nobody knows its window: half of a usual one. `model`, section
 * 3
 */
export const USUAL_MARGIN_TURNS = 0.4
/** A bike is asked back when the chance that it has left its window passes this. */
const ASK_BACK_AT = 1 / 3
/** Nobody comes back before the third day; after six weeks what has not gone slack will not. `practice` */
export const RECALL = { least: 3, most: 42 } as const

/** Days after hand-back on which a bike with a new run should be seen again. */
export function recallAfterDays(marginTurns: number | null, run: NewRun, belief: SettleBelief): number {
  const margin = marginTurns ?? USUAL_MARGIN_TURNS
  for (let day = RECALL.least; day < RECALL.most; day++)
    if (chanceSlackBeyond(margin, run, belief, day) > ASK_BACK_AT) return day
  return RECALL.most
}

/** How far a bike may go slack before it leaves its clean window; null where none is known, or it stands outside. */
export function slackMargin(barrelTurnsOut: number, window: { from: number; to: number } | null): number | null {
  const margin = window ? barrelTurnsOut - window.from : -1
  return margin > 0 ? margin : null
}

/**
 * By how many days bedding puts off the next look, where it is worth thirty shifts; null where it is done or gains
 * little.
 */
export function beddingGains(marginTurns: number | null, run: NewRun, belief: SettleBelief): number | null {
  if (run.bedded) return null
  const gained =
    recallAfterDays(marginTurns, { ...run, bedded: true }, belief) - recallAfterDays(marginTurns, run, belief)
  return gained >= WORTH_DAYS ? gained : null
}
const WORTH_DAYS = 3

export const TELL_RIDER =
  'Lay the bike on its other side, not on the derailleur. First sign is a delay leaving the smallest sprocket: barrel out an eighth, or come by.'
