import type { H3Event } from 'h3'
import { afterEach, expect, test } from 'vitest'
import { addressOf } from './address'

const event = (remoteAddress: string | undefined, forwarded?: string): H3Event =>
  ({
    context: {},
    node: { req: { headers: forwarded ? { 'x-forwarded-for': forwarded } : {}, socket: { remoteAddress } } },
  }) as unknown as H3Event
afterEach(() => {
  delete process.env.OCHO_BEHIND_PROXY
})

test('a header that anybody can write is not read, unless a proxy of one’s own stands before', () => {
  expect(addressOf(event('192.168.1.9', '10.0.0.1'))).toBe('192.168.1.9')
  process.env.OCHO_BEHIND_PROXY = '1'
  // what the client wrote comes first, what the proxy wrote last
  expect(addressOf(event('127.0.0.1', '1.1.1.1, 203.0.113.7'))).toBe('203.0.113.7')
  expect(addressOf(event('127.0.0.1'))).toBe('127.0.0.1')
  expect(addressOf(event('127.0.0.1', `${'x'.repeat(500)}`)).length).toBe(60)
})

test('an address is one however it is written', () => {
  expect(addressOf(event('::ffff:192.168.1.9'))).toBe('192.168.1.9')
  expect(addressOf(event(undefined))).toBe('unknown')
})
