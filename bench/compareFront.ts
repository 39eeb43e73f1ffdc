import { FRONT_AS_MODELLED, FRONT_UNLIKE, type FrontPhysics } from '#core/bench/front'
import { FRONT_STRATEGIES, playFront, type FrontPlayed, type FrontStrategy } from '#core/bench/frontPlay'
import { byTenths, percent, quantile, sum } from './figures'

/**
 * The front's benches: the model's; tolerances 15 % tighter; one report in ten wrong; and two that answer by figures of
 * their own.
 */
export const FRONT_BENCHES: Record<string, FrontPhysics> = {
  front: FRONT_AS_MODELLED,
  'front-tolerances': FRONT_UNLIKE.tolerances,
  'front-reports': FRONT_UNLIKE.reports,
  'front-faults': FRONT_UNLIKE.faults,
  'front-slips': FRONT_UNLIKE.slips,
}

export type FrontLine = { strategy: FrontStrategy; played: FrontPlayed }

export function frontPart(seeds: readonly number[], bench: string): void {
  for (const seed of seeds)
    for (const strategy of FRONT_STRATEGIES)
      console.log(
        JSON.stringify({ strategy, played: playFront(seed, strategy, FRONT_BENCHES[bench]) } satisfies FrontLine),
      )
}

export function reportFront(bench: string, lines: readonly FrontLine[]): void {
  const of = (id: FrontStrategy) =>
    lines
      .filter(l => l.strategy === id)
      .map(l => l.played)
      .sort((a, b) => a.seed - b.seed)
  const ours = of('Ocho')
  const n = ours.length
  console.log(`\nbench "${bench}", ${n} fronts`)
  console.table(
    FRONT_STRATEGIES.map(id => {
      const them = of(id)
      const won = them.filter(p => p.won)
      const both = them.filter((p, i) => p.won && ours[i].won)
      const mine = ours.filter((p, i) => p.won && them[i].won)
      return {
        strategy: id,
        won: percent(won.length, n),
        'right at the end': percent(
          sum(them, p => p.right),
          n,
        ),
        'shifts clean, stops aside': percent(
          sum(them, p => p.shiftsClean),
          n,
        ),
        'needless per 100': ((100 * sum(them, p => p.needless)) / n).toFixed(1),
        'off inboard per 100': ((100 * sum(them, p => p.thrown.inboard)) / n).toFixed(1),
        'off outboard per 100': ((100 * sum(them, p => p.thrown.outboard)) / n).toFixed(1),
        'cost p50': quantile(
          won.map(p => p.cost),
          0.5,
        ),
        'cost p90': quantile(
          won.map(p => p.cost),
          0.9,
        ),
        'Ocho cost ÷ its, both won': (sum(mine, p => p.cost) / sum(both, p => p.cost)).toFixed(2),
      }
    }),
  )
  for (const id of ['Ocho', 'glance'] as const) reportOcho(id, of(id))
}

/** What becomes of the fronts that are said to be done, how sure that was, and what it took. */
function reportOcho(id: FrontStrategy, played: readonly FrontPlayed[]): void {
  const done = played.filter(p => p.saidDone)
  console.log(
    `${id}: when it said done, right stated ${(sum(done, p => p.stated ?? 0) / done.length).toFixed(3)}, true ${(sum(done, p => p.right) / done.length).toFixed(3)}`,
  )
  const outOf = (list: readonly FrontPlayed[], is: (p: FrontPlayed) => boolean) =>
    percent(
      sum(list, p => is(p)),
      Math.max(1, list.length),
    )
  const of = (what: 'entries' | 'touches', rings: number) => played.filter(p => p.rings === rings).map(p => p[what])
  const until = (rings: number) => {
    const touches = of('touches', rings)
    const mean = touches.reduce((a, b) => a + b, 0) / Math.max(1, touches.length)
    return `${quantile(touches, 0.5)} touches (mean ${mean.toFixed(1)}, ${quantile(of('entries', rings), 0.5)} entries)`
  }
  console.log(
    `wrong "done" ${outOf(played, p => p.saidDone && !p.right)}, given up ${outOf(played, p => !p.saidDone)}; L out won ${outOf(
      played.filter(p => p.faults.includes('L out')),
      p => p.won,
    )}; median until done: double ${until(2)}, triple ${until(3)}`,
  )
  const lost = played.filter(p => !p.won)
  console.log(
    `lost: ${sum(lost, p => p.needless > 0)} by a needless part, ${sum(lost, p => p.saidDone && !p.right)} said done and not right, ${sum(lost, p => !p.saidDone)} given up or spent`,
  )
  console.log(
    `right, stated − true by tenths (· fewer than 200 calls): ${byTenths(played.flatMap(p => p.calls)).join(' ')}`,
  )
}
