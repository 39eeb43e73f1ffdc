import { describe, expect, test } from 'vitest'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import { sayParts, setupOf, type RearParts } from './parts'
import { sayKnown, sayNumbers } from './partsInWords'
import {
  matchOfParts,
  ofThisBike,
  ratioForSums,
  readTypedParts,
  standardById,
  typedFromParts,
  typedFromStandard,
  type TypedParts,
} from './typedParts'

const typed = typedFromStandard(standardById('r17-9')!)
const wrong = (change: Partial<TypedParts>) => {
  const read = readTypedParts({ ...typed, ...change })
  return read.is === 'wrong' ? read.fields : {}
}

test('every standard of the table reads back as typed, goes together and survives a round trip', () => {
  for (const s of DRIVETRAIN_STANDARDS) {
    const read = readTypedParts(typedFromStandard(s))
    if (read.is !== 'parts') throw new Error(`${s.id}: ${JSON.stringify(read.fields)}`)
    expect(matchOfParts(read.parts).verdict, s.id).toBe('works')
    const again = readTypedParts(typedFromParts(read.parts, 3.5))
    expect(again).toMatchObject({
      is: 'parts',
      parts: { barrel: { turnsOut: 3.5, assumed: false }, cassette: read.parts.cassette },
    })
  }
})

test('uneven pulls and pitches are typed as lists, with a comma for the point as people do', () => {
  const read = readTypedParts({ ...typed, pullMm: '2,5 2.5 2.6 2.6 2.5 2.5 2.55 2.55', pitchMm: '4.35' })
  expect(read).toMatchObject({
    is: 'parts',
    parts: { shifter: { pullMm: [2.5, 2.5, 2.6, 2.6, 2.5, 2.5, 2.55, 2.55] } },
  })
})

describe('nonsense is refused beside its line, with what to do', () => {
  test.each([
    ['speeds', { speeds: '0' }, 'from 2 to 14'],
    ['speeds', { speeds: '9.5' }, 'whole number'],
    ['pullMm', { pullMm: '9' }, 'from 1 to 6 mm'],
    ['pullMm', { pullMm: 'NaN' }, 'type a number'],
    ['pullMm', { pullMm: '2.5 2.6' }, 'one number, or 8'],
    ['pullRatio', { pullRatio: '' }, 'type a number'],
    ['pullRatio', { pullRatio: '17' }, 'from 0.5 to 3'],
    ['teeth', { teeth: '11' }, 'each sprocket'],
    ['teeth', { teeth: '11 51 52 53 54 55 56 57 58' }, 'A step of 40 teeth'],
    ['teeth', { teeth: '11 15 13 17 20 23 26 30 34' }, 'from the smallest'],
    ['pitchMm', { pitchMm: '-4' }, 'from 2.5 to 8'],
    ['turnsOut', { turnsOut: '7' }, 'further out than its travel'],
    ['rangeTurns', { rangeTurns: 'x' }, 'type its turns'],
  ] as const)('%s', (field, change, words) => {
    expect(wrong(change)[field]).toContain(words)
  })
})

test('a listed ratio is rounded: a part of the table counts with its own trio, a typed one as typed', () => {
  const shifter = typedFromStandard(standardById('r14-10')!)
  const read = readTypedParts({
    ...typedFromStandard(standardById('r12-10')!),
    shifterStandard: 'r14-10',
    pullMm: shifter.pullMm,
  })
  if (read.is !== 'parts') throw new Error('not read')
  const match = matchOfParts(read.parts)
  expect(match.ratio).toBeCloseTo(3.95 / 3.4, 9)
  expect(match.verdict).toBe('will-not-index')
  // 9 clicks: 9 × (2.8 × 1.1618 − 3.95) = −6.27 mm, half of it at each end
  expect(match.worstMm).toBeCloseTo(3.14, 2)
  expect(match.words).toContain('3.14 mm off')
})

// some derailleurs take the cable on either side of the pinch bolt, which changes the effective ratio by 10 to 15 %
// (from memory); less arm for the same cable is more travel: plain geometry
describe('a cable in the other of two places at its bolt', () => {
  const withAnchor = (anchor: TypedParts['anchor'], change: Partial<TypedParts> = {}) => {
    const read = readTypedParts({ ...typed, ...change, anchor })
    if (read.is !== 'parts') throw new Error(JSON.stringify(read.fields))
    return read.parts
  }
  const usual = withAnchor('')

  test('nearer the pivot every click moves the pulley an eighth further, farther from it as much less', () => {
    const [near, far] = [withAnchor('nearer'), withAnchor('farther')]
    for (const [parts, by] of [
      [near, 1.125],
      [far, 1 / 1.125],
    ] as const) {
      expect(ratioForSums(parts) / ratioForSums(usual)).toBeCloseTo(by, 9)
      expect(setupOf(parts).pullRatio / setupOf(usual).pullRatio).toBeCloseTo(by, 9)
      expect(matchOfParts(parts).verdict).toBe('will-not-index')
      expect(typedFromParts(parts, null).anchor).toBe(parts.derailleur.anchor)
    }
    expect(sayParts(near)).toContain('cable nearer the pivot')
    expect(sayNumbers(near)[1]!.figure).toMatch(/^1\.91\d*, cable nearer the pivot/)
  })

  test('it makes parts meet that do not, and the fix that the match names is this one', () => {
    const off = withAnchor('', { pullMm: '2.26' })
    expect(matchOfParts(off).verdict).toBe('will-not-index')
    expect(matchOfParts(withAnchor('nearer', { pullMm: '2.26' })).verdict).toBe('works')
  })

  test('a list of ratios along the travel is moved as one', () => {
    const list = '1.6 1.62 1.65 1.66 1.68 1.7 1.71 1.72'
    const by = ratioForSums(withAnchor('nearer', { ratio: list })) / ratioForSums(withAnchor('', { ratio: list }))
    expect(by).toBeCloseTo(1.125, 9)
  })

  test('a ratio measured on this bike was measured where the cable lies, and is no figure of such derailleurs', () => {
    const measured = { derailleurKnown: 'measured' } as const
    expect(ratioForSums(withAnchor('nearer', measured))).toBe(ratioForSums(withAnchor('', measured)))
  })

  test('it is of this bike: other parts chosen for it leave it', () => {
    expect(ofThisBike({ ...typed, anchor: 'farther' })).toMatchObject({ anchor: 'farther', spring: 'high' })
  })
})

// one turn moves a sleeve by its screw's pitch: ISO 261 lists 0.8 mm for M5 and 1 mm for M6 (recalled)
describe('a barrel’s thread, measured over four turns', () => {
  const read = (sleeveMm: string, sleeveKnown: TypedParts['sleeveKnown'] = '') => {
    const r = readTypedParts({ ...typed, sleeveMm, sleeveKnown })
    return r.is === 'parts' ? r.parts : r.fields
  }
  const parts = (...typed: Parameters<typeof read>) => read(...typed) as RearParts

  test('3.2 mm is M5, 4 mm is M6; left empty it is the usual one, and nothing is said to be known', () => {
    expect(parts('3.2').barrel).toMatchObject({ threadMm: 0.8, known: 'measured' })
    expect(parts('4,0').barrel).toMatchObject({ threadMm: 1, known: 'measured' })
    expect(parts('4', 'shop').barrel).toMatchObject({ threadMm: 1, known: 'shop' })
    expect(parts(' ').barrel.threadMm).toBe(0.8)
    expect(parts(' ').barrel).not.toHaveProperty('known')
  })

  test('the advice and the clean window go by it: the same cable in fewer turns', () => {
    const [usual, coarse] = [parts(''), parts('4')]
    expect(setupOf(coarse).barrelPitchMm).toBe(1)
    expect(matchOfParts(coarse).windowTurns / matchOfParts(usual).windowTurns).toBeCloseTo(0.8, 9)
  })

  test('the sheet and the line under the parts say what was measured, and only that', () => {
    expect(sayKnown(parts('4'))).toMatch(/; a turn of the barrel 1 mm, measured on this bike$/)
    expect(sayKnown(parts('4', 'shop'))).toMatch(/as measured in this shop$/)
    expect(sayKnown(parts(''))).not.toContain('barrel')
    expect(sayNumbers(parts('3')).at(-1)).toEqual({
      what: 'A turn of the barrel',
      figure: '0.75 mm, measured on this bike',
    })
    expect(sayNumbers(parts('')).map(n => n.what)).not.toContain('A turn of the barrel')
  })

  test('nonsense is refused at its field with what to do', () => {
    for (const nonsense of ['0', '12', '-3.2', 'four', '1.9', '6.1'])
      expect(read(nonsense), nonsense).toEqual({
        sleeveMm: '4 turns bring a sleeve out by 2 to 6 mm: count and measure again, or leave it empty',
      })
  })

  test('it comes back from the last sheet as it was known; measured, it stays when other parts are chosen', () => {
    for (const known of ['measured', 'shop'] as const)
      expect(typedFromParts(parts('4', known), null)).toMatchObject({ sleeveMm: '4', sleeveKnown: known })
    expect(typedFromParts(parts(''), null)).toMatchObject({ sleeveMm: '', sleeveKnown: '' })
    expect(ofThisBike({ ...typed, sleeveMm: '4', sleeveKnown: 'measured' })).toMatchObject({ sleeveMm: '4' })
    expect(ofThisBike({ ...typed, sleeveMm: '4', sleeveKnown: 'shop' })).not.toHaveProperty('sleeveMm')
  })
})
