import { z } from 'zod'
import { within } from '../quantity/within'
import type { RunName } from './housing'
import { steeringAxis, type LoopGeometry, type Vec } from './loop'

/**
 * How housing leaves the lever: forward from a flat-bar lever, inward along a bar under tape, down from a brake lever.
 */
export const EXITS = ['forward', 'inward', 'down'] as const
type Exit = (typeof EXITS)[number]
const EXIT_WAY: Record<Exit, Vec> = { forward: [1, -0.35, -0.1], inward: [0.25, -1, -0.1], down: [0.6, -0.3, -0.75] }
export const EXIT_WORDS: Record<Exit, string> = {
  forward: 'forward',
  inward: 'inward, under tape',
  down: 'forward and down',
}

/** Where the loop ends: a stop on the frame, the headset's cover, or a brake on the fork, which turns with the bars. */
export const LOOP_ENDS = ['frame', 'headset', 'fork'] as const
export type LoopEnd = (typeof LOOP_ENDS)[number]
export const LOOP_END_WORDS: Record<LoopEnd, string> = {
  frame: 'a stop on the frame',
  headset: 'the headset’s cover',
  fork: 'a brake on the fork',
}
/** A front brake's run ends on the fork; every other is held by the frame until somebody says how it goes in. */
export const loopEndOf = (run: RunName): LoopEnd => (run === 'front-brake' ? 'fork' : 'frame')

export const SIDES = ['left', 'right'] as const
export type Side = (typeof SIDES)[number]
/**
 * The side of a shift lever: rear and hub on the right, front on the left. `practice`; a brake's follows the country's
 * custom and is asked.
 */
export const leverSideOf = (run: RunName): Side | null =>
  run === 'front' || run === 'hub-second' ? 'left' : run === 'rear' || run === 'hub' ? 'right' : null

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
  /** Which side of the bars the lever is on. */
  leverSide: z.enum(SIDES, { error: 'Lever: say which side of the bars it is on' }),
  /** What the loop ends at. */
  end: z.enum(LOOP_ENDS),
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
  leverSide: 'right',
  end: 'frame',
  headDeg: 72,
  lockDeg: 60,
}

/** What is measured at a front brake instead: down to it over the wheel. `memory` */
const USUAL_AT_FORK: Partial<BarLoop> = {
  stopBehindMm: -40,
  stopBelowMm: 190,
  stopSideMm: 5,
  exit: 'down',
  end: 'fork',
}
/** A usual bike's loop of that run; the lever's side is left open where nobody said it. */
export const usualBarLoop = (
  run: RunName,
  side: Side | null,
): Omit<BarLoop, 'leverSide'> & { leverSide: Side | '' } => ({
  ...USUAL_BAR_LOOP,
  ...(loopEndOf(run) === 'fork' ? USUAL_AT_FORK : {}),
  leverSide: side ?? '',
})

/**
 * The loop's geometry of what was measured, the lever on its own side. A stop on the down tube points back and down
 * along it; the headset's cover down its axis. A brake on the fork turns with the bars: one pose serves, and no slack
 * is wanted.
 */
export function loopGeometry(b: BarLoop, leastRadiusMm: number): LoopGeometry {
  // y is to the left
  const lever = b.leverSide === 'left' ? 1 : -1
  const side = b.crosses ? -lever : lever
  const axis = steeringAxis(b.headDeg)
  const [ahead, across, up] = EXIT_WAY[b.exit]
  return {
    movingAt: [b.forwardMm, lever * b.sideMm, b.aboveMm],
    movingWay: [ahead, lever * across, up],
    fixedAt: [-b.stopBehindMm, side * b.stopSideMm, -b.stopBelowMm],
    fixedWay: endWay(b.end, side, axis),
    axis,
    poses:
      b.end === 'fork'
        ? [{ name: 'straight', deg: 0 }]
        : [
            { name: 'straight', deg: 0 },
            { name: 'left', deg: b.lockDeg },
            { name: 'right', deg: -b.lockDeg },
          ],
    leastRadiusMm,
  }
}

function endWay(end: LoopEnd, side: number, axis: Vec): Vec {
  switch (end) {
    case 'frame':
      return [-0.75, -0.15 * side, -0.65]
    case 'headset':
      return [-axis[0], -axis[1], -axis[2]]
    case 'fork':
      // down to the brake over the wheel, a little inward
      return [0.1, -0.25 * side, -0.95]
  }
}
