import { brakeStandard } from '../brake/chapter'
import { HOUSING_PLACES, placesOf, type HousingPlace } from '../cable/places'
import { RUN_WORDS, RUNS, type RunName } from '../cable/housing'
import type { Run } from '../cable/run'
import { figureRule, LONG, type RecordFigure, type RecordRule } from '../chapter/records'
import { frontStandard } from '../front/chapter'
import { hubStandard } from '../hub/chapter'
import type { JobState } from '../ledger/reduce'
import { lengthsFitted } from '../rear/lengths'
import { standardOf } from '../rear/records'

/*
 * Housing of every run, under the standard of what hangs on it: bikes of one frame and one such part take alike
 * lengths.
 */

/** The recorded figure of a piece: the rear's are as old as the records, the others name their run. */
export const housingFigure = (run: RunName, place: HousingPlace): string =>
  run === 'rear' ? `housing ${place}` : `housing ${run} ${place}`

/** Least spread of lengths that is usual, mm; nearer than that nothing is questioned. `model` */
const LENGTH_FLOOR_MM = 10
export const RUN_RULES: readonly RecordRule[] = RUNS.filter(run => run !== 'rear').flatMap(run =>
  HOUSING_PLACES.map(place =>
    figureRule(housingFigure(run, place), `${RUN_WORDS[run]} housing, ${place}`, 'mm', 0, LENGTH_FLOOR_MM, LONG, true),
  ),
)

/** A run whose part nobody named is kept under the run itself. */
const bare = (run: RunName): string => `run ${run}`
export const sayRunStandard = (id: string): string | null => {
  const run = RUNS.find(r => bare(r) === id)
  return run ? `${RUN_WORDS[run]}, its part not named` : null
}

/** Under which standard the figures of a run are kept. */
export function standardOfRun({ rear, front, brake, hub }: JobState, run: RunName): string {
  switch (run) {
    case 'rear':
      return rear.parts ? standardOf(rear.parts) : bare(run)
    case 'front':
      return front.parts ? frontStandard(front.parts) : bare(run)
    case 'front-brake':
    case 'rear-brake': {
      const { parts } = brake[run === 'front-brake' ? 'front' : 'rear']
      return parts ? brakeStandard(parts) : bare(run)
    }
    case 'hub':
    case 'hub-second':
      return hub.parts ? hubStandard(hub.parts) : bare(run)
  }
}

/** Every standard under which something of this bike may be kept: what is asked of the records at its bench. */
export const standardsAsked = (state: JobState): string[] => [...new Set(RUNS.map(run => standardOfRun(state, run)))]

/** What a run's pieces would leave for the records, each under its place. */
export const figuresOfRun = (state: JobState, run: Run): (RecordFigure & { piece: string })[] =>
  placesOf(run).map(({ piece, place, lengthMm }) => ({
    standard: standardOfRun(state, run.run),
    figure: housingFigure(run.run, place),
    value: lengthMm,
    piece,
  }))

/** Lengths of what was fitted in this visit, each under what hangs on its run. */
export const runFigures = (state: JobState): RecordFigure[] =>
  lengthsFitted(state.rear, state.cable).map(({ run, place, lengthMm }) => ({
    standard: standardOfRun(state, run),
    figure: housingFigure(run, place),
    value: lengthMm,
  }))
