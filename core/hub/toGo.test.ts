import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { telling } from '../chapter/testTold'
import type { HubEvent } from './events'
import { targetMm, usualHubs } from './kinds'
import { hubAfter, noHub, type HubHeard, type HubState } from './state'
import { hubToGo } from './toGo'

const parts = (id: string) => usualHubs().find(h => h.id === id)!.parts
const told = telling<HubEvent | HubHeard>()
const after = (was: HubState, ...events: HubEvent[]) => events.reduce((s, e) => hubAfter(s, told(e)), was)
const twin = parts('twin-14')
const withTwin = after(noHub, { kind: 'hubParts', parts: twin })
const read = (mm: number): HubEvent => ({ kind: 'hubRead', mm })
const turn = (sixteenths: number): HubEvent => ({ kind: 'hubTurn', sixteenths })

describe('the play at the grip, from two readings', () => {
  test('the first says which way, by half a turn to try; the second how many', () => {
    const one = after(withTwin, read(8))
    expect(hubToGo(twin, one)).toEqual({ sixteenths: 8, tried: true })
    // half a turn took 1 mm of 8: five more for 7 to 2 mm are two and a half turns
    const two = after(one, turn(8), read(7))
    expect(hubToGo(twin, two)).toEqual({ sixteenths: 40, tried: false })
    expect(hubToGo(twin, after(two, turn(40)))).toBeNull()
    expect(hubToGo(twin, after(two, turn(40), read(2)))).toBeNull()
    expect(hubToGo(twin, after(withTwin, read(0)))).toEqual({ sixteenths: -8, tried: true })
  })
  test('two readings without a turn between them, or that say a turn does the impossible, tell nothing of it', () => {
    expect(hubToGo(twin, after(withTwin, read(8), read(7)))).toMatchObject({ tried: true })
    expect(hubToGo(twin, after(withTwin, read(8), turn(8), read(9)))).toEqual({ sixteenths: 8, tried: true })
    expect(hubToGo(twin, after(withTwin, read(30), turn(8), read(4)))).toMatchObject({ tried: true })
  })
  test('what was read before something else was done to the hub is forgotten', () => {
    const cured = after(withTwin, read(8), turn(8), { kind: 'hubCured', fault: 'much-play' }, read(7))
    expect(hubToGo(twin, cured)).toMatchObject({ tried: true })
  })
  test('rod and marks go by their thread', () => {
    const rod = parts('rod-3')
    const state = after(noHub, { kind: 'hubParts', parts: rod }, read(-0.6))
    expect(hubToGo(rod, state)).toEqual({ sixteenths: 32, tried: false })
    expect(hubToGo(rod, after(state, read(1)))).toBeNull()
  })
})

test('on grips that nobody told it of, read to half a millimetre, it is there after few readings', () => {
  const of = randomFrom(20261128, 1)
  const random = () => of.next()
  const many = 400
  let readings = 0
  let worst = 0
  for (let n = 0; n < many; n++) {
    const perTurn = 0.5 + 2.5 * random()
    let play = 12 * random()
    let state = withTwin
    let asked = 0
    for (; asked < 12;) {
      state = after(state, read(Math.max(0, Math.round((play + (random() - 0.5) * 0.6) * 2) / 2)))
      asked++
      const go = hubToGo(twin, state)
      if (!go) break
      state = after(state, turn(go.sixteenths))
      // wire is taken up, never pushed: the grip has no less play than none
      play = Math.max(0, play - (perTurn * go.sixteenths) / 16)
    }
    readings += asked
    worst = Math.max(worst, asked)
    const { from, to } = targetMm(twin)
    expect(play).toBeGreaterThan(from - 0.5)
    expect(play).toBeLessThan(to + 0.5)
  }
  expect(readings / many).toBeLessThan(4.5)
  expect(worst).toBeLessThan(12)
})
