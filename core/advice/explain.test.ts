import { expect, test } from 'vitest'
import type { Move } from './contract'
import { cautionOf, headOf, sayMove, seenFrom } from './explain'
import { declineKey } from './moveKey'

const TEETH = [11, 13, 15, 17, 19, 21, 24, 28, 32, 36]
const EVERY: readonly Move[] = [
  { do: 'shift', to: 2 },
  { do: 'turn', screw: 'barrel', turns: 0.25 },
  { do: 'turn', screw: 'L', turns: -0.5 },
  { do: 'sight', at: 'H' },
  { do: 'offset', click: 4 },
  { do: 'edge', click: 3, way: 'out' },
  { do: 'hanger' },
  { do: 'pass', to: 9, back: true },
  { do: 'reclamp', barrelTurnsOut: 2 },
  { do: 'replace', part: 'cable', cause: 'friction' },
  { do: 'done' },
]

test('every move is said in the trade’s words, with no number that is none', () => {
  for (const move of EVERY) {
    const { small, big } = headOf(move, TEETH, { right: 0.9 })
    for (const words of [small, big, sayMove(move, TEETH)]) {
      expect(words, move.do).not.toMatch(/NaN|undefined|null|\[object/)
      expect(words.length).toBeGreaterThan(2)
    }
  }
  expect(headOf({ do: 'pass', to: 9, back: true }, TEETH, { right: 0.5 }).big).toBe('To the 36, back')
})

// common practice, no source: out and in are told from the end that a hand holds
test('a turn says from where it is seen; what is no turn says nothing of it', () => {
  expect(EVERY.map(seenFrom).filter(Boolean)).toEqual(['seen from the housing end', 'seen from the head of the screw'])
})

test('where a hand could be hurt the caution is there', () => {
  const cautioned = EVERY.filter(m => cautionOf(m) !== null).map(m => m.do)
  expect(cautioned).toEqual(['turn', 'sight', 'edge', 'hanger', 'reclamp', 'replace'])
  expect(cautionOf({ do: 'turn', screw: 'L', turns: 0.25 })).toContain('spoke')
})

test('what is left is left by what it is about, not by its amount', () => {
  expect(declineKey({ do: 'turn', screw: 'L', turns: 0.5 })).toBe(declineKey({ do: 'turn', screw: 'L', turns: -1 }))
  expect(declineKey({ do: 'shift', to: 2 })).toBe(declineKey({ do: 'pass', to: 9, back: true }))
  expect(declineKey({ do: 'replace', part: 'cable', cause: 'friction' })).toBe('replace cable')
  expect(declineKey({ do: 'edge', click: 3, way: 'out' })).toBe('edge 3 out')
  expect(new Set(EVERY.map(declineKey)).size).toBe(EVERY.length - 1)
})
