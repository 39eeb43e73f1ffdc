import { finite, notNegative, positive } from '../quantity/check'
import { ARM_RATIO, FITTING_LEVER, LEVER_GAIN, LEVER_PULL_MM, type BrakeKind, type LeverClass } from './kinds'

/** Force gain from hand to one pad: the lever's times the arm's. `memory` for both; the product is plain statics. */
export function gainAtPad(lever: LeverClass, kind: BrakeKind): number | null {
  const arm = ARM_RATIO[kind]
  return arm === undefined ? null : LEVER_GAIN[lever] * arm
}

/** A firm hand at a lever, N. `model` */
export const HAND_N = 80

/** Force of one pad on the rim, N, for a pull at the lever. Plain statics, friction left out. @throws RangeError naming the argument */
export function padForceN(lever: LeverClass, kind: BrakeKind, handN: number): number | null {
  notNegative('handN', handN)
  const gain = gainAtPad(lever, kind)
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

const MOST_LET_OUT_MM = 25

/**
 * Gap at each pad from cable let out after the pads touch, mm: linear-pull arms and callipers move both pads.
 * Source: plain levers; the ratio is `memory`.
 * @throws RangeError when there is no such sum, or the figure makes no sense
 * @example padGapMm('linear-pull', 5) // 0.69
 */
export function padGapMm(kind: BrakeKind, letOutMm: number): number {
  const arm = ARM_RATIO[kind]
  if (arm === undefined) throw new RangeError(`kind ${kind} has no such sum`)
  notNegative('letOutMm', letOutMm)
  if (letOutMm > MOST_LET_OUT_MM)
    throw new RangeError(
      `letOutMm is at most ${MOST_LET_OUT_MM}: with ${letOutMm} mm let out the pads hang in the air, measure again`,
    )
  return letOutMm / (2 * arm)
}

/** Cable that a gap at each pad takes up before it bites, mm. @throws RangeError as `padGapMm` */
export function cableTakenMm(kind: BrakeKind, gapMm: number): number {
  const arm = ARM_RATIO[kind]
  if (arm === undefined) throw new RangeError(`kind ${kind} has no such sum`)
  notNegative('gapMm', gapMm)
  return 2 * gapMm * arm
}

/** Share of the lever's stroke at which the pads bite, 0 to 1 and beyond: above 1 the lever is at the bar first. */
export function biteShare(kind: BrakeKind, lever: LeverClass, gapMm: number): number {
  const { from, to } = LEVER_PULL_MM[lever]
  return cableTakenMm(kind, gapMm) / ((from + to) / 2)
}

/** Turns of a barrel that let a pad gap out or in, its thread in mm a turn. @throws RangeError naming the argument */
export function barrelTurnsFor(kind: BrakeKind, gapChangeMm: number, threadMm: number): number {
  finite('gapChangeMm', gapChangeMm)
  positive('threadMm', threadMm)
  return (Math.sign(gapChangeMm) * cableTakenMm(kind, Math.abs(gapChangeMm))) / threadMm
}

/** Travel of a barrel from fully in, turns, with its thread in mm a turn. `memory` */
export const BRAKE_BARREL = { turns: 8, threadMm: 1 } as const

/**
 * What is left of a barrel for pad wear: mm of wear at each pad it can still take up, the gap kept.
 * @throws RangeError for a barrel further out than it goes
 * @example wearLeftMm('dual-pivot', 0) // 2.96
 */
export function wearLeftMm(kind: BrakeKind, turnsOut: number): number {
  const arm = ARM_RATIO[kind]
  if (arm === undefined) throw new RangeError(`kind ${kind} has no such sum`)
  notNegative('turnsOut', turnsOut)
  if (turnsOut > BRAKE_BARREL.turns)
    throw new RangeError(`turnsOut is at most ${BRAKE_BARREL.turns}: beyond it the barrel comes out of its thread`)
  return ((BRAKE_BARREL.turns - turnsOut) * BRAKE_BARREL.threadMm) / (2 * arm)
}

/** A disc's figures judged. `memory`: rotor 1.8 mm new and 1.5 scrap, pad scrap at 0.5 to 1, gap 0.2 to 0.4 a side. */
export const DISC = { rotorNewMm: 1.8, rotorScrapMm: 1.5, padScrapMm: 1, gapMm: { from: 0.2, to: 0.4 } } as const

/** What a disc's gap at each side says beyond its wear, in words; null when it is as it should be. `memory` */
export function discGapWords(gapMm: number): string | null {
  notNegative('gapMm', gapMm)
  if (gapMm < DISC.gapMm.from) return 'Pads too near: they will drag'
  return gapMm > DISC.gapMm.to ? 'Pads too far: take it up at the pads' : null
}

/** Cable for each mm that both pads of a cable disc come in. `model`: arms differ, the bike has the last word. */
export const DISC_CABLE_PER_MM = 12

/** Share of the stroke at which a cable disc bites, its arm starting at rest; above 1 the lever is at the bar first. */
export function discBiteShare(lever: LeverClass, gapMm: number): number {
  notNegative('gapMm', gapMm)
  const { from, to } = LEVER_PULL_MM[lever]
  return (gapMm * DISC_CABLE_PER_MM) / ((from + to) / 2)
}

/** What a measured rotor and pad say, in words; null when both have life left. @throws RangeError for a rotor thicker than new */
export function discWear(rotorMm: number, padMm: number): string | null {
  positive('rotorMm', rotorMm)
  notNegative('padMm', padMm)
  if (rotorMm > DISC.rotorNewMm + 0.1)
    throw new RangeError(
      `rotorMm is at most ${DISC.rotorNewMm}, the thickness of a new one: measure again, away from the edge`,
    )
  if (rotorMm <= DISC.rotorScrapMm) return `Rotor at ${rotorMm.toFixed(1)} mm is scrap (${DISC.rotorScrapMm})`
  return padMm <= DISC.padScrapMm
    ? `Pads at ${padMm.toFixed(1)} mm are scrap (${DISC.padScrapMm}, without the plate)`
    : null
}

/** Angle of a straddle wire at its yoke, degrees, and what it does to the arms: a lower yoke pulls more across. Plain trigonometry. */
export function straddle(yokeOverAnchorsMm: number, anchorsApartMm: number): { deg: number; acrossShare: number } {
  positive('yokeOverAnchorsMm', yokeOverAnchorsMm)
  positive('anchorsApartMm', anchorsApartMm)
  const half = Math.atan2(anchorsApartMm / 2, yokeOverAnchorsMm)
  // each half pulls along itself: for a unit of cable pull, tan(half)/2 across
  return { deg: (2 * half * 180) / Math.PI, acrossShare: Math.tan(half) / 2 }
}

/** Where a straddle starts: about a right angle, its yoke over the tyre, mm. `memory`; how far off still counts is `model` */
export const STRADDLE = { deg: 90, withinDeg: 15, overTyreMm: { from: 20, to: 40 } } as const

/** A straddle judged: the tyre's clearance first, then its angle. `overTyreMm` null when it was not measured. */
export function straddleJudged(deg: number, overTyreMm: number | null): { right: boolean; words: string } {
  const { from, to } = STRADDLE.overTyreMm
  if (overTyreMm !== null && overTyreMm < from) return { right: false, words: 'too near the tyre: raise it' }
  if (overTyreMm !== null && overTyreMm > to) return { right: false, words: 'high over the tyre: lower it' }
  if (deg < STRADDLE.deg - STRADDLE.withinDeg)
    return { right: false, words: 'steep: the pads travel far and press little; lower it' }
  if (deg > STRADDLE.deg + STRADDLE.withinDeg)
    return { right: false, words: 'flat: presses hard, travels little; raise it' }
  return { right: true, words: 'a good start' }
}
