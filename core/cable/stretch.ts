import { notNegative, positive } from '../quantity/check'

/** Elastic modulus of a strand, N/mm². `memory`: about 130 GPa, less than solid steel. */
const STRAND_MODULUS = 130_000
/** Steel in a strand, mm²: 1.1 mm shift wire; 1.5 to 1.6 mm brake wire. `memory` */
const STRAND_AREA_MM2 = { shift: 0.71, brake: 1.32 } as const
type Wire = keyof typeof STRAND_AREA_MM2
/** Housing with its stops gives about as much again as the wire inside it, over its own length. `memory` */
export const HOUSING_SHARE = 1

/**
 * Stiffness of a wire, N/mm: k = E·A/L. `std` (Hooke).
 * @throws RangeError when the length is not positive
 * @example wireStiffness(1000, 'shift') // 92.3
 */
export function wireStiffness(lengthMm: number, wire: Wire): number {
  positive('lengthMm', lengthMm)
  return (STRAND_MODULUS * STRAND_AREA_MM2[wire]) / lengthMm
}

/** How far a wire gives under a pull, mm, by itself. @throws RangeError naming the argument */
export function wireGivesMm(lengthMm: number, wire: Wire, pullN: number): number {
  notNegative('pullN', pullN)
  return pullN / wireStiffness(lengthMm, wire)
}

/** What of a run gives: all of its wire, and housing only where there is some, mm. */
export type Gives = { wireMm: number; housingMm: number }

/**
 * Wire, housing and stops in series, N/mm: bare wire gives as wire only.
 * @throws RangeError naming the argument, or when there is more housing than wire
 */
export function runStiffness({ wireMm, housingMm }: Gives, wire: Wire): number {
  notNegative('housingMm', housingMm)
  if (housingMm > wireMm) throw new RangeError(`housingMm must be within wireMm ${wireMm}, it is ${housingMm}`)
  return 1 / ((1 + (HOUSING_SHARE * housingMm) / wireMm) / wireStiffness(wireMm, wire))
}

/** What the lever loses in a run under a pull, mm of cable. */
export const runGivesMm = (of: Gives, wire: Wire, pullN: number): number => pullN / runStiffness(of, wire)

/** A firm pull at the lever, N: what a run is asked to give under. `memory` */
export const FIRM_PULL_N = { shift: 40, brake: 300 } as const

/** A derailleur's spring on its cable, N. `model` */
export const SPRING_PULL_N = 20
