import { adviceStrategy, play, type Played, type Strategy } from '../bench/play'
import { THUMBS } from '../bench/thumb'
import type { RearBike } from './rearBike'
import { OWN_EARS, rearStand, type RearAct } from './rearStand'

/** Three rules of thumb beside whom a run is set. */
const BESIDE: readonly Strategy[] = [
  adviceStrategy,
  ...['quarter steps', 'find the edge', 'middle of the rub'].map(id => ({
    id,
    is: 'thumb' as const,
    rule: THUMBS.find(t => t.id === id)!,
  })),
]
export type Beside = Pick<Played, 'won' | 'touches' | 'cost' | 'needless' | 'thrown'> & { id: string }

/** What the advice and three rules of thumb do on the same bike, heard by the same ears. */
export const besideRear = (bike: RearBike, seed: number): Beside[] =>
  BESIDE.map(strategy => {
    const { won, touches, cost, needless, thrown } = play(seed, strategy, OWN_EARS, {
      bike: { setup: bike.setup, hidden: bike.hidden, before: [] },
    })
    return { id: strategy.id, won, touches, cost, needless, thrown }
  })

/** A position's luck is told from so many runs that go on from it. */
const RUNS_ON = 4

/**
 * How often the advice would still win from where a run stood after so many acts, with what it hears drawn anew: what
 * of a loss was the bike's and what the hands'.
 */
export function chanceFrom(bike: RearBike, seed: number, acts: readonly RearAct[], after: number): number {
  const stand = rearStand(bike, seed, acts.slice(0, after))
  if (stand.thrown.largest || stand.thrown.smallest || stand.needless.length) return 0
  let won = 0
  for (let i = 0; i < RUNS_ON; i++) {
    const from = { setup: bike.setup, hidden: stand.hidden, before: stand.log }
    if (play(seed + 7919 * (i + 1), adviceStrategy, OWN_EARS, { bike: from }).won) won++
  }
  return won / RUNS_ON
}
