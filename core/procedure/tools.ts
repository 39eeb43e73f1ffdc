import { DRIVES } from './torques'
import type { Stage } from './stages'

/** What is laid out before a stage of the rear, sizes included, in one line; null where hands are enough. `practice` */
export const STAGE_TOOLS: Record<Stage, string | null> = {
  said: null,
  sense: 'chain gauge, rag',
  hanger: `hanger gauge, caliper, ${DRIVES['hanger-bolt']} key to take the derailleur off`,
  stops: 'flat or cross-head screwdriver, or a 2, 2.5 or 3 mm key',
  cable: `${DRIVES['pinch-bolt']} key, cable cutter, pliers, goggles`,
  index: 'fingers: the barrel takes no tool',
  gap: 'flat or cross-head screwdriver, or a 2.5 or 3 mm key; caliper or template',
  prove: 'torque wrench with the keys beside each bolt',
  handBack: null,
}
