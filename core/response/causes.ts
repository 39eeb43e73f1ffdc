/**
 * What can be wrong with a rear drivetrain (docs/model.md, section 3). Each has a chance of its own; they need not sum
 * to 1.
 */
export const CAUSES = ['tension', 'friction', 'hanger', 'mismatch', 'stops', 'wear'] as const
export type Cause = (typeof CAUSES)[number]
export const CAUSE_WORDS: Record<Cause, string> = {
  tension: 'Tension',
  friction: 'Friction',
  hanger: 'Hanger',
  mismatch: 'Mismatch',
  stops: 'Stops',
  wear: 'Wear',
}
