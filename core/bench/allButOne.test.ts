import { describe, expect, test } from 'vitest'
import { advise } from '../advice/advise'
import { seededBike } from './bench'
import type { TOLD } from './allButOne'
import { toldOf } from './allButOne'
import { AS_MODELLED } from './physics'
import { adviceStrategy, play } from './play'
import { truthOf } from './truth'
import { geometryOf } from '../response/setup'

describe('the advice told all but one kind of unknown', () => {
  // a bike that merely stands wrong
  const seed = [...Array(60).keys()].find(s => {
    const { setup, hidden } = seededBike(s)
    const { causes } = truthOf(geometryOf(setup), setup, hidden, AS_MODELLED)
    return causes.tension && Object.values(causes).filter(Boolean).length === 1
  })!
  const { setup, hidden } = seededBike(seed)
  const told = (what: (typeof TOLD)[number]) => advise(setup, [], { prior: toldOf(setup, hidden, what) })

  test('told everything it knows the cable and the cause before anything was seen; told all but the cable it does not', () => {
    const everything = told('everything')
    expect(everything.offsetMm.sd).toBeLessThan(0.1)
    expect(everything.causes.tension).toBeGreaterThan(0.95)
    const butCable = told('cable')
    expect(butCable.offsetMm.sd).toBeGreaterThan(0.5)
    expect(butCable.causes.friction).toBeLessThan(0.1)
    expect(toldOf(setup, hidden, 'nothing')).toBeUndefined()
  })
  test('what is open is left as usual, and nothing else is', () => {
    const prior = toldOf(setup, hidden, 'stops')!
    expect(prior).not.toHaveProperty('stopH')
    expect(prior).not.toHaveProperty('mmPerTurnL')
    expect(prior.cable!.mean).toBe(hidden.cableMm)
  })
  test('told everything it wins in fewer touches than told nothing', () => {
    const touches = (what: (typeof TOLD)[number]) => {
      const played = play(seed, adviceStrategy, AS_MODELLED, { passes: true, prior: toldOf(setup, hidden, what) })
      expect(played.won).toBe(true)
      return played.touches
    }
    expect(touches('everything')).toBeLessThan(touches('nothing'))
  })
})
