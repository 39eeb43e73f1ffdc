import { TOLD, toldOf, type Told } from '#core/bench/allButOne'
import { seededBike } from '#core/bench/bench'
import { AS_MODELLED } from '#core/bench/physics'
import { adviceStrategy, play, type Played } from '#core/bench/play'
import { percent, quantile, sum } from './figures'

export type LimitLine = { told: Told; played: Played }

/** Bikes of the bench by their seeds, with passes, told all but one kind of unknown. */
export function limitPart(seeds: readonly number[]): void {
  for (const seed of seeds)
    for (const told of TOLD) {
      const { setup, hidden } = seededBike(seed)
      const played = play(seed, adviceStrategy, AS_MODELLED, { passes: true, prior: toldOf(setup, hidden, told) })
      console.log(JSON.stringify({ told, played } satisfies LimitLine))
    }
}

/** How few touches could do: what the advice takes when it is told everything, and all but one kind of unknown. */
export function reportLimit(lines: readonly LimitLine[], first: number): void {
  console.log(`\nTold all but one, with passes, from seed ${first}; the same bikes in every row.`)
  console.table(
    TOLD.map(told => {
      const all = lines.filter(l => l.told === told).map(l => l.played)
      const won = all.filter(p => p.won)
      const touches = won.map(p => p.touches)
      return {
        told: told === 'nothing' || told === 'everything' ? told : `all but ${told}`,
        bikes: all.length,
        won: percent(won.length, all.length),
        'touches p50': quantile(touches, 0.5),
        'touches p90': quantile(touches, 0.9),
        'cost p50': Math.round(
          quantile(
            won.map(p => p.cost),
            0.5,
          ),
        ),
        'needless per 100': ((100 * sum(all, p => p.needless)) / all.length).toFixed(1),
        ...wonWithin(all),
      }
    }),
  )
}

/** Of all bikes, the share that is won in so many touches or fewer: the curve of won against touches. */
export const wonWithin = (all: readonly Played[]): Record<string, string> =>
  Object.fromEntries(
    [12, 16, 20, 24, 28, 36, 48].map(t => [
      `≤ ${t}`,
      percent(
        sum(all, p => p.won && p.touches <= t),
        all.length,
      ),
    ]),
  )
