import { describe, expect, test } from 'vitest'
import { BRAKE_CHECKS } from '../brake/checks'
import { BRAKE_FAULTS } from '../brake/faults'
import type { FrontSight as FrontEvent } from '../front/events'
import type { FrontSeen } from '../front/moves'
import { STRAIGHT } from '../front/response'
import { wheelTurnsOf } from '../hub/ratio'
import { brakeBike, brakeStand } from './brakeStand'
import { brakePose, BRAKE_DRAWN, BRAKE_LOOK_S, padLooks, type BrakeSight } from './brakeSight'
import { frontBike, frontStand } from './frontStand'
import { frontPose, frontSight, FRONT_SHIFT_S, type FrontSight } from './frontSight'
import { hubBike, hubStand } from './hubStand'
import { CRANK_S, hubPose, type HubSight } from './hubSight'
import { practiceFaultWords } from './faultWords'
import { LEVELS, PRACTICE_BENCHES } from './levels'
import { faultsOf } from './run'
import { lastsS, tellsAtS } from './sight'

const brake = (look: BrakeSight['look'], outcome: string): BrakeSight => ({ of: 'brake', disc: false, look, outcome })
/** How a look goes, every tenth of a second. */
const course = (sight: BrakeSight) => Array.from({ length: BRAKE_LOOK_S * 10 + 1 }, (_, i) => brakePose(sight, i / 10))
const most = (sight: BrakeSight, of: 'lever' | 'left' | 'right') => Math.max(...course(sight).map(p => p[of]))
const turns = (sight: BrakeSight) => brakePose(sight, BRAKE_LOOK_S).wheelTurns

describe('a brake as it is seen', () => {
  const drawn = BRAKE_CHECKS.filter(c => (BRAKE_DRAWN as readonly string[]).includes(c.id))
  test('every outcome of a look that is drawn looks like no other', () => {
    expect(drawn).toHaveLength(BRAKE_DRAWN.length)
    for (const check of drawn) {
      const seen = check.outcomes.map(([outcome]) => {
        const sight = brake(check.id as BrakeSight['look'], outcome)
        return JSON.stringify([course(sight), padLooks(sight)])
      })
      expect(new Set(seen).size, check.id).toBe(seen.length)
    }
  })
  test('a firm lever stops clear of the bar and the wheel stands; to the bar, wooden, stiff and nothing show as they feel', () => {
    expect(most(brake('lever', 'firm'), 'lever')).toBeLessThan(0.6)
    expect(most(brake('lever', 'bar'), 'lever')).toBe(1)
    expect(most(brake('lever', 'nothing'), 'left')).toBe(0)
    expect(turns(brake('lever', 'firm'))).toBeLessThan(turns(brake('lever', 'wooden')))
    expect(turns(brake('lever', 'wooden'))).toBeLessThan(turns(brake('lever', 'nothing')))
    const at = (outcome: string) => brakePose(brake('lever', outcome), 1.2).lever
    expect(at('stiff')).toBeLessThan(at('firm'))
  })
  test('a wheel that brakes never turns back, and one that stands goes on standing', () => {
    for (const [outcome] of BRAKE_CHECKS.find(c => c.id === 'lever')!.outcomes) {
      const all = course(brake('lever', outcome)).map(p => p.wheelTurns)
      for (let i = 1; i < all.length; i++)
        expect(all[i]! - all[i - 1]!, `${outcome} ${i}`).toBeGreaterThanOrEqual(-1e-9)
    }
    expect(brakePose(brake('lever', 'firm'), 2).wheelTurns).toBe(turns(brake('lever', 'firm')))
  })
  test('pads: alike and back, one behind the other, one that stays, both slow, both short, neither', () => {
    const end = (outcome: string) => brakePose(brake('arms', outcome), BRAKE_LOOK_S)
    expect(end('alike')).toMatchObject({ left: 0, right: 0 })
    expect(end('dead').left).toBe(1)
    expect(end('dead').right).toBe(0)
    expect(end('one').left).toBeGreaterThan(0.3)
    const justLetGo = (outcome: string) => brakePose(brake('arms', outcome), 3.6).left
    expect(justLetGo('slow')).toBeGreaterThan(justLetGo('alike') + 0.3)
    expect(most(brake('arms', 'short'), 'left')).toBeLessThan(1)
    expect(most(brake('arms', 'still'), 'left')).toBe(0)
  })
  test('a rim out of true comes to both pads once a turn; a wheel not home lies at one', () => {
    const rim = (outcome: string) => course(brake('spin', outcome)).map(p => p.rim)
    expect(Math.max(...rim('wobbles'))).toBeGreaterThan(0.9)
    expect(Math.min(...rim('wobbles'))).toBeLessThan(-0.9)
    expect(brakePose(brake('spin', 'wobbles'), tellsAtS(brake('spin', 'wobbles'))).rim).toBeCloseTo(1, 12)
    expect(new Set(rim('side'))).toEqual(new Set([1]))
    expect(new Set(rim('free'))).toEqual(new Set([0]))
  })
  test('what the stand shows is what its look found, until something is put right', () => {
    const fault = BRAKE_FAULTS['linear-pull'].find(f => f.id === 'noodle-out')!
    const bike = { kind: 'linear-pull', faults: [fault] } as const
    const looked = brakeStand(bike, 1, ['look lever'])
    expect(looked.sight).toMatchObject({ of: 'brake', look: 'lever', disc: false })
    expect(looked.found[0]).toMatchObject({ drawn: true })
    const words = BRAKE_CHECKS.find(c => c.id === 'lever')!.outcomes.find(
      o => o[0] === (looked.sight as BrakeSight).outcome,
    )![1]
    expect(looked.found[0]!.is).toBe(words)
    expect(brakeStand(bike, 1, ['look lever', 'look noodle']).sight).toMatchObject({ look: null })
    expect(brakeStand(bike, 1, ['look lever', 'cure noodle-out']).sight).toMatchObject({ look: null })
    expect(lastsS(looked.sight)).toBe(BRAKE_LOOK_S)
    expect(brakeBike(3, 'one').kind).not.toBe('coaster')
  })
})

describe('a front as it is seen', () => {
  const { setup, hidden } = frontBike(3, 'one')
  const well = { ...STRAIGHT, ...hidden, ...STRAIGHT }
  const shift = (from: number, to: number, seen: FrontSeen) =>
    ({ kind: 'frontShift', from, to, sprocket: 0, seen }) as const
  const sight = (log: FrontEvent[], now = well): FrontSight => frontSight(setup, now, log)
  test('the cage goes out with the lever and with the barrel; the chain lies where the shift left it', () => {
    const from = sight([])
    expect(from.ring).toEqual({ from: 0, to: 0 })
    const climbed = sight([shift(0, 1, 'clean')])
    expect(climbed.ring).toEqual({ from: 0, to: 1 })
    expect(climbed.cageMm.from).toBe(from.cageMm.to)
    expect(climbed.cageMm.to).toBeGreaterThan(from.cageMm.to + 3)
    expect(sight([shift(0, 1, 'no-climb')]).ring).toEqual({ from: 0, to: 0 })
    expect(sight([shift(0, 1, 'clean')], { ...well, slackMm: -2 }).cageMm.to).toBeLessThan(climbed.cageMm.to)
  })
  test('a turn moves the cage from where it stood', () => {
    const turned = frontSight(
      setup,
      { ...well, slackMm: -1 },
      [shift(0, 1, 'clean'), { kind: 'frontTurn', screw: 'barrel', sixteenths: -16 }],
      well,
    )
    expect(turned.cageMm.to).toBeLessThan(turned.cageMm.from)
    expect(frontPose(turned, 0).cageMm).toBe(turned.cageMm.from)
  })
  test('a chain that falls inboard hangs inside the small ring; one that climbs ends on the ring', () => {
    const base = sight([shift(0, 1, 'clean')])
    const fell: FrontSight = { ...base, ring: { from: 1, to: null }, fell: 'inboard', rubs: null }
    const end = frontPose(fell, FRONT_SHIFT_S)
    expect(end.chainMm).toBeLessThan(fell.rings[0]!.chainMm - 3)
    expect(end.fallen).toBe(1)
    const climbed: FrontSight = { ...base, ring: { from: 0, to: 1 }, fell: null, rubs: null }
    expect(frontPose(climbed, 0).chainMm).toBe(climbed.rings[0]!.chainMm)
    expect(frontPose(climbed, FRONT_SHIFT_S)).toEqual({
      cageMm: climbed.cageMm.to,
      chainMm: climbed.rings[1]!.chainMm,
      fallen: 0,
    })
    // the stand shows it so
    const stood = frontStand(frontBike(3, 'one'), 3, ['shift 0 1'])
    expect(stood.found.at(-1)!.drawn).toBe(true)
    expect((stood.sight as FrontSight).ring.from).toBe(0)
    const rubs = { ...climbed, rubs: 'outer' as const }
    const trembles = Array.from({ length: 30 }, (_, i) => frontPose(rubs, 1 + i * 0.01).cageMm)
    expect(new Set(trembles.map(x => x.toFixed(3))).size).toBeGreaterThan(3)
  })
})

describe('a hub as it is seen', () => {
  test('the wheel is turned as often as it was counted, at the crank’s pace; one that slips stands while the crank goes on', () => {
    const bike = hubBike(4, 'none')
    const { sight, found } = hubStand(bike, 4, ['count 1'])
    const { count } = sight as HubSight
    expect(found[0]!.drawn).toBe(true)
    expect(lastsS(sight)).toBe(count!.crankTurns * CRANK_S)
    const counted = { gear: 2, crankTurns: 5, wheelTurns: wheelTurnsOf(bike.parts, 2, 5) }
    // what is looked at next is not the wheel
    expect((hubStand(bike, 4, ['count 1', 'look washers']).sight as HubSight).count).toBeNull()
    expect(hubPose(counted, 99)).toEqual({ crank: 5, wheel: counted.wheelTurns })
    expect(hubPose(counted, 2.5 * CRANK_S).wheel).toBeCloseTo(counted.wheelTurns / 2, 12)
    const slips = { ...counted, wheelTurns: null }
    const at = (s: number) => hubPose(slips, s * CRANK_S)
    expect(at(1.4).wheel).toBe(at(0.9).wheel)
    expect(at(1.4).crank).toBeGreaterThan(at(0.9).crank)
    expect(at(2).wheel).toBeGreaterThan(at(1.4).wheel)
  })
  test('a reading is shown until something is put right', () => {
    const bike = hubBike(4, 'one')
    const read = hubStand(bike, 4, ['read']).sight as HubSight
    expect(read.readMm).not.toBeNull()
    const [fault] = bike.is
    expect((hubStand(bike, 4, ['read', `cure ${fault!.fault}`]).sight as HubSight).readMm).toBeNull()
  })
})

test('every fault of every practice bike has words of its own, and none is a code', async () => {
  for (const bench of PRACTICE_BENCHES)
    for (const level of LEVELS)
      for (let bike = 1; bike <= 10; bike++)
        for (const fault of await faultsOf({ bench, level, bike })) {
          const words = practiceFaultWords(bench, fault)
          expect(words, `${bench} ${fault}`).toMatch(/^[A-Z]/)
          expect(words.replace(/^\w+: /, ''), `${bench} ${fault}`).not.toBe(fault.replaceAll('-', ' '))
        }
})
