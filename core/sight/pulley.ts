import { USUAL_PULLEY_TEETH } from '../rear/gap'
import { tipDiameterMm } from '../standards/sprockets'
import type { Unknown } from './solve'

/**
 * Teeth stand this far from the standard's tips, mm: worn, and touched beside the very tip; `besideSdMm` round it.
 * `model`
 */
export const TIP = { belowMm: 0.15, sdMm: 0.2, eachSdMm: 0.15, besideSdMm: 0.5 } as const
/** One tooth more or less is nothing strange where nobody counted; so much of a radius, mm: pitch over 2π. */
const A_TOOTH_MM = 2.02

/**
 * The radius of a guide pulley's tips, mm; as usual, give or take a tooth, where its teeth were not counted.
 * @throws RangeError for a tooth count that is none
 */
export const pulleyRadius = (teeth: number | null): Unknown => ({
  mean: tipDiameterMm(teeth ?? USUAL_PULLEY_TEETH) / 2 - TIP.belowMm,
  sd: teeth === null ? A_TOOTH_MM : TIP.sdMm,
})
