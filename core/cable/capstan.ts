import { radians } from '../quantity/angle'
import { notNegative } from '../quantity/check'

/**
 * Tension ratio T_in / T_out over bends as the wire starts to slide. No unit, at least 1.
 * Source: belt-friction (Euler–Eytelwein) equation, `std`; the wire's own stiffness is left out.
 * @param mu friction of wire in housing, no unit
 * @param wrapDeg sum of the run's bends, degrees; may pass 360
 * @throws RangeError naming the argument that is negative or not finite
 * @example capstan(0.1, 180) // 1.369…
 */
export function capstan(mu: number, wrapDeg: number): number {
  notNegative('mu', mu)
  notNegative('wrapDeg', wrapDeg)
  return Math.exp(mu * radians(wrapDeg))
}
