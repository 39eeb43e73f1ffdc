import { partsOf } from '../standards/partsOfShop'
import { expect, test } from 'vitest'
import { identify } from '../standards/identify'
import type { Readings } from '../standards/measuring'
import { catalogueInForce } from '../standards/shopValues'
import { givesNumbers, measuredParts, placesOf, sayMeasured } from './measuredParts'
import { standardById, typedFromStandard, withMeasured } from './typedParts'

const catalogue = catalogueInForce([])
const parts = partsOf(catalogue)
const caliper = (...values: number[]) => ({ values, sd: 0.1 })
const gives = (readings: Readings) => measuredParts(catalogue, identify(parts, readings), readings)

// common practice, no source: pull = cable over all clicks ÷ clicks; pitch = (stack − a thickness) ÷ gaps; ratio =
// pulley ÷ cable
test('numbers as measured, standards as named; parts of the same numbers go by the trio they share', () => {
  const all = gives({
    clicks: { values: [9], sd: 0 },
    cableAllMm: caliper(25.1, 25.3),
    pulleyMm: caliper(28.1),
    pulledMm: caliper(20),
    sprockets: { values: [10], sd: 0 },
    stackMm: caliper(37.2),
  })
  expect(all).toMatchObject({
    shifterStandard: 'r14-10',
    speeds: '10',
    pullMm: '2.8',
    shifterKnown: 'measured',
    ratio: '1.405',
    pitchMm: '3.956',
    cassetteStandard: 'r14-10',
    cassetteKnown: 'measured',
  })
  expect(sayMeasured(all)).toContain('9 clicks of 2.8 mm (r14-10)')
  expect(givesNumbers(all)).toBe(true)
})
test('a part in no table gives its numbers and no name', () => {
  expect(gives({ clicks: { values: [9], sd: 0 }, cableAllMm: caliper(46) })).toEqual({
    shifterStandard: '',
    speeds: '10',
    pullMm: '5.111',
    shifterKnown: 'measured',
  })
  expect(gives({ pulleyMm: caliper(30), pulledMm: caliper(12) })).toEqual({
    derailleurStandard: '',
    pullRatio: '2.5',
    ratio: '2.5',
    derailleurKnown: 'measured',
  })
})
test("a measured thickness counts before the table's; without a count there is nothing to use", () => {
  const stack: Readings = { sprockets: { values: [10], sd: 0 }, stackMm: caliper(37.2) }
  expect(Number(gives({ ...stack, thicknessMm: caliper(2) }).pitchMm)).toBeCloseTo(35.2 / 9, 3)
  expect(Number(gives(stack).pitchMm)).toBeCloseTo(35.6 / 9, 3)
  expect(gives({ cableAllMm: { values: [17.45], sd: 0.5 } })).toEqual({})
  expect(givesNumbers({})).toBe(false)
})
test('teeth that were typed stay while their number is the same', () => {
  const was = { ...typedFromStandard(standardById('r14-10')!), teeth: '12 13 15 17 19 21 23 25 27 30' }
  expect(withMeasured(was, { teeth: '11 13 15 17 19 21 24 28 32 36', pitchMm: '3.9' })).toMatchObject({
    teeth: was.teeth,
    pitchMm: '3.9',
  })
  expect(withMeasured(was, { teeth: '11 13 15 17 20 23 26 30 34' }).teeth).toBe('11 13 15 17 20 23 26 30 34')
  expect(withMeasured({ ...was, teeth: '' }, { teeth: '11 13' }).teeth).toBe('11 13')
})
test('every part has its place on its rule', () => {
  const places = placesOf(parts)
  expect([places.shifter.length, places.derailleur.length, places.cassette.length]).toEqual([21, 21, 21])
  expect(places.shifter.find(p => p.id === 'r17-8')!.at).toBeCloseTo(19.6, 9)
})
