import { STOP_SCREW } from '../response/parameters'

/** Less than this told by the bike beside what is usual is nothing: the spread must have shrunk by a tenth. `model` */
const TOLD_SHARE = 0.9
/**
 * A belief's spread is of one whose eye is usual: with a worse one a screw seems to go farther than it does, since what
 * was seen too far off is turned back too far and then seen truly. So it is believed half as much again. `model`
 */
const TRUST = 1.5
type Figure = { mean: number; sd: number }

/** A belief without what it started from, both normal: what the bike alone told; null where that is next to nothing. */
function without(belief: Figure, start: Figure): Figure | null {
  if (belief.sd > TOLD_SHARE * start.sd) return null
  const precision = 1 / belief.sd ** 2 - 1 / start.sd ** 2
  const mean = (belief.mean / belief.sd ** 2 - start.mean / start.sd ** 2) / precision
  return { mean, sd: TRUST * Math.sqrt(1 / precision) }
}

/**
 * What a job told of how far a turn of this shop's stop screws goes, mm: both screws together, each weighed by how sure
 * it is.
 * @param usualMm where the belief started
 */
export function stopTold(
  beliefs: readonly (Figure | undefined)[],
  usualMm: number = STOP_SCREW.mmPerTurn,
): Figure | null {
  const told = beliefs.flatMap(b => (b && without(b, { mean: usualMm, sd: STOP_SCREW.sd })) ?? [])
  if (!told.length) return null
  const precision = told.reduce((s, t) => s + 1 / t.sd ** 2, 0)
  return { mean: told.reduce((s, t) => s + t.mean / t.sd ** 2, 0) / precision, sd: Math.sqrt(1 / precision) }
}
