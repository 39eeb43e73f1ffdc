import { describe, expect, test } from 'vitest'
import { REAR_COMPLAINTS } from './complaints'
import { HAPPENED, oddsOfHappened } from './happened'
import { proposedBy } from './sentence'

// invented sentences, as customers say them; from memory
describe('what a customer’s sentence proposes', () => {
  test.each([
    ['Chain jumps when I push hard uphill', ['jumps-under-load'], []],
    ['Went into the spokes after it fell over', ['into-spokes'], ['fell']],
    ['Slow to the easier gears since the new cable', ['since-cable', 'slow-in'], ['new-cable']],
    ['It shifts by itself on climbs', ['by-itself'], []],
    ['clicking in all gears, was in a car boot', ['all-chatter'], ['car']],
    ['Had a puncture, now it will not shift', ['nothing'], ['wheel-out']],
  ] as const)('%s', (sentence, complaints, happened) => {
    const found = proposedBy(sentence)
    expect(found.complaints).toEqual(expect.arrayContaining([...complaints]))
    expect(found.happened).toEqual([...happened])
  })

  test('nothing is made of an empty line, of nonsense, or of five thousand letters', () => {
    for (const line of ['', '   ', '🚲🚲', '<b>', 'x'.repeat(5000)])
      expect(proposedBy(line)).toEqual({ complaints: [], happened: [] })
  })

  test('only complaints of the list are proposed', () => {
    const all = proposedBy(
      'spoke chain went fell off outside jump push by itself steer new cable nothing happens two gears largest gear smallest gear slow easier harder chatter one gear all skip even noisy largest',
    )
    for (const id of all.complaints) expect(REAR_COMPLAINTS.some(c => c.id === id)).toBe(true)
    expect(all.complaints.length).toBeGreaterThan(10)
  })

  test('what happened moves the odds: a fall speaks for the hanger most, a new cable for tension', () => {
    const fell = oddsOfHappened(['fell']).hanger!
    expect(fell).toBeGreaterThan(oddsOfHappened(['car']).hanger!)
    expect(oddsOfHappened(['new-cable']).tension).toBeGreaterThan(1)
    // two tellings of one knock do not count twice
    expect(oddsOfHappened(['fell', 'knocked']).hanger).toBe(fell)
    expect(oddsOfHappened([])).toEqual({})
    for (const h of HAPPENED) expect(Object.keys(oddsOfHappened([h])).length).toBeGreaterThan(0)
  })
})
