import { describe, expect, test } from 'vitest'
import { telling } from '../chapter/testTold'
import { consider } from '../advice/advise'
import type { LedgerEvent } from '../ledger/events'
import { reduce } from '../ledger/reduce'
import { asSeen } from './asSeen'
import type { BenchEvent } from './benchEvents'
import { mayReachLargest } from './gates'
import { feltAsSight, feltTurn, type LFelt } from './stopFelt'
import { stopNext } from './stopNext'
import { stockParts } from './typedParts'

const told = telling<LedgerEvent>()
const rearOf = (...events: LedgerEvent[]) =>
  reduce([told({ kind: 'arrived', parts: stockParts('r14-10') }), ...events.map(e => told(e))]).rear
const seen = (offsetMm: number): LedgerEvent => ({ kind: 'sight', at: 'L', offsetMm })
const felt = (what: LFelt): LedgerEvent => ({ kind: 'felt', what })
const next = (...events: LedgerEvent[]) => stopNext(rearOf(...events), 'L', { from: -0.5, to: 0.3 })

describe('L by thumb and ear (common practice, no source)', () => {
  test('never opens the largest sprocket: told of an L that nobody saw, it says nothing', () => {
    const rear = rearOf(felt('quiet'))
    expect(mayReachLargest(rear.trace)).toBe(false)
    expect(rear.bench).toEqual([])
    expect(rearOf(seen(0), { kind: 'replace', part: 'hanger' }, felt('quiet')).bench.at(-1)).toMatchObject({
      part: 'hanger',
    })
  })
  test('catching is turned away from the spokes; clicking out, but never against an L seen in line', () => {
    expect(feltTurn('catches', 0)).toBe(0.25)
    expect(feltTurn('clicks', -0.8)).toBe(-0.25)
    expect([feltTurn('clicks', 0), feltTurn('dull', 0.4), feltTurn('clicks', null), feltTurn('quiet', -2)]).toEqual([
      0, 0, 0, 0,
    ])
    expect(next(seen(-1), felt('clicks'))).toMatchObject({ felt: 'clicks', turns: -0.25 })
    expect(next(seen(0), felt('catches'))).toMatchObject({ turns: 0.25 })
  })
  test('stands until L is turned or seen again', () => {
    expect(next(seen(-1), felt('quiet'), { kind: 'turn', screw: 'L', sixteenths: -4 }).felt).toBeNull()
    expect(next(felt('catches'), seen(0)).felt).toBeNull()
  })
  test('is weighed as a look with a wide spread, and is no sight that stands', () => {
    const setup = rearOf(seen(0)).setup!
    const spread = (...log: BenchEvent[]) => consider(setup, log).analysis.stops.L.offsetMm.sd
    const L: BenchEvent = { kind: 'sight', at: 'L', offsetMm: 0 }
    expect(spread(L, feltAsSight('quiet'))).toBeLessThan(spread(L))
    expect(spread(L, L)).toBeLessThan(spread(L, feltAsSight('quiet')))
    expect(asSeen('L', [feltAsSight('quiet')], 10).stands).toBe(false)
    expect(() => consider(setup, [{ ...feltAsSight('quiet'), sdMm: 0 }])).toThrow(/sdMm/)
  })
})
