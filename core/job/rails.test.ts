import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { dayNumber, railOf, railsOf, shownOn } from './rails'

const NOW = new Date('2026-11-27T10:00:00.000Z')

describe('rails by promise', () => {
  test.each([
    ['2026-11-27T09:59:59.000Z', 'Europe/Dublin', 'late'],
    ['2026-11-20T12:00:00.000Z', 'Europe/Dublin', 'late'],
    ['2026-11-27T10:00:00.000Z', 'Europe/Dublin', 'today'],
    ['2026-11-27T23:59:00.000Z', 'Europe/Dublin', 'today'],
    ['2026-11-28T00:00:00.000Z', 'Europe/Dublin', 'tomorrow'],
    ['2026-11-29T00:00:00.000Z', 'Europe/Dublin', 'later'],
    // the shop's own midnight counts, not the server's
    ['2026-11-27T11:30:00.000Z', 'Pacific/Auckland', 'tomorrow'],
  ])('%s in %s is %s', (at, zone, rail) => {
    expect(railOf(at, NOW, zone)).toBe(rail)
  })
  test('every bike hangs from one rail, in the order of promises, and empty rails are not drawn', () => {
    const job = fc.record({
      promisedAt: fc
        .date({ min: new Date('2026-11-20'), max: new Date('2026-12-10'), noInvalidDate: true })
        .map(d => d.toISOString()),
      waits: fc.constantFrom(null, 'parts' as const),
      by: fc.constant(null),
    })
    fc.assert(
      fc.property(fc.array(job, { maxLength: 60 }), jobs => {
        const rails = railsOf(jobs, NOW, 'Europe/Dublin')
        expect(rails.flatMap(r => r.jobs)).toHaveLength(jobs.length)
        expect(rails.every(r => r.jobs.length > 0)).toBe(true)
        const order = rails.flatMap(r => r.jobs.map(j => j.promisedAt))
        expect(order).toEqual([...order].sort())
      }),
      { numRuns: 100, seed: 3 },
    )
  })
  test('days are counted over the end of summer time', () => {
    const days = ['2026-10-24T12:00:00Z', '2026-10-25T12:00:00Z', '2026-10-26T12:00:00Z'].map(d =>
      dayNumber(new Date(d), 'Europe/Dublin'),
    )
    expect([days[1]! - days[0]!, days[2]! - days[1]!]).toEqual([1, 1])
  })
})

test('the Floor narrowed: all, mine, or what waits for something', () => {
  const job = { waits: 'parts' as const, by: 'me' }
  expect(shownOn(job, 'all', null)).toBe(true)
  expect([shownOn(job, 'mine', 'me'), shownOn(job, 'mine', 'you')]).toEqual([true, false])
  expect([shownOn({ waits: null, by: null }, 'mine', null), shownOn(job, 'word', 'me')]).toEqual([false, false])
  expect(shownOn(job, 'parts', null)).toBe(true)
})
