import { randomFrom } from '../quantity/random'
import { costOf, costOfAll, EPS, NOWHERE, type Placed, type Problem } from './cutProblem'

/** Orders of the offcuts that are tried: which is filled first decides what is left for the others. */
const ORDERS_TRIED = 60

/** The best of some fillings: the shortest offcut first, the longest first, then by chance from a fixed seed. */
export function filled(p: Problem, bound: number): Placed {
  const shortest = p.stock
    .map((_, j) => j)
    .sort((a, b) => Number(p.stock[a].roll) - Number(p.stock[b].roll) || p.stock[a].lengthMm - p.stock[b].lengthMm)
  let best = greedy(p, shortest)
  const random = randomFrom(p.need.length, p.stock.length, 1)
  for (let n = 0; n < ORDERS_TRIED && best.cost > bound + EPS; n++) {
    const order = n === 0 ? [...shortest].reverse() : [...shortest]
    if (n > 0)
      for (let i = order.length - 1; i > 0; i--) {
        const j = random.below(i + 1)
        ;[order[i], order[j]] = [order[j], order[i]]
      }
    const next = greedy(p, order)
    if (next.cost < best.cost) best = next
  }
  return best
}

/** Fills each offcut in turn as well as it can be, then rolls by best fit. */
export function greedy(p: Problem, order: readonly number[]): Placed {
  const at = new Array<number>(p.need.length).fill(NOWHERE)
  for (const j of order.filter(k => !p.stock[k].roll)) for (const i of bestFill(p, j, at)) at[i] = j
  const left = p.stock.map((s, j) => s.lengthMm - p.need.reduce((sum, n, i) => sum + (at[i] === j ? n : 0), 0))
  p.need.forEach((n, i) => {
    if (at[i] !== NOWHERE) return
    const open = order.filter(j => left[j] >= n - EPS).sort((a, b) => left[a] - left[b])
    const j = open.find(k => p.stock[k].roll) ?? open[0]
    if (j === undefined) return
    at[i] = j
    left[j] -= n
  })
  return { at, cost: costOfAll(p, at), proven: false }
}

/** The free pieces that save most on one item, by a knapsack over whole millimetres. */
export function bestFill(p: Problem, j: number, at: readonly number[]): number[] {
  const capacity = Math.floor(p.stock[j].lengthMm + EPS)
  const free = p.need.map((_, i) => i).filter(i => at[i] === NOWHERE && Math.round(p.need[i]) <= capacity)
  const by = new Int16Array(capacity + 1).fill(-2)
  by[0] = -1
  const taken: Int16Array[] = []
  free.forEach((i, k) => {
    const before = by.slice()
    const step = Math.round(p.need[i])
    for (let x = capacity; x >= step; x--) if (before[x] === -2 && before[x - step] !== -2) by[x] = k
    taken.push(by.slice())
  })
  let best = 0
  let gain = EPS
  for (let x = 1; x <= capacity; x++)
    if (by[x] !== -2 && x - costOf(p, j, x) > gain) {
      gain = x - costOf(p, j, x)
      best = x
    }
  const out: number[] = []
  for (let x = best, k = free.length - 1; x > 0 && k >= 0; k--) {
    const before = k === 0 ? null : taken[k - 1]
    if (before ? before[x] !== -2 : x === 0) continue
    out.push(free[k])
    x -= Math.round(p.need[free[k]])
  }
  return out
}
