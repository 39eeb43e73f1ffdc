import { expect, test } from 'vitest'
import { addressOf, asksToStop, Desk, isQuiet, sayMessage, sayWhy, USUAL_DESK } from './desk'

test.each([
  ['una@ferry.example', { way: 'mail', address: 'una@ferry.example' }],
  ['Una, 085 555 0100', { way: 'text', address: '0855550100' }],
  ['+353 85 555-0100', { way: 'text', address: '+353855550100' }],
  // an address is surer than a number beside it
  ['085 555 0100, una@ferry.example', { way: 'mail', address: 'una@ferry.example' }],
  ['room 12', null],
  ['', null],
  ['at the harbour', null],
])('%s can be written to as %j', (contact, to) => {
  expect(addressOf(contact)).toEqual(to)
})

test('quiet hours may lie over midnight; the same hour at both ends is never quiet', () => {
  const quiet = (from: number, to: number) =>
    Array.from({ length: 24 }, (_, h) => h).filter(h => isQuiet({ quietFrom: from, quietTo: to }, h))
  expect(quiet(20, 8)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 20, 21, 22, 23])
  expect(quiet(12, 14)).toEqual([12, 13])
  expect(quiet(9, 9)).toEqual([])
  expect(USUAL_DESK).toEqual({ quietFrom: 20, quietTo: 8, placesADay: 4 })
  expect(Desk.safeParse({ quietFrom: 24, quietTo: 8, placesADay: 0 }).success).toBe(false)
})

test('one sentence says why, and a message how to be left alone', () => {
  const why = sayWhy({ bike: 'Petrel lane', settle: { bedded: false }, daysSince: 15 })
  expect(why).toBe(
    'Petrel lane had a new gear cable 2 weeks ago: by now it has bedded in, and the barrel wants a touch before a gear goes.',
  )
  expect(sayWhy({ bike: 'Petrel lane', settle: null, daysSince: 6 })).toContain('set up here 6 days ago')
  const message = sayMessage({ shop: 'Slipway', why, day: 'Friday 12 December' })
  expect(message).toContain('STOP')
  expect(message.length).toBeLessThan(400)
  expect(message).not.toContain('!')
  expect(['STOP', ' stop please', 'no more of these', 'Unsubscribe'].every(asksToStop)).toBe(true)
  expect(['Friday, but stop by first', 'I cannot stop in', 'yes'].some(asksToStop)).toBe(false)
})
