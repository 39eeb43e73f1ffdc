import { wholeIn } from '../quantity/check'
import { branch } from './cutBranch'
import { filled } from './cutFill'
import { improve } from './cutImprove'
import { EPS, lowerBound, NOWHERE, UNPLACED_MM, type Placed, type Problem, type StockItem } from './cutProblem'
import { USUAL_CUT, type CutOptions } from './cutUsual'

export type { StockItem } from './cutProblem'

/** A piece to cut. */
export type ToCut = { name: string; lengthMm: number }
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

function search(p: Problem, bound: number): Placed {
  if (!p.need.length) return { at: [], cost: 0, proven: true }
  let best = improve(p, filled(p, bound), bound)
  if (best.cost <= bound + EPS) return { ...best, proven: true }
  const exact = branch(p, best)
  best = exact.best
  return { ...best, proven: exact.ended || best.cost <= bound + EPS }
}
