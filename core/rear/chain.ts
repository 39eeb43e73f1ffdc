import { CHAIN_PITCH_MM } from '../quantity/chainPitch'
import { positive, wholeIn } from '../quantity/check'
import { numberIn, TABLE_ONLY, type Standards } from '../standards/inForce'
import { chainRow } from '../standards/tables/chains'

/** On electric bikes a chain is renewed as early as on 11 speeds. `practice` */
const ELECTRIC_AS_SPEEDS = 11

/** Elongation at which a chain is renewed, per cent, as it counts in this shop. */
export const chainWearLimitPercent = (speeds: number, electric = false, s: Standards = TABLE_ONLY): number =>
  numberIn(s, 'chain', chainRow(electric ? Math.max(speeds, ELECTRIC_AS_SPEEDS) : speeds), 'wearPercent')

/**
 * Chain length for a derailleur bike: the two-wheel formula, + 2 links (`practice`), rounded up to an even number.
 * links = 2C/p + (F + R)/2 + p·((F − R)/2π)²/C. `std` chain-drive handbook formula.
 * @param p chainstay in mm, teeth of the largest ring and the largest sprocket
 * @throws RangeError naming the argument
 */
export function chainLinks(p: { chainstayMm: number; ringTeeth: number; sprocketTeeth: number }): {
  exact: number
  links: number
} {
  positive('chainstayMm', p.chainstayMm)
  if (p.chainstayMm < 250 || p.chainstayMm > 1200)
    throw new RangeError(`chainstayMm must be from 250 to 1200, it is ${p.chainstayMm}`)
  wholeIn('ringTeeth', p.ringTeeth, 16, 70)
  wholeIn('sprocketTeeth', p.sprocketTeeth, 9, 60)
  const exact =
    (2 * p.chainstayMm) / CHAIN_PITCH_MM +
    (p.ringTeeth + p.sprocketTeeth) / 2 +
    (CHAIN_PITCH_MM * ((p.ringTeeth - p.sprocketTeeth) / (2 * Math.PI)) ** 2) / p.chainstayMm
  return { exact, links: 2 * Math.ceil((exact + 2) / 2 - 1e-9) }
}

/** Whether a derailleur takes up so many teeth, in words. @param has its capacity; NaN where it was not typed */
export function capacityJudged(need: number, has: number): { words: string; wrong: boolean } {
  if (!Number.isFinite(has)) return { words: `${need} teeth needed`, wrong: false }
  if (need <= has) return { words: `${need} teeth needed, ${has} there: enough`, wrong: false }
  const short = `${need} teeth needed, ${has} there: ${need - has} more than its capacity.`
  return { words: `${short} Small and small will sag, or big and big tear.`, wrong: true }
}

/**
 * Teeth of slack a derailleur must take up: (big − small ring) + (largest − smallest sprocket). `practice`.
 * @throws RangeError when a smaller one is given as the larger
 */
export function capacityNeeded(p: { rings: readonly number[]; smallest: number; largest: number }): number {
  if (!p.rings.length) throw new RangeError('rings needs at least one chainring')
  p.rings.forEach((t, i) => wholeIn(`rings[${i}]`, t, 16, 70))
  wholeIn('smallest', p.smallest, 9, 60)
  wholeIn('largest', p.largest, p.smallest, 60)
  return Math.max(...p.rings) - Math.min(...p.rings) + p.largest - p.smallest
}
