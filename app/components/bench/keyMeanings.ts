/**
 * The keys of all benches, by what `KeyboardEvent.key` says, and what each means: the same on every one of them, so
 * that a hand need not look. A bench has those that it can use and no others. A foot pedal is a keyboard.
 */
export const KEY_MEANINGS = [
  { keys: ['1', '2', '3', '4', '5', '6', '7', '8'], shown: '1–8', means: 'the answers, in the order they lie' },
  { keys: ['0'], shown: '0', means: 'a whole pass, clean but for the gears marked' },
  { keys: ['ArrowLeft', 'ArrowRight'], shown: '←  →', means: 'aim a gear towards the spokes, the frame' },
  { keys: ['x'], shown: 'X', means: 'mark the aimed gear as not clean in the pass' },
  { keys: ['[', ']'], shown: '[  ]', means: 'wind the chosen screw one step in, out; Enter logs it' },
  { keys: ['b', 'h', 'l'], shown: 'B H L', means: 'choose barrel, H or L for the brackets' },
  { keys: ['r'], shown: 'R', means: 'where winding began to rub' },
  { keys: ['n'], shown: 'N', means: 'no rub found' },
  { keys: ['Enter'], shown: 'Enter', means: 'done as advised' },
  { keys: ['Backspace'], shown: '⌫', means: 'leave this advice: what else' },
  { keys: ['e'], shown: 'E', means: 'I did something else' },
  { keys: ['PageDown'], shown: 'Page down', means: 'on to the next stage' },
  { keys: ['Escape'], shown: 'Esc', means: 'leave it' },
  { keys: ['z'], shown: 'Z', means: 'take back' },
  { keys: ['?'], shown: '?', means: 'this list' },
] as const satisfies readonly { keys: readonly string[]; shown: string; means: string }[]
export type BenchKey = (typeof KEY_MEANINGS)[number]['keys'][number]
