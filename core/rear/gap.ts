import { positive, wholeIn } from '../quantity/check'

/** Chain pitch, mm. `std` ISO 606 / ISO 9633. */
export const CHAIN_PITCH_MM = 12.7
/** Roller diameter of bicycle chain, mm. `std` ISO 606 / ISO 9633. */
export const ROLLER_MM = 7.75

/** Pitch diameter of a sprocket, mm: d = p / sin(180°/z). `std` ISO 606. @throws RangeError below 3 teeth */
export function pitchDiameterMm(teeth: number): number {
  wholeIn('teeth', teeth, 3, 200)
  return CHAIN_PITCH_MM / Math.sin(Math.PI / teeth)
}

/** Tip diameter, mm, at the standard's least, near which bicycle teeth lie: dₐ = d + p(1 − 1.6/z) − d₁. `std` ISO 606. */
export function tipDiameterMm(teeth: number): number {
  return pitchDiameterMm(teeth) + CHAIN_PITCH_MM * (1 - 1.6 / teeth) - ROLLER_MM
}

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
