import { expect, test } from 'vitest'
import { CABLE_LIMIT_MM, WEARS, wearForecast } from './wearForecast'

const at = (month: number) => `2026-${String(month).padStart(2, '0')}-01T00:00:00.000Z`

test('a chain wears on at its own pace the more often it was gauged, at the usual one before', () => {
  expect(wearForecast(WEARS.chain, [], 0.75)).toBeNull()
  const once = wearForecast(WEARS.chain, [{ at: at(1), value: 0.35 }], 0.75)!
  // 0.4 per cent to go at 0.4 a year
  expect(once.likely.slice(0, 7)).toBe('2027-01')
  expect(once.from < once.likely && once.likely < once.to).toBe(true)
  const fast = wearForecast(
    WEARS.chain,
    [
      { at: at(1), value: 0.1 },
      { at: at(5), value: 0.4 },
      { at: at(9), value: 0.7 },
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
    WEARS.chain,
    [
      { at: at(1), value: 0.8 },
      { at: at(6), value: 0.05 },
    ],
    0.75,
  )!
  expect(renewed.likely > '2027-06').toBe(true)
  expect(wearForecast(WEARS.chain, [{ at: at(3), value: 0.9 }], 0.75)!.likely).toBe('2026-03-01')
})

test('a cable that was renewed starts anew on that day, whatever was found before', () => {
  const found = [
    { at: at(1), value: 0.9 },
    { at: at(3), value: 1.1 },
  ]
  expect(wearForecast(WEARS.cable, found, CABLE_LIMIT_MM)!.likely).toBe('2026-03-01')
  // 0.32 mm to go at 0.12 a year
  expect(wearForecast(WEARS.cable, found, CABLE_LIMIT_MM, at(3))!.likely.slice(0, 7)).toBe('2028-10')
  const quick = wearForecast(WEARS.cable, [...found, { at: at(12), value: 0.55 }], CABLE_LIMIT_MM, at(3))!
  expect(quick.likely < '2027-12').toBe(true)
  expect(wearForecast(WEARS.cable, [], CABLE_LIMIT_MM, at(3))!.likely).toBe(
    wearForecast(WEARS.cable, found, CABLE_LIMIT_MM, at(3))!.likely,
  )
})
