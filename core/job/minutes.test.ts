import { describe, expect, test } from 'vitest'
import { atRisk, expectedMinutes, keepable, kindOfJob, minutesOf, workMinutes } from './minutes'

const at = (time: string) => new Date(`2026-11-25T${time}:00.000Z`)
const tap = (time: string, kind = 'turn') => ({ at: at(time).toISOString(), event: { kind } })

describe('minutes of jobs', () => {
  test('are told by the taps; a pause is not work, and where it stands is no tap', () => {
    expect(minutesOf([])).toBe(0)
    expect(minutesOf([tap('10:00', 'placed'), tap('10:00', 'arrived')])).toBe(0)
    expect(minutesOf([tap('10:00'), tap('10:05'), tap('10:09')])).toBe(4 + 9)
    // lunch in between counts as the longest pause
    expect(minutesOf([tap('10:00'), tap('10:05'), tap('13:00')])).toBe(4 + 5 + 12)
    expect(minutesOf([tap('10:09'), tap('10:00')])).toBe(4 + 9)
  })
  test('are expected by kind: the shop’s own once it has closed five, the usual before', () => {
    expect(['New cable, please', 'Brake rubs', 'Hub slips', 'Needs a service', 'Skips'].map(kindOfJob)).toEqual([
      'cable',
      'brakes',
      'hub',
      'service',
      'gears',
    ])
    const took = [{ kind: 'cable' as const, jobs: 7, median: 38, most: 52 }]
    expect(expectedMinutes('New cable', took)).toEqual({ kind: 'cable', jobs: 7, median: 38, most: 52 })
    expect(expectedMinutes('Skips', took)).toMatchObject({ jobs: 0, median: 25 })
    expect(expectedMinutes('New cable', [{ ...took[0]!, jobs: 4 }])).toMatchObject({ jobs: 0, median: 45 })
  })
  test('hours are the shop’s: a night holds none', () => {
    expect(workMinutes(at('10:00'), at('12:00'), 1)).toBeCloseTo(84, 9)
    expect(workMinutes(at('17:00'), new Date('2026-11-26T10:00:00.000Z'), 2)).toBeCloseTo(2 * 120 * 0.7, 9)
    expect(workMinutes(at('12:00'), at('10:00'), 1)).toBe(0)
  })
  test('a promise is at risk when what is promised before it and it together need more than the time there is', () => {
    const jobs = [
      { number: 1, promisedAt: at('12:00'), minutes: 60 },
      { number: 2, promisedAt: at('12:30'), minutes: 60 },
      { number: 3, promisedAt: at('17:00'), minutes: 60 },
    ]
    expect([...atRisk(jobs, at('10:00'), 1)]).toEqual([2])
    expect([...atRisk(jobs, at('10:00'), 2)]).toEqual([])
    expect(atRisk(jobs, at('12:10'), 1).has(1)).toBe(true)
    const times = [at('12:00'), at('17:00'), new Date('2026-11-26T12:00:00.000Z')]
    expect(keepable(times, 40, jobs, at('10:00'), 1)).toEqual(at('17:00'))
    expect(keepable(times, 20, jobs, at('10:00'), 1)).toEqual(at('12:00'))
    expect(keepable(times.slice(0, 1), 400, jobs, at('10:00'), 1)).toBeNull()
  })
})
