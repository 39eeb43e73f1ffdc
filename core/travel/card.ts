import { UNPROVEN } from '../job/events'
import type { Sheet } from '../ledger/sheet'

/**
 * What a rider may do themselves until they come back, in plain words: which barrel, which way, how much at a time, and
 * when to stop. Nothing on a bike that must not be ridden, that has no barrel to turn, or whose lever has no clicks.
 * `practice`
 */
export function riderCard({ how, parts }: Pick<Sheet, 'how' | 'parts'>): string[] {
  if (UNPROVEN.has(how) || !parts || parts.shifter.friction) return []
  return [
    'The barrel is the ribbed nut where the gear cable goes into the rear derailleur, or into the lever.',
    'Slow to climb to an easier gear, or late leaving the hardest: turn it anticlockwise, seen from its end, an eighth at a time.',
    'Slow to drop to a harder gear: clockwise, an eighth at a time.',
    'Half a turn in all at most; then come back, and tell us how much you turned.',
    'A chain that jumps, touches the spokes, or any doubt about a brake: stop riding, and come by.',
  ]
}
