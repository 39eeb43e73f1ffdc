/** What can be at fault in front beyond where the screws stand. */
export const FRONT_FAULTS = ['height', 'angle', 'friction', 'pull'] as const
export type FrontFault = (typeof FRONT_FAULTS)[number]
/** What is told apart: the screws, and those faults. */
export const FRONT_CAUSES = ['tension', 'L', 'H', ...FRONT_FAULTS] as const
export type FrontCause = (typeof FRONT_CAUSES)[number]
export const FRONT_CAUSE_WORDS: Record<FrontCause, string> = {
  tension: 'Tension',
  L: 'L stop',
  H: 'H stop',
  height: 'Height',
  angle: 'Angle',
  friction: 'Friction',
  pull: 'Lever of another pull',
}
