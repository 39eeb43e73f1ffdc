import { describe, expect, test } from 'vitest'
import { pickList } from './pickList'
import { templateRun } from './templates'
import type { CableStep } from './stepNames'
import type { LaidOut } from './wanted'

const bike = (job: number, tag: string, ...runs: LaidOut['runs']): LaidOut => ({ job, tag, runs, cabled: {} })
const rear = templateRun('external', 'rear')
const brake = templateRun('external', 'rear-brake')

describe('what is carried to the bench', () => {
  test('of one bike: inners by length and head, housing by kind, small parts', () => {
    const list = pickList([bike(1, '31', rear, brake)], [], (_, run) => (run === 'rear-brake' ? 'linear-pull' : null))
    expect(list.inners).toEqual([
      { wire: 'brake', takeMm: 1700, needMm: expect.any(Number), head: null, runs: ['31 rear brake'] },
      { wire: 'shift', takeMm: 2100, needMm: 1910, head: 'small cylinder', runs: ['31 rear derailleur'] },
    ])
    expect(list.housing).toEqual([
      { kind: 'shift 4 mm', mm: 420 + 290, pieces: 2 },
      { kind: 'brake 5 mm', mm: 430 + 260, pieces: 2 },
    ])
    expect([list.ferrules, list.caps, list.noodles]).toEqual([8, 2, 1])
  })
  test('of a day: the same inner is counted together, what is done is left out', () => {
    const done: LaidOut = { ...bike(2, '33', rear), cabled: { rear: ['cut', 'ferrules', 'fed'] } }
    const list = pickList([bike(1, '31', rear), bike(3, '44', rear), done], [])
    expect(list.inners).toHaveLength(1)
    expect(list.inners[0]!.runs).toEqual(['31 rear derailleur', '44 rear derailleur'])
    expect(list.housing).toEqual([{ kind: 'shift 4 mm', mm: 2 * 710, pieces: 4 }])
    expect([list.ferrules, list.caps]).toEqual([8, 3])
  })
  test('what stock lacks is said: too little, no piece long enough, no inner sold that reaches', () => {
    const lacks = (mm: number[], run = rear) =>
      pickList(
        [bike(1, '31', run)],
        mm.map(lengthMm => ({ kind: 'shift 4 mm' as const, lengthMm })),
      ).lacks
    expect(lacks([])).toEqual(['shift 4 mm: 710 mm more than hangs on the wall'])
    expect(lacks([400, 400])).toEqual(['shift 4 mm: no piece of 420 mm on the wall'])
    expect(lacks([10_000])).toEqual([])
    const tandem = { ...rear, pieces: [...rear.pieces, { kind: 'bare' as const, name: 'more', lengthMm: 2000 }] }
    expect(lacks([10_000], tandem)[0]).toMatch(/no inner sold reaches 3910 mm/)
  })
  test('inners that are taken alike are one row that names the longest need; others stay apart, shortest first', () => {
    const [barrel, pear] = [
      { ...brake, head: 'large barrel' },
      { ...brake, head: 'pear' },
    ] as const
    const longer = {
      ...rear,
      pieces: [...rear.pieces, { kind: 'bare' as const, name: 'more', lengthMm: 60 }],
    }
    const list = pickList([bike(1, '31', longer, barrel), bike(2, '33', rear, pear)], [])
    expect(list.inners.map(i => [i.wire, i.head, i.takeMm, i.runs.length])).toEqual([
      ['brake', 'large barrel', 1700, 1],
      ['brake', 'pear', 1700, 1],
      ['shift', 'small cylinder', 2100, 2],
    ])
    expect(list.inners[2]!.needMm).toBe(1910 + 60)
    // none that is sold reaches: each is ordered for itself
    const tandem = { ...rear, pieces: [...rear.pieces, { kind: 'bare' as const, name: 'more', lengthMm: 2000 }] }
    expect(pickList([bike(1, '31', tandem), bike(2, '33', tandem)], []).inners).toHaveLength(2)
    const short = pickList([bike(1, '31', tandem), bike(2, '33', rear)], []).inners
    expect(short.map(i => i.needMm)).toEqual([1910, 3910])
  })
  test('what is in already is not carried: noodle, caps and housing each by its own step', () => {
    const left = (cabled: readonly CableStep[]) => {
      const list = pickList([{ ...bike(1, '31', brake), cabled: { 'rear-brake': cabled } }], [], () => 'linear-pull')
      return [list.inners.length, list.ferrules, list.caps, list.noodles, list.housing.length, list.lacks.length]
    }
    expect(left([])).toEqual([1, 4, 1, 1, 1, 1])
    expect(left(['cut'])).toEqual([1, 4, 1, 1, 0, 0])
    expect(left(['cut', 'ferrules', 'fed'])).toEqual([0, 0, 1, 1, 0, 0])
    expect(left(['cut', 'ferrules', 'fed', 'clamped'])).toEqual([0, 0, 1, 0, 0, 0])
    expect(left(['cut', 'ferrules', 'fed', 'clamped', 'capped'])).toEqual([0, 0, 0, 0, 0, 0])
  })
  test('a wall that holds just enough lacks nothing; another kind of housing there does not help', () => {
    const lacks = (kind: 'shift 4 mm' | 'brake 5 mm', ...mm: number[]) =>
      pickList(
        [bike(1, '31', rear)],
        mm.map(lengthMm => ({ kind, lengthMm })),
      ).lacks
    expect(lacks('shift 4 mm', 420, 290)).toEqual([])
    expect(lacks('shift 4 mm', 420, 289)).toEqual(['shift 4 mm: 1 mm more than hangs on the wall'])
    expect(lacks('shift 4 mm', 419, 419)).toEqual(['shift 4 mm: no piece of 420 mm on the wall'])
    expect(lacks('brake 5 mm', 9000)).toEqual(['shift 4 mm: 710 mm more than hangs on the wall'])
  })
  test('nothing planned is an empty list', () => {
    expect(pickList([], [])).toEqual({ inners: [], housing: [], ferrules: 0, caps: 0, noodles: 0, lacks: [] })
  })
})
