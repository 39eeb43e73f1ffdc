import { finite } from '../quantity/check'
import { STOP_SCREW } from '../response/parameters'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'

/**
 * A stop as seen by hand after so many net turns in (+) of its screw. Offsets mm from its end sprocket's plane, +
 * inboard.
 */
type StopSight = { turnsIn: number; offsetMm: number }

/** Spread of one sighting, mm. `model` */
const SIGHT_SD_MM = 0.35

/**
 * What a turn of this bike's stop screw does, learnt from its sightings: least squares with the usual figure as one
 * more observation. H in moves its limit inboard (+), L in outboard (−).
 * @returns mm of pulley per turn in, always positive, with its spread
 * @throws RangeError naming a sighting that is no number
 */
export function learntMmPerTurn(stop: 'H' | 'L', sights: readonly StopSight[]): { mmPerTurn: number; sdMm: number } {
  sights.forEach((s, i) => {
    finite(`sights[${i}].turnsIn`, s.turnsIn)
    finite(`sights[${i}].offsetMm`, s.offsetMm)
  })
  const sign = stop === 'H' ? 1 : -1
  const n = sights.length
  const meanT = n ? sights.reduce((s, x) => s + x.turnsIn, 0) / n : 0
  const meanO = n ? sights.reduce((s, x) => s + x.offsetMm, 0) / n : 0
  const tt = sights.reduce((s, x) => s + (x.turnsIn - meanT) ** 2, 0)
  const to = sights.reduce((s, x) => s + (x.turnsIn - meanT) * (x.offsetMm - meanO), 0)
  const told = tt / SIGHT_SD_MM ** 2
  const usual = 1 / STOP_SCREW.sd ** 2
  return {
    mmPerTurn: ((sign * to) / SIGHT_SD_MM ** 2 + usual * STOP_SCREW.mmPerTurn) / (told + usual),
    sdMm: Math.sqrt(1 / (told + usual)),
  }
}

/** Where L is to stand from the largest sprocket's plane, mm, + inboard: centred, never further inboard. */
export const lTargetMm = (s: Standards = TABLE_ONLY): { from: number; to: number } => targetIn(s, 'l-stop')
