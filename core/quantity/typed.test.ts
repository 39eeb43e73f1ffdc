import { expect, test } from 'vitest'
import { typedNumber, typedNumbers } from './typed'

test.each([
  ['2,78', 2.78],
  [' -0.42 ', -0.42],
  ['−0,5', -0.5],
  ['0', 0],
  ['', NaN],
  ['  ', NaN],
  ['x', NaN],
  ['1 2', NaN],
])('%j is %f', (text, value) => {
  expect(typedNumber(text)).toEqual(value)
})
test.each([
  ['17,4 17.6', [17.4, 17.6]],
  ['34/50', [34, 50]],
  ['2.8; 2.9', [2.8, 2.9]],
  ['11, 13, 15', [11, 13, 15]],
  ['', []],
  ['9 x', [9, NaN]],
])('%j is %j', (text, values) => {
  expect(typedNumbers(text)).toEqual(values)
})
