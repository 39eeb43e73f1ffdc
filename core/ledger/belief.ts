import type { Cause } from '../response/causes'
import { priorOfKnownBike, priorOfMatch } from '../advice/know'
import { NOTHING_LEARNT, type Learnt } from '../advice/learnt'
import type { CauseOdds, KnownPrior } from '../advice/prior'
import { oddsOf } from '../procedure/complaints'
import { oddsOfHappened } from '../procedure/happened'
import { oddsOfSense } from '../procedure/senseCheck'
import { chainWearLimitPercent } from '../rear/chain'
import { sayParts } from '../rear/parts'
import type { JobState } from './reduce'
import type { Sheet } from './sheet'
import { ratioForSums, ratioIsRounded } from '../rear/typedParts'

function multiplied(...all: CauseOdds[]): CauseOdds {
  const out: CauseOdds = {}
  for (const odds of all)
    for (const [cause, times] of Object.entries(odds) as [Cause, number][]) out[cause] = (out[cause] ?? 1) * times
  return out
}

/** What the customer said and the sense check found, as odds of the causes. */
function oddsFor({ rear }: JobState): CauseOdds {
  const { said, sensed, parts, happened } = rear
  const out = multiplied(
    ...said.map(s => oddsOf(s.complaint, s.answer)),
    oddsOfHappened(happened),
    oddsOfSense(sensed?.exceptions ?? []),
  )
  const worn = sensed?.chainWearPercent ?? 0
  if (parts && worn > chainWearLimitPercent(parts.cassette.teeth.length))
    out.wear = Math.max(out.wear ?? 1, WORN_CHAIN_ODDS)
  return out
}
/** A chain past its limit has worn its sprockets; `model`. */
const WORN_CHAIN_ODDS = 4

/**
 * Where belief in a job's bike starts: its last sheet while the parts are those, else what the numbers say; in both
 * with what the shop's closed jobs say of bikes like it.
 */
export function priorFor(
  state: JobState,
  known: Pick<Sheet, 'belief' | 'parts'> | null,
  { odds: here, usual }: Pick<Learnt, 'odds' | 'usual'> = NOTHING_LEARNT,
): KnownPrior | undefined {
  const { parts, setup } = state.rear
  const odds = multiplied(oddsFor(state), here)
  const more = {
    ...(Object.keys(odds).length ? { odds } : {}),
    ...(Object.keys(usual).length ? { usual } : {}),
  }
  if (known?.parts && parts && sayParts(known.parts) === sayParts(parts))
    return { ...priorOfKnownBike(known.belief, setup?.spring), ...more }
  if (!setup || !parts) return undefined
  const match = priorOfMatch(setup, ratioForSums(parts), ratioIsRounded(parts))
  return match || Object.keys(more).length ? { ...match, ...more } : undefined
}
