import type { Heard } from '#core/response/heard'

/** What was heard, by key, in the order the keys lie. */
export const HEARD_KEYS: readonly {
  key: string
  heard: Heard
  word: string
  more: string
  tone: 'clean' | 'plain' | 'stop'
}[] = [
  { key: '1', heard: 'clean', word: 'Clean', more: 'quiet', tone: 'clean' },
  { key: '2', heard: 'rubs-in', word: 'Rubs', more: 'on larger', tone: 'plain' },
  { key: '3', heard: 'rubs-out', word: 'Rubs', more: 'on smaller', tone: 'plain' },
  { key: '4', heard: 'slow', word: 'Slow', more: 'goes late', tone: 'plain' },
  { key: '5', heard: 'none', word: 'Stayed', more: 'did not go', tone: 'plain' },
  { key: '6', heard: 'jumps', word: 'Jumped', more: 'one too far', tone: 'plain' },
  { key: '7', heard: 'skips', word: 'Skips', more: 'on teeth', tone: 'plain' },
  { key: '8', heard: 'off', word: 'Came off', more: 'an end', tone: 'stop' },
]
