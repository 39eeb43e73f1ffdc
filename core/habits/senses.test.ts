import { describe, expect, test } from 'vitest'
import { consider } from '../advice/advise'
import { asSensed } from '../advice/asSensed'
import { seededBike, simulatedBench } from '../bench/bench'
import { AS_MODELLED } from '../bench/physics'
import { adviceStrategy, play } from '../bench/play'
import type { BenchEvent } from '../rear/benchEvents'
import { chanceWrong, reportedChance } from '../response/heard'
import { sensedBy, sensesFrom, type Sensed } from './senses'

const none: Sensed = { reports: 0, wrong: 0, looks: 0, squared: 0 }

describe('how likely a report was wrong', () => {
  test('is Bayes’ rule on how often reports are (textbook)', () => {
    for (const ear of [0.05, 0.15])
      for (const p of [0, 0.02, 0.5, 0.97, 1]) {
        const reported = reportedChance(p, ear)
        expect(chanceWrong(reported, ear)).toBeCloseTo(((ear / 6) * (1 - p)) / reported, 9)
      }
  })
  test('one that all others speak against is taken for wrong, and theirs are not', () => {
    const { setup } = seededBike(3)
    const shift = (heard: 'clean' | 'jumps'): BenchEvent => ({ kind: 'shift', from: 3, to: 4, heard })
    const log: BenchEvent[] = [shift('clean'), shift('clean'), shift('jumps'), shift('clean'), shift('clean')]
    const seen = consider(setup, log).posterior.senses()
    const wrong = (i: number) => (seen.get(i) as { wrong: number }).wrong
    expect(wrong(2)).toBeGreaterThan(0.5)
    for (const i of [0, 1, 3, 4]) expect(wrong(i)).toBeLessThan(0.1)
  })
  test('each person’s reports are counted for them alone, a stop judged by thumb for nobody', () => {
    const { setup } = seededBike(3)
    const log: BenchEvent[] = [
      { kind: 'shift', from: 0, to: 1, heard: 'clean' },
      { kind: 'sight', at: 'L', offsetMm: -0.1 },
      { kind: 'sight', at: 'L', offsetMm: -0.1, sdMm: 1 },
      { kind: 'turn', screw: 'barrel', turns: 0.25 },
      { kind: 'shift', from: 1, to: 2, heard: 'rubs-in' },
    ]
    const by = ['a', 'b', 'b', 'a', 'b']
    const sensed = sensedBy(consider(setup, log).posterior, by)
    expect([...sensed.keys()].sort()).toEqual(['a', 'b'])
    expect(sensed.get('a')).toMatchObject({ reports: 1, looks: 0 })
    expect(sensed.get('b')!.reports).toBe(1)
    expect(sensed.get('b')!.looks).toBeGreaterThan(0.5)
    expect(sensed.get('b')!.looks).toBeLessThan(1)
  })
})

describe('how a person hears and sees', () => {
  test('too little says nothing', () => {
    expect(sensesFrom([])).toBeNull()
    expect(sensesFrom([{ ...none, reports: 29, wrong: 20 }])).toBeNull()
    expect(sensesFrom([{ ...none, reports: 30, wrong: 10 }])!.eye).toBe(1)
    expect(sensesFrom([{ ...none, looks: 8, squared: 30 }])!.wrongReports).toBe(0.05)
  })
  test('is drawn towards the usual, and bounded', () => {
    const at = (share: number, n = 500) => sensesFrom([{ ...none, reports: n, wrong: share * n }])!.wrongReports
    expect(at(0.036)).toBeCloseTo(0.05, 3)
    expect(at(0.1)).toBeGreaterThan(at(0.1, 60))
    expect(at(0)).toBe(0.01)
    expect(at(0.6)).toBe(0.25)
  })
  test('who mishears more often is found to, on the bench', () => {
    const found = (wrongReports: number) => {
      const all = { ...none }
      for (let seed = 61_000; seed < 61_004; seed++)
        play(
          seed,
          adviceStrategy,
          { ...AS_MODELLED, wrongReports },
          {
            atEnd: ({ setup }, { log }) => {
              const { posterior } = consider(setup, log)
              const sensed = sensedBy(
                posterior,
                log.map(() => 'x'),
              ).get('x')
              if (!sensed) return
              all.reports += sensed.reports
              all.wrong += sensed.wrong
            },
          },
        )
      return all.wrong / all.reports
    }
    expect(found(0.25)).toBeGreaterThan(1.5 * found(0.02))
  }, 120_000)
})

describe('a log as a person reports', () => {
  const log: BenchEvent[] = [
    { kind: 'shift', from: 0, to: 1, heard: 'clean' },
    { kind: 'shift', from: 1, to: 2, heard: 'clean' },
    { kind: 'offset', click: 2, offsetMm: 0.1 },
    { kind: 'turn', screw: 'H', turns: 0.25 },
  ]
  const senses = { wrongReports: 0.12 }
  test('has their ear beside their own reports alone', () => {
    expect(asSensed(log, ['a', 'b', 'a', 'a'], 'a', senses)).toEqual([{ ...log[0], ear: 0.12 }, log[1], log[2], log[3]])
    expect(asSensed(log, [], null, senses)).toBe(log)
    expect(asSensed(log, [], 'a', null)).toBe(log)
  })
  test('of a worse ear the same report says less; nonsense is refused by name', () => {
    const { setup } = seededBike(3)
    const off: BenchEvent = { kind: 'shift', from: 3, to: 4, heard: 'none' }
    const tight = (ear?: number) =>
      consider(setup, [{ ...off, ...(ear === undefined ? {} : { ear }) }]).advice.offsetMm.mean
    expect(tight()).toBeLessThan(tight(0.25))
    expect(() => consider(setup, [{ ...off, ear: 0.7 }])).toThrow('ear')
    expect(() => simulatedBench(setup, seededBike(3).hidden, 1).perform({ do: 'offset', click: 2 })).not.toThrow()
  })
})
