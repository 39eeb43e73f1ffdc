import { expect, test } from 'vitest'
import { isSaid, SAID_AT_DOOR, withPhrase } from './history'

test('a phrase is added once, and taken out again', () => {
  const one = withPhrase('', 'Fell over')
  expect(one).toBe('Fell over')
  const two = withPhrase(one, 'New cable')
  expect(two).toBe('Fell over, new cable')
  expect(withPhrase(two, 'Fell over')).toBe('New cable')
  expect(withPhrase(two, 'New cable')).toBe('Fell over')
  expect(withPhrase('Fell over', 'Fell over')).toBe('')
})

test('the customer’s own words stay', () => {
  const said = withPhrase('Squeaks when it rains.', 'Fell over')
  expect(said).toBe('Squeaks when it rains, fell over')
  expect(withPhrase(said, 'Fell over')).toBe('Squeaks when it rains')
  expect(withPhrase('it fell over last week, squeaks', 'Fell over')).toBe('It  last week, squeaks')
})

test('it is seen in what was typed, however it is written', () => {
  expect(isSaid('it FELL OVER last week', 'Fell over')).toBe(true)
  expect(isSaid('', 'Fell over')).toBe(false)
})

test('every phrase offered is there once', () => {
  expect(new Set(SAID_AT_DOOR).size).toBe(SAID_AT_DOOR.length)
  expect(SAID_AT_DOOR.length).toBe(8)
})
