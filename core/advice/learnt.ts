import { z } from 'zod'
import { CAUSES } from '../response/causes'
import { UNKNOWNS } from './prior'

/**
 * What a shop's own closed jobs say of the next bike: how the odds of each cause differ from the usual ones, and where
 * the usual figure of an unknown lies here, in the filter's own terms. Nothing of it where there are too few jobs.
 */
export const Learnt = z.object({
  /** Closed jobs it was learnt from. */
  jobs: z.number(),
  odds: z.partialRecord(z.enum(CAUSES), z.number()),
  usual: z.partialRecord(z.enum(UNKNOWNS), z.number()),
})
export type Learnt = z.infer<typeof Learnt>
export const NOTHING_LEARNT: Learnt = { jobs: 0, odds: {}, usual: {} }

/** How one person hears and sees, learnt from what their reports turned out to be. Private to that person. */
export const Senses = z.object({
  /** Share of their reports that name another outcome than the true one. */
  wrongReports: z.number(),
  /** Their measurements by eye spread so many times the usual. */
  eye: z.number(),
  /** Reports and looks it was learnt from. */
  reports: z.number(),
  looks: z.number(),
})
export type Senses = z.infer<typeof Senses>
