import { z } from 'zod'
import { CAUSES } from '../response/causes'
import { FrameKind } from '../standards/frames'

/** What one closed job on a rear derailleur shows of the shop's bikes. */
export const Habit = z.object({
  /** How the frame leads its cables; null where nobody said. */
  frame: FrameKind.nullable(),
  /** Days since its cable was renewed here; null where it never was. */
  cableDays: z.number().nullable(),
  /** It had been here before with the same parts. */
  back: z.boolean(),
  /** What was wrong, cured or left. */
  found: z.array(z.enum(CAUSES)),
  /** Cable lost to friction before the barrel was first turned, mm. */
  frictionMm: z.number().nullable(),
  /** What its own stop screws said of a turn's travel, mm, and how surely. */
  stop: z.object({ mean: z.number(), sd: z.number() }).nullable(),
})
export type Habit = z.infer<typeof Habit>
/** A visit by itself, without what came before it. */
export type HabitOfVisit = Pick<Habit, 'found' | 'frictionMm' | 'stop'>
