import type { Move } from './contract'
import type { Heard } from '../response/heard'
import type { BenchEvent } from '../rear/benchEvents'
import type { Trace } from '../rear/trace'

/** What a hand on the barrel and a foot on the pedal find together: the chain climbs, or it goes quiet. */
export type Until = { word: 'Climbed' | 'Quiet'; then: Extract<Heard, 'slow' | 'clean'> }

/**
 * May the advised turn be wound while pedalling, until the shift that was not clean does what it should? Only where the
 * pulley then moves the way it arrived: out after a shift towards the spokes, in after one towards the frame. A chain
 * that climbs only just does so: it counts as slow; one that goes quiet as clean. `practice`
 */
export function woundUntil(
  move: Move,
  log: readonly BenchEvent[],
  { lastInward }: Pick<Trace, 'lastInward'>,
  spring: 'high' | 'low' = 'high',
): Until | null {
  const last = log.at(-1)
  if (move.do !== 'turn' || move.screw !== 'barrel' || last?.kind !== 'shift') return null
  const inboard = move.turns > 0 === (spring === 'high')
  if (inboard !== lastInward) return null
  if (last.heard === 'none') return { word: 'Climbed', then: 'slow' }
  return last.heard === 'slow' || last.heard === (inboard ? 'rubs-out' : 'rubs-in')
    ? { word: 'Quiet', then: 'clean' }
    : null
}
