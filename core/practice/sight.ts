import { BRAKE_LOOK_S, type BrakeSight } from './brakeSight'
import { FRONT_SHIFT_S, type FrontSight } from './frontSight'
import { CRANK_S, type HubSight } from './hubSight'

/** What is drawn of the bike at a practice stand. */
export type Sight = BrakeSight | FrontSight | HubSight

/** How long the last act is seen to go on, seconds; 0: nothing moves. */
export function lastsS(sight: Sight): number {
  switch (sight.of) {
    case 'brake':
      return sight.look === null || sight.look === 'pads' ? 0 : BRAKE_LOOK_S
    case 'front':
      return FRONT_SHIFT_S
    case 'hub':
      return sight.count ? sight.count.crankTurns * CRANK_S : 0
  }
}
