import { HELD_OUT, LEARNING_ROWS, scoreLearning, type LearningScore } from '#core/bench/learning'
import { percent, sum } from './figures'

/** Hidden shops of the bench, one after the other, by their seeds. */
export function learningPart(shops: readonly number[]): void {
  for (const seed of shops) console.log(JSON.stringify(scoreLearning(seed)))
}

/** What the advice gains from a shop's own closed jobs, on bikes that no lesson came from. */
export function reportLearning(scores: readonly LearningScore[], first: number): void {
  console.log(
    `\nLearning: ${scores.length} simulated shops with hidden habits from seed ${first}, ${HELD_OUT} held-out bikes each, the same bikes in every row.`,
  )
  console.table(
    LEARNING_ROWS.map(after => {
      const all = scores.flatMap(s => s[after])
      const n = all.length
      return {
        'jobs learnt from': after === 'cold' ? 0 : after === 'told' ? 'told the truth' : after,
        won: percent(
          sum(all, p => p.won),
          n,
        ),
        touches: (sum(all, p => p.touches) / n).toFixed(1),
        cost: (sum(all, p => p.cost) / n).toFixed(1),
        'needless per 100': ((100 * sum(all, p => p.needless)) / n).toFixed(1),
        'won more of 100': gained(scores, after, p => 100 * Number(p.won)),
        'touches fewer': gained(scores, after, p => -p.touches),
        'cost less': gained(scores, after, p => -p.cost),
      }
    }),
  )
}

/**
 * How much more of something there is a bike than by the usual advice, on the same bikes, and its standard error: each
 * shop's mean difference is one figure, since its bikes have its habits in common.
 */
function gained(
  scores: readonly LearningScore[],
  after: keyof LearningScore,
  of: (played: LearningScore['cold'][number]) => number,
): string {
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
  const shops = scores.map(s => mean(s[after].map((p, i) => of(p) - of(s.cold[i]!))))
  const middle = mean(shops)
  const spread = Math.sqrt(shops.reduce((s, v) => s + (v - middle) ** 2, 0) / Math.max(1, shops.length - 1))
  return `${middle.toFixed(1)} ± ${(spread / Math.sqrt(shops.length)).toFixed(1)}`
}
