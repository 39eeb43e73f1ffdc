import { expect, test } from 'vitest'
import { isAddress, plainOrigin, secureOrigin } from '#core/shop/reach'
import { namesOf, type Machine } from './machineNames'

const machine = (more: Partial<Machine> = {}): Machine => ({
  host: 'Shop-PC.example.org',
  addresses: [
    { address: '127.0.0.1', family: 'IPv4', internal: true },
    { address: 'fd00::9', family: 'IPv6', internal: false },
    { address: 'fe80::1', family: 'IPv6', internal: false },
    { address: '192.168.1.20', family: 'IPv4', internal: false },
  ],
  tellsItsName: false,
  ...more,
})

test('an address leads where nothing tells the machine’s name to the network; a name where something does', () => {
  expect(namesOf(machine(), [])).toEqual(['192.168.1.20', 'fd00::9', 'shop-pc.local', 'shop-pc'])
  expect(namesOf(machine({ tellsItsName: true }), [])[0]).toBe('shop-pc.local')
  expect(namesOf(machine(), ['gears.lan'])[0]).toBe('gears.lan')
})

test('a machine without a network still has a name, and no name twice', () => {
  expect(namesOf(machine({ addresses: [] }), ['shop-pc.local'])).toEqual(['shop-pc.local', 'shop-pc'])
  expect(namesOf(machine({ host: 'localhost', addresses: [] }), [])).toEqual(['localhost.local'])
})

test('tablets open the name; the plain page goes by address, which no browser turns to HTTPS (RFC 6797, 8.1.1)', () => {
  const status = { names: ['shop-pc.local', '192.168.1.20'], name: 'shop-pc.local', httpsPort: 8443, joinPort: 8480 }
  expect(secureOrigin(status)).toBe('https://shop-pc.local:8443')
  expect(plainOrigin(status)).toBe('http://192.168.1.20:8480')
  expect(plainOrigin({ ...status, names: ['fd00::9'], name: 'fd00::9' })).toBe('http://[fd00::9]:8480')
  expect(plainOrigin({ ...status, names: ['shop-pc.local'] })).toBe('http://shop-pc.local:8480')
  expect(secureOrigin({ ...status, name: null })).toBeNull()
  expect(isAddress('10.0.0.1')).toBe(true)
  expect(isAddress('ten.local')).toBe(false)
})
