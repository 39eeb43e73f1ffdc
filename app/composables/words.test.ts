import { TZDate } from '@date-fns/tz'
import { differenceInCalendarDays, format } from 'date-fns'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { sayDay, sayTime, sayWhen } from './words'

const NOW = new Date('2026-11-27T10:00:00.000Z')

describe('times as a shop says them', () => {
  test.each([
    ['2026-11-27T16:00:00.000Z', 'Europe/Dublin', 'today 16:00'],
    ['2026-11-28T00:05:00.000Z', 'Europe/Dublin', 'tomorrow 00:05'],
    ['2026-11-26T23:59:00.000Z', 'Europe/Dublin', 'yesterday'],
    ['2026-11-29T09:00:00.000Z', 'Europe/Dublin', 'Sunday'],
    ['2026-12-09T09:00:00.000Z', 'Europe/Dublin', '9 December'],
    ['2026-11-20T09:00:00.000Z', 'Europe/Dublin', '20 November'],
    ['2026-11-27T12:00:00.000Z', 'Pacific/Auckland', 'tomorrow 01:00'],
  ])('%s in %s: %s', (iso, zone, words) => {
    expect(sayWhen(iso, zone, NOW)).toBe(words)
  })
  test('as a package of dates says them, over fifty years and the ends of summer time', () => {
    const zones = ['Europe/Dublin', 'Pacific/Auckland', 'America/St_Johns', 'Asia/Kathmandu', 'UTC']
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2000-01-01'), max: new Date('2050-01-01'), noInvalidDate: true }),
        fc.constantFrom(...zones),
        fc.integer({ min: -9 * 24, max: 9 * 24 }),
        (at, zone, hours) => {
          const iso = at.toISOString()
          const there = new TZDate(iso, zone)
          // "Sept" is how one of them shortens September
          expect(sayTime(iso, zone).replace('Sept', 'Sep')).toBe(format(there, 'd MMM yyyy, HH:mm'))
          const now = new Date(at.getTime() + hours * 3_600_000)
          const days = differenceInCalendarDays(there, new TZDate(now, zone))
          const words = sayWhen(iso, zone, now)
          if (days === 0) expect(words).toBe(`today ${format(there, 'HH:mm')}`)
          else if (days > 1 && days < 7) expect(words).toBe(format(there, 'EEEE'))
          else if (days !== 1 && days !== -1) expect(words).toBe(format(there, 'd MMMM'))
        },
      ),
      { numRuns: 400, seed: 7 },
    )
    expect(sayDay('2026-12-09')).toBe('9 December 2026')
  })
})
