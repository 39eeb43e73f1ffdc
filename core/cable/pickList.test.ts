import { describe, expect, test } from 'vitest'
import { pickList } from './pickList'
import { templateRun } from './templates'
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
  test('nothing planned is an empty list', () => {
    expect(pickList([], [])).toEqual({ inners: [], housing: [], ferrules: 0, caps: 0, noodles: 0, lacks: [] })
  })
})
