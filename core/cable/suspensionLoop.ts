import { z } from 'zod'
import { degrees, radians } from '../quantity/angle'
import { within } from '../quantity/within'
import type { LoopGeometry } from './loop'

/**
 * What is measured at a rear suspension, air out or spring off so that it can be held anywhere: all from the pivot's
 * axle, mm.
 */
export const SuspensionLoop = z.strictObject({
  /** The stop on the main frame: before the pivot, above it. */
  frameForwardMm: within('Frame stop before the pivot, mm', -300, 500),
  frameAboveMm: within('Frame stop above, mm', -300, 500),
  /** Which way housing leaves it: degrees below straight back; 90 is straight down. */
  frameWayDeg: within('Housing leaves it, degrees below level', -90, 180),
  /** The stop on the moving part, suspension extended: behind the pivot, above it. */
  armBehindMm: within('Arm stop behind the pivot, mm', 10, 600),
  armAboveMm: within('Arm stop above, mm', -300, 400),
  /** From pivot to rear axle, and how far the axle travels. */
  axleMm: within('Pivot to axle, mm', 150, 700),
  travelMm: within('Travel at the axle, mm', 0, 260),
  /** Share of the travel taken up by the rider. */
  sagPercent: within('Sag, %', 0, 60),
  /** A second pivot that the run crosses: the arm's stop sits on a link behind it. Where there is none, 0 turn. */
  secondBehindMm: within('Second pivot behind the first, mm', 10, 600),
  secondAboveMm: within('Second pivot above, mm', -300, 400),
  secondTurnsDeg: within('Link turns on its own to full travel, °', -60, 60),
})
export type SuspensionLoop = z.infer<typeof SuspensionLoop>

/** A usual trail bike with one pivot. `memory` */
export const USUAL_SUSPENSION_LOOP: SuspensionLoop = {
  frameForwardMm: 120,
  frameAboveMm: 60,
  frameWayDeg: 20,
  armBehindMm: 130,
  armAboveMm: 10,
  axleMm: 430,
  travelMm: 140,
  sagPercent: 30,
  secondBehindMm: 410,
  secondAboveMm: 0,
  secondTurnsDeg: 0,
}

/** How far the arm turns for the axle to move so far along its arc's chord, degrees. Plain trigonometry. */
export const armTurnDeg = (axleMm: number, travelMm: number): number =>
  2 * degrees(Math.asin(Math.min(1, travelMm / (2 * axleMm))))

/** The loop across the pivot; compressing turns the arm's end upward. */
export function suspensionGeometry(s: SuspensionLoop, leastRadiusMm: number): LoopGeometry {
  const way = radians(s.frameWayDeg)
  const fullDeg = armTurnDeg(s.axleMm, s.travelMm)
  const second = { at: [-s.secondBehindMm, 0, s.secondAboveMm] as const, deg: s.secondTurnsDeg }
  return {
    movingAt: [-s.armBehindMm, 0, s.armAboveMm],
    movingWay: [1, 0, 0], // housing laid from the arm towards the frame
    fixedAt: [s.frameForwardMm, 0, s.frameAboveMm],
    fixedWay: [Math.cos(way), 0, Math.sin(way)],
    axis: [0, 1, 0],
    poses: [
      { name: 'extended', deg: 0 },
      { name: 'sagged', deg: armTurnDeg(s.axleMm, (s.travelMm * s.sagPercent) / 100) },
      { name: 'full-travel', deg: fullDeg, ...(s.secondTurnsDeg ? { second } : {}) },
    ],
    leastRadiusMm,
  }
}
