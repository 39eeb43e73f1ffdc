import { playBrake, playBrakeByOrder, type BrakeBench, type BrakePlayed } from '#core/bench/brake'
import { BRAKE_KINDS } from '#core/brake/kinds'
import { percent, sum } from './figures'

/**
 * Brakes unlike the diagnosis: right cause first, solved, looks and needless cures, against the written order played
 * straight.
 */
export function reportBrakes(brakes: number, first: number, bench: BrakeBench): void {
  const seeds = Array.from({ length: brakes }, (_, i) => first + i)
  const line = (strategy: string, kind: string, all: readonly BrakePlayed[]) => {
    const of = kind === 'all' ? all : all.filter(p => p.kind === kind)
    const share = (is: (p: BrakePlayed) => boolean) => percent(sum(of, is), of.length)
    return {
      strategy,
      kind,
      brakes: of.length,
      'right cause first': share(p => p.right),
      solved: share(p => p.solved),
      'needless cures per 100': ((100 * sum(of, p => p.needless)) / of.length).toFixed(1),
      'looks on average': (sum(of, p => p.looks) / of.length).toFixed(2),
      'a cure a third time': sum(of, p => p.thrice),
    }
  }
  const ours = seeds.map(s => playBrake(s, bench))
  const order = seeds.map(s => playBrakeByOrder(s, bench))
  console.log(`\nbench "${bench}", ${brakes} brakes`)
  console.table(['all', ...BRAKE_KINDS].flatMap(k => [line('Ocho', k, ours), line('written order', k, order)]))
  console.log('first cause: stated and true, by tenths of what was stated')
  console.table(
    Array.from({ length: 10 }, (_, tenth) => {
      const of = ours.filter(p => Math.min(9, Math.floor(p.stated * 10)) === tenth)
      return { calls: of.length, stated: mean(of.map(p => p.stated)), true: mean(of.map(p => Number(p.right))) }
    }),
  )
}
const mean = (list: readonly number[]): string =>
  list.length ? (list.reduce((s, x) => s + x, 0) / list.length).toFixed(3) : '·'
