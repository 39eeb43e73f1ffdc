import { RUN_WORDS, type Housing, type RunName } from './housing'
import type { Run } from './run'
import type { CableStep } from './stepNames'

/** A piece of housing that a run wants, under a name that no other bike's piece has. */
export type WantedPiece = { name: string; lengthMm: number; kind: Housing; job: number; run: RunName }
/** What one bike has laid out, and how far each run is. */
export type LaidOut = {
  job: number
  tag: string
  runs: readonly Run[]
  cabled: Partial<Record<RunName, readonly CableStep[]>>
}

/** Housing still to be cut for a bike: the pieces of runs whose housing is not cut yet. */
export const piecesToCut = ({ job, tag, runs, cabled }: LaidOut): WantedPiece[] =>
  runs
    .filter(r => !cabled[r.run]?.includes('cut'))
    .flatMap(r =>
      r.pieces.flatMap(p =>
        p.kind === 'housing'
          ? [
              {
                name: `${tag} ${RUN_WORDS[r.run].toLowerCase()}, ${p.name}`,
                lengthMm: Math.round(p.lengthMm),
                kind: p.of,
                job,
                run: r.run,
              },
            ]
          : [],
      ),
    )

/** The runs of which every piece was cut: those that lack one, because the wall was short, are not done. */
export function runsCut(wanted: readonly WantedPiece[], cut: ReadonlySet<string>): { job: number; run: RunName }[] {
  const runs = new Map(wanted.map(w => [`${w.job}/${w.run}`, { job: w.job, run: w.run }]))
  for (const w of wanted) if (!cut.has(w.name)) runs.delete(`${w.job}/${w.run}`)
  return [...runs.values()]
}
