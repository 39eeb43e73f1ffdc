import { expect, test } from 'vitest'
import { randomFrom } from './random'
import { sayTurns, sayTurnsOf, toEighth, toSixteenths } from './turns'

test.each([
  [0, '0'],
  [0.125, '1/8'],
  [-0.375, '3/8'],
  [0.5, '1/2'],
  [1.25, '1 1/4'],
  [2, '2'],
  [0.0625, '1/16'],
  [-1.9375, '1 15/16'],
])('%f turns are said %s', (turns, words) => {
  expect(sayTurns(turns)).toBe(words)
})
test('more than one turn is turns', () => {
  expect(sayTurnsOf(0.875)).toBe('7/8 turn')
  expect(sayTurnsOf(1)).toBe('1 turn')
  expect(sayTurnsOf(1.5)).toBe('1 1/2 turns')
})
test('the ledger counts whole sixteenths, the mechanic eighths', () => {
  expect(toSixteenths(0.375)).toBe(6)
  expect(toEighth(0.19)).toBe(0.25)
})
test('the seeded source repeats, differs by seed, and is normal enough', () => {
  const draw = (seed: number) => {
    const r = randomFrom(seed, 1)
    return [r.next(), r.next(), r.normal()]
  }
  expect(draw(5)).toEqual(draw(5))
  expect(draw(5)).not.toEqual(draw(6))
  const r = randomFrom(9)
  const normals = Array.from({ length: 20_000 }, () => r.normal())
  const mean = normals.reduce((s, x) => s + x, 0) / normals.length
  expect(Math.abs(mean)).toBeLessThan(4 / Math.sqrt(20_000)) // four standard errors
  expect(normals.filter(x => Math.abs(x) < 1.96).length / normals.length).toBeCloseTo(0.95, 2)
})
