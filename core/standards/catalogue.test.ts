import { describe, expect, test } from 'vitest'
import { TABLE } from './catalogue'
import { DRIVETRAIN_STANDARDS } from './drivetrains'
import { Entry, figureOf, meanOf, sayFigure, type FigureValue } from './entry'
import { FIGURES, KINDS, ruleOf } from './kinds'
import { catalogueInForce, claimTrouble, inForceFigure, ownTrouble, ShopClaim, type ShopValue } from './shopValues'
import { chainRow } from './tables/chains'

const of = (kind: string, id: string) => TABLE.find(e => e.kind === kind && e.id === id)!
const figure = (kind: string, id: string, key: string): FigureValue => figureOf(of(kind, id), key)!.value

describe('the table', () => {
  test.each(TABLE.map(e => [`${e.kind} ${e.id}`, e] as const))(
    '%s: every figure has a rule, a unit, bounds it lies in and a source',
    (_, entry) => {
      expect(Entry.parse(entry)).toEqual(entry)
      expect(entry.figures.length).toBeGreaterThan(0)
      for (const f of entry.figures) {
        const rule = ruleOf(entry.kind, f.key)!
        expect(rule, f.key).toBeDefined()
        for (const v of [f.value].flat()) {
          expect(v).toBeGreaterThanOrEqual(rule.least)
          expect(v).toBeLessThanOrEqual(rule.most)
        }
        if (rule.shape === 'range') expect([f.value].flat()).toHaveLength(2)
        if (f.provenance === 'std') expect(f.source).toMatch(/ISO/)
      }
    },
  )
  test('no id twice within a kind, no kind without entries, and no figure of a kind that nothing has', () => {
    expect(new Set(TABLE.map(e => `${e.kind}/${e.id}`)).size).toBe(TABLE.length)
    for (const kind of KINDS) {
      const entries = TABLE.filter(e => e.kind === kind)
      expect(entries.length, kind).toBeGreaterThan(0)
      for (const rule of FIGURES[kind])
        if (!(kind === 'target' && rule.key === 'percent'))
          expect(
            entries.some(e => figureOf(e, rule.key)),
            `${kind} ${rule.key}`,
          ).toBe(true)
    }
  })
  test.each(DRIVETRAIN_STANDARDS.map(s => [s.id]))(
    '%s: pull × fitted ratio is the pitch, and cable over all clicks the pulls together',
    id => {
      const n = meanOf(figure('shifter', id, 'speeds'))
      expect(meanOf(figure('shifter', id, 'pullMm')) * meanOf(figure('derailleur', id, 'ratio'))).toBeCloseTo(
        meanOf(figure('cassette', id, 'pitchMm')),
        2,
      )
      expect(figure('shifter', id, 'cableMm')).toBeCloseTo((n - 1) * meanOf(figure('shifter', id, 'pullMm')), 1)
    },
  )
  // ISO 261/262, coarse and the fine ones met on cables, recalled
  test.each([
    ['m4', 4, 0.7],
    ['m5', 5, 0.8],
    ['m6', 6, 1],
    ['m7', 7, 1],
    ['m10', 10, 1],
  ])('%s has its standard pitch', (id, diameter, pitch) => {
    expect([figure('thread', id, 'diameterMm'), figure('thread', id, 'pitchMm')]).toEqual([diameter, pitch])
  })
  // ISO 606 / ISO 9633, recalled: 12.7 mm pitch, 7.75 mm roller; widths from memory
  test('chains', () => {
    for (const e of TABLE.filter(x => x.kind === 'chain'))
      expect([figure('chain', e.id, 'pitchMm'), figure('chain', e.id, 'rollerMm')]).toEqual([12.7, 7.75])
    expect([6, 7, 8, 9, 10, 11, 12].map(n => figure('chain', chainRow(n), 'outerMm'))).toEqual([
      7.1, 7.1, 7.1, 6.6, 5.9, 5.5, 5.25,
    ])
    expect([figure('chain', 'chain-10', 'wearPercent'), figure('chain', 'chain-11', 'wearPercent')]).toEqual([
      0.75, 0.5,
    ]) // common practice, no source
  })
  // from memory
  test("hub ratios rise, and the marked hubs' setting gears are 4, 4 and 6", () => {
    for (const e of TABLE.filter(x => x.kind === 'hub')) {
      const ratios = figure('hub', e.id, 'ratios') as number[]
      expect(ratios).toHaveLength(meanOf(figure('hub', e.id, 'speeds')))
      expect([...ratios].sort((a, b) => a - b)).toEqual(ratios)
    }
    expect(['marks-7', 'marks-8', 'marks-11'].map(id => figure('hub', id, 'referenceGear'))).toEqual([4, 4, 6])
    expect(
      (figure('hub', 'twin-14', 'ratios') as number[]).at(-1)! / (figure('hub', 'twin-14', 'ratios') as number[])[0],
    ).toBeCloseTo(5.26, 2)
  })
  // from memory: long lever × linear-pull arms about 8, short × dual-pivot about 5.4, short on linear-pull about 14,
  // long on dual-pivot about 3
  test.each([
    ['long', 'linear-pull', 8],
    ['short', 'dual-pivot', 5.4],
    ['short', 'linear-pull', 14.4],
    ['long', 'dual-pivot', 3],
  ])('%s lever on %s gains %f', (lever, brake, gain) => {
    expect(meanOf(figure('lever', lever, 'gain')) * meanOf(figure('brake', brake, 'armRatio'))).toBeCloseTo(gain, 0)
  })
})

describe('what a shop says of it', () => {
  const claim = (
    kind: ShopValue['kind'],
    entry: string,
    key: string,
    value: ShopValue['value'],
    by = 'Moss',
  ): ShopValue => ({ kind, entry, figure: key, value, note: '', at: '2026-11-01T08:00:00.000Z', by })
  const now = (values: ShopValue[], kind: string, id: string) =>
    catalogueInForce(values).find(e => e.kind === kind && e.id === id)!
  test('its measurement beats the table, the table stays beside it, and "back to the table" keeps the history', () => {
    const values = [claim('shifter', 'r14-10', 'pullMm', 2.75), claim('shifter', 'r14-10', 'pullMm', 2.78, 'Ishbel')]
    const measured = inForceFigure(now(values, 'shifter', 'r14-10'), 'pullMm')!
    expect(measured).toMatchObject({ value: 2.78, provenance: 'shop', table: { value: 2.8, provenance: 'memory' } })
    expect(measured.history.map(h => h.by)).toEqual(['Moss', 'Ishbel'])
    const back = inForceFigure(
      now([...values, claim('shifter', 'r14-10', 'pullMm', null)], 'shifter', 'r14-10'),
      'pullMm',
    )!
    expect(back).toMatchObject({ value: 2.8, provenance: 'memory' })
    expect(back.history).toHaveLength(3)
  })
  test('what follows is computed anew: cable over all clicks, the stack, and the ratio that fits the measured trio', () => {
    const values = [
      claim('shifter', 'r14-10', 'pullMm', [2.7, 2.8, 2.8, 2.8, 2.8, 2.8, 2.8, 2.8, 2.9]),
      claim('cassette', 'r14-10', 'pitchMm', 3.9),
    ]
    expect(inForceFigure(now(values, 'shifter', 'r14-10'), 'cableMm')).toMatchObject({
      value: 25.2,
      provenance: 'shop',
    })
    expect(inForceFigure(now(values, 'cassette', 'r14-10'), 'stackMm')!.value).toBeCloseTo(9 * 3.9 + 1.6, 9)
    expect(inForceFigure(now(values, 'derailleur', 'r14-10'), 'ratio')).toMatchObject({
      value: 1.393,
      provenance: 'memory',
    })
    expect(
      inForceFigure(now([...values, claim('derailleur', 'r14-10', 'ratio', 1.41)], 'derailleur', 'r14-10'), 'ratio'),
    ).toMatchObject({ value: 1.41, provenance: 'shop' })
    expect(inForceFigure(now([], 'derailleur', 'r14-10'), 'ratio')!.value).toBe(1.411)
  })
  test('nicknames come and go; a part of its own is there once its figures are', () => {
    expect(now([claim('hub', 'rod-3', 'nickname', 'Old faithful')], 'hub', 'rod-3').nickname).toBe('Old faithful')
    expect(
      now([claim('hub', 'rod-3', 'nickname', 'Old faithful'), claim('hub', 'rod-3', 'nickname', null)], 'hub', 'rod-3')
        .nickname,
    ).toBeNull()
    expect(now([claim('shifter', 'own-x', 'speeds', 8)], 'shifter', 'own-x')).toBeUndefined()
    const own = now(
      [claim('shifter', 'own-x', 'speeds', 8), claim('shifter', 'own-x', 'pullMm', 2.9)],
      'shifter',
      'own-x',
    )
    expect(own).toMatchObject({ own: true, title: '8-speed, 2.9 mm a click' })
    expect(inForceFigure(own, 'cableMm')!.value).toBeCloseTo(20.3, 9)
    expect(now([claim('derailleur', 'own-d', 'ratio', 1.25)], 'derailleur', 'own-d').figures).toHaveLength(1)
  })
  test.each([
    ['entry', { kind: 'shifter', entry: 'r99-9', figure: 'pullMm', value: 2.8 }],
    ['entry', { kind: 'shifter', entry: 'own-Bad Name', figure: 'pullMm', value: 2.8 }],
    ['figure', { kind: 'shifter', entry: 'r14-10', figure: 'weight', value: 2.8 }],
    ['figure', { kind: 'shifter', entry: 'r14-10', figure: 'cableMm', value: 25 }],
    ['figure', { kind: 'shifter', entry: 'r14-10', figure: 'speeds', value: 11 }],
    ['value', { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: 0 }],
    ['value', { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: -2.8 }],
    ['value', { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: [2.8, 2.8] }],
    ['value', { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: NaN }],
    ['value', { kind: 'shifter', entry: 'r14-10', figure: 'pullMm', value: 'much' }],
    ['value', { kind: 'torque', entry: 'pinch-bolt', figure: 'torqueNm', value: 5 }],
    ['value', { kind: 'torque', entry: 'pinch-bolt', figure: 'torqueNm', value: [6, 5] }],
    ['value', { kind: 'cassette', entry: 'own-one', figure: 'speeds', value: 1 }],
    ['value', { kind: 'thread', entry: 'm5', figure: 'pitchMm', value: [0.8, 0.8] }],
    ['value', { kind: 'hub', entry: 'rod-3', figure: 'nickname', value: 3 }],
  ] as const)('refuses nonsense, names %s and says what to do', (field, bad) => {
    const trouble = claimTrouble(bad as never)
    expect(trouble?.field).toBe(field)
    expect(trouble!.message.length).toBeGreaterThan(12)
    const parsed = ShopClaim.safeParse({ ...bad, note: '' })
    expect(parsed.success).toBe(false)
  })
  test('a list of an own part goes with its speeds', () => {
    const speeds = { kind: 'cassette', entry: 'own-c', figure: 'speeds', value: 5, note: '' } as const
    const list = { kind: 'cassette', entry: 'own-c', figure: 'pitchMm', value: [4, 4, 4], note: '' } satisfies ShopClaim
    expect(ownTrouble([speeds, list], [])?.message).toContain('or 4 of them')
    expect(ownTrouble([speeds, { ...list, value: [4, 4, 4, 4] }], [])).toBeNull()
    expect(ownTrouble([{ ...list, value: 4 }], [])).toBeNull()
  })
})

test('figures are said with their unit', () => {
  expect(sayFigure('torque', { key: 'torqueNm', value: [4, 7] })).toBe('4 to 7 N·m')
  expect(sayFigure('torque', { key: 'torqueNm', value: [25, 25] })).toBe('25 N·m')
  expect(sayFigure('shifter', { key: 'pullMm', value: [2.8, 2.9] })).toBe('2.8 2.9 mm')
})
