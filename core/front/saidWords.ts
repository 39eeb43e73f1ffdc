import type { FrontSet, HandReach } from './events'

/** What the ledger says of the front; the next move's words, which only its bench says, stand in `words.ts`. */
export const HAND_WORDS: Record<HandReach, string> = {
  short: 'Does not reach the big ring',
  there: 'Stands over the big ring',
  past: 'Goes well past it',
}
export const FRONT_SET_WORDS: Record<FrontSet, string> = {
  position: 'Front cage set anew, clamped again',
  clamp: 'Front cable clamped again',
  cable: 'Front cable and housing renewed',
  lever: 'Front lever renewed',
  stops: 'Both front stops set anew',
}
