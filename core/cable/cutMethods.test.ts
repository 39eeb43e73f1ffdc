import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { branch } from './cutBranch'
import { bestFill, filled, greedy } from './cutFill'
import { improve } from './cutImprove'
import { costOf, costOfAll, lowerBound, NOWHERE, UNPLACED_MM, type Placed, type Problem } from './cutProblem'

/*
 * Each way of cutting by itself, held against all plans there are, tried one by one: together they hide each other's
 * faults.
 */

const item = (id: string, lengthMm: number, roll = false) => ({ id, lengthMm, roll })
const problem = (need: number[], ...stock: Problem['stock']): Problem => ({
  need: [...need].sort((a, b) => b - a),
  stock,
  least: 150,
})
/** A bench's small batch: what is needed, on one to three offcuts and mostly a roll. */
function batch(seed: number): Problem {
  const random = randomFrom(seed, 401)
  const stock = Array.from({ length: 1 + random.below(3) }, (_, i) => item(`o${i}`, 260 + random.below(900)))
  if (random.next() < 0.8) stock.push(item('r', 2500, true))
  return problem(
    Array.from({ length: 2 + random.below(4) }, () => 180 + random.below(420)),
    ...stock,
  )
}
const BATCHES = Array.from({ length: 24 }, (_, i) => batch(i + 1))

const usedOf = (p: Problem, at: readonly number[]) =>
  p.stock.map((_, j) => p.need.reduce((s, n, i) => s + (at[i] === j ? n : 0), 0))
const possible = (p: Problem, at: readonly number[]) =>
  at.length === p.need.length && usedOf(p, at).every((u, j) => u <= p.stock[j]!.lengthMm)
/** What a plan costs, told another way: mm of roll used up, an offcut at half, ends below 150 mm with what is cut. */
function priced(p: Problem, at: readonly number[]): number {
  const used = usedOf(p, at)
  let cost = 1e7 * at.filter(j => j === NOWHERE).length
  p.stock.forEach((s, j) => {
    if (used[j] === 0) return
    const left = s.lengthMm - used[j]!
    cost += (s.roll ? 1 : 0.5) * (left < 150 ? s.lengthMm : used[j]!)
  })
  return cost
}
/** Every plan there is. */
function* plans(p: Problem, at: number[] = []): Generator<number[]> {
  if (at.length === p.need.length) {
    if (possible(p, at)) yield at
    return
  }
  for (let j = NOWHERE; j < p.stock.length; j++) yield* plans(p, [...at, j])
}
const best = (p: Problem) => Math.min(...[...plans(p)].map(at => priced(p, at)))
const BEST = BATCHES.map(best)
const nothing = (p: Problem): Placed => {
  const at = p.need.map(() => NOWHERE)
  return { at, cost: costOfAll(p, at), proven: false }
}

describe('what a plan costs', () => {
  test('is what is cut and what is too short to keep, an offcut at half of a roll', () => {
    const p = problem([400], item('o', 500), item('r', 5000, true))
    expect(costOf(p, 0, 0)).toBe(0)
    expect(costOf(p, 0, 400)).toBe(250) // the 100 mm left are scrap
    expect(costOf(p, 0, 350)).toBe(175) // 150 mm go back on the wall
    expect(costOf(p, 1, 400)).toBe(400)
    expect(costOf(p, 1, 4900)).toBe(5000)
    for (const q of BATCHES.slice(0, 20))
      for (const at of plans(q)) expect(costOfAll(q, at)).toBeCloseTo(priced(q, at), 6)
  })
  test('no plan with all pieces costs less than the bound, which is met where offcuts are filled', () => {
    let met = 0
    BATCHES.forEach((p, i) => {
      const bound = lowerBound(p)
      expect(bound).toBeGreaterThan(0)
      if (BEST[i]! >= UNPLACED_MM) return
      expect(bound).toBeLessThanOrEqual(BEST[i]! + 1e-6)
      if (bound > BEST[i]! - 1e-6) met++
    })
    expect(met).toBeGreaterThan(4)
    // by hand: 300 and 200 fill the offcut, 250 comes from the roll
    expect(lowerBound(problem([300, 250, 200], item('o', 500), item('r', 3000, true)))).toBe(500)
    // half of what is cut is saved at the most
    expect(lowerBound(problem([300], item('a', 300), item('b', 300), item('r', 3000, true)))).toBe(150)
    // without a roll all comes from offcuts; and one that nothing fills well saves nothing
    expect(lowerBound(problem([300, 250], item('a', 400), item('b', 400)))).toBe(275)
    expect(lowerBound(problem([300], item('o', 420), item('r', 3000, true)))).toBe(210)
    expect(lowerBound(problem([100], item('o', 240), item('r', 3000, true)))).toBe(100)
  })
})

describe('filling', () => {
  test('takes of the free pieces those that save most on an item', () => {
    for (const p of BATCHES) {
      for (let j = 0; j < p.stock.length; j++) {
        const at = p.need.map((_, i) => (i % 3 === 2 ? j : NOWHERE))
        const free = p.need.map((_, i) => i).filter(i => at[i] === NOWHERE)
        const saves = (of: readonly number[]) => {
          const used = of.reduce((s, i) => s + p.need[i]!, 0)
          return used > p.stock[j]!.lengthMm ? -Infinity : used - costOf(p, j, used)
        }
        let most = 0
        for (let set = 0; set < 1 << free.length; set++)
          most = Math.max(most, saves(free.filter((_, k) => set & (1 << k))))
        const taken = bestFill(p, j, at)
        expect(taken.every(i => free.includes(i))).toBe(true)
        expect(new Set(taken).size).toBe(taken.length)
        expect(saves(taken)).toBeCloseTo(most, 6)
      }
    }
  })
  test('of a roll nothing is saved, and an item too short is left', () => {
    const p = problem([300, 200], item('o', 190), item('r', 3000, true))
    const free = [NOWHERE, NOWHERE]
    expect(bestFill(p, 0, free)).toEqual([])
    expect(bestFill(p, 1, free)).toEqual([])
    expect(bestFill(problem([300], item('o', 300)), 0, [NOWHERE])).toEqual([0])
    // as much saved by one as by two: no more is cut up than need be
    expect(bestFill(problem([300, 300], item('o', 600)), 0, free)).toEqual([1, 0])
  })
  test('goes by the order it is given, offcuts before rolls, and leaves nothing that fits', () => {
    const p = problem([400, 300], item('a', 450), item('b', 300), item('r', 3000, true))
    expect(greedy(p, [0, 1, 2]).at).toEqual([0, 1])
    const q = problem([300], item('a', 310), item('b', 300), item('r', 3000, true))
    expect(greedy(q, [0, 1, 2]).at).toEqual([0])
    expect(greedy(q, [1, 0, 2]).at).toEqual([1])
    expect(greedy(q, [2, 1, 0]).at).toEqual([1])
    // rolls by best fit: the one with least left that still holds it
    const rolls = problem([500], item('long', 3000, true), item('rest', 700, true))
    expect(greedy(rolls, [0, 1]).at).toEqual([1])
    // a roll before an offcut that would only make scrap; that offcut all the same where there is no roll left
    expect(greedy(problem([130], item('o', 270), item('r', 3000, true)), [0, 1]).at).toEqual([1])
    expect(greedy(problem([130], item('o', 270)), [0]).at).toEqual([0])
    expect(greedy(problem([500, 500, 500], item('r', 1100, true)), [0]).at).toEqual([0, 0, NOWHERE])
    for (const b of BATCHES) {
      const got = greedy(
        b,
        b.stock.map((_, j) => j),
      )
      expect(possible(b, got.at)).toBe(true)
      expect(got.cost).toBeCloseTo(priced(b, got.at), 6)
      const left = usedOf(b, got.at).map((u, j) => b.stock[j]!.lengthMm - u)
      got.at.forEach((j, i) => {
        if (j === NOWHERE) expect(Math.max(...left)).toBeLessThan(b.need[i]!)
      })
    }
  })
  test('the best of many orders is no worse than shortest first or longest first, and mostly the best there is', () => {
    let met = 0
    BATCHES.forEach((p, i) => {
      const got = filled(p, lowerBound(p))
      const shortest = p.stock
        .map((_, j) => j)
        .sort(
          (a, b) => Number(p.stock[a]!.roll) - Number(p.stock[b]!.roll) || p.stock[a]!.lengthMm - p.stock[b]!.lengthMm,
        )
      for (const order of [shortest, [...shortest].reverse()])
        expect(got.cost).toBeLessThanOrEqual(greedy(p, order).cost + 1e-6)
      expect(possible(p, got.at)).toBe(true)
      if (got.cost < BEST[i]! + 1e-6) met++
    })
    expect(met).toBeGreaterThanOrEqual(19)
  })
})

test('of three offcuts every order is tried, of those that meet the bound none more', () => {
  const orders = (of: number[]): number[][] =>
    of.length < 2 ? [of] : of.flatMap((j, k) => orders(of.filter((_, i) => i !== k)).map(rest => [j, ...rest]))
  let told = 0
  for (let seed = 1; seed <= 60; seed++) {
    const random = randomFrom(seed, 402)
    // a tenth of a bench's lengths: every order of every batch is tried, and each millimetre of it counted
    const p: Problem = {
      ...problem(
        Array.from({ length: 5 }, () => 15 + random.below(30)),
        ...['a', 'b', 'c'].map(id => item(id, 32 + random.below(60))),
        item('r', 500, true),
      ),
      least: 15,
    }
    const all = orders([0, 1, 2]).map(order => greedy(p, [...order, 3]).cost)
    const first = [0, 1, 2].sort((a, b) => p.stock[a]!.lengthMm - p.stock[b]!.lengthMm)
    const shortest = greedy(p, [...first, 3])
    const longest = greedy(p, [3, ...[...first].reverse()])
    const best = Math.min(...all)
    expect(filled(p, 0).cost).toBeCloseTo(best, 6)
    expect(filled(p, Infinity)).toEqual(shortest)
    // longest first comes next
    expect(filled(p, longest.cost).cost).toBeLessThanOrEqual(longest.cost)
    if (longest.cost < shortest.cost) expect(filled(p, longest.cost)).toEqual(longest)
    if (best < Math.min(shortest.cost, longest.cost)) told++
  }
  expect(told).toBeGreaterThan(1)
})

/** Rounds enough for a batch this small. */
const FEW = 5_000

describe('improving by chance', () => {
  test('finds the best from everything on the roll, or from nothing placed, and what it says it costs it costs', () => {
    let met = 0
    BATCHES.forEach((p, i) => {
      const got = improve(p, nothing(p), lowerBound(p), FEW)
      expect(possible(p, got.at)).toBe(true)
      expect(got.cost).toBeCloseTo(priced(p, got.at), 6)
      expect(got.proven).toBe(false)
      if (got.cost < BEST[i]! + 1e-6) met++
    })
    expect(met).toBe(BATCHES.length)
  })
  test('never gives back anything worse than it was given, and leaves alone what meets the bound', () => {
    BATCHES.slice(0, 6).forEach((p, i) => {
      const start = filled(p, lowerBound(p))
      const got = improve(p, start, lowerBound(p), FEW)
      expect(got.cost).toBeLessThanOrEqual(start.cost + 1e-6)
      expect(got.cost).toBeGreaterThanOrEqual(BEST[i]! - 1e-6)
      expect(improve(p, start, start.cost, FEW).at).toEqual(start.at)
    })
  })
  test('a swap is found where no single move helps', () => {
    // each piece lies where it leaves scrap; changed about, both offcuts are filled
    const p = problem([400, 300], item('a', 410), item('b', 400), item('c', 300))
    const at = [0, 1]
    const got = improve(p, { at, cost: costOfAll(p, at), proven: false }, 0, FEW)
    expect(got.cost).toBe(350)
    expect(got.at).toEqual([1, 2])
  })
  test('the same batch has the same answer', () => {
    for (const p of BATCHES.slice(0, 1)) expect(improve(p, nothing(p), 0, FEW)).toEqual(improve(p, nothing(p), 0, FEW))
  })
})

describe('searching to the end', () => {
  /** How many places the search looked at before it ended. */
  const looks = (p: Problem, cost = Infinity) => {
    let n = 1
    while (n < 50 && !branch(p, { ...nothing(p), cost }, n).ended) n++
    return n
  }
  test('looks at no more than it must: counted by hand', () => {
    const roll = item('r', 1000, true)
    // the start; the piece on the roll, which is a plan; the piece left over, which costs more
    expect(looks(problem([300], roll))).toBe(3)
    // a plan known that costs as much: at the start it is seen that none is better; not of one dearer by a millimetre
    expect(looks(problem([300], roll), 300)).toBe(1)
    expect(looks(problem([300], roll), 301)).toBe(3)
    expect(looks(problem([300, 200], roll))).toBe(5)
    // on the offcut it is half as dear: the roll is seen to be worse, and so is leaving it over
    expect(looks(problem([300], item('o', 450), roll))).toBe(4)
    // with an offcut about, all that is left might be had at half
    expect(looks(problem([300], item('o', 200), roll), 300)).toBe(3)
    expect(looks(problem([300], item('o', 200), roll), 150)).toBe(1)
    // of two alike one is looked at, of two that differ both
    expect(looks(problem([300], item('a', 450), item('b', 450)))).toBe(3)
    expect(looks(problem([300], item('a', 450), item('b', 460)))).toBe(4)
    expect(looks(problem([450], item('a', 450), { ...item('b', 450), roll: true }))).toBe(4)
    // what does not fit is not looked at: it can only be left over
    expect(looks(problem([300], item('o', 299)))).toBe(2)
    // one of two must be left over: which, costs the same
    expect(looks(problem([300, 300], item('a', 450)))).toBe(4)
  })
  test('finds the best of all plans, from no plan at all, and says that it ended', () => {
    BATCHES.forEach((p, i) => {
      const { best: got, ended } = branch(p, { ...nothing(p), cost: Infinity })
      expect(ended).toBe(true)
      expect(possible(p, got.at)).toBe(true)
      expect(got.cost).toBeCloseTo(priced(p, got.at), 6)
      expect(got.cost).toBeCloseTo(BEST[i]!, 6)
    })
  })
  test('keeps what it was given where nothing is better', () => {
    BATCHES.slice(0, 20).forEach((p, i) => {
      const start: Placed = { at: p.need.map(() => NOWHERE), cost: BEST[i]!, proven: false }
      expect(branch(p, start).best).toBe(start)
    })
  })
  test('says that it did not end when there was more to look at, with the best so far', () => {
    const p = BATCHES.find(b => b.need.length === 5)!
    const cut = branch(p, nothing(p), 3)
    expect(cut.ended).toBe(false)
    expect(cut.best.cost).toBeLessThanOrEqual(nothing(p).cost)
    expect(branch(p, nothing(p)).ended).toBe(true)
    // twins are looked at once, and what cannot be better not at all: far fewer than all plans
    const twins = problem([300, 300, 300, 300, 300], ...['a', 'b', 'c', 'd', 'e', 'f'].map(id => item(id, 320)))
    expect(branch(twins, nothing(twins), 400).ended).toBe(true)
    const equal = problem([300, 300, 300, 300], ...['a', 'b', 'c', 'd'].map(id => item(id, 460)))
    const all = branch(equal, { ...nothing(equal), cost: best(equal) }, 12)
    expect(all.ended).toBe(true)
  })
})
