import { describe, expect, test } from 'vitest'
import { LATE_DAYS, LOW_BYTES, nightWarnings, type NightStatus } from './nights'

const NOW = new Date('2026-11-28T09:00:00Z')
const ago = (hours: number) => new Date(NOW.getTime() - hours * 3_600_000)
const status = (of: Partial<NightStatus>): NightStatus => ({
  triedAt: null,
  goodAt: null,
  bytes: null,
  trouble: null,
  ...of,
})
const around = { now: NOW, since: ago(1), freeBytes: 50 * LOW_BYTES }

describe('what the Floor hears of the nights', () => {
  test('nothing, when the last good backup is of last night', () => {
    expect(nightWarnings(status({ goodAt: ago(7).toISOString() }), around)).toEqual([])
    expect(nightWarnings(status({ goodAt: ago(47).toISOString() }), around)).toEqual([])
  })
  test('that it is late, from the second day on, and why', () => {
    const late = status({ goodAt: ago(24 * LATE_DAYS).toISOString(), trouble: 'the second folder is not there' })
    expect(nightWarnings(late, around)).toEqual(['The last good backup is 2 days old: the second folder is not there'])
    // one that failed last night after a good one is said on the shop's page, and here once it matters
    expect(nightWarnings(status({ goodAt: ago(30).toISOString(), trouble: 'full' }), around)).toEqual([])
  })
  test('a new shop is left in peace for two days; one that never had a good one is not', () => {
    expect(nightWarnings(status({}), around)).toEqual([])
    expect(nightWarnings(status({}), { ...around, since: ago(72) })).toEqual(['There is no good backup yet'])
  })
  test('that the disk is nearly full, before taps cannot be kept', () => {
    const good = status({ goodAt: ago(7).toISOString() })
    expect(nightWarnings(good, { ...around, freeBytes: LOW_BYTES })).toEqual([])
    expect(nightWarnings(good, { ...around, freeBytes: LOW_BYTES - 1 })[0]).toMatch(/^Only 2047 MB are free/)
    expect(nightWarnings(good, { ...around, freeBytes: 0 })[0]).toMatch(/^Only 0 MB/)
  })
})
