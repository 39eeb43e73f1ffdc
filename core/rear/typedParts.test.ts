import { describe, expect, test } from 'vitest'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import {
  matchOfParts,
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
