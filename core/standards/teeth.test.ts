import { describe, expect, test } from 'vitest'
import { USUAL_TEETH } from './drivetrains'
import { readTeeth } from './teeth'

const NINE = [11, 13, 15, 17, 20, 23, 26, 30, 34]

// every form is common practice, no source
test.each([
  ['11 13 15 17 20 23 26 30 34', false],
  ['11,13,15,17,20,23,26,30,34', false],
  ['11-13-15-17-20-23-26-30-34', false],
  ['34/30/26/23/20/17/15/13/11', false],
  ['11T, 13T, 15T, 17T, 20T, 23T, 26T, 30T, 34T', false],
  ['11\t13\t15\n17\t20\t23\n26\t30\t34\n', false],
  ['9 speed: 11 13 15 17 20 23 26 30 34', false],
  ['11-34 9s', true],
  ['9 sp 11–34', true],
  ['11-34 9-speed', true],
])('%j is a nine-speed cassette', (typed, assumed) => {
  expect(readTeeth(typed)).toEqual({ teeth: NINE, assumed })
})

test('ends alone go by the speeds that are known already', () => {
  expect(readTeeth('11-34', 9)).toEqual({ teeth: NINE, assumed: true })
  expect(readTeeth('11-34')).toEqual({ teeth: [11, 34], assumed: false })
})

describe('between ends that are not usual', () => {
  test.each([
    ['11-32 10s', 10],
    ['12-13 6s', 6],
    ['10-52 12s', 12],
  ])('%s: so many, each larger than the last, from end to end', (typed, many) => {
    const read = readTeeth(typed) as { teeth: number[] }
    expect(read.teeth).toHaveLength(many)
    read.teeth.slice(1).forEach((t, i) => expect(t).toBeGreaterThan(read.teeth[i]!))
  })
  test('in even steps of ratio: from 10 to 40 in three is 10, 20, 40', () => {
    expect(readTeeth('10-40 3s')).toEqual({ teeth: [10, 20, 40], assumed: true })
  })
  test('the usual spread wherever its ends are these', () => {
    for (const [many, teeth] of Object.entries(USUAL_TEETH))
      expect(readTeeth(`${teeth[0]}-${teeth.at(-1)} ${many}s`)).toEqual({ teeth: [...teeth], assumed: true })
  })
})

test.each([
  ['', 'Teeth: type each sprocket'],
  ['11', 'Teeth: type each sprocket'],
  ['0 11', 'at most 60'],
  ['-3 11', 'below zero'],
  ['1e9 11', 'Teeth: type each sprocket'],
  ['eleven', 'Teeth: type each sprocket'],
  ['🚲', 'Teeth: type each sprocket'],
  ['<b>11 13</b>', 'Teeth: type each sprocket'],
  ['11 13 15 8s', '3 sprockets are typed, and 8 speeds'],
  ['11.5 13', 'Teeth: type each sprocket'],
  ['11-34 99s', 'at most 14'],
  ['11 '.repeat(200), 'at most 14'],
])('%# is refused with what to do', (typed, words) => {
  const read = readTeeth(typed)
  expect('wrong' in read ? read.wrong : read.teeth).toContain(words)
})
