import { sayParts } from './parts'
import type { JobState } from './reduce'

/** The drivetrain in a line: the derailleur's numbers, the hub's, or that there is neither. */
export function drivetrainOf({ parts, noted }: JobState): string {
  const hub =
    noted.hub.parts &&
    `hub gear, ${noted.hub.parts.ratios.length} speeds, ${noted.hub.parts.ringTeeth} × ${noted.hub.parts.sprocketTeeth}`
  return [parts ? sayParts(parts) : null, hub].filter(Boolean).join(' and ') || 'no derailleur'
}
