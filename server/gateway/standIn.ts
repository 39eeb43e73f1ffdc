import type { Gateway } from './index'

/**
 * Stands in for a gateway: a message counts as sent and leaves nothing but its line. An address that says so refuses,
 * for the demo and the tests.
 */
export const standIn: Gateway = {
  name: 'Stand-in',
  standIn: true,
  send: ({ address }) =>
    Promise.resolve(
      /refus/i.test(address)
        ? { is: 'refused', why: 'The stand-in refuses this address: put the contact right, or phone' }
        : { is: 'sent' },
    ),
}
