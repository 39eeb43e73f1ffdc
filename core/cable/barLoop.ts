import { z } from 'zod'
import { within } from '../quantity/within'
import { steeringAxis, type LoopGeometry, type Vec } from './loop'

/** How housing leaves the lever: forward from a flat-bar lever, inward along a bar under tape, down from a brake lever. */
export const EXITS = ['forward', 'inward', 'down'] as const
type Exit = (typeof EXITS)[number]
const EXIT_WAY: Record<Exit, Vec> = { forward: [1, -0.35, -0.1], inward: [0.25, -1, -0.1], down: [0.6, -0.3, -0.75] }
export const EXIT_WORDS: Record<Exit, string> = {
  forward: 'forward',
  inward: 'inward, under tape',
  down: 'forward and down',
}

/** What is measured on the bike with a tape: all from where the steering axis meets the top of the head tube. */
export const BarLoop = z.strictObject({
  /** Lever's exit: to the side of the axis, before it, above it, mm. */
  sideMm: within('Exit to the side, mm', 0, 500),
  forwardMm: within('Exit before the axis, mm', -200, 400),
  aboveMm: within('Exit above, mm', -200, 400),
  exit: z.enum(EXITS),
  /** The frame's stop: behind the axis, below, to the side; on the lever's own side unless the run crosses over. */
  stopBehindMm: within('Stop behind the axis, mm', -100, 500),
  stopBelowMm: within('Stop below, mm', -100, 600),
  stopSideMm: within('Stop to the side, mm', 0, 120),
  crosses: z.boolean(),
  headDeg: within('Head angle', 45, 90),
  lockDeg: within('Steering each way, degrees', 0, 180),
})
export type BarLoop = z.infer<typeof BarLoop>

/** A usual flat-bar bike. `memory` */
export const USUAL_BAR_LOOP: BarLoop = {
  sideMm: 210,
  forwardMm: 60,
  aboveMm: 90,
  exit: 'forward',
  stopBehindMm: 70,
  stopBelowMm: 60,
  stopSideMm: 22,
  crosses: false,
  headDeg: 72,
  lockDeg: 60,
}

/** The loop's geometry of what was measured; the lever taken as the left one, since the other side is its mirror. */
export function loopGeometry(b: BarLoop, leastRadiusMm: number): LoopGeometry {
  const side = b.crosses ? -1 : 1
  // a stop on the down tube points back and down along it
  return {
    movingAt: [b.forwardMm, b.sideMm, b.aboveMm],
    movingWay: EXIT_WAY[b.exit],
    fixedAt: [-b.stopBehindMm, side * b.stopSideMm, -b.stopBelowMm],
    fixedWay: [-0.75, -0.15 * side, -0.65],
    axis: steeringAxis(b.headDeg),
    poses: [
      { name: 'straight', deg: 0 },
      { name: 'left', deg: b.lockDeg },
      { name: 'right', deg: -b.lockDeg },
    ],
    leastRadiusMm,
  }
}
