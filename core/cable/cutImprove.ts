import { randomFrom } from '../quantity/random'
import { costOf, costOfAll, EPS, NOWHERE, UNPLACED_MM, type Placed, type Problem } from './cutProblem'

/** Rounds of improvement by chance. */
const ROUNDS = 60_000

/** Moves and swaps pieces by chance, taking what is no worse, and now and then a little worse (annealing). */
export function improve(p: Problem, start: Placed, bound: number, rounds = ROUNDS): Placed {
  const random = randomFrom(p.need.length, p.stock.length, Math.round(p.need.reduce((s, n) => s + n, 0)))
  const at = [...start.at]
  const used = new Array<number>(p.stock.length).fill(0)
  at.forEach((j, i) => {
    if (j !== NOWHERE) used[j] += p.need[i]
  })
  let cost = start.cost
  let best = { at: [...at], cost }
  const change = (moves: readonly [number, number][]): number | null => {
    const touched = new Map<number, number>()
    let delta = 0
    for (const [i, to] of moves) {
      if (at[i] !== NOWHERE) touched.set(at[i], (touched.get(at[i]) ?? used[at[i]]) - p.need[i])
      if (to !== NOWHERE) touched.set(to, (touched.get(to) ?? used[to]) + p.need[i])
      delta += (at[i] === NOWHERE ? -UNPLACED_MM : 0) + (to === NOWHERE ? UNPLACED_MM : 0)
    }
    for (const [j, u] of touched) {
      if (u > p.stock[j].lengthMm + EPS) return null
      delta += costOf(p, j, u < EPS ? 0 : u) - costOf(p, j, used[j] < EPS ? 0 : used[j])
    }
    return delta
  }
  for (let round = 0; round < rounds && best.cost > bound + EPS; round++) {
    const heat = 60 * (1 - round / rounds) ** 2
    const i = random.below(p.need.length)
    const other = random.below(p.need.length)
    const moves: [number, number][] =
      random.next() < 0.5
        ? [[i, random.below(p.stock.length)]]
        : [
            [i, at[other]],
            [other, at[i]],
          ]
    if (moves.some(([k, to]) => at[k] === to)) continue
    const delta = change(moves)
    if (delta === null || (delta > 0 && random.next() >= Math.exp(-delta / (heat + EPS)))) continue
    for (const [k, to] of moves) {
      if (at[k] !== NOWHERE) used[at[k]] -= p.need[k]
      if (to !== NOWHERE) used[to] += p.need[k]
      at[k] = to
    }
    cost += delta
    if (cost < best.cost - EPS) best = { at: [...at], cost }
  }
  return { at: best.at, cost: costOfAll(p, best.at), proven: false }
}
