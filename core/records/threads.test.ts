import { describe, expect, test } from 'vitest'
import type { Seen } from './question'
import { threadHere, threadsLearnt } from './threads'

const seen = (bikes: number, quarter: number, median = quarter, threeQuarters = median): Seen => ({
  bikes,
  least: quarter,
  quarter,
  median,
  threeQuarters,
  most: threeQuarters,
})

// which pitches there are: ISO 261, recalled; how far they must agree is our own rule
describe('the thread of a shop’s barrels', () => {
  test('five bikes that agree tell it, four do not', () => {
    expect(threadHere(seen(4, 1))).toBeNull()
    expect(threadHere(seen(5, 1))).toBe(1)
    expect(threadHere(undefined)).toBeNull()
  })
  test('what a caliper leaves is taken off: no thread lies between two pitches', () => {
    expect(threadHere(seen(6, 0.98, 1.01, 1.02))).toBe(1)
    expect(threadHere(seen(6, 0.49, 0.52, 0.53))).toBe(0.5)
    expect(threadHere(seen(6, 0.79, 0.81, 0.82))).toBe(0.8)
    expect(threadHere(seen(6, 0.9))).toBeNull()
  })
  test('bikes that disagree leave the usual one alone, either way', () => {
    expect(threadHere(seen(8, 0.8, 1, 1))).toBeNull()
    expect(threadHere(seen(8, 0.5, 0.5, 0.8))).toBeNull()
    expect(threadHere(seen(8, 0.5, 0.5, 0.52))).toBe(0.5)
  })
  test('it is told as the shop’s own figure of that derailleur, with how many bikes say so', () => {
    const at = '2026-11-30T10:00:00.000Z'
    expect(
      threadsLearnt([
        { standard: 'r14-10', seen: seen(7, 1), at },
        { standard: 'r17-8', seen: seen(2, 1), at },
      ]),
    ).toEqual([
      {
        kind: 'derailleur',
        entry: 'r14-10',
        figure: 'turnMm',
        value: 1,
        note: 'measured on 7 bikes',
        at,
        by: 'the records',
      },
    ])
  })
})
