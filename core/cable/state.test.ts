import { describe, expect, test } from 'vitest'
import { asRead, isMeasured, LENGTH_READ, Run, type LengthRead } from './run'
import { cablesAfter, noCables, type CableState } from './state'
import type { CableStep } from './stepNames'
import { templateRun } from './templates'

const rear = templateRun('external', 'rear')
const front = templateRun('external', 'front')
const steps = (state: CableState, ...done: CableStep[]) =>
  done.reduce((s, step) => cablesAfter(s, { kind: 'cabled', run: 'rear', step }), state)

describe('the cables of a job', () => {
  test('a run planned anew takes the place of its old plan and of no other', () => {
    const longer = { ...rear, pieces: [{ ...rear.pieces[0]!, name: 'one long piece' }] }
    const planned = [rear, front, longer].reduce((s, run) => cablesAfter(s, { kind: 'run', run }), noCables)
    expect(planned.runs).toEqual([front, longer])
    expect(steps(planned, 'fed').runs).toBe(planned.runs)
  })
  test('a step noted twice is the same step; each run has its own', () => {
    const state = steps(noCables, 'sized', 'cut', 'sized')
    expect(state.cabled).toEqual({ rear: ['cut', 'sized'] })
    expect(cablesAfter(state, { kind: 'cabled', run: 'front', step: 'fed' }).cabled).toEqual({
      rear: ['cut', 'sized'],
      front: ['fed'],
    })
  })
  // common practice, no source: wire that was out is clamped, bedded and capped anew
  test('done again, it opens what rests on it; done for the first time, nothing', () => {
    const once = steps(noCables, 'fed', 'seated', 'clamped', 'redrawn', 'bedded', 'capped')
    expect(once.cabled.rear).toEqual(['fed', 'seated', 'clamped', 'redrawn', 'bedded', 'capped'])
    expect(steps(once, 'clamped').cabled.rear).toEqual(['fed', 'seated', 'clamped'])
    expect(steps(once, 'fed').cabled.rear).toEqual(['fed'])
    expect(steps(once, 'capped').cabled.rear).toEqual(once.cabled.rear)
    // out of order, but each for the first time
    expect(steps(noCables, 'capped', 'clamped').cabled.rear).toEqual(['capped', 'clamped'])
  })
})

describe('a length and how it was read', () => {
  const housing = rear.pieces.find(p => p.kind === 'housing')!
  test.each<[LengthRead, boolean]>([
    ['last', true],
    ['old', true],
    ['bike', true],
    ['cut', true],
    ['loop', false],
    ['shop', false],
    ['guess', false],
  ])('%s: a figure of this bike? %s', (by, is) => {
    expect(LENGTH_READ[by].errorMm).toBeGreaterThan(0)
    expect(isMeasured({ ...housing, read: { by, why: '' } })).toBe(is)
    expect(isMeasured({ kind: 'bare', name: 'bare', lengthMm: 300, read: { by, why: '' } })).toBe(false)
  })
  test('nobody said how: no figure of this bike; said of a whole run, it is of every length and of no guide', () => {
    expect(isMeasured(housing)).toBe(false)
    expect(rear.pieces.some(p => p.kind === 'guide')).toBe(true)
    const said = asRead(rear, 'old', 'no pull at full lock')
    for (const [i, p] of said.pieces.entries())
      if (p.kind === 'guide') expect(p).toEqual(rear.pieces[i])
      else expect(p.read).toEqual({ by: 'old', why: 'no pull at full lock' })
  })
})

describe('a run that cannot be is refused where it is wrong', () => {
  const at = (pieces: unknown[]) => {
    const read = Run.safeParse({ ...rear, pieces })
    return read.success ? null : read.error.issues.map(i => [i.path.join('.'), i.message])
  }
  const named = (name: string) => ({ ...rear.pieces[0]!, name })
  test('two pieces of one name, whatever the letters; no housing at all; housing that a brake bursts', () => {
    expect(at([named('loop'), named('Loop')])).toEqual([
      ['pieces.1.name', expect.stringContaining('Two pieces are called Loop')],
    ])
    expect(at([{ kind: 'bare', name: 'bare', lengthMm: 300 }])).toEqual([
      ['pieces', 'A run has at least one piece of housing'],
    ])
    const brake = templateRun('external', 'rear-brake')
    const burst = Run.safeParse({ ...brake, pieces: [{ ...brake.pieces[0]!, of: 'shift 4 mm' }] })
    expect(burst.error!.issues.map(i => i.path.join('.'))).toEqual(['pieces.0.of'])
  })
})
