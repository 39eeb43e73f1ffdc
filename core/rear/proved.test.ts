import { describe, expect, test } from 'vitest'
import { telling } from '../chapter/testTold'
import type { LedgerEvent } from '../ledger/events'
import { reduce } from '../ledger/reduce'
import { TABLE_ONLY } from '../standards/inForce'
import { rearFacts } from './facts'
import { stockParts } from './typedParts'

const told = telling<LedgerEvent>()
const rearOf = (...events: LedgerEvent[]) =>
  reduce([told({ kind: 'arrived', parts: stockParts('r14-10') }), ...events.map(e => told(e))]).rear
const seen: LedgerEvent = { kind: 'sight', at: 'L', offsetMm: 0 }
const proved = (ring: 'small' | 'big' | null, exceptions: number[] = [], what: 'ring' | 'several' | 'road' = 'ring') =>
  ({ kind: 'proved', what, ring, exceptions }) satisfies LedgerEvent
const heard = (...events: LedgerEvent[]) =>
  rearOf(seen, ...events).bench.flatMap(e =>
    e.kind === 'shift' ? [`${e.from}>${e.to} ${e.heard}`] : e.kind === 'unclean' ? [`${e.to} ${e.ways.join()}`] : [],
  )

describe('what proving hears counts as heard', () => {
  test('on the big ring every gear but the largest, on the small one but the smallest, from both sides', () => {
    const big = heard(proved('big'))
    expect(big).toHaveLength(2 * 8)
    expect(big.every(h => h.endsWith('clean') && !h.includes('>9'))).toBe(true)
    const small = heard(proved('small'))
    expect(small.some(h => h.startsWith('8>9'))).toBe(true)
    expect(small.some(h => h.includes('>0 '))).toBe(false)
  })
  test('one ring only: every gear', () => {
    expect(heard(proved(null))).toHaveLength(2 * 9)
  })
  test('what was not clean is told of its gear, on the stand and on the road', () => {
    expect(heard(proved('big', [4]))).toContain('4 spokes,frame')
    expect(heard(proved(null, [4], 'road'))).toContain('4 spokes,frame')
    // several clicks at a stroke: nothing is said of gears passed over
    expect(heard(proved(null, [4], 'several'))).toEqual(['4 spokes,frame'])
    expect(heard(proved(null, [], 'several'))).toEqual([])
  })
  test('a crossed pair that was asked for all the same, and was not clean, is kept', () => {
    expect(heard(proved('big', [9])).some(h => h.startsWith('9 spokes'))).toBe(true)
  })
  test('to the largest before L was seen it is kept, and asked about', () => {
    expect(
      rearOf(proved('small'))
        .flagged.map(f => f.why)
        .join(),
    ).toContain('before L was seen')
    expect(rearOf(proved('big')).flagged).toEqual([])
  })
})

describe('on the sheet', () => {
  test('a bike with one ring was proven in every gear', () => {
    const state = reduce([
      told({ kind: 'arrived', parts: stockParts('r14-10') }),
      told(seen),
      told(proved(null)),
      told(proved(null, [], 'several')),
      told(proved('big')),
    ])
    const whats = rearFacts(state, null, TABLE_ONLY).done.map(f => f.what)
    expect(whats).toEqual(expect.arrayContaining(['Proven, every gear', 'Proven, several clicks', 'Proven, big ring']))
  })
})

describe('a hanger that was bent back', () => {
  const gauge = (acrossMm: number): LedgerEvent => ({
    kind: 'gauge',
    camberDeg: 0.4,
    toeDeg: 0,
    acrossMm,
    hanger: 'replaceable',
  })
  test('keeps what was said and what happened, each once, until it is taken back', () => {
    const said = (complaint: string, more: object = {}): LedgerEvent => ({
      kind: 'said',
      complaint,
      answer: null,
      ...more,
    })
    const rear = rearOf(said('slow-in'), said('all-chatter'), said('slow-in', { answer: 'cured' }))
    expect(rear.said.map(s => [s.complaint, s.answer])).toEqual([
      ['all-chatter', null],
      ['slow-in', 'cured'],
    ])
    expect(rearOf(said('slow-in'), said('slow-in', { withdrawn: true })).said).toEqual([])
  })
  test('counts its bends, and asks for the gauge again after each', () => {
    const rear = rearOf(gauge(5), { kind: 'bend', hour: 12, tipMm: 1 })
    expect(rear.bends).toHaveLength(1)
    expect(rear.gauges.at(-1)!.bentBefore).not.toBeNull()
  })
})
