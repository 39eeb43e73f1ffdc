import type { Posterior } from '../advice/posterior'
import type { Senses } from '../advice/learnt'
import { WRONG_REPORTS } from '../response/parameters'

/**
 * What one job says of one person's ear and eye: expected wrong reports of so many, and looks with how far they were
 * off.
 */
export type Sensed = {
  reports: number
  wrong: number
  /** Looks that did not slip, and the sum of their squared distances in a usual eye's spreads. */
  looks: number
  squared: number
}

/** A usual ear counts as so many reports, a usual eye as so many looks. `model` */
const USUAL_REPORTS = 80
const USUAL_LOOKS = 40
/**
 * What the bench finds of reports and looks whose errors it made: a belief takes part of what was wrong for the bike's
 * own. Found share of wrong reports at a usual ear, and what it grows by for each share more; spread of a usual eye as
 * found, and for each time more (`npm run compare -- learning`, on ears of 0.02 to 0.25 and eyes of one and two).
 * `model`
 */
const FOUND = { wrong: 0.036, perWrong: 0.5, eye: 0.96, perEye: 0.285 } as const
const LEAST_WRONG = 0.01
/** Fewer than this say nothing of a person. */
const LEAST_REPORTS = 30
const LEAST_LOOKS = 5

/**
 * What a job says of each person who tapped on it, from the belief at its end.
 * @param by who made each event of the log, by its place
 */
export function sensedBy<P extends string>(posterior: Pick<Posterior, 'senses'>, by: readonly P[]): Map<P, Sensed> {
  const out = new Map<P, Sensed>()
  for (const [place, says] of posterior.senses()) {
    const person = by[place]
    if (person === undefined) continue
    const was = out.get(person) ?? { reports: 0, wrong: 0, looks: 0, squared: 0 }
    out.set(
      person,
      'wrong' in says
        ? { ...was, reports: was.reports + 1, wrong: was.wrong + says.wrong }
        : { ...was, looks: was.looks + says.held, squared: was.squared + says.squared },
    )
  }
  return out
}

const sum = (rows: readonly Sensed[], of: keyof Sensed): number => rows.reduce((s, r) => s + r[of], 0)

/** How a person hears and sees, shrunk towards the usual; null while too little is known. */
export function sensesFrom(rows: readonly Sensed[]): Senses | null {
  const reports = sum(rows, 'reports')
  const looks = sum(rows, 'looks')
  if (reports < LEAST_REPORTS && looks < LEAST_LOOKS) return null
  const wrongReports =
    reports < LEAST_REPORTS
      ? WRONG_REPORTS
      : WRONG_REPORTS + (sum(rows, 'wrong') - reports * FOUND.wrong) / (USUAL_REPORTS + reports) / FOUND.perWrong
  const spread = Math.sqrt((USUAL_LOOKS * FOUND.eye ** 2 + sum(rows, 'squared')) / (USUAL_LOOKS + looks))
  const eye = looks < LEAST_LOOKS ? 1 : 1 + (spread - FOUND.eye) / FOUND.perEye
  return {
    wrongReports: Math.min(0.25, Math.max(LEAST_WRONG, wrongReports)),
    eye: Math.min(2.5, Math.max(0.6, eye)),
    reports,
    looks: Math.round(looks),
  }
}
