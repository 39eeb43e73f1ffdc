import { CHAIN_PITCH_MM } from '../quantity/chainPitch'
import { wholeIn } from '../quantity/check'

/** Roller diameter of bicycle chain, mm. `std` ISO 606 / ISO 9633. */
export const ROLLER_MM = 7.75

/** Pitch diameter of a sprocket, mm: d = p / sin(180°/z). `std` ISO 606. @throws RangeError below 3 teeth */
export function pitchDiameterMm(teeth: number): number {
  wholeIn('teeth', teeth, 3, 200)
  return CHAIN_PITCH_MM / Math.sin(Math.PI / teeth)
}

/**
 * Tip diameter, mm, at the standard's least, near which bicycle teeth lie: dₐ = d + p(1 − 1.6/z) − d₁. `std` ISO 606.
 */
export function tipDiameterMm(teeth: number): number {
  return pitchDiameterMm(teeth) + CHAIN_PITCH_MM * (1 - 1.6 / teeth) - ROLLER_MM
}
