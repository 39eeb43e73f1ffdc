import { wholeIn } from '../quantity/check'
import { randomFrom } from '../quantity/random'
import { OFFCUT_WORTH, USUAL_CUT, type CutOptions } from './cutUsual'

/** A piece to cut, and a roll or offcut to cut from. */
export type ToCut = { name: string; lengthMm: number }
export type StockItem = { id: string; lengthMm: number; roll: boolean }
/** What is cut from one item, what is left of it, and whether that is worth keeping. */
export type CutFrom = { id: string; pieces: string[]; usedMm: number; leftMm: number; keep: boolean }
export type CutPlan = {
  cuts: CutFrom[]
  /** Pieces that fit on nothing in stock: to be ordered. */
  short: ToCut[]
  scrapMm: number
  /** Worth of what is used up, mm of roll; no plan can use less than `boundMm`. */
  costMm: number
  boundMm: number
  /** No plan is better: searched to the end, or the bound is met. */
  proven: boolean
}

const weight = (s: StockItem): number => (s.roll ? 1 : OFFCUT_WORTH)

/**
 * Which piece from which roll or offcut, so that least is used up: what is cut, its kerfs, and leftovers too short to
 * keep. Searched to the end for a bench-sized batch; beyond that improved by chance from a fixed seed, with a bound.
 * @param pieces to cut, each with a name of its own
 * @param stock rolls and offcuts of that housing
 * @throws RangeError naming a length that is not a whole number of mm above 0, a negative stock, or a name given twice
 */
export function cutPlan(
  pieces: readonly ToCut[],
  stock: readonly StockItem[],
  options: CutOptions = USUAL_CUT,
): CutPlan {
  wholeIn('kerfMm', options.kerfMm, 0, 20)
  wholeIn('leastOffcutMm', options.leastOffcutMm, 0, 2000)
  pieces.forEach(p => wholeIn(`lengthMm of ${p.name}`, p.lengthMm, 1, 10_000))
  stock.forEach(s => wholeIn(`stock ${s.id}`, s.lengthMm, 1, 200_000))
  const twice = pieces.find((p, i) => pieces.findIndex(q => q.name === p.name) !== i)
  if (twice) throw new RangeError(`two pieces are called ${twice.name}: give each its own name`)
  const sameStock = stock.find((s, i) => stock.findIndex(q => q.id === s.id) !== i)
  if (sameStock) throw new RangeError(`stock ${sameStock.id} is there twice`)
  const longest = Math.max(0, ...stock.map(s => s.lengthMm))
  const fits = pieces.filter(p => p.lengthMm + options.kerfMm <= longest).sort((a, b) => b.lengthMm - a.lengthMm)
  const short = pieces.filter(p => p.lengthMm + options.kerfMm > longest)
  const problem: Problem = {
    need: fits.map(p => p.lengthMm + options.kerfMm),
    stock: [...stock],
    least: options.leastOffcutMm,
  }
  const bound = lowerBound(problem)
  const found = search(problem, bound)
  const cuts = problem.stock.flatMap((s, j): CutFrom[] => {
    const mine = fits.filter((_, i) => found.at[i] === j)
    if (!mine.length) return []
    const usedMm = mine.reduce((sum, p) => sum + p.lengthMm + options.kerfMm, 0)
    const leftMm = Math.max(0, s.lengthMm - usedMm)
    return [{ id: s.id, pieces: mine.map(p => p.name), usedMm, leftMm, keep: leftMm >= options.leastOffcutMm }]
  })
  const unplaced = fits.filter((_, i) => found.at[i] === NOWHERE)
  return {
    cuts,
    short: [...short, ...unplaced],
    scrapMm: cuts.reduce((sum, c) => sum + (c.keep ? 0 : c.leftMm), 0),
    costMm: found.cost - unplaced.length * UNPLACED_MM,
    boundMm: Math.min(bound, found.cost - unplaced.length * UNPLACED_MM),
    proven: found.proven,
  }
}

type Problem = { need: number[]; stock: StockItem[]; least: number }
type Placed = { at: number[]; cost: number; proven: boolean }
const NOWHERE = -1
/** A piece left over costs more than any roll. */
const UNPLACED_MM = 1e7
const EPS = 1e-6

const scrapOf = (p: Problem, j: number, used: number): number => {
  const left = p.stock[j].lengthMm - used
  return left < p.least ? left : 0
}
/** What cutting `used` mm from an item costs, its scrap with it. */
const costOf = (p: Problem, j: number, used: number): number =>
  used <= 0 ? 0 : weight(p.stock[j]) * (used + scrapOf(p, j, used))

/** Lengths reachable by some of the pieces, to the millimetre, up to a capacity. */
function reachable(need: readonly number[], capacity: number): Uint8Array {
  const most = Math.floor(capacity + EPS)
  const out = new Uint8Array(most + 1)
  out[0] = 1
  for (const n of need) {
    const step = Math.round(n)
    for (let x = most; x >= step; x--) if (out[x - step]) out[x] = 1
  }
  return out
}

/**
 * No plan uses up less: all pieces at a roll's worth, less the most that each offcut can save by itself. Rolls make
 * no scrap in it.
 */
function lowerBound(p: Problem): number {
  const total = p.need.reduce((s, n) => s + n, 0)
  let saved = 0
  for (let j = 0; j < p.stock.length; j++) {
    if (p.stock[j].roll) continue
    const fill = reachable(p.need, p.stock[j].lengthMm)
    let best = 0
    for (let x = 1; x < fill.length; x++) if (fill[x]) best = Math.max(best, x - costOf(p, j, x))
    saved += best
  }
  const offcuts = p.stock.every(s => !s.roll)
  return Math.max(0, offcuts ? total * OFFCUT_WORTH : total - Math.min(saved, total * (1 - OFFCUT_WORTH)))
}

const costOfAll = (p: Problem, at: readonly number[]): number => {
  const used = new Array<number>(p.stock.length).fill(0)
  let cost = 0
  at.forEach((j, i) => {
    if (j === NOWHERE) cost += UNPLACED_MM
    else used[j] += p.need[i]
  })
  return cost + used.reduce((s, u, j) => s + costOf(p, j, u), 0)
}

/** Nodes of the exact search before chance takes over: a bench-sized batch ends well before. */
const MOST_NODES = 400_000
/** Rounds of improvement by chance. */
const ROUNDS = 60_000

function search(p: Problem, bound: number): Placed {
  if (!p.need.length) return { at: [], cost: 0, proven: true }
  let best = improve(p, filled(p, bound), bound)
  if (best.cost <= bound + EPS) return { ...best, proven: true }
  const exact = branch(p, best)
  best = exact.best
  return { ...best, proven: exact.ended || best.cost <= bound + EPS }
}

/** Orders of the offcuts that are tried: which is filled first decides what is left for the others. */
const ORDERS_TRIED = 60

/** The best of some fillings: the shortest offcut first, the longest first, then by chance from a fixed seed. */
function filled(p: Problem, bound: number): Placed {
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
function greedy(p: Problem, order: readonly number[]): Placed {
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
function bestFill(p: Problem, j: number, at: readonly number[]): number[] {
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

/** Moves and swaps pieces by chance, taking what is no worse, and now and then a little worse (annealing). */
function improve(p: Problem, start: Placed, bound: number): Placed {
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
  for (let round = 0; round < ROUNDS && best.cost > bound + EPS; round++) {
    const heat = 60 * (1 - round / ROUNDS) ** 2
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

/** Depth-first over where each piece goes, longest first; cut off where even the cheapest rest is no better. */
function branch(p: Problem, start: Placed): { best: Placed; ended: boolean } {
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
    if (++nodes > MOST_NODES) return false
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
