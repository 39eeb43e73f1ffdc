import { isBrake } from './housing'
import { isFerruled, type Run } from './run'
import type { FarEnd } from './wire'

/**
 * What a run needs besides housing: a ferrule at each end that takes one, an inner, and an end cap where an end is
 * left. `practice`
 */
export function smallParts(run: Run, at: FarEnd = null): { ferrules: number; inners: 1; caps: 0 | 1; noodles: 0 | 1 } {
  const ends = run.pieces.flatMap(p =>
    p.kind === 'housing' ? (['from', 'to'] as const).map(e => isFerruled(p, e)) : [],
  )
  return {
    ferrules: ends.filter(Boolean).length,
    inners: 1,
    caps: run.tailMm > 0 ? 1 : 0,
    noodles: isBrake(run.run) && at === 'linear-pull' ? 1 : 0,
  }
}
