import { positive, wholeIn } from '../quantity/check'
import { CHAIN_PITCH_MM } from './gap'

/** Elongation at which a chain is renewed, per cent. `practice`: 0.75 to 10 speeds, 0.5 from 11 and on electric bikes. */
export const chainWearLimitPercent = (speeds: number, electric = false): number =>
  speeds >= 11 || electric ? 0.5 : 0.75

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
