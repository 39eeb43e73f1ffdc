import type { Geometry } from './setup'

/** The adjustment and the faults of one bike: everything that decides where the pulley stands. */
export type Bike = {
  /** Cable offset, mm: clamp and barrel together; 0 puts a perfect bike's pulley under every sprocket. */
  cableMm: number
  /** mm of pulley per mm of cable, true. */
  ratio: number
  /** Backlash taken when moving inward and outward, mm of pulley. */
  backlashInMm: number
  backlashOutMm: number
  /** tan of the hanger's camber. */
  camberTan: number
  /** Bow of the ratio along the travel, mm at the middle. */
  bowMm: number
  /** Own places of the stops, mm from the smallest sprocket's plane, + inboard. */
  stopHMm: number
  stopLMm: number
}

/** Where the pulley would stand at a click with no friction and no stops, mm. Model, section 1. */
export const freePlaceMm = (g: Geometry, bike: Bike, click: number): number =>
  bike.ratio * (g.cableMm[click] + bike.cableMm) + bike.bowMm * g.bow[click] + bike.camberTan * g.radiusMm[click]

/** Where the pulley comes to rest arriving at a click, mm: short by the backlash, and never past a stop. */
export function restPlaceMm(g: Geometry, bike: Bike, click: number, inward: boolean): number {
  const free = freePlaceMm(g, bike, click)
  return Math.min(Math.max(inward ? free - bike.backlashInMm : free + bike.backlashOutMm, bike.stopHMm), bike.stopLMm)
}

/** Error of an arrival in pitches of its sprocket, + inboard. */
export const errorPitch = (g: Geometry, bike: Bike, click: number, inward: boolean): number =>
  (restPlaceMm(g, bike, click, inward) - g.placeMm[click]) / g.pitchMm[click]
