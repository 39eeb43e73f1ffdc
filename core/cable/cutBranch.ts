import { OFFCUT_WORTH } from './cutUsual'
import { costOfAll, EPS, NOWHERE, UNPLACED_MM, weight, type Placed, type Problem } from './cutProblem'

/** Nodes of the exact search before chance takes over: a bench-sized batch ends well before. */
const MOST_NODES = 400_000
/** Depth-first over where each piece goes, longest first; cut off where even the cheapest rest is no better. */
export function branch(p: Problem, start: Placed, mostNodes = MOST_NODES): { best: Placed; ended: boolean } {
  const n = p.need.length
  let best = start
  let nodes = 0
  const used = new Array<number>(p.stock.length).fill(0)
  const at = new Array<number>(n).fill(NOWHERE)
  const restAfter = [...p.need, 0]
  for (let i = n - 1; i >= 0; i--) restAfter[i] = p.need[i] + (restAfter[i + 1] ?? 0)
  restAfter[n] = 0
  const cheapest = p.stock.some(s => !s.roll) ? OFFCUT_WORTH : 1
  const visit = (i: number, spent: number): boolean => {
    if (++nodes > mostNodes) return false
    if (spent + cheapest * restAfter[i] >= best.cost - EPS) return true
    if (i === n) {
      const cost = costOfAll(p, at)
      if (cost < best.cost - EPS) best = { at: [...at], cost, proven: false }
      return true
    }
    const tried = new Set<string>()
    for (let j = 0; j < p.stock.length; j++) {
      const s = p.stock[j]
      if (used[j] + p.need[i] > s.lengthMm + EPS) continue
      const twin = `${s.lengthMm}/${s.roll}/${used[j]}`
      if (tried.has(twin)) continue
      tried.add(twin)
      used[j] += p.need[i]
      at[i] = j
      const on = visit(i + 1, spent + weight(s) * p.need[i])
      used[j] -= p.need[i]
      at[i] = NOWHERE
      if (!on) return false
    }
    return visit(i + 1, spent + UNPLACED_MM)
  }
  const ended = visit(0, 0)
  return { best, ended }
}
