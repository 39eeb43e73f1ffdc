import { sayParts } from '../rear/parts'
import type { JobState } from './reduce'

/** The drivetrain in a line: the derailleur's numbers, the hub's, or that there is neither. */
export function drivetrainOf({ rear, hub }: JobState): string {
  const geared = hub.parts
    ? `hub gear, ${hub.parts.ratios.length} speeds, ${hub.parts.ringTeeth} × ${hub.parts.sprocketTeeth}`
    : null
  return [rear.parts ? sayParts(rear.parts) : null, geared].filter(Boolean).join(' and ') || 'no derailleur'
}
