import solver from 'javascript-lp-solver'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { cutPlan, type CutPlan, type StockItem, type ToCut } from './cutList'
import { OFFCUT_WORTH } from './cutUsual'
import { sayWaste } from './cutWords'

const OPTIONS = { kerfMm: 2, leastOffcutMm: 150 }

/** Is a plan possible: every piece once, nothing cut from more than there is? */
function holds(plan: CutPlan, pieces: readonly ToCut[], stock: readonly StockItem[]) {
  const cut = plan.cuts.flatMap(c => c.pieces)
  expect([...cut, ...plan.short.map(p => p.name)].sort()).toEqual(pieces.map(p => p.name).sort())
  for (const c of plan.cuts) {
    const used = c.pieces.reduce((s, name) => s + pieces.find(p => p.name === name)!.lengthMm + OPTIONS.kerfMm, 0)
    const item = stock.find(s => s.id === c.id)!
    expect(used).toBeLessThanOrEqual(item.lengthMm)
    expect([c.usedMm, c.leftMm, c.keep]).toEqual([
      used,
      item.lengthMm - used,
      item.lengthMm - used >= OPTIONS.leastOffcutMm,
    ])
  }
}

type Random = ReturnType<typeof randomFrom>
/** So many offcuts, each filled to the millimetre by some pieces; a roll beside them. */
function planted(offcuts: number, fill: () => number[], rollM: number) {
  const pieces: ToCut[] = []
  const stock: StockItem[] = [{ id: 'r', lengthMm: 1000 * rollM, roll: true }]
  for (let j = 0; j < offcuts; j++) {
    const lengths = fill()
    lengths.forEach((lengthMm, i) => pieces.push({ name: `${j}-${i}`, lengthMm }))
    stock.push({ id: `o${j}`, lengthMm: lengths.reduce((a, b) => a + b + OPTIONS.kerfMm, 0), roll: false })
  }
  const need = pieces.reduce((sum, p) => sum + p.lengthMm + OPTIONS.kerfMm, 0)
  return { pieces, stock, costMm: OFFCUT_WORTH * need }
}

describe('the cut list', () => {
  // Outside judge: an integer program, javascript-lp-solver
  test.each([
    ['the first twenty', 0, 20],
    ['230 more random', 20, 250],
  ])('uses up no more than an exact solver, on %s batches', (_, from, to) => {
    for (let batch = from; batch < to; batch++) {
      const random = randomFrom(17, batch)
      const pieces = Array.from({ length: 2 + random.below(4) }, (_, i) => ({
        name: `p${i}`,
        lengthMm: 180 + random.below(500),
      }))
      const stock = [
        ...Array.from({ length: 1 + random.below(2) }, (_, i) => ({
          id: `o${i}`,
          lengthMm: 250 + random.below(900),
          roll: false,
        })),
        { id: 'r', lengthMm: 4000, roll: true },
      ]
      const plan = cutPlan(pieces, stock, OPTIONS)
      holds(plan, pieces, stock)
      expect(plan.proven).toBe(true)
      expect(plan.costMm, `batch ${batch}`).toBeCloseTo(exact(pieces, stock), 4)
      expect(plan.boundMm).toBeLessThanOrEqual(plan.costMm + 1e-6)
    }
  })
  // Fillings that are planted: the offcuts hold the pieces to the millimetre, so that nothing need be wasted
  test.each([
    ['many equal pieces', 20, (r: Random) => planted(6, () => Array<number>(2 + r.below(4)).fill(310), 20)],
    [
      'two sizes',
      20,
      (r: Random) =>
        planted(8, () => [...Array<number>(1 + r.below(3)).fill(240), ...Array<number>(r.below(3)).fill(385)], 20),
    ],
    [
      'any sizes',
      18,
      (r: Random) => planted(8, () => Array.from({ length: 2 + r.below(3) }, () => 150 + r.below(350)), 20),
    ],
  ] as const)(
    'of %s a planted filling is found in %d of 20, and the rest lie within 3 % of the bound',
    (_, least, make) => {
      let found = 0
      for (let seed = 1; seed <= 20; seed++) {
        const { pieces, stock, costMm } = make(randomFrom(seed, 41))
        const plan = cutPlan(pieces, stock, OPTIONS)
        holds(plan, pieces, stock)
        if (plan.costMm <= costMm + 1e-6) {
          found++
          expect([plan.scrapMm, plan.proven]).toEqual([0, true])
        }
        expect(plan.costMm).toBeLessThanOrEqual(1.03 * plan.boundMm)
      }
      expect(found).toBeGreaterThanOrEqual(least)
    },
  )
  test('one planted to the millimetre is found, and nothing of it is scrap', () => {
    const { pieces, stock, costMm } = planted(4, () => [310, 240, 310], 6)
    const plan = cutPlan(pieces, stock, OPTIONS)
    holds(plan, pieces, stock)
    expect(plan).toMatchObject({ scrapMm: 0, short: [], proven: true })
    expect([plan.costMm, plan.boundMm]).toEqual([costMm, costMm])
    expect(plan.cuts.map(c => c.id).sort()).toEqual(['o0', 'o1', 'o2', 'o3'])
  })
  test('the waste in words: what is unusable, and of what it is the least', () => {
    const plan = { scrapMm: 35, costMm: 1030, boundMm: 1000, proven: false }
    expect(sayWaste(plan)).toMatch(/^35 mm unusable, ends under 150 mm\. At most 3\.0 % more of the wall/)
    expect(sayWaste({ ...plan, proven: true })).toContain('No plan uses up less of the wall; a mm of offcut counts 0.5')
  })
  test('sixty pieces from twelve rolls and offcuts lie within 1 % of the bound', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const random = randomFrom(seed)
      const pieces = Array.from({ length: 60 }, (_, i) => ({
        name: `p${i}`,
        lengthMm: [290, 310, 220, 450, 520, 680, 1450][random.below(7)] + random.below(30),
      }))
      const stock = [
        ...Array.from({ length: 8 }, (_, i) => ({ id: `o${i}`, lengthMm: 300 + random.below(1500), roll: false })),
        ...Array.from({ length: 4 }, (_, i) => ({ id: `r${i}`, lengthMm: 6000 + random.below(9000), roll: true })),
      ]
      const plan = cutPlan(pieces, stock, OPTIONS)
      holds(plan, pieces, stock)
      expect(plan.short).toEqual([])
      expect(plan.costMm / plan.boundMm).toBeLessThan(1.01)
    }
  })
  test('an offcut that fits is used before the roll; one that would only make scrap is left', () => {
    const plan = cutPlan(
      [{ name: 'loop', lengthMm: 298 }],
      [
        { id: 'roll', lengthMm: 9000, roll: true },
        { id: 'off', lengthMm: 300, roll: false },
      ],
      OPTIONS,
    )
    expect(plan.cuts).toEqual([{ id: 'off', pieces: ['loop'], usedMm: 300, leftMm: 0, keep: false }])
    const waste = cutPlan(
      [{ name: 'end', lengthMm: 60 }],
      [
        { id: 'roll', lengthMm: 9000, roll: true },
        { id: 'off', lengthMm: 205, roll: false },
      ],
      OPTIONS,
    )
    expect(waste.cuts[0].id).toBe('roll')
  })
  test('pieces longer than any roll, and those for which the stock runs out, are to be ordered', () => {
    const plan = cutPlan(
      [
        { name: 'long', lengthMm: 2500 },
        { name: 'a', lengthMm: 900 },
        { name: 'b', lengthMm: 900 },
      ],
      [{ id: 'roll', lengthMm: 1000, roll: true }],
      OPTIONS,
    )
    expect(plan.short.map(p => p.name).sort()).toEqual(['b', 'long'].sort())
    expect(plan.cuts[0].pieces).toHaveLength(1)
    expect(cutPlan([{ name: 'a', lengthMm: 900 }], [], OPTIONS).short).toHaveLength(1)
    expect(cutPlan([], [{ id: 'roll', lengthMm: 1000, roll: true }], OPTIONS)).toMatchObject({
      cuts: [],
      short: [],
      proven: true,
    })
  })
  test.each([
    [
      'a negative stock',
      () => cutPlan([{ name: 'a', lengthMm: 10 }], [{ id: 's', lengthMm: -5, roll: true }]),
      /stock s/,
    ],
    ['a piece of nothing', () => cutPlan([{ name: 'a', lengthMm: 0 }], []), /lengthMm of a/],
    [
      'two of one name',
      () =>
        cutPlan(
          [
            { name: 'a', lengthMm: 10 },
            { name: 'a', lengthMm: 20 },
          ],
          [],
        ),
      /two pieces are called a/,
    ],
    ['half a millimetre', () => cutPlan([{ name: 'a', lengthMm: 10.5 }], []), /whole number/],
    [
      'one stock twice',
      () =>
        cutPlan(
          [],
          [
            { id: 's', lengthMm: 10, roll: true },
            { id: 's', lengthMm: 10, roll: true },
          ],
        ),
      /there twice/,
    ],
    ['a kerf below nought', () => cutPlan([], [], { kerfMm: -1, leastOffcutMm: 100 }), /kerfMm/],
  ])('refuses %s', (_, bad, words) => {
    expect(bad).toThrow(words)
    expect(bad).toThrow(RangeError)
  })
})

/** Least cost by an integer program: x piece in item, u item used, z its leftover is kept, s its scrap. */
function exact(pieces: readonly ToCut[], stock: readonly StockItem[]): number {
  const variables: Record<string, Record<string, number>> = {}
  const constraints: Record<string, { min?: number; max?: number; equal?: number }> = {}
  const binaries: Record<string, 1> = {}
  const big = 1e5
  pieces.forEach((p, i) => {
    constraints[`piece${i}`] = { equal: 1 }
  })
  stock.forEach((s, j) => {
    const w = s.roll ? 1 : OFFCUT_WORTH
    constraints[`fit${j}`] = { max: 0 } // used ≤ length · u
    constraints[`kept${j}`] = { min: -big } // length·u − used ≥ least − big(1 − z)
    constraints[`scrap${j}`] = { min: 0 } // s ≥ length·u − used − big·z
    pieces.forEach((p, i) => {
      const need = p.lengthMm + OPTIONS.kerfMm
      variables[`x${i}_${j}`] = {
        cost: w * need,
        [`piece${i}`]: 1,
        [`fit${j}`]: need,
        [`kept${j}`]: -need,
        [`scrap${j}`]: need,
      }
      binaries[`x${i}_${j}`] = 1
    })
    variables[`u${j}`] = { cost: 0, [`fit${j}`]: -s.lengthMm, [`kept${j}`]: s.lengthMm, [`scrap${j}`]: -s.lengthMm }
    variables[`z${j}`] = { cost: 0, [`kept${j}`]: -OPTIONS.leastOffcutMm - big, [`scrap${j}`]: big }
    variables[`s${j}`] = { cost: w, [`scrap${j}`]: 1 }
    binaries[`u${j}`] = binaries[`z${j}`] = 1
  })
  const answer = solver.Solve({ optimize: 'cost', opType: 'min', constraints, variables, binaries }) as {
    feasible: boolean
    result: number
  }
  if (!answer.feasible) throw new Error('the judge found no plan')
  return answer.result
}
