import { expect, test } from 'vitest'
import { toldBy } from './told'

// common practice, no source: such lines have no standard
test.each([
  ['9.1', { is: 'figure', value: 9.1, unit: null }],
  ['T +009.10 Nm', { is: 'figure', value: 9.1, unit: 'N·m' }],
  ['DIA1: -0,42 mm\r', { is: 'figure', value: -0.42, unit: 'mm' }],
  ['  5.4 N·m', { is: 'figure', value: 5.4, unit: 'N·m' }],
  ['- 1.25', { is: 'figure', value: -1.25, unit: null }],
  ['0.354 in', { is: 'unit', unit: 'in' }],
  ['80 lbf·ft', { is: 'unit', unit: 'lbf·ft' }],
  ['ERR 3', { is: 'none' }],
  ['LOW BAT 3.1', { is: 'none' }],
  ['OVERLOAD', { is: 'none' }],
  ['', { is: 'none' }],
  ['1.2.3', { is: 'none' }],
  ['1e9', { is: 'none' }],
  ['9'.repeat(300), { is: 'none' }],
])('%j', (line, told) => {
  expect(toldBy(line)).toEqual(told)
})
