import { BRAKE_LOOK_S, TURNS_PER_S, type BrakeSight } from './brakeSight'
import { FRONT_SHIFT_S, type FrontSight } from './frontSight'
import { CRANK_S, type HubSight } from './hubSight'

/** What is drawn of the bike at a practice stand. */
export type Sight = BrakeSight | FrontSight | HubSight

/** When a still of it tells most, seconds: a lever drawn, a rim at its widest, a shift and a wheel at their end. */
export function tellsAtS(sight: Sight): number {
  if (sight.of !== 'brake') return lastsS(sight)
  return sight.look === 'spin' ? 0.25 / TURNS_PER_S : BRAKE_LOOK_S / 2
}

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
