import type { RearSetup } from '../response/setup'
import type { RearState } from './state'

/**
 * The drivetrain whose index is set; null where there is none: no derailleur at the back, or a lever without clicks, of
 * which only stops, gap and slack are set. Every advice and belief of the rear begins here.
 */
export const setupToIndex = ({ setup, parts }: Pick<RearState, 'setup' | 'parts'>): RearSetup | null =>
  parts?.shifter.friction ? null : setup

/** Was anything done of its index on this visit but look at a stop? Until then all belief is of bikes like it. */
export const indexHeard = ({ bench }: Pick<RearState, 'bench'>): boolean => bench.some(e => e.kind !== 'sight')
