/** What was counted on a bike by eye; null where nobody looked. */
export type Counted = { sprockets: number | null; rings: number | null }

/** Was a derailleur seen at the back? One sprocket is a hub gear or a single speed. Null when nobody counted. */
export const derailleurSeen = (seen: Pick<Counted, 'sprockets'> | null): boolean | null =>
  seen?.sprockets == null ? null : seen.sprockets > 1

/** Is there a derailleur at the back whose numbers nobody has named yet? */
export const unnamedDerailleur = (job: { rear: { setup: unknown }; job: { seen: Counted | null } }): boolean =>
  !job.rear.setup && derailleurSeen(job.job.seen) === true
