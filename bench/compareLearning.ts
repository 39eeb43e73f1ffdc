import { HELD_OUT, LEARNT_AFTER, scoreLearning, type LearningScore } from '#core/bench/learning'
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
    (['cold', ...LEARNT_AFTER] as const).map(after => {
      const all = scores.flatMap(s => s[after])
      const n = all.length
      return {
        'jobs learnt from': after === 'cold' ? 0 : after,
        won: percent(
          sum(all, p => p.won),
          n,
        ),
        touches: (sum(all, p => p.touches) / n).toFixed(1),
        cost: (sum(all, p => p.cost) / n).toFixed(1),
        'needless per 100': ((100 * sum(all, p => p.needless)) / n).toFixed(1),
      }
    }),
  )
}
