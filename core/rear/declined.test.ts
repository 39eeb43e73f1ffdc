import { describe, expect, test } from 'vitest'
import { seededBike, simulatedBench } from '../bench/bench'
import { advise } from '../advice/advise'
import { declineKey } from '../advice/moveKey'
import type { BenchEvent } from './benchEvents'
import { standingDeclines } from './declined'

const clean: BenchEvent = { kind: 'shift', from: 0, to: 1, heard: 'clean' }
const rubs: BenchEvent = { kind: 'shift', from: 0, to: 9, heard: 'rubs-in' }
const seenL: BenchEvent = { kind: 'sight', at: 'L', offsetMm: 0 }
const stands = (what: string, ...since: BenchEvent[]) =>
  standingDeclines([{ what, after: 1 }], [seenL, ...since], 10).includes(what)

describe('what was left stays left until there is news of it', () => {
  test('a stop: until it is seen, turned, moved by a new part, or not clean at its own end', () => {
    expect(stands('turn L')).toBe(true)
    expect(stands('turn L', clean, { kind: 'turn', screw: 'H', turns: 1 })).toBe(true)
    expect(stands('turn L', seenL)).toBe(false)
    expect(stands('sight L', { kind: 'turn', screw: 'L', turns: 0.25 })).toBe(false)
    expect(stands('turn L', { kind: 'replace', part: 'cable' })).toBe(true)
    expect(stands('turn L', { kind: 'replace', part: 'hanger' })).toBe(false)
    expect(stands('turn L', { kind: 'bend' })).toBe(false)
    expect(stands('turn L', rubs)).toBe(false)
    expect(stands('turn H', rubs)).toBe(true)
    expect(stands('sight H', { kind: 'unclean', to: 0, ways: ['frame'] })).toBe(false)
  })
  test('the barrel and a check: until anything is heard or wound', () => {
    for (const what of ['turn barrel', 'listen', 'edge 3 out', 'offset 4']) {
      expect(stands(what), what).toBe(true)
      expect(stands(what, seenL), what).toBe(true)
      expect(stands(what, clean), what).toBe(false)
    }
  })
  test('a part: until something is renewed or gauged, or much more was heard', () => {
    for (const what of ['replace cable', 'hanger', 'reclamp']) {
      expect(stands(what, clean, clean, clean, clean), what).toBe(true)
      expect(stands(what, clean, clean, clean, clean, clean), what).toBe(false)
      expect(stands(what, { kind: 'hanger', camberDeg: 0, toeDeg: 0 }), what).toBe(false)
    }
  })
})

describe('the advice gives way', () => {
  test('on simulated bikes, whatever is left is not said again, and something else is, to the end', () => {
    for (const seed of [3, 12, 27]) {
      const { setup, hidden } = seededBike(seed)
      const bench = simulatedBench(setup, hidden, seed)
      for (let i = 0; i < 12; i++) {
        const first = advise(setup, [...bench.log], { passes: true })
        if (first.move.do === 'done') break
        const declined: string[] = []
        for (;;) {
          const { move } = advise(setup, [...bench.log], { passes: true, declined })
          if (move.do === 'done') break
          // nothing is called done on a stop that nobody saw: that look alone comes back, when all else was left
          if (move.do === 'sight' && declined.includes(declineKey(move))) break
          expect(declined).not.toContain(declineKey(move))
          declined.push(declineKey(move))
          if (declined.length > 60) throw new Error('never gives way')
        }
        if (first.move.do === 'pass') bench.perform({ do: 'shift', to: bench.setup.teeth.length > 2 ? 1 : 0 })
        else bench.perform(first.move)
      }
    }
  })
  test('L unseen keeps the largest shut, left or not', () => {
    const { setup } = seededBike(3)
    const { move } = advise(setup, [], { passes: true, declined: ['sight L'] })
    expect(move).toEqual({ do: 'sight', at: 'H' })
    const next = advise(setup, [{ kind: 'sight', at: 'H', offsetMm: -0.2 }], { passes: true, declined: ['sight L'] })
    const largest = setup.teeth.length - 1
    expect(['shift', 'pass'].includes(next.move.do) ? (next.move as { to: number }).to : 0).toBeLessThan(largest)
  })
  test('nonsense is refused', () => {
    const { setup } = seededBike(3)
    expect(() => advise(setup, [], { declined: 'turn L' as never })).toThrow('declined must be a list')
  })
})
