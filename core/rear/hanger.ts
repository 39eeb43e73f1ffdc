import { degrees } from '../quantity/angle'
import { finite, notNegative, positive } from '../quantity/check'

export type HangerReading = { hour: number; gapMm: number }
export type HangerFit = { camberDeg: number; toeDeg: number; tiltDeg: number; acrossMm: number; residualMm: number }

/**
 * How far a derailleur hanger is bent, from gaps between gauge tip and rim round the clock.
 * gap(θ) = a + b·cos θ + c·sin θ by least squares, θ from 12 o'clock, clock seen from the drive side.
 * Source: first-harmonic least squares, any numerical handbook (`std`).
 * @param readings three or more, each at its own hour (0 to 12, 0 and 12 are the same place); gaps in mm
 * @param radiusMm from the hanger's bolt to the gauge tip, mm
 * @returns camber (wider at 12 than at 6 is +: the lower end is bent inboard) and toe (wider at 3 is +) in degrees,
 *   the two together as tilt, the difference across the wheel and the root mean square residual in mm
 * @throws RangeError naming what is missing, repeated, negative or not a number
 */
export function fitHanger(readings: HangerReading[], radiusMm: number): HangerFit {
  positive('radiusMm', radiusMm)
  if (!Array.isArray(readings) || readings.length < 3) throw new RangeError('readings needs at least 3 places round the clock')
  const taken = new Set<number>()
  readings.forEach(({ hour, gapMm }, i) => {
    finite(`readings[${i}].hour`, hour)
    if (hour < 0 || hour > 12) throw new RangeError(`readings[${i}].hour must be from 0 to 12, it is ${hour}`)
    notNegative(`readings[${i}].gapMm`, gapMm)
    if (taken.has(hour % 12)) throw new RangeError(`readings[${i}].hour ${hour} was read twice: keep one`)
    taken.add(hour % 12)
  })
  const rows = readings.map(({ hour, gapMm }) => {
    const angle = (hour * Math.PI) / 6
    return { cos: Math.cos(angle), sin: Math.sin(angle), gapMm }
  })
  const [mean, b, c] = solveNormal(rows)
  const squares = rows.reduce((sum, r) => sum + (r.gapMm - mean - b * r.cos - c * r.sin) ** 2, 0)
  return {
    camberDeg: degrees(Math.atan(b / radiusMm)),
    toeDeg: degrees(Math.atan(c / radiusMm)),
    tiltDeg: degrees(Math.atan(Math.hypot(b, c) / radiusMm)),
    acrossMm: 2 * Math.hypot(b, c),
    residualMm: Math.sqrt(squares / rows.length),
  }
}

/** Least squares of [1 cos sin] after taking the means off: a 2×2 system, well conditioned unless the hours crowd together. */
function solveNormal(rows: { cos: number; sin: number; gapMm: number }[]): [number, number, number] {
  const n = rows.length
  const mean = (f: (r: (typeof rows)[number]) => number) => rows.reduce((s, r) => s + f(r), 0) / n
  const mc = mean(r => r.cos)
  const ms = mean(r => r.sin)
  const mg = mean(r => r.gapMm)
  let cc = 0, cs = 0, ss = 0, cg = 0, sg = 0
  for (const r of rows) {
    cc += (r.cos - mc) ** 2
    cs += (r.cos - mc) * (r.sin - ms)
    ss += (r.sin - ms) ** 2
    cg += (r.cos - mc) * (r.gapMm - mg)
    sg += (r.sin - ms) * (r.gapMm - mg)
  }
  const det = cc * ss - cs * cs
  if (det < 1e-9) throw new RangeError('readings lie too close together: take places further round the clock')
  const b = (cg * ss - sg * cs) / det
  const c = (sg * cc - cg * cs) / det
  return [mg - b * mc - c * ms, b, c]
}

/** Difference across a 622 mm rim (gauge radius 311 mm) that a hanger may show, by speeds. `memory`: 4 mm to 8 speeds, 2 to 10, 1 from 11. */
export const acrossTolerance = (speeds: number): number => (speeds <= 8 ? 4 : speeds <= 10 ? 2 : 1)

/** The same as an angle of camber, degrees. */
export const camberTolerance = (speeds: number): number => degrees(Math.atan(acrossTolerance(speeds) / 2 / WHEEL_RADIUS_MM))

/** Gauge radius of a 622 mm rim, mm, for which the tolerances are said. `std` ISO 5775 bead seat diameter. */
const WHEEL_RADIUS_MM = 311
