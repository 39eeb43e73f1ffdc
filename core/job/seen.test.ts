import { describe, expect, test } from 'vitest'
import { DRIVETRAIN_STANDARDS, sayStandard, standardFigures } from '../standards/drivetrains'
import { derailleurSeen } from '../rear/counted'
import { fittingSeen, nameBySeen, plainlyFits, saySeen, Seen, UNSEEN } from './seen'

const ids = (fits: { standard: { id: string } }[]) => fits.map(f => f.standard.id)

describe('what was seen leaves possible', () => {
  test('nothing counted: every one', () => {
    expect(fittingSeen(UNSEEN).usual).toHaveLength(DRIVETRAIN_STANDARDS.length)
  })
  test('sprockets rule out, the bar only makes less usual; together they are all of that many', () => {
    for (const lever of ['drop', 'trigger', 'grip', 'other', null] as const) {
      const { usual, less } = fittingSeen({ sprockets: 10, lever })
      expect([...ids(usual), ...ids(less)].sort()).toEqual(['r12-10', 'r13-10', 'r14-10', 'r15-10', 'r17-10'])
    }
    expect(ids(fittingSeen({ sprockets: 10, lever: 'trigger' }).usual)).toEqual(['r12-10', 'r13-10'])
  })
  test('most often here comes first, and is usual here whatever its bar', () => {
    const { usual } = fittingSeen({ sprockets: 10, lever: 'drop' }, { 'r15-10': 2, 'r12-10': 9 })
    expect(ids(usual).slice(0, 2)).toEqual(['r12-10', 'r15-10'])
  })
  test('a count in no table leaves none', () => {
    expect(fittingSeen({ sprockets: 14, lever: null })).toEqual({ usual: [], less: [] })
  })
})

describe('chosen without asking', () => {
  const plain = (sprockets: number, used: Record<string, number> = {}) =>
    plainlyFits(fittingSeen({ sprockets, lever: null }, used))?.standard.id ?? null
  test('the only one possible', () => expect(plain(6)).toBe('r17-6'))
  test('none of several that nobody has had here', () => expect(plain(10)).toBeNull())
  test('the one that is by far the most frequent here, and not one that is only a little', () => {
    expect(plain(10, { 'r14-10': 3, 'r17-10': 1 })).toBe('r14-10')
    expect(plain(10, { 'r14-10': 3, 'r17-10': 2 })).toBeNull()
    expect(plain(10, { 'r14-10': 2 })).toBeNull()
  })
  test('not the only usual one, where another bar would make others possible', () => {
    expect(plainlyFits(fittingSeen({ sprockets: 11, lever: 'grip' }))).toBeNull()
    const { usual } = fittingSeen({ sprockets: 9, lever: 'drop' })
    expect(ids(usual)).toEqual(['r17-9', 'r15-9'])
  })
})

test('every standard has a name for people, and name with figures tells all apart', () => {
  const named = DRIVETRAIN_STANDARDS.map(s => `${sayStandard(s)} ${standardFigures(s)}`)
  expect(new Set(named).size).toBe(named.length)
  expect(sayStandard(DRIVETRAIN_STANDARDS.find(s => s.id === 'r11-12w')!)).toBe('Twelve speeds, wide, flat bar')
})

test('a bike without a name is named by what was seen', () => {
  expect(nameBySeen({ ...UNSEEN, sprockets: 10, rings: 2, lever: 'drop' })).toBe('Drop bar, 2 × 10')
  expect(nameBySeen({ ...UNSEEN, sprockets: 1, lever: 'grip' })).toBe('Flat bar, one sprocket')
  expect(nameBySeen({ ...UNSEEN, sprockets: 8, lever: 'other' })).toBe('8 sprockets')
  expect(nameBySeen(UNSEEN)).toBe('Bike without a name')
})

test('in words', () => {
  expect(saySeen({ sprockets: 10, rings: 1, lever: 'trigger', front: 'linear-pull', rear: null })).toBe(
    '10 sprockets, 1 ring, flat, trigger lever, front: linear-pull arms',
  )
  expect(saySeen(UNSEEN)).toBe('nothing yet')
})

test('is there a derailleur?', () => {
  expect([null, { sprockets: null }, { sprockets: 1 }, { sprockets: 9 }].map(derailleurSeen)).toEqual([
    null,
    null,
    false,
    true,
  ])
})

test.each([
  [{ ...UNSEEN, sprockets: 0 }],
  [{ ...UNSEEN, sprockets: 1e9 }],
  [{ ...UNSEEN, rings: 2.5 }],
  [{ ...UNSEEN, lever: 'bare' }],
  [{ ...UNSEEN, extra: 1 }],
  [{}],
])('%j is not a look', seen => {
  expect(Seen.safeParse(seen).success).toBe(false)
})
