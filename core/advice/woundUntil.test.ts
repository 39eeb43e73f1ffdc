import { describe, expect, test } from 'vitest'
import type { Heard } from '../response/heard'
import { woundUntil } from './woundUntil'

const shift = (heard: Heard) => [{ kind: 'shift' as const, from: 2, to: 3, heard }]
const barrel = (turns: number) => ({ do: 'turn', screw: 'barrel', turns }) as const
const inward = { lastInward: true }
const outward = { lastInward: false }

describe('winding while pedalling until it is right', () => {
  // common practice, no source: winding until the chain climbs, or until it is quiet, are measurements
  test('a chain that stayed climbs, and only just; one that was late or rubbed goes quiet', () => {
    expect(woundUntil(barrel(0.5), shift('none'), inward)).toEqual({ word: 'Climbed', then: 'slow' })
    expect(woundUntil(barrel(0.5), shift('slow'), inward)).toEqual({ word: 'Quiet', then: 'clean' })
    expect(woundUntil(barrel(0.5), shift('rubs-out'), inward)).toEqual({ word: 'Quiet', then: 'clean' })
    expect(woundUntil(barrel(-0.5), shift('rubs-in'), outward)).toEqual({ word: 'Quiet', then: 'clean' })
  })
  test('is no measurement where the friction is taken up first, the rub is on the other side, or nothing was heard', () => {
    expect(woundUntil(barrel(-0.5), shift('rubs-in'), inward)).toBeNull()
    expect(woundUntil(barrel(0.5), shift('rubs-in'), inward)).toBeNull()
    expect(woundUntil(barrel(0.5), shift('clean'), inward)).toBeNull()
    expect(woundUntil(barrel(0.5), shift('jumps'), inward)).toBeNull()
    expect(woundUntil(barrel(0.5), [], inward)).toBeNull()
    expect(woundUntil({ do: 'turn', screw: 'L', turns: 0.5 }, shift('none'), inward)).toBeNull()
  })
  test('a low-normal derailleur is the mirror', () => {
    expect(woundUntil(barrel(-0.5), shift('none'), inward, 'low')).toEqual({ word: 'Climbed', then: 'slow' })
    expect(woundUntil(barrel(0.5), shift('none'), inward, 'low')).toBeNull()
  })
})
