import { BRAKE_OF_RUN } from '../brake/state'
import { leverSideOf, type Side } from '../cable/barLoop'
import type { RunName } from '../cable/housing'
import type { FarEnd } from '../cable/wire'
import type { JobState } from './reduce'

type Brakes = Pick<JobState, 'brake'>

/** What a run's inner is clamped to: the brake that was said for that end; null where nobody did, or on a gear. */
export function farEndOf({ brake }: Brakes, run: RunName): FarEnd {
  const end = BRAKE_OF_RUN[run]
  return end ? (brake[end].parts?.kind ?? null) : null
}

/**
 * Which side a run's lever is on: a brake's as it was recorded for the front one, the rear on the other; null where
 * nobody said.
 */
export function leverSide({ brake }: Brakes, run: RunName): Side | null {
  const end = BRAKE_OF_RUN[run]
  if (!end) return leverSideOf(run)
  const front = brake.front.parts?.leverSide ?? null
  return end === 'front' || front === null ? front : front === 'left' ? 'right' : 'left'
}
