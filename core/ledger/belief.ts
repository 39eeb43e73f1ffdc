import type { Cause } from '../response/causes'
import { priorOfKnownBike, priorOfMatch } from '../advice/know'
import type { CauseOdds, KnownPrior } from '../advice/prior'
import { oddsOf } from '../procedure/complaints'
import { oddsOfHappened } from '../procedure/happened'
import { oddsOfSense } from '../procedure/senseCheck'
import { chainWearLimitPercent } from '../rear/chain'
import { sayParts } from '../rear/parts'
import type { JobState } from './reduce'
import type { Sheet } from './sheet'
import { ratioForSums, ratioIsRounded } from '../rear/typedParts'

/** What the customer said and the sense check found, as odds of the causes. */
function oddsFor({ rear }: JobState): CauseOdds {
  const { said, sensed, parts, happened } = rear
  const out: CauseOdds = {}
  for (const odds of [
    ...said.map(s => oddsOf(s.complaint, s.answer)),
    oddsOfHappened(happened),
    oddsOfSense(sensed?.exceptions ?? []),
  ])
    for (const [cause, times] of Object.entries(odds) as [Cause, number][]) out[cause] = (out[cause] ?? 1) * times
  const worn = sensed?.chainWearPercent ?? 0
  if (parts && worn > chainWearLimitPercent(parts.cassette.teeth.length))
    out.wear = Math.max(out.wear ?? 1, WORN_CHAIN_ODDS)
  return out
}
/** A chain past its limit has worn its sprockets; `model`. */
const WORN_CHAIN_ODDS = 4

/** Where belief in a job's bike starts: its last sheet while the parts are those, else what the numbers say. */
export function priorFor(state: JobState, known: Pick<Sheet, 'belief' | 'parts'> | null): KnownPrior | undefined {
  const { parts, setup } = state.rear
  const odds = oddsFor(state)
  const more = Object.keys(odds).length ? { odds } : {}
  if (known?.parts && parts && sayParts(known.parts) === sayParts(parts))
    return { ...priorOfKnownBike(known.belief, setup?.spring), ...more }
  if (!setup || !parts) return undefined
  const match = priorOfMatch(setup, ratioForSums(parts), ratioIsRounded(parts))
  return match || more.odds ? { ...match, ...more } : undefined
}
