import type { FrontSeen } from './moves'

/** Where to look when the written moves did not cure it. `practice` */
export const FRONT_ELSEWHERE: Record<Exclude<FrontSeen, 'clean'>, string> = {
  'no-climb':
    'Height or angle of the cage, a seized pivot, or a lever of another pull: pull the wire by hand. Does it reach?',
  'no-drop': 'Undo the cable: drops it now? Then friction in the run, else a stiff pivot or spring.',
  'late-climb': 'Friction in the run, the height of the cage, worn ramps on the ring.',
  'late-drop': 'Friction in the run, a stiff pivot or a weak spring: undo the cable. Drops it now?',
  noisy: 'Which plate, in which pair? Cranks by hand, look from above, and tap the pair in the map of rub.',
  'falls-inboard': 'Height of the cage, a bent ring, or the chain line: look at the rub map.',
  'falls-outboard': 'Height of the cage, or a bent cage or ring.',
  'rubs-inner': 'Trim, angle of the cage, or the chain line: look at the rub map.',
  'rubs-outer': 'Trim, angle of the cage, or the chain line: look at the rub map.',
}
