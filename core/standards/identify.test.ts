import { partsOf } from './partsOfShop'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { DRIVETRAIN_STANDARDS } from './drivetrains'
import { identify, ratioOf } from './identify'
import { INSTRUMENTS, readingOf, readTyped, type Readings } from './measuring'
import { catalogueInForce } from './shopValues'

const parts = partsOf(catalogueInForce([]))
const of = (id: string) => ({
  s: parts.shifters.find(p => p.id === id)!,
  d: parts.derailleurs.find(p => p.id === id)!,
  c: parts.cassettes.find(p => p.id === id)!,
})
const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)
const exactly = (value: number) => ({ values: [value], sd: 0 })
const KINDS = ['shifter', 'derailleur', 'cassette'] as const

/** What a person would read of one part of a stock trio. */
function read(id: string, kind: (typeof KINDS)[number], random?: ReturnType<typeof randomFrom>): Readings {
  const { s, d, c } = of(id)
  // the figures asked for: 5 % on cable pulls, 0.1 mm with the caliper
  const pull = (mm: number) => (random ? { values: [mm * (1 + 0.05 * random.normal())], sd: 0.05 * mm } : exactly(mm))
  const caliper = (mm: number) => (random ? { values: [mm + 0.1 * random.normal()], sd: 0.1 } : exactly(mm))
  const pulled = 0.8 * sum(s.pullMm)
  switch (kind) {
    case 'shifter':
      return { clicks: exactly(s.pullMm.length), cableAllMm: pull(sum(s.pullMm)) }
    case 'derailleur':
      return { pulleyMm: caliper(pulled * (d.ratio as number)), pulledMm: pull(pulled) }
    case 'cassette':
      return { sprockets: exactly(c.pitchMm.length + 1), stackMm: caliper(sum(c.pitchMm) + c.thicknessMm) }
  }
}

describe('every entry of the table, measured', () => {
  test.each(DRIVETRAIN_STANDARDS.map(s => [s.id]))(
    '%s is first of its kind with exact values, each part alone and all together',
    id => {
      for (const kind of KINDS) expect(identify(parts, read(id, kind))[kind].candidates[0].ids, kind).toContain(id)
      const all = identify(parts, Object.assign({}, ...KINDS.map(k => read(id, k))))
      for (const kind of KINDS) expect(all[kind].candidates[0].ids, `${kind} of all`).toContain(id)
    },
  )
  test.each(KINDS)(
    'a %s with 0.1 mm of caliper error and 5 %% of pull error is first, or among those that cannot be told apart, in 95 of 100',
    kind => {
      const random = randomFrom(71, KINDS.indexOf(kind))
      let right = 0,
        first = 0,
        size = 0,
        runs = 0
      for (let i = 0; i < 30; i++)
        for (const { id } of DRIVETRAIN_STANDARDS) {
          const answer = identify(parts, read(id, kind, random))[kind]
          runs++
          size += answer.apart.length
          if (answer.candidates[0].ids.includes(id)) first++
          if (answer.candidates[0].ids.includes(id) || answer.apart.some(c => c.ids.includes(id))) right++
        }
      expect(right / runs).toBeGreaterThanOrEqual(0.95)
      // the answer must not be won by naming everything: a caliper names a cassette, 5 % on a pull leaves two shifters
      // on average
      expect(size / runs).toBeLessThan({ shifter: 2, derailleur: 8, cassette: 1.3 }[kind])
      if (kind === 'cassette') expect(first / runs).toBeGreaterThanOrEqual(0.95)
    },
  )
  test('the three parts lend each other belief: measured together, a shifter is first oftener than alone', () => {
    const first = (together: boolean) => {
      const random = randomFrom(9)
      let hits = 0
      for (let i = 0; i < 12; i++)
        for (const { id } of DRIVETRAIN_STANDARDS) {
          const readings = Object.assign({}, ...KINDS.map(k => read(id, k, random)))
          const asked = together ? readings : { clicks: readings.clicks, cableAllMm: readings.cableAllMm }
          if (identify(parts, asked).shifter.candidates[0].ids.includes(id)) hits++
        }
      return hits
    }
    expect(first(true)).toBeGreaterThan(first(false))
  })
})

describe('what is said', () => {
  // trade figure, from memory: 17.4 mm over 6 clicks, 17.5 over 7
  test('17.4 mm of cable alone leaves two families; counting the clicks tells them', () => {
    const answer = identify(parts, { cableAllMm: { values: [17.4, 17.5], sd: 0.1 } })
    expect(answer.shifter.is).toBe('apart')
    expect(answer.shifter.apart.flatMap(c => c.ids).sort()).toEqual(['r17-7', 'r19-8'])
    expect(answer.next?.measure).toBe('clicks')
    expect(answer.next?.between.slice(0, 2).sort()).toEqual(['r17-7', 'r19-8'])
    expect(
      identify(parts, { cableAllMm: { values: [17.4, 17.5], sd: 0.1 }, clicks: exactly(7) }).shifter,
    ).toMatchObject({ is: 'named', apart: [{ ids: ['r19-8'] }] })
  })
  test('parts of the same numbers are one answer, and nothing is asked to part them', () => {
    const answer = identify(parts, { clicks: exactly(9), cableAllMm: { values: [25.2], sd: 0.1 } })
    expect(answer.shifter).toMatchObject({ is: 'named', apart: [{ ids: ['r14-10', 'r15-10'] }] })
    expect(answer.next).toBeNull()
  })
  test('a part that is in no table is none of these', () => {
    expect(identify(parts, { clicks: exactly(9), cableAllMm: { values: [46], sd: 0.3 } }).shifter.is).toBe('none')
    expect(identify(parts, { sprockets: exactly(10), stackMm: { values: [45], sd: 0.1 } }).cassette.is).toBe('none')
    // far from every row the belief in each is nothing: the nearest is told by its figures
    const longest = [...parts.shifters].sort((a, b) => sum(b.pullMm) - sum(a.pullMm))[0]
    const far = identify(parts, { clicks: exactly(9), cableAllMm: { values: [46], sd: 0.3 } }).shifter
    expect(far.nearest?.ids).toContain(longest.id)
    expect(identify(parts, { clicks: exactly(3) }).shifter.nearest).toBeNull()
    expect(
      identify(parts, { pulleyMm: { values: [30], sd: 0.1 }, pulledMm: { values: [12], sd: 0.1 } }).derailleur.is,
    ).toBe('none')
  })
  /** A part of the table made so much longer or shorter, if no row then lies nearer than that. */
  const offTable = (share: number) =>
    [1 - share, 1 + share].flatMap(times => [
      ...parts.shifters.flatMap(p => {
        const all = times * sum(p.pullMm)
        const near = parts.shifters.some(
          o => o.pullMm.length === p.pullMm.length && Math.abs(all / sum(o.pullMm) - 1) < share - 0.001,
        )
        return near
          ? []
          : [
              (sd: number, z: number) =>
                identify(parts, { clicks: exactly(p.pullMm.length), cableAllMm: { values: [all + sd * z], sd } })
                  .shifter,
            ]
      }),
      ...parts.cassettes.flatMap(p => {
        const outer = (c: typeof p) => sum(c.pitchMm) + c.thicknessMm
        const all = times * outer(p)
        const near = parts.cassettes.some(
          o => o.pitchMm.length === p.pitchMm.length && Math.abs(all / outer(o) - 1) < share - 0.001,
        )
        return near
          ? []
          : [
              (sd: number, z: number) =>
                identify(parts, {
                  sprockets: exactly(p.pitchMm.length + 1),
                  stackMm: { values: [all + sd * z], sd },
                }).cassette,
            ]
      }),
    ])
  test('a part 6 % off every row is none of these by caliper in 95 of 100, and hardly ever named by ruler', () => {
    const random = randomFrom(41)
    const off = offTable(0.06)
    expect(off.length).toBeGreaterThan(30)
    const share = (sd: number, is: string) => {
      let hits = 0
      for (let i = 0; i < 12; i++) for (const ask of off) if (ask(sd, random.normal()).is === is) hits++
      return hits / (12 * off.length)
    }
    expect(share(INSTRUMENTS.caliper.sdMm, 'none')).toBeGreaterThanOrEqual(0.95)
    expect(share(INSTRUMENTS.ruler.sdMm, 'named')).toBeLessThanOrEqual(0.05)
  })
  test('nothing is named below 0.8, nor against a count', () => {
    const random = randomFrom(42)
    for (const { id } of DRIVETRAIN_STANDARDS)
      for (const kind of KINDS) {
        const answer = identify(parts, read(id, kind, random))[kind]
        if (answer.is === 'named') expect(answer.apart[0]!.chance, id).toBeGreaterThanOrEqual(0.8)
      }
    // 32.0 mm is a row of eight clicks: with seven counted it is the nearest, and no answer
    const seven = identify(parts, { clicks: exactly(7), cableAllMm: { values: [31.95], sd: 0.1 } }).shifter
    expect(seven.is).toBe('none')
    expect(seven.candidates[0].ids).toEqual(['r11-9'])
  })
  test('nothing measured, nothing said; the chances of a kind and of none sum to one', () => {
    const nothing = identify(parts, {})
    expect(KINDS.map(k => nothing[k].is)).toEqual(['nothing', 'nothing', 'nothing'])
    const some = identify(parts, { cableAllMm: { values: [27], sd: 0.5 }, chainMm: { values: [5.5], sd: 0.1 } })
    for (const k of KINDS) expect(sum(some[k].candidates.map(c => c.chance)) + some[k].none).toBeCloseTo(1, 9)
  })
  test("a chain's width alone tells the sprockets (widths from memory)", () => {
    const { cassette } = identify(parts, { chainMm: { values: [6.6], sd: 0.1 } })
    expect(new Set(cassette.apart.flatMap(c => c.ids))).toEqual(new Set(['r17-9', 'r11-9', 'r15-9']))
  })
  test("a shop's own measurement moves the place of its part", () => {
    const own = partsOf(
      catalogueInForce([
        {
          kind: 'shifter',
          entry: 'r14-11',
          figure: 'pullMm',
          value: 2.9,
          note: '',
          at: '2026-11-01T00:00:00.000Z',
          by: 'Moss',
        },
      ]),
    )
    expect(identify(own, { clicks: exactly(10), cableAllMm: { values: [29], sd: 0.1 } }).shifter).toMatchObject({
      is: 'named',
      apart: [{ ids: ['r14-11'] }],
    })
    expect(identify(parts, { clicks: exactly(10), cableAllMm: { values: [29], sd: 0.1 } }).shifter.is).toBe('none')
  })
})

describe('readings', () => {
  test('repeats narrow by the root of their number, and scatter beyond the instrument widens', () => {
    expect(readingOf({ values: [10, 10, 10, 10], sd: 0.1 })).toEqual({ mean: 10, sd: 0.05 })
    expect(readingOf({ values: [9, 11], sd: 0.1 }).sd).toBeCloseTo(1, 9)
  })
  test("the ratio's relative errors add in squares", () => {
    const ratio = ratioOf({ pulleyMm: { values: [34], sd: 0.34 }, pulledMm: { values: [20], sd: 0.2 } })!
    expect(ratio.mean).toBeCloseTo(1.7, 9)
    expect(ratio.sd / ratio.mean).toBeCloseTo(Math.SQRT2 * 0.01, 9)
  })
  test('typed figures: a comma for the point, repeats with spaces', () => {
    expect(readTyped('cableAllMm', ' 17,4 17.6 ')).toEqual({ is: 'values', values: [17.4, 17.6] })
    expect(readTyped('clicks', '')).toEqual({ is: 'empty' })
    expect(INSTRUMENTS.ruler.sdMm).toBeGreaterThan(INSTRUMENTS.caliper.sdMm)
  })
  test.each([
    ['cableAllMm', '0'],
    ['cableAllMm', '-3'],
    ['cableAllMm', 'x'],
    ['cableAllMm', 'NaN'],
    ['sprockets', '1'],
    ['sprockets', '9.5'],
    ['clicks', '8 9'],
    ['stackMm', '900'],
    ['thicknessMm', '1.8 1.8 1.8 1.8 1.8 1.8 1.8 1.8 1.8 1.8 1.8 1.8 1.8'],
  ] as const)('%s refuses %s with what to do', (m, text) => {
    const typed = readTyped(m, text)
    expect(typed.is).toBe('wrong')
    expect(typed.is === 'wrong' && typed.words).toMatch(/type|whole|from|at most/)
  })
})
