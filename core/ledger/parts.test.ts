import { describe, expect, test } from 'vitest'
import { templateRun } from '../cable/templates'
import { telling } from '../chapter/testTold'
import { USUAL_FRONT } from '../front/parts'
import { usualHubs } from '../hub/kinds'
import { sayChance } from '../quantity/chance'
import { stockParts } from '../rear/typedParts'
import type { LedgerEvent } from './events'
import { partsOf, type JobPart, type Opinions } from './parts'
import { reduce } from './reduce'

const told = telling<LedgerEvent>()
const GEARED: LedgerEvent = { kind: 'arrived', parts: stockParts('r14-10') }
const BARE: LedgerEvent = { kind: 'arrived', parts: null }
const HUB: LedgerEvent = { kind: 'hubParts', parts: usualHubs()[0]!.parts }
const row = (events: LedgerEvent[], opinions?: Opinions) => partsOf(reduce(events.map(e => told(e))), opinions)
/** One part as it stands after these entries. */
const stands = (part: JobPart, events: LedgerEvent[], opinions?: Opinions) => {
  const found = row(events, opinions).find(p => p.part === part)
  return found ? `${found.is}: ${found.words}` : 'not there'
}

test('what a bike does not have is not shown; the sheet comes last', () => {
  expect(row([GEARED]).map(p => p.part)).toEqual(['front-brake', 'front', 'rear', 'cables', 'rear-brake', 'sheet'])
  expect(row([BARE]).map(p => p.part)).toEqual(['front-brake', 'hub', 'cables', 'rear-brake', 'sheet'])
  expect(row([GEARED, HUB]).map(p => p.part)).toEqual([
    'front-brake',
    'front',
    'rear',
    'hub',
    'cables',
    'rear-brake',
    'sheet',
  ])
})

describe('each part', () => {
  test('rear: untouched, in hand with its turns, right when believed or proven, kept by a crack', () => {
    const turn: LedgerEvent = { kind: 'turn', screw: 'barrel', sixteenths: 8 }
    const proved = (exceptions: number[]): LedgerEvent => ({ kind: 'proved', what: 'road', ring: null, exceptions })
    expect(stands('rear', [GEARED])).toBe('untouched: untouched')
    expect(stands('rear', [GEARED, { kind: 'said', complaint: 'slow-in', answer: null }])).toBe('hand: in hand')
    expect(stands('rear', [GEARED, { kind: 'turn', screw: 'B', sixteenths: 2 }])).toBe('hand: in hand')
    expect(stands('rear', [GEARED, { kind: 'gap', gapMm: 5, how: 'measured', at: 'stand' }])).toBe('hand: in hand')
    expect(stands('rear', [GEARED, turn])).toBe('hand: barrel 1/2 out')
    expect(stands('rear', [GEARED, turn], { rear: { right: 0.5 } })).toBe('hand: barrel 1/2 out')
    expect(stands('rear', [GEARED, turn], { rear: { right: 0.96 } })).toBe(`right: right, ${sayChance(0.96)}`)
    expect(stands('rear', [GEARED, turn, proved([])])).toBe('right: proven')
    expect(stands('rear', [GEARED, proved([]), proved([3])])).toBe('hand: in hand')
    const cracked: LedgerEvent = { kind: 'sensed', exceptions: ['cracked'], chainWearPercent: null }
    expect(stands('rear', [GEARED, cracked], { rear: { right: 0.99 } })).toMatch(/^keeps: /)
  })
  test('front: said or not, what was seen last, its turns, right when believed after a look', () => {
    const parts: LedgerEvent = { kind: 'frontParts', parts: USUAL_FRONT.double }
    const shift = (seen: 'clean' | 'no-climb'): LedgerEvent => ({ kind: 'frontShift', from: 0, to: 1, seen })
    expect(stands('front', [GEARED])).toBe('untouched: not said yet')
    expect(stands('front', [BARE, parts])).toBe('untouched: untouched')
    expect(stands('front', [GEARED, parts], { front: { right: 0.99 } })).toBe('untouched: untouched')
    expect(stands('front', [GEARED, parts, shift('no-climb')])).toMatch(/^hand: [a-z]/)
    expect(stands('front', [GEARED, parts, shift('clean')])).toBe('hand: in hand')
    expect(stands('front', [GEARED, parts, { kind: 'frontTurn', screw: 'barrel', sixteenths: 4 }])).toBe(
      'hand: barrel 1/4 out',
    )
    // right is believed, but nobody shifted back, or not since the last turn: not yet
    const back: LedgerEvent = { kind: 'frontShift', from: 1, to: 0, seen: 'clean' }
    const turn: LedgerEvent = { kind: 'frontTurn', screw: 'L', sixteenths: 2 }
    const sure = { front: { right: 0.9 } }
    expect(stands('front', [GEARED, parts, shift('clean')], sure)).toBe('hand: shifts to see')
    expect(stands('front', [GEARED, parts, shift('clean'), back, turn], sure)).toBe('hand: shifts to see')
    expect(stands('front', [GEARED, parts, turn, shift('clean'), back], sure)).toBe(`right: right, ${sayChance(0.9)}`)
  })
  test('cables: planned, begun, renewed', () => {
    const run: LedgerEvent = { kind: 'run', run: templateRun('external', 'rear') }
    const step = (s: 'fed' | 'clamped', of: 'rear' | 'front' = 'rear'): LedgerEvent => ({
      kind: 'cabled',
      run: of,
      step: s,
    })
    expect(stands('cables', [GEARED])).toBe('untouched: untouched')
    expect(stands('cables', [GEARED, run])).toBe('hand: 1 run planned')
    expect(stands('cables', [GEARED, run, step('fed')])).toBe('hand: in hand')
    expect(stands('cables', [GEARED, run, step('clamped')])).toBe('right: 1 renewed')
    expect(stands('cables', [GEARED, step('clamped'), step('fed', 'front')])).toBe('hand: 1 renewed')
  })
  test('brakes: as they stand, each by itself', () => {
    const drum: LedgerEvent = {
      kind: 'brakeParts',
      parts: { brake: 'front', kind: 'drum', lever: null, leverSide: null },
    }
    const proof = (holds: boolean): LedgerEvent => ({ kind: 'proof', brake: 'front', holds })
    expect(stands('front-brake', [BARE])).toBe('untouched: not proven')
    expect(stands('front-brake', [BARE, drum])).toBe('hand: not proven')
    expect(stands('front-brake', [BARE, proof(true)])).toBe('right: holds')
    expect(stands('rear-brake', [BARE, proof(true)])).toBe('untouched: not proven')
    expect(stands('front-brake', [BARE, proof(false)])).toBe('keeps: failed')
    const out: LedgerEvent = { kind: 'brakeSeen', brake: 'front', check: 'noodle', outcome: 'out' }
    expect(stands('front-brake', [BARE, out])).toBe('keeps: noodle out of its bracket')
    const none: LedgerEvent = {
      kind: 'brakeParts',
      parts: { brake: 'front', kind: 'none', lever: null, leverSide: null, none: 'coaster' },
    }
    expect(stands('front-brake', [BARE, none])).toMatch(/^right: none/)
  })
  test('hub: said or not, in hand, holds, or what keeps the bike', () => {
    const turn: LedgerEvent = { kind: 'hubTurn', sixteenths: 8 }
    const nut: LedgerEvent = { kind: 'hubSeen', check: 'lock', outcome: 'tight' }
    expect(stands('hub', [BARE])).toBe('untouched: not said yet')
    expect(stands('hub', [BARE, HUB])).toBe('untouched: untouched')
    expect(stands('hub', [BARE, HUB, turn])).toBe('hand: 1/2 turn tighter')
    expect(stands('hub', [BARE, HUB, { kind: 'hubRead', mm: 1 }])).toBe('hand: in hand')
    expect(stands('hub', [BARE, HUB, turn, nut, { kind: 'hubProof', holds: true }])).toBe('right: holds')
    expect(stands('hub', [BARE, HUB, { kind: 'hubProof', holds: false }])).toBe('keeps: failed')
    const slips: LedgerEvent = { kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: null }
    expect(stands('hub', [BARE, HUB, slips])).toBe('keeps: slips')
    expect(stands('hub', [BARE, HUB, { kind: 'hubSeen', check: 'lock', outcome: 'loose' }])).toBe(
      'keeps: lock nut loose',
    )
  })
  test('sheet: how many things keep it, ready, handed back', () => {
    const holds = (['front', 'rear'] as const).map((brake): LedgerEvent => ({ kind: 'proof', brake, holds: true }))
    expect(stands('sheet', [BARE])).toBe('untouched: 2 things keep it')
    expect(stands('sheet', [BARE, holds[0]!])).toBe('untouched: 1 thing keeps it')
    expect(stands('sheet', [BARE, { kind: 'proof', brake: 'front', holds: false }])).toBe('keeps: 2 things keep it')
    expect(stands('sheet', [BARE, ...holds])).toBe('hand: ready to go')
    expect(stands('sheet', [BARE, ...holds, { kind: 'handedBack', how: 'proven' }])).toBe('right: handed back')
  })
})
