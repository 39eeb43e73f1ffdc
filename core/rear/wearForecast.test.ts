import { expect, test } from 'vitest'
import { wearForecast } from './wearForecast'

const at = (month: number) => `2026-${String(month).padStart(2, '0')}-01T00:00:00.000Z`

test('a chain wears on at its own pace the more often it was gauged, at the usual one before', () => {
  expect(wearForecast([], 0.75)).toBeNull()
  const once = wearForecast([{ at: at(1), percent: 0.35 }], 0.75)!
  // 0.4 per cent to go at 0.4 a year
  expect(once.likely.slice(0, 7)).toBe('2027-01')
  expect(once.from < once.likely && once.likely < once.to).toBe(true)
  const fast = wearForecast(
    [
      { at: at(1), percent: 0.1 },
      { at: at(5), percent: 0.4 },
      { at: at(9), percent: 0.7 },
    ],
    0.75,
  )!
  expect(fast.perYear).toBeGreaterThan(0.75)
  expect(fast.likely < '2026-11-01').toBe(true)
  const spread = (f: { from: string; to: string }) => Date.parse(f.to) - Date.parse(f.from)
  expect(spread(fast)).toBeLessThan(spread(once))
})

test('a chain that is shorter than before is another one; one at its limit is due now', () => {
  const renewed = wearForecast(
    [
      { at: at(1), percent: 0.8 },
      { at: at(6), percent: 0.05 },
    ],
    0.75,
  )!
  expect(renewed.likely > '2027-06').toBe(true)
  expect(wearForecast([{ at: at(3), percent: 0.9 }], 0.75)!.likely).toBe('2026-03-01')
})
