import type { Entry } from './entry'
import { BRAKE_ENTRIES } from './tables/brakes'
import { CHAIN_ENTRIES } from './tables/chains'
import { FRONT_ENTRIES } from './tables/front'
import { HUB_ENTRIES } from './tables/hubs'
import { REAR_ENTRIES } from './tables/rear'
import { TARGET_ENTRIES } from './tables/targets'
import { THREAD_ENTRIES } from './tables/threads'
import { TORQUE_ENTRIES } from './tables/torques'

/**
 * The table: every value that no shop has measured, each with where it comes from. One file a family under `tables/`.
 */
export const TABLE: readonly Entry[] = [
  ...REAR_ENTRIES,
  ...FRONT_ENTRIES,
  ...BRAKE_ENTRIES,
  ...HUB_ENTRIES,
  ...CHAIN_ENTRIES,
  ...THREAD_ENTRIES,
  ...TORQUE_ENTRIES,
  ...TARGET_ENTRIES,
]

export const tableEntry = (kind: string, id: string): Entry | undefined =>
  TABLE.find(e => e.kind === kind && e.id === id)
