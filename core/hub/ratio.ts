import type { Since } from '../chapter/late'
import { positive } from '../quantity/check'
import type { HubParts } from './kinds'

/**
 * A count on one gear: whole turns of the crank, slow, and what the wheel did, to a tenth; null when it slipped or
 * found no gear. On a job, when it was counted.
 */
export type HubCount = { gear: number; crankTurns: number; wheelTurns: number | null; since?: Since }

/**
 * Standard uncertainty of wheel turns read to a tenth at both ends of the count: √2 · 0.1/√12.
 * Source: rectangular distribution of a least count, JCGM 100:2008 (GUM) 4.3.7, recalled.
 */
export const COUNT_SD_TURNS = Math.SQRT2 * (0.1 / Math.sqrt(12))
/** A whole turn miscounted, either way, or a figure that is simply wrong. `model` */
export const COUNT_SLIPS = { whole: 0.01, wrong: 0.01 } as const
/** A ratio further out than this from any in the table is none of them: many standard uncertainties. */
const FAR_SD = 5
/**
 * Most that a count to a tenth can be off: half a tenth at each end. Two gears are told apart when they lie twice that
 * apart.
 */
const MOST_OFF_TURNS = 0.1

/**
 * Ratio of the hub from a count: wheel turns ÷ crank turns ÷ (ring ÷ sprocket). Source: plain kinematics of a chain.
 * @throws RangeError for turns of 0 or less
 * @example hubRatio({ crankTurns: 5, wheelTurns: 11.7 }, { ringTeeth: 42, sprocketTeeth: 18 }) // 1.003
 */
export function hubRatio(
  count: { crankTurns: number; wheelTurns: number },
  hub: Pick<HubParts, 'ringTeeth' | 'sprocketTeeth'>,
): number {
  positive('crankTurns', count.crankTurns)
  positive('wheelTurns', count.wheelTurns)
  return count.wheelTurns / count.crankTurns / (hub.ringTeeth / hub.sprocketTeeth)
}

/** Wheel turns that a gear makes. */
export const wheelTurnsOf = (hub: HubParts, gear: number, crankTurns: number): number =>
  hub.ratios[gear - 1] * crankTurns * (hub.ringTeeth / hub.sprocketTeeth)

/** Density of a reading of wheel turns when the hub is truly in a gear, slips of the count and all. */
export function countDensity(hub: HubParts, gear: number, count: { crankTurns: number; wheelTurns: number }): number {
  const off = count.wheelTurns - wheelTurnsOf(hub, gear, count.crankTurns)
  const bell = (x: number) => Math.exp(-0.5 * (x / COUNT_SD_TURNS) ** 2) / (COUNT_SD_TURNS * Math.sqrt(2 * Math.PI))
  const widest = wheelTurnsOf(hub, hub.ratios.length, count.crankTurns) * 1.3
  return (
    (1 - COUNT_SLIPS.whole - COUNT_SLIPS.wrong) * bell(off) +
    (COUNT_SLIPS.whole / 2) * (bell(off - 1) + bell(off + 1)) +
    COUNT_SLIPS.wrong / widest
  )
}

type GearRead = { ratio: number; gears: { gear: number; chance: number }[]; none: boolean }

/**
 * Which gear a count names: every gear's chance, the likeliest first, any gear as likely before it. `none` when the
 * ratio lies far from every gear's: miscounted, slipping, or another hub than was said.
 * @throws RangeError as `hubRatio`
 */
export function whichGear(hub: HubParts, count: { crankTurns: number; wheelTurns: number }): GearRead {
  const ratio = hubRatio(count, hub)
  const densities = hub.ratios.map((_, i) => countDensity(hub, i + 1, count))
  const sum = densities.reduce((a, b) => a + b, 0)
  const gears = densities.map((d, i) => ({ gear: i + 1, chance: d / sum })).sort((a, b) => b.chance - a.chance)
  const near = Math.min(
    ...hub.ratios.map((_, i) => Math.abs(count.wheelTurns - wheelTurnsOf(hub, i + 1, count.crankTurns))),
  )
  return { ratio, gears, none: near > FAR_SD * COUNT_SD_TURNS }
}

/** Does a count say that the gear asked for is the one that answers? A slip is not. */
export function isAsked(hub: HubParts, count: HubCount): boolean {
  if (count.wheelTurns === null) return false
  const read = whichGear(hub, { crankTurns: count.crankTurns, wheelTurns: count.wheelTurns })
  return !read.none && read.gears[0].gear === count.gear
}

/**
 * Whole crank turns after which a gear and its neighbours are told apart when the wheel is read to a tenth.
 * Source: least count: n ≥ 2 · error ÷ (difference of ratios · ring ÷ sprocket).
 */
export function turnsToSettle(hub: HubParts, gear?: number): number {
  const steps = hub.ratios
    .slice(1)
    .map((r, i) => ({ step: r - hub.ratios[i], beside: [i + 1, i + 2] }))
    .filter(s => gear === undefined || s.beside.includes(gear))
  const least = Math.min(...steps.map(s => s.step)) * (hub.ringTeeth / hub.sprocketTeeth)
  return Math.max(1, Math.ceil((2 * MOST_OFF_TURNS) / least))
}
