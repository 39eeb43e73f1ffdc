import { OFFCUT_WORTH } from './cutUsual'

/** A roll or offcut to cut from. */
export type StockItem = { id: string; lengthMm: number; roll: boolean }

/** Lengths to cut, kerfs with them, longest first, mm; what they are cut from; and what is worth keeping, mm. */
export type Problem = { need: number[]; stock: StockItem[]; least: number }
/** From which item each piece is cut, and what that costs. */
export type Placed = { at: number[]; cost: number; proven: boolean }
export const NOWHERE = -1
/** A piece left over costs more than any roll. */
export const UNPLACED_MM = 1e7
export const EPS = 1e-6

/** Worth of a millimetre of it, mm of roll. */
export const weight = (s: StockItem): number => (s.roll ? 1 : OFFCUT_WORTH)

const scrapOf = (p: Problem, j: number, used: number): number => {
  const left = p.stock[j].lengthMm - used
  return left < p.least ? left : 0
}

/** What cutting `used` mm from an item costs, its scrap with it. */
export const costOf = (p: Problem, j: number, used: number): number =>
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
export function lowerBound(p: Problem): number {
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

/** What a whole plan costs. */
export const costOfAll = (p: Problem, at: readonly number[]): number => {
  const used = new Array<number>(p.stock.length).fill(0)
  let cost = 0
  at.forEach((j, i) => {
    if (j === NOWHERE) cost += UNPLACED_MM
    else used[j] += p.need[i]
  })
  return cost + used.reduce((s, u, j) => s + costOf(p, j, u), 0)
}
