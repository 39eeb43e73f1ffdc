import { scoreThread, type ThreadScore } from '#core/bench/learnThread'
import { percent, sum } from './figures'

/** Bikes with a coarse barrel, one after the other, by their seeds. */
export function threadPart(seeds: readonly number[]): void {
  for (const seed of seeds) console.log(JSON.stringify(scoreThread(seed)))
}

/** What it is worth to know a barrel's thread from five closed jobs. */
export function reportThread(scores: readonly ThreadScore[], first: number): void {
  const n = scores.length
  const learnt = sum(scores, s => s.learntMm !== null)
  console.log(
    `\nThread: ${n} bikes from seed ${first} whose barrel goes 1 mm a turn in place of 0.8, with passes, the same bikes in both rows; five measured bikes told it ${learnt} times.`,
  )
  console.table(
    (['usual', 'learnt'] as const).map(row => {
      const all = scores.map(s => s[row])
      const off = scores.map(s => s.usual.touches - s[row].touches)
      const mean = sum(off, v => v) / n
      const sd = Math.sqrt(sum(off, v => (v - mean) ** 2) / Math.max(1, n - 1))
      return {
        thread: row === 'usual' ? 'taken for the usual' : 'learnt from five',
        won: percent(
          sum(all, p => p.won),
          n,
        ),
        touches: (sum(all, p => p.touches) / n).toFixed(1),
        cost: (sum(all, p => p.cost) / n).toFixed(1),
        'needless per 100': ((100 * sum(all, p => p.needless)) / n).toFixed(1),
        'touches fewer': `${mean.toFixed(1)} ± ${(sd / Math.sqrt(n)).toFixed(1)}`,
      }
    }),
  )
}
