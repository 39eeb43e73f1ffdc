import { randomFrom, type Random } from '../quantity/random'
import type { Riding } from '../standards/riding'
import type { Settled } from '../standards/settled'

/*
 * Shops whose runs settle by a physics of their own, unlike the forecast: slack that comes as t/(t + τ) with rides of
 * each rider's own pace, which most say when asked and some say wrong, heavy tails, lengths that count by another
 * power, bedding that leaves a share of its own, figures read in sixteenths, and now and then one who turned nothing
 * although it was slack.
 */

export type HiddenShop = { random: Random; scale: number; lengthPower: number; bedded: number }
/** A run as it leaves: what is known of it, and what is not. */
export type HiddenRun = Omit<Settled, 'days' | 'turns'> & {
  /** Turns it may go slack before a gear is off; what the shop measured of that. */
  marginTurns: number
  slackAt: (days: number) => number
}

/** Days in which half of the slack comes, by how much is ridden. Invented for the bench. */
const RIDES: readonly { says: Riding; halfDays: number }[] = [
  { says: 'daily', halfDays: 3.2 },
  { says: 'weekly', halfDays: 6 },
  { says: 'seldom', halfDays: 13 },
]

export function hiddenShop(seed: number): HiddenShop {
  const random = randomFrom(seed, 1601)
  return {
    random,
    scale: 0.42 * Math.exp(0.45 * random.normal()),
    lengthPower: 0.2 + 0.8 * random.next(),
    bedded: 0.35 + 0.35 * random.next(),
  }
}

export function hiddenRun({ random, scale, lengthPower, bedded }: HiddenShop): HiddenRun {
  const housingMm = random.next() < 0.3 ? 1500 + 400 * random.next() : 600 + 250 * random.next()
  const isBedded = random.next() < 0.35
  // one in ten is an outlier: a ferrule that was not home, a rider who rides it all day
  const odd = random.next() < 0.1 ? Math.exp(0.8 * random.normal()) : 1
  const whole =
    scale * (housingMm / 710) ** lengthPower * (isBedded ? bedded : 1) * odd * Math.exp(0.35 * random.normal())
  // how fast it comes is the rider's: within each word they differ by more than the words do
  const rides = random.below(RIDES.length)
  const halfDays = RIDES[rides]!.halfDays * Math.exp(0.45 * random.normal())
  const word = random.next() < 0.12 ? RIDES[random.below(RIDES.length)]!.says : RIDES[rides]!.says
  return {
    housingMm: random.next() < 0.15 ? null : housingMm,
    bedded: isBedded,
    riding: random.next() < 0.75 ? word : null,
    marginTurns: 0.4 * Math.exp(0.35 * random.normal()),
    slackAt: days => (whole * days) / (days + halfDays),
  }
}

/** What a return shows: read in sixteenths, some of them not at all. */
export function returned({ random }: HiddenShop, run: HiddenRun, days: number): Settled {
  const seen = random.next() < 0.08 ? 0 : Math.max(0, Math.round(16 * run.slackAt(days) + 0.7 * random.normal()) / 16)
  return { housingMm: run.housingMm, bedded: run.bedded, riding: run.riding, days, turns: seen }
}
