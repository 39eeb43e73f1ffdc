import { finite, notNegative, positive } from '../quantity/check'
import { numberIn, rangeIn, TABLE_ONLY, valueOrNull, type Standards } from '../standards/inForce'
import { meanOf } from '../standards/entry'
import { BRAKE_BARREL, MOST_LET_OUT_MM } from './barrel'
import { FITTING_LEVER, type BrakeKind, type LeverClass } from './kinds'

/** Cable travel for each mm at a pad, as it counts in this shop; null where a kind has no such sum here. */
export function armRatio(kind: BrakeKind, s: Standards = TABLE_ONLY): number | null {
  const value = valueOrNull(s, 'brake', kind, 'armRatio')
  return value === null ? null : meanOf(value)
}

/** Cable over a lever's stroke, mm: the middle of its class, as it counts in this shop. */
function strokeMm(lever: LeverClass, s: Standards = TABLE_ONLY): number {
  const { from, to } = rangeIn(s, 'lever', lever, 'pullMm')
  return (from + to) / 2
}

/** Force gain from hand to one pad: the lever's times the arm's. `memory` for both; the product is plain statics. */
export function gainAtPad(lever: LeverClass, kind: BrakeKind, s: Standards = TABLE_ONLY): number | null {
  const arm = armRatio(kind, s)
  return arm === null ? null : numberIn(s, 'lever', lever, 'gain') * arm
}

/** A firm hand at a lever, N. `model` */
export const HAND_N = 80

/**
 * Force of one pad on the rim, N, for a pull at the lever. Plain statics, friction left out. @throws RangeError naming
 * the argument
 */
export function padForceN(lever: LeverClass, kind: BrakeKind, handN: number, s: Standards = TABLE_ONLY): number | null {
  notNegative('handN', handN)
  const gain = gainAtPad(lever, kind, s)
  return gain === null ? null : gain * handN
}

/** A lever and a brake that do not match, with the feel they will have and what would match; null when they do. */
export function mismatchOf(lever: LeverClass, kind: BrakeKind): { feel: string; instead: LeverClass } | null {
  const instead = FITTING_LEVER[kind]
  if (instead === null || instead === lever) return null
  return instead === 'long'
    ? { feel: 'soft and grabby: the lever comes to the bar before the pads bite', instead }
    : { feel: 'firm and wooden: it feels sharp, and brakes weakly', instead }
}

/**
 * Gap at each pad from cable let out after the pads touch, mm: linear-pull arms and callipers move both pads.
 * Source: plain levers; the ratio is `memory`.
 * @throws RangeError when there is no such sum, or the figure makes no sense
 * @example padGapMm('linear-pull', 5) // 0.69
 */
export function padGapMm(kind: BrakeKind, letOutMm: number, s: Standards = TABLE_ONLY): number {
  const arm = armRatio(kind, s)
  if (arm === null) throw new RangeError(`kind ${kind} has no such sum`)
  notNegative('letOutMm', letOutMm)
  if (letOutMm > MOST_LET_OUT_MM)
    throw new RangeError(
      `letOutMm is at most ${MOST_LET_OUT_MM}: with ${letOutMm} mm let out the pads hang in the air, measure again`,
    )
  return letOutMm / (2 * arm)
}

/** Cable that a gap at each pad takes up before it bites, mm. @throws RangeError as `padGapMm` */
export function cableTakenMm(kind: BrakeKind, gapMm: number, s: Standards = TABLE_ONLY): number {
  const arm = armRatio(kind, s)
  if (arm === null) throw new RangeError(`kind ${kind} has no such sum`)
  notNegative('gapMm', gapMm)
  return 2 * gapMm * arm
}

/** Share of the lever's stroke at which the pads bite, 0 to 1 and beyond: above 1 the lever is at the bar first. */
export const biteShare = (kind: BrakeKind, lever: LeverClass, gapMm: number, s: Standards = TABLE_ONLY): number =>
  cableTakenMm(kind, gapMm, s) / strokeMm(lever, s)

/** Turns of a barrel that let a pad gap out or in, its thread in mm a turn. @throws RangeError naming the argument */
export function barrelTurnsFor(
  kind: BrakeKind,
  gapChangeMm: number,
  threadMm: number,
  s: Standards = TABLE_ONLY,
): number {
  finite('gapChangeMm', gapChangeMm)
  positive('threadMm', threadMm)
  return (Math.sign(gapChangeMm) * cableTakenMm(kind, Math.abs(gapChangeMm), s)) / threadMm
}

/**
 * What is left of a barrel for pad wear: mm of wear at each pad it can still take up, the gap kept.
 * @throws RangeError for a barrel further out than it goes
 * @example wearLeftMm('dual-pivot', 0) // 2.96
 */
export function wearLeftMm(kind: BrakeKind, turnsOut: number, s: Standards = TABLE_ONLY): number {
  const arm = armRatio(kind, s)
  if (arm === null) throw new RangeError(`kind ${kind} has no such sum`)
  notNegative('turnsOut', turnsOut)
  if (turnsOut > BRAKE_BARREL.turns)
    throw new RangeError(`turnsOut is at most ${BRAKE_BARREL.turns}: beyond it the barrel comes out of its thread`)
  return ((BRAKE_BARREL.turns - turnsOut) * BRAKE_BARREL.threadMm) / (2 * arm)
}

/** A disc's figures as they count in this shop, mm: rotor when new and when scrap, pads when scrap, gap a side. */
export function discFigures(s: Standards = TABLE_ONLY) {
  const rotor = rangeIn(s, 'brake', 'cable-disc', 'rotorMm')
  return {
    rotorNewMm: rotor.to,
    rotorScrapMm: rotor.from,
    padScrapMm: rangeIn(s, 'brake', 'cable-disc', 'padMm').to,
    gapMm: rangeIn(s, 'brake', 'cable-disc', 'gapMm'),
  }
}

/** What a disc's gap at each side says beyond its wear, in words; null when it is as it should be. */
export function discGapWords(gapMm: number, s: Standards = TABLE_ONLY): string | null {
  notNegative('gapMm', gapMm)
  const wanted = discFigures(s).gapMm
  if (gapMm < wanted.from) return 'Pads too near: they will drag'
  return gapMm > wanted.to ? 'Pads too far: take it up at the pads' : null
}

/** Cable for each mm that both pads of a cable disc come in. `model`: arms differ, the bike has the last word. */
const DISC_CABLE_PER_MM = 12

/** Share of the stroke at which a cable disc bites, its arm starting at rest; above 1 the lever is at the bar first. */
export function discBiteShare(lever: LeverClass, gapMm: number, s: Standards = TABLE_ONLY): number {
  notNegative('gapMm', gapMm)
  return (gapMm * DISC_CABLE_PER_MM) / strokeMm(lever, s)
}

/** A new rotor may measure so much thicker, mm. `practice` */
export const ROTOR_WITHIN_MM = 0.1

/**
 * What a measured rotor and pad say, in words; null when both have life left. @throws RangeError for a rotor thicker
 * than new
 */
export function discWear(rotorMm: number, padMm: number, s: Standards = TABLE_ONLY): string | null {
  positive('rotorMm', rotorMm)
  notNegative('padMm', padMm)
  const { rotorNewMm, rotorScrapMm, padScrapMm } = discFigures(s)
  if (rotorMm > rotorNewMm + ROTOR_WITHIN_MM)
    throw new RangeError(
      `rotorMm is at most ${rotorNewMm}, the thickness of a new one: measure again, away from the edge`,
    )
  if (rotorMm <= rotorScrapMm) return `Rotor at ${rotorMm.toFixed(1)} mm is scrap (${rotorScrapMm})`
  return padMm <= padScrapMm ? `Pads at ${padMm.toFixed(1)} mm are scrap (${padScrapMm}, without the plate)` : null
}

/** A disc judged by its wear and its gap a side, in sentences. @throws RangeError as `discWear` and `discGapWords` */
export const discJudged = (rotorMm: number, padMm: number, gapMm: number, s: Standards = TABLE_ONLY): string =>
  [discWear(rotorMm, padMm, s) ?? 'Rotor and pads have life left', discGapWords(gapMm, s)]
    .filter(words => words !== null)
    .map(words => `${words}.`)
    .join(' ')

/**
 * Angle of a straddle wire at its yoke, degrees, and what it does to the arms: a lower yoke pulls more across. Plain
 * trigonometry.
 */
export function straddle(yokeOverAnchorsMm: number, anchorsApartMm: number): { deg: number; acrossShare: number } {
  positive('yokeOverAnchorsMm', yokeOverAnchorsMm)
  positive('anchorsApartMm', anchorsApartMm)
  const half = Math.atan2(anchorsApartMm / 2, yokeOverAnchorsMm)
  // each half pulls along itself: for a unit of cable pull, tan(half)/2 across
  return { deg: (2 * half * 180) / Math.PI, acrossShare: Math.tan(half) / 2 }
}

/** How far off its angle a straddle may start, degrees. `model` */
const STRADDLE_WITHIN_DEG = 15

/** Where a straddle starts, as it counts in this shop: its angle, degrees, and its yoke over the tyre, mm. */
const straddleWanted = (s: Standards = TABLE_ONLY) => ({
  deg: numberIn(s, 'brake', 'cantilever', 'straddleDeg'),
  overTyreMm: rangeIn(s, 'brake', 'cantilever', 'yokeMm'),
})

/** A straddle judged: the tyre's clearance first, then its angle. `overTyreMm` null when it was not measured. */
export function straddleJudged(
  deg: number,
  overTyreMm: number | null,
  s: Standards = TABLE_ONLY,
): { right: boolean; words: string } {
  const wanted = straddleWanted(s)
  const { from, to } = wanted.overTyreMm
  if (overTyreMm !== null && overTyreMm < from) return { right: false, words: 'too near the tyre: raise it' }
  if (overTyreMm !== null && overTyreMm > to) return { right: false, words: 'high over the tyre: lower it' }
  if (deg < wanted.deg - STRADDLE_WITHIN_DEG)
    return { right: false, words: 'steep: the pads travel far and press little; lower it' }
  if (deg > wanted.deg + STRADDLE_WITHIN_DEG)
    return { right: false, words: 'flat: presses hard, travels little; raise it' }
  return { right: true, words: 'a good start' }
}
