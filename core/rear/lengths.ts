import type { RunName } from '../cable/housing'
import { placesOf, type HousingPlace } from '../cable/places'
import { isMeasured } from '../cable/run'
import type { CableState } from '../cable/state'
import type { RearState } from './state'

/** A length of housing as it was fitted on this bike. */
export type Fitted = { run: RunName; place: HousingPlace; lengthMm: number }

/**
 * Lengths that are this bike's own, of every run: what the rear's stage noted of a place stands before its run on the
 * cable bench. A usual length or a guess is nobody's figure; a piece that was cut is as long as it was planned.
 */
export function lengthsFitted({ housing }: Pick<RearState, 'housing'>, { runs, cabled }: CableState): Fitted[] {
  const noted = housing.map(({ place, lengthMm }): Fitted => ({ run: 'rear', place, lengthMm }))
  const laid = runs.flatMap(run => {
    const steps = cabled[run.run] ?? []
    const cut = steps.includes('cut')
    if (!cut && !steps.includes('clamped')) return []
    return placesOf(run)
      .filter(({ piece }) => cut || run.pieces.some(p => p.name === piece && isMeasured(p)))
      .map(({ place, lengthMm }): Fitted => ({ run: run.run, place, lengthMm }))
  })
  return [...noted, ...laid.filter(f => !(f.run === 'rear' && noted.some(n => n.place === f.place)))]
}
