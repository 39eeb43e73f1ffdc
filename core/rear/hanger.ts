import { GAUGE_RADIUS_MM } from './gaugeRadius'
import { acrossTolerance, type HangerKind } from './hangerLimit'
import { pitchDiameterMm } from '../standards/sprockets'
import { degrees } from '../quantity/angle'
import { finite, notNegative, positive } from '../quantity/check'
import { TABLE_ONLY, type Standards } from '../standards/inForce'

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
  if (!Array.isArray(readings) || readings.length < 3)
    throw new RangeError('readings needs at least 3 places round the clock')
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

/** Readings told from a place where the tip just touched, closer − and wider +, as gaps: the plane is the same. */
export function fromTouchPoint(readings: HangerReading[]): HangerReading[] {
  const least = Math.min(0, ...readings.map(r => r.gapMm))
  return least < 0 ? readings.map(r => ({ ...r, gapMm: r.gapMm - least })) : readings
}

/** A fit in a line: how far across, and which way. */
export const sayFit = (fit: HangerFit): string =>
  `${fit.acrossMm.toFixed(1)} mm across, camber ${fit.camberDeg.toFixed(1)}°, toe ${fit.toeDeg.toFixed(1)}°`

/**
 * Least squares of [1 cos sin] after taking the means off: a 2×2 system, well conditioned unless the hours crowd
 * together.
 */
function solveNormal(rows: { cos: number; sin: number; gapMm: number }[]): [number, number, number] {
  const n = rows.length
  const mean = (f: (r: (typeof rows)[number]) => number) => rows.reduce((s, r) => s + f(r), 0) / n
  const mc = mean(r => r.cos)
  const ms = mean(r => r.sin)
  const mg = mean(r => r.gapMm)
  let cc = 0,
    cs = 0,
    ss = 0,
    cg = 0,
    sg = 0
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

/** The same as an angle of camber, degrees. */
export const camberTolerance = (speeds: number): number =>
  degrees(Math.atan(acrossTolerance(speeds) / 2 / GAUGE_RADIUS_MM))

/** Spread of one reading, mm: with a caliper at the tip, by eye. `practice` */
export const READING_SD_MM = { caliper: 0.3, eye: 1 } as const

/** Spread of camber and toe from so many readings round the clock, degrees: least squares of [1 cos sin]. `std` */
export function hangerSpreadDeg(readings: readonly HangerReading[], radiusMm: number, readingSdMm: number): number {
  positive('radiusMm', radiusMm)
  return degrees(Math.atan((readingSdMm * Math.sqrt(2 / Math.max(1, readings.length))) / radiusMm))
}

/**
 * The reading that does not go with the others: without it the rest agree at least three times better. Null when none
 * stands out, or with fewer than five, where leaving one out always fits well.
 */
export function badReading(readings: readonly HangerReading[], radiusMm: number): HangerReading | null {
  if (readings.length < 5) return null
  const all = fitHanger([...readings], radiusMm).residualMm
  if (all < READING_SD_MM.caliper) return null
  const rest = readings.map(r => {
    try {
      return fitHanger(
        readings.filter(x => x !== r),
        radiusMm,
      ).residualMm
    } catch {
      // the others lie too close together
      return all
    }
  })
  const least = Math.min(...rest)
  return least < all / 3 ? readings[rest.indexOf(least)] : null
}

/** What to do about a hanger. `tipMm` is how far to bring the gauge tip towards the rim at `hour` in the next step. */
type HangerPlan =
  | { do: 'leave'; why: string }
  | { do: 'bend'; why: string; hour: number; tipMm: number }
  /** `once`: a replaceable one may be levered back, this once, where no new one is to be had; where and by how much. */
  | { do: 'replace'; why: string; once: { hour: number; tipMm: number } | null }
  | { do: 'refuse'; why: string }

/** A difference of this much is certainly a bend, mm. `practice` */
const CERTAINLY_BENT_MM = 5

/**
 * Bend, renew or refuse: by the fit, the speeds and what the hanger is made of. Bends go in small steps, half the way
 * or 2 mm at the tip at most, re-measured each time (`practice`).
 */
export function hangerPlan(
  fit: HangerFit,
  speeds: number,
  kind: HangerKind,
  s: Standards = TABLE_ONLY,
  alreadyBent = false,
): HangerPlan {
  const limit = acrossTolerance(speeds, s)
  const said = `${fit.acrossMm.toFixed(1)} mm across, ${limit} mm is allowed for ${speeds} speeds`
  if (fit.acrossMm <= limit) return { do: 'leave', why: `${said}: leave it.` }
  switch (kind) {
    case 'titanium':
    case 'carbon':
      return {
        do: 'refuse',
        why: `${said}. Never bend titanium, carbon or a cast part: defer to the maker and a qualified frame builder.`,
      }
    case 'replaceable':
      return {
        do: 'replace',
        why: `${said}. It is made to give way: a new one. Bending it back weakens it and may break it.`,
        once: alreadyBent ? null : lever(fit),
      }
    case 'direct':
      return {
        do: 'replace',
        why: `${said}. Undo its bolt (left-hand), re-seat it on the axle and gauge again; renew it if it is bent.`,
        once: null,
      }
    case 'steel':
      return {
        do: 'bend',
        why: `${said}${fit.acrossMm >= CERTAINLY_BENT_MM ? ': certainly bent' : ''}. Small steps, gauge again after each; stop at any crack.`,
        ...lever(fit),
      }
  }
}

/** Was it levered back before, and gauged within the limit since? Then once is over. */
export function wasStraightened(
  gauges: readonly { event: { acrossMm: number }; bentBefore: unknown }[],
  limitMm: number,
): boolean {
  const first = gauges.findIndex(g => g.bentBefore !== null)
  return first >= 0 && gauges.slice(first + 1, -1).some(g => g.event.acrossMm <= limitMm)
}

/** Where the gauge's tip is widest from the rim, and how far to bring it in there in the next step, mm. */
function lever(fit: HangerFit): { hour: number; tipMm: number } {
  const angle = Math.atan2(Math.tan(fit.toeDeg / degrees(1)), Math.tan(fit.camberDeg / degrees(1)))
  const step = Math.min(2, Math.max(0.5, fit.acrossMm / 4))
  return { hour: Math.round((angle * 6) / Math.PI + 12) % 12 || 12, tipMm: Math.round(step * 2) / 2 }
}

/**
 * What a camber does to each gear after the best constant offset, mm, + inboard: the derailleur hangs lower for a
 * bigger sprocket, so the error grows with its radius (model, section 1).
 */
export function hangerMisfitMm(setup: { teeth: readonly number[] }, camberDeg: number): number[] {
  finite('camberDeg', camberDeg)
  const tan = Math.tan(camberDeg / degrees(1))
  const errors = setup.teeth.map(t => (tan * (pitchDiameterMm(t) - pitchDiameterMm(setup.teeth[0]))) / 2)
  const middle = (Math.max(...errors) + Math.min(...errors)) / 2
  return errors.map(e => e - middle)
}
