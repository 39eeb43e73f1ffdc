import { priorOfKnownBike, priorOfMatch } from '../advice/know'
import type { KnownPrior } from '../advice/prior'
import type { JobState } from './reduce'
import type { Sheet } from './sheet'
import { ratioForSums } from './typedParts'

/** Where belief in a job's bike starts: its last sheet when the parts are the same, else what the numbers say. */
export function priorFor(state: JobState, known: Pick<Sheet, 'belief'> | null): KnownPrior | undefined {
  if (known) return priorOfKnownBike(known.belief)
  if (!state.setup || !state.parts) return undefined
  const ratio = ratioForSums(state.parts)
  return priorOfMatch(state.setup, ratio, ratio === state.parts.derailleur.pullRatio)
}
