import type { Trouble } from '~/stores/outbox'
import type { Asked } from './ask'

export const OFFLINE_WORDS = 'The server cannot be reached: check the network, then try again'

/** What is not as it should be, and what to do about it; empty when all is well. The one place that says so. */
export function sayTrouble(told: Trouble | Asked<unknown> | null | undefined): string {
  switch (told?.is) {
    case 'offline':
      return OFFLINE_WORDS
    case 'signed-out':
      return 'This device was signed out. What you tapped is kept here: sign in again.'
    case 'refused':
      return told.message
    default:
      return ''
  }
}
