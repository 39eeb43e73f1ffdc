import { playBrake, playBrakeByOrder, type BrakePlayed } from '#core/bench/brake'
import { BRAKE_KINDS } from '#core/brake/kinds'
import { percent, sum } from './figures'

/** Brake faults: right cause and looks, against the written order of checking played straight. */
export function reportBrakes(brakes: number, first: number): void {
  const seeds = Array.from({ length: brakes }, (_, i) => first + i)
  const line = (strategy: string, kind: string, all: readonly BrakePlayed[]) => {
    const of = kind === 'all' ? all : all.filter(p => p.kind === kind)
    return {
      strategy,
      kind,
      brakes: of.length,
      'right cause': percent(
        sum(of, p => p.right),
        of.length,
      ),
      'by the first cure': percent(
        sum(of, p => p.right && p.tries === 1),
        of.length,
      ),
      'looks on average': (sum(of, p => p.checks) / of.length).toFixed(2),
      'cures tried': (sum(of, p => p.tries) / of.length).toFixed(2),
    }
  }
  const [ours, order] = [seeds.map(playBrake), seeds.map(playBrakeByOrder)]
  console.log(`\nbench "brake", ${brakes} brakes`)
  console.table(['all', ...BRAKE_KINDS].flatMap(k => [line('Ocho', k, ours), line('written order', k, order)]))
}
