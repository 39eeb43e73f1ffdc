import { describe, expect, test } from 'vitest'
import { leftOut, ringFor, ringsOf, sayRing } from './rings'

describe('which ring to stand on', () => {
  // common practice, no source: H and small sprockets on the big ring, L and large ones on the small ring
  test.each([
    ['H', 2, 'big'],
    ['L', 2, 'small'],
    ['index', 2, 'big'],
    ['index', 3, 'middle'],
    ['H', 3, 'big'],
    ['L', null, 'small'],
    ['index', 1, null],
  ] as const)('%s with %s rings: %s', (what, count, ring) => {
    expect(ringFor(what, count)).toBe(ring)
  })

  test('a single ring names none, and none is chosen among', () => {
    expect(sayRing('L', 1)).toBeNull()
    expect(ringsOf(1)).toEqual([])
    expect(ringsOf(2)).toEqual(['small', 'big'])
  })

  test('pairs that cross are left out, unless the shop asks for them', () => {
    expect(leftOut('big', 11)).toEqual([10])
    expect(leftOut('small', 11)).toEqual([0])
    expect(leftOut('middle', 11)).toEqual([])
    expect(leftOut('big', 11, true)).toEqual([])
    expect(leftOut(null, 11)).toEqual([])
  })
})
