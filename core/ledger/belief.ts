import { priorOfKnownBike, priorOfMatch } from '../advice/know'
import type { Cause } from '../advice/contract'
import type { CauseOdds, KnownPrior } from '../advice/prior'
import { oddsOf } from '../procedure/complaints'
import { oddsOfSense } from '../procedure/senseCheck'
import { chainWearLimitPercent } from '../rear/chain'
import { sayParts } from './parts'
import type { JobState } from './reduce'
import type { Sheet } from './sheet'
import { ratioForSums, ratioIsRounded } from './typedParts'

/** What the customer said and the sense check found, as odds of the causes. */
function oddsFor(state: JobState): CauseOdds {
  const { said, sensed } = state.noted
  const out: CauseOdds = said ? oddsOf(said.complaint, said.answer) : {}
  for (const [cause, times] of Object.entries(oddsOfSense(sensed?.exceptions ?? [])) as [Cause, number][])
    out[cause] = (out[cause] ?? 1) * times
  const worn = sensed?.chainWearPercent ?? 0
  if (state.parts && worn > chainWearLimitPercent(state.parts.cassette.teeth.length))
    out.wear = Math.max(out.wear ?? 1, WORN_CHAIN_ODDS)
  return out
}
/** A chain past its limit has worn its sprockets; `model`. */
const WORN_CHAIN_ODDS = 4

/** Where belief in a job's bike starts: its last sheet while the parts are those, else what the numbers say. */
export function priorFor(state: JobState, known: Pick<Sheet, 'belief' | 'parts'> | null): KnownPrior | undefined {
  const odds = oddsFor(state)
  const more = Object.keys(odds).length ? { odds } : {}
  if (known?.parts && state.parts && sayParts(known.parts) === sayParts(state.parts))
    return { ...priorOfKnownBike(known.belief, state.setup?.spring), ...more }
  if (!state.setup || !state.parts) return undefined
  const match = priorOfMatch(state.setup, ratioForSums(state.parts), ratioIsRounded(state.parts))
  return match || more.odds ? { ...match, ...more } : undefined
}
