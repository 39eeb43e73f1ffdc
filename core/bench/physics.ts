import { HEARING, WRONG_REPORTS } from '../response/parameters'

/** How a simulated bench answers: as the model says, or unlike it, so that advice is not judged by its own beliefs. */
export type Physics = {
  /** Share of reports that name another outcome than the true one. */
  wrongReports: number
  /** Backlash at a place along the cassette (0 the smallest sprocket, 1 the largest), of the bike's own figure. */
  lag(along: number): number
  /** The error in pitches that the model's thresholds are met with, for a true one. */
  heardAs(z: number): number
  /** Error at which the chain rubs half the time, pitches: `heardAs(rubsAt)` is the model's threshold. */
  rubsAt: number
  /** A person's looks spread so many times the usual; default 1. */
  eye?: number
  /** A microphone listens to the chain after every shift, beside the person; default not. */
  microphone?: true
}

export const AS_MODELLED: Physics = { wrongReports: WRONG_REPORTS, lag: () => 1, heardAs: z => z, rubsAt: HEARING.rub }

/** Thresholds off by a factor that shrinks with the error: rubs come sooner, missed shifts about where they were. */
const SOONER = 0.9
const heardSooner = (z: number): number => Math.sign(z) * Math.abs(z) ** SOONER * 0.95

/** Benches whose physics the advice does not know: what keeps it honest. */
export const UNLIKE: Record<'thresholds' | 'friction' | 'reports', Physics> = {
  thresholds: { ...AS_MODELLED, heardAs: heardSooner, rubsAt: (HEARING.rub / 0.95) ** (1 / SOONER) },
  /** Drag along bends: the backlash grows with the sprocket. */
  friction: { ...AS_MODELLED, lag: along => 0.65 + 0.7 * along },
  reports: { ...AS_MODELLED, wrongReports: 0.1 },
}
