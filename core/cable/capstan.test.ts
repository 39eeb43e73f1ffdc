import { expect, test } from 'vitest'
import { capstan } from './capstan'

// One full turn: a table of e^(μφ) in most mechanics handbooks.
test.each([
  [0.1, 1.87],
  [0.2, 3.51],
  [0.3, 6.59],
])('a full turn at μ %f takes %f times the tension', (mu, ratio) => {
  expect(capstan(mu, 360)).toBeCloseTo(ratio, 2)
})
test('no bend or no friction takes nothing, bends add up by multiplying', () => {
  expect(capstan(0.2, 0)).toBe(1)
  expect(capstan(0, 500)).toBe(1)
  expect(capstan(0.15, 90) * capstan(0.15, 120)).toBeCloseTo(capstan(0.15, 210), 12)
})
test.each([
  ['mu', -0.1, 90],
  ['mu', NaN, 90],
  ['wrapDeg', 0.1, -1],
  ['wrapDeg', 0.1, Infinity],
])('names %s', (name, mu, wrap) => {
  expect(() => capstan(mu, wrap)).toThrow(RangeError)
  expect(() => capstan(mu, wrap)).toThrow(name)
})
