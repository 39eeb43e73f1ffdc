import type { JobState } from './reduce'

/**
 * How many rings this bike has: by its front derailleur where that is named, else as counted at the door; null when
 * nobody did.
 */
export const ringCountOf = (state: Pick<JobState, 'front' | 'job'>): number | null =>
  state.front.parts?.rings.length ?? state.job.seen?.rings ?? null
