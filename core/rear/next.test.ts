import { describe, expect, test } from 'vitest'
import { telling } from '../chapter/testTold'
import { schemaOf, type LedgerEvent } from '../ledger/events'
import { reduce } from '../ledger/reduce'
import { GAPS } from '../procedure/schools'
import { geometryOf } from '../response/setup'
import { safeStopMm } from '../response/safe'
import { nextShift } from './aim'
import { B_SCREW } from './gap'
import type { GapLook } from './gapLook'
import { gapNext } from './gapNext'
import { L_FIRST, lastReachable, mayReachLargest, reachesLargest, stopsSeen } from './gates'
import { stopNext } from './stopNext'
import { stockParts } from './typedParts'

const told = telling<LedgerEvent>()
const rearOf = (...events: LedgerEvent[]) =>
  reduce([told({ kind: 'arrived', parts: stockParts('r14-10') }), ...events.map(e => told(e))]).rear
const sight = (at: 'L' | 'H', offsetMm: number): LedgerEvent => ({ kind: 'sight', at, offsetMm })
const turn = (screw: 'L' | 'H' | 'B', sixteenths: number): LedgerEvent => ({ kind: 'turn', screw, sixteenths })
const H_TARGET = { from: -0.5, to: 0.3 }

describe('the next turn of a stop', () => {
  test('is none before it was seen, and where it stands well', () => {
    expect(stopNext(rearOf(), 'L', H_TARGET)).toMatchObject({ offsetMm: null, turns: 0, turned: false, sightings: 0 })
    expect(stopNext(rearOf(sight('L', 0)), 'L', H_TARGET)).toMatchObject({ offsetMm: 0, turns: 0, sightings: 1 })
    expect(stopNext(rearOf(sight('H', -0.2)), 'H', H_TARGET).turns).toBe(0)
  })
  test('L in moves the pulley to the frame, H in to the spokes: carried on by the turns since it was seen', () => {
    const l = stopNext(rearOf(sight('L', 1), turn('L', 8)), 'L', H_TARGET)
    expect([l.offsetMm, l.turned]).toEqual([1 - 0.5 * l.learnt.mmPerTurn, true])
    const h = stopNext(rearOf(sight('H', -1), turn('H', 8)), 'H', H_TARGET)
    expect(h.offsetMm).toBeCloseTo(-1 + 0.5 * h.learnt.mmPerTurn, 12)
    expect(stopNext(rearOf(turn('L', 8), sight('L', 1)), 'L', H_TARGET)).toMatchObject({ offsetMm: 1, turned: false })
  })
  test('too far to the spokes L is wound in, too far to the frame out; H the other way', () => {
    expect(stopNext(rearOf(sight('L', 1.5)), 'L', H_TARGET).turns).toBeGreaterThan(0)
    expect(stopNext(rearOf(sight('L', -1.5)), 'L', H_TARGET).turns).toBeLessThan(0)
    expect(stopNext(rearOf(sight('H', -1.5)), 'H', H_TARGET).turns).toBeGreaterThan(0)
    expect(stopNext(rearOf(sight('H', 1.5)), 'H', H_TARGET).turns).toBeLessThan(0)
    // in eighths, as a hand turns
    expect((stopNext(rearOf(sight('L', 1.5)), 'L', H_TARGET).turns * 8) % 1).toBe(0)
  })
  test('speaks of its own sprocket, the one beside it, and where it can hurt nobody', () => {
    const rear = rearOf()
    const g = geometryOf(rear.setup!)
    const l = stopNext(rear, 'L', H_TARGET)
    const h = stopNext(rear, 'H', H_TARGET)
    expect([l.teeth, l.neighbourTeeth]).toEqual([rear.setup!.teeth.at(-1), rear.setup!.teeth.at(-2)])
    expect([h.teeth, h.neighbourTeeth]).toEqual([rear.setup!.teeth[0], rear.setup!.teeth[1]])
    expect(l.safeMm.to).toBeCloseTo(safeStopMm(g, 'L').to - g.placeMm.at(-1)!, 12)
    expect(h.safeMm.from).toBeCloseTo(safeStopMm(g, 'H').from - g.placeMm[0]!, 12)
    expect([l.pitchMm, h.targetMm]).toEqual([g.pitchMm.at(-1), H_TARGET])
  })
  test('two sightings a turn apart teach this bike’s own mm per turn', () => {
    const l = stopNext(rearOf(sight('L', 1), turn('L', 48), sight('L', -2.9)), 'L', H_TARGET)
    expect(l.learnt.mmPerTurn).toBeGreaterThan(1.05) // 1.3 seen against a usual 1.0
    expect(l.sightings).toBe(2)
  })
})

describe('the next turn of the B screw', () => {
  const school = (id: string) => GAPS.find(g => g.id === id) as (typeof GAPS)[number]
  const plain = GAPS.find(g => !g.sagged && g.id !== 'maker')!
  const sagged = GAPS.find(g => g.sagged)
  const gap = (gapMm: number, at: 'stand' | 'sagged' = 'stand'): LedgerEvent => ({
    kind: 'gap',
    gapMm,
    how: 'measured',
    at,
  })
  test('is none before a gap was measured, and inside what the school wants', () => {
    expect(gapNext(rearOf(), plain)).toMatchObject({ standMm: null, saggedMm: null, turns: 0, measured: 0 })
    const middle = (plain.targetMm.from + plain.targetMm.to) / 2
    expect(gapNext(rearOf(gap(middle)), plain).turns).toBe(0)
  })
  test('too close is wound in, too far out, by the usual mm per turn; carried on by turns since', () => {
    const close = gapNext(rearOf(gap(plain.targetMm.from - 2)), plain)
    expect(close.turns).toBeGreaterThan(0)
    expect(gapNext(rearOf(gap(plain.targetMm.to + 3)), plain).turns).toBeLessThan(0)
    const turned = gapNext(rearOf(gap(4), turn('B', 16)), plain)
    expect(turned.standMm).toBeCloseTo(4 + B_SCREW.mmPerTurn, 9)
  })
  test('the maker’s figure, kept with the parts, wins over every school, met to within half a millimetre', () => {
    const wanted: LedgerEvent = { kind: 'gapWanted', gapMm: 8 }
    for (const by of [plain, school('close'), school('maker')])
      expect(gapNext(rearOf(wanted, gap(10)), by)).toMatchObject({ targetMm: { from: 7.5, to: 8.5 }, byMaker: true })
    expect(gapNext(rearOf(gap(10)), school('maker')).targetMm).toEqual(school('maker').targetMm)
    for (const gapMm of [NaN, 0, -2, 31])
      expect(schemaOf('gapWanted').safeParse({ kind: 'gapWanted', gapMm }).success).toBe(false)
  })
  const look = (look: GapLook): LedgerEvent => ({ kind: 'gapSeen', look })
  test('by eye or template it goes a quarter at a time, and is looked at again after each turn', () => {
    expect(gapNext(rearOf(look('close')), plain)).toMatchObject({ turns: 0.25, good: false })
    expect(gapNext(rearOf(look('under')), plain)).toMatchObject({ turns: -0.25, good: false })
    expect(gapNext(rearOf(look('close'), turn('B', 4)), plain)).toMatchObject({ turns: 0, good: false })
    expect(gapNext(rearOf(look('in-line')), plain)).toMatchObject({ turns: 0, good: true })
    // a figure is better than an eye
    expect(gapNext(rearOf(look('close'), gap(5)), plain)).toMatchObject({ look: null, good: true })
  })
  test('the smallest that clears: out until it touches, a quarter back, and no further', () => {
    expect(gapNext(rearOf(look('clears')), plain).turns).toBe(-0.25)
    const touched = [look('clears'), turn('B', -4), look('touches')]
    expect(gapNext(rearOf(...touched), plain).turns).toBe(0.25)
    expect(gapNext(rearOf(...touched, turn('B', 4)), plain)).toMatchObject({ turns: 0, good: false })
    expect(gapNext(rearOf(...touched, turn('B', 4), look('clears')), plain)).toMatchObject({ turns: 0, good: true })
    // far in from where it touched is not the smallest yet
    expect(gapNext(rearOf(...touched, turn('B', 12), look('clears')), plain).turns).toBe(-0.25)
  })
  test('with sag, both are measured before anything but a usual gap in the stand is aimed at', () => {
    if (!sagged) return
    expect(gapNext(rearOf(gap(5)), sagged).targetMm).toEqual({ from: 4, to: 5 })
    const both = gapNext(rearOf(gap(5), gap(12, 'sagged')), sagged)
    expect(both.targetMm.to).toBeGreaterThan(both.targetMm.from)
    expect(both.saggedMm).toBe(12)
  })
})

describe('where a shift is aimed', () => {
  const seen = rearOf(sight('L', 0)).trace!
  const unseen = rearOf().trace!
  const n = 10
  test('onward as before, turning round at the ends, never to the largest before L was seen', () => {
    expect(nextShift(seen, n, null)).toEqual({ to: 1, inward: true })
    expect(nextShift({ ...seen, lever: 4, lastInward: true }, n, null)).toEqual({ to: 5, inward: true })
    expect(nextShift({ ...seen, lever: 4, lastInward: false }, n, null)).toEqual({ to: 3, inward: false })
    expect(nextShift({ ...seen, lever: 9, lastInward: true }, n, null)).toEqual({ to: 8, inward: false })
    expect(nextShift({ ...unseen, lever: 8, lastInward: true }, n, null).to).toBe(7)
    expect(nextShift({ ...unseen, lever: 3 }, n, 9).to).toBe(8)
    expect([nextShift(seen, n, 99).to, nextShift(seen, n, -4).to]).toEqual([9, 0])
  })
  test('one gate for the largest sprocket, whoever asks', () => {
    expect([mayReachLargest(seen), mayReachLargest(unseen), mayReachLargest(null)]).toEqual([true, false, false])
    expect([lastReachable(seen, n), lastReachable(unseen, n)]).toEqual([9, 8])
    expect(stopsSeen(rearOf(sight('H', 0)).trace)).toEqual({ L: false, H: true })
    expect(stopsSeen(null)).toEqual({ L: false, H: false })
    expect(reachesLargest({ kind: 'shift', from: 8, to: 9, heard: 'clean' }, n)).toBe(true)
    expect(reachesLargest({ kind: 'shift', from: 7, to: 8, heard: 'clean' }, n)).toBe(false)
    expect(reachesLargest({ kind: 'offset', click: 9, offsetMm: 0 }, n)).toBe(true)
    expect(reachesLargest({ kind: 'offset', click: 8, offsetMm: 0 }, n)).toBe(false)
    expect(reachesLargest({ kind: 'pass', exceptions: [] }, n)).toBe(true)
    expect(reachesLargest({ kind: 'turn', screw: 'L', sixteenths: 2 }, n)).toBe(false)
    expect(L_FIRST).toContain('L by hand')
  })
})
