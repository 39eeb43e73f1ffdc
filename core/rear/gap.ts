import { finite, notNegative, positive, wholeIn } from '../quantity/check'
import { toEighth } from '../quantity/turns'
import { tipDiameterMm } from '../standards/sprockets'

/**
 * Gap between the tips of the guide pulley and of a sprocket, mm; negative when they would run into each other.
 * @param p teeth of both, and the distance between their centres in mm
 * @throws RangeError naming the argument
 */
export function guideGap(p: { sprocketTeeth: number; pulleyTeeth: number; centresMm: number }): number {
  wholeIn('sprocketTeeth', p.sprocketTeeth, 5, 120)
  wholeIn('pulleyTeeth', p.pulleyTeeth, 5, 40)
  positive('centresMm', p.centresMm)
  return p.centresMm - (tipDiameterMm(p.sprocketTeeth) + tipDiameterMm(p.pulleyTeeth)) / 2
}

/** Teeth of a guide pulley that nobody counted: most have eleven to thirteen. `practice` */
export const USUAL_PULLEY_TEETH = 12

/** mm of gap per turn in of the B screw, and its spread, until it is learnt. `model`: 1 to 1.5 on most. */
export const B_SCREW = { mmPerTurn: 1.25, sd: 0.2 } as const

/** Spread of a measured gap, mm. `model` */
const GAP_SD_MM = 0.4

/** A gap that was measured, mm, and the B screw's turns in (+) since the first. */
export type GapAt = { turnsIn: number; gapMm: number; sdMm?: number }

/**
 * What a turn of this bike's B screw does, learnt from gaps measured at two or more settings, by least squares weighed
 * by how sure each is.
 * @param seen `sdMm` of one in a photograph; others are as sure as a template
 */
export function learntGapPerTurn(seen: readonly GapAt[]): { mmPerTurn: number; sdMm: number } {
  const rows = seen.map(x => ({ ...x, weight: 1 / (x.sdMm ?? GAP_SD_MM) ** 2 }))
  const sum = (of: (x: (typeof rows)[number]) => number) => rows.reduce((s, x) => s + x.weight * of(x), 0)
  const all = Math.max(
    1e-9,
    sum(() => 1),
  )
  const meanT = sum(x => x.turnsIn) / all
  const meanG = sum(x => x.gapMm) / all
  const told = sum(x => (x.turnsIn - meanT) ** 2)
  const with_ = sum(x => (x.turnsIn - meanT) * (x.gapMm - meanG))
  const usual = 1 / B_SCREW.sd ** 2
  return { mmPerTurn: (with_ + usual * B_SCREW.mmPerTurn) / (told + usual), sdMm: Math.sqrt(1 / (told + usual)) }
}

/** The gap as it stands: the last one measured, carried on by the turns since; null when none was. */
export function gapNow(seen: readonly GapAt[], turnsIn: number, mmPerTurn: number): number | null {
  const last = seen.at(-1)
  return last ? last.gapMm + (turnsIn - last.turnsIn) * mmPerTurn : null
}

/** Turns of the B screw to the middle of the target, in eighths, + in (gap grows); 0 inside it. */
export function gapTurn(gapMm: number, target: { from: number; to: number }, mmPerTurn: number): number {
  finite('gapMm', gapMm)
  positive('mmPerTurn', mmPerTurn)
  if (gapMm >= target.from && gapMm <= target.to) return 0
  return toEighth(((target.from + target.to) / 2 - gapMm) / mmPerTurn)
}

/**
 * The gap in the stand that gives the wanted one with the rider's sag, mm, from one pair of measurements.
 * @param p gap now in the stand and now sagged, and the one wanted sagged
 */
export function gapInStandFor(p: { standMm: number; saggedMm: number; wantedMm: number }): number {
  for (const [name, value] of Object.entries(p)) notNegative(name, value)
  return p.standMm + (p.wantedMm - p.saggedMm)
}

/** What a gap does when it is wrong. `practice` */
export const GAP_SYMPTOMS = {
  small: 'Too small: rattle, the pulley fouls the largest sprocket.',
  large: 'Too large: sloppy shifts, worst on the small sprockets, slow towards the frame.',
} as const
