import { vec2 } from 'gl-matrix'
import { describe, expect, test } from 'vitest'
import { centringMove, cameEven, nearerOfPush } from './centring'
import { hasPadGapSchool, stepsOf, BRAKE_STEPS } from './fitting'
import { BRAKE_KINDS } from './kinds'
import { armRatio, cableTakenMm, padGapMm, straddle } from './sums'

/** Moment of a force about a point, N·mm, + counter-clockwise. */
const moment = (about: vec2, at: vec2, force: vec2): number => {
  const arm = vec2.sub(vec2.create(), at, about)
  return arm[0] * force[1] - arm[1] * force[0]
}

// Outside judge: gl-matrix, a general vector library; the equilibrium of a joint and of a lever, plain statics
describe('straddle and arms by vectors', () => {
  test.each([
    [60, 120],
    [40, 120],
    [90, 110],
    [30, 140],
  ])('a yoke %d mm over anchors %d mm apart pulls across as its joint balances', (over, apart) => {
    const yoke = vec2.fromValues(0, over)
    const ways = [-1, 1].map(side => {
      const way = vec2.sub(vec2.create(), vec2.fromValues((side * apart) / 2, 0), yoke)
      return vec2.normalize(way, way)
    })
    // a cable pull of 1 upward, two wires that balance it: their tension from the upright parts
    const tension = 1 / -(ways[0]![1] + ways[1]![1])
    const sum = vec2.fromValues(0, 1)
    for (const w of ways) vec2.scaleAndAdd(sum, sum, w, tension)
    expect(vec2.length(sum)).toBeLessThan(1e-6)
    const across = Math.abs(tension * ways[1]![0])
    const { deg, acrossShare } = straddle(over, apart)
    expect(acrossShare).toBeCloseTo(across, 5)
    expect(deg).toBeCloseTo((vec2.angle(ways[0]!, ways[1]!) * 180) / Math.PI, 3)
  })
  test('a lower yoke is flatter, presses more and travels less; a high one is steep', () => {
    const [low, high] = [straddle(30, 120), straddle(90, 120)]
    expect(low.deg).toBeGreaterThan(high.deg)
    expect(low.acrossShare).toBeGreaterThan(high.acrossShare)
    // the same wire drawn up by a millimetre: how far an anchor comes in, by moving the joint
    const travel = (over: number) => {
      const length = Math.hypot(60, over)
      return 60 - Math.sqrt(length ** 2 - (over + 1) ** 2)
    }
    expect(travel(30)).toBeLessThan(travel(90))
  })
  // arms of about 102 mm with the pad about 28 mm above the pivot, from memory
  test("a linear-pull arm's ratio is the balance of its moments", () => {
    const pivot = vec2.fromValues(0, 0)
    const cable = moment(pivot, vec2.fromValues(0, 102), vec2.fromValues(1, 0))
    const pad = moment(pivot, vec2.fromValues(0, 28), vec2.fromValues(-1, 0))
    expect(-cable / pad).toBeCloseTo(armRatio('linear-pull')!, 1)
  })
  test('what is taken up by both arms is what was let out: virtual work, by a small turn of both arms', () => {
    const [turn, arm] = [0.7 / 28, 102]
    const end = vec2.rotate(vec2.create(), vec2.fromValues(0, arm), vec2.create(), turn)
    const pad = vec2.rotate(vec2.create(), vec2.fromValues(0, 28), vec2.create(), turn)
    expect(cableTakenMm('linear-pull', Math.abs(pad[0]))).toBeCloseTo(2 * Math.abs(end[0]), 0)
  })
})

// common practice, no source
describe('two ways to a pad gap', () => {
  const how = (kind: 'linear-pull' | 'dual-pivot', school: 'usual' | 'let-out' | 'wind-in') =>
    stepsOf(kind, school)
      .map(s => `${s.what} ${s.how}`)
      .join(' ')
  test('say what the sums say', () => {
    // 4 turns of a barrel of 1 mm thread; 3 to 4 mm let out
    expect(padGapMm('linear-pull', 4)).toBeCloseTo(0.55, 1)
    expect(how('linear-pull', 'wind-in')).toContain('0.55 mm a side')
    expect([padGapMm('dual-pivot', 3), padGapMm('dual-pivot', 4)].map(x => Math.round(10 * x) / 10)).toEqual([1.1, 1.5])
    expect(how('dual-pivot', 'let-out')).toContain('1.1 to 1.5 mm a side')
  })
  test('change the words of a step and never the steps; what a kind is usually done by needs no change', () => {
    for (const kind of BRAKE_KINDS)
      for (const school of ['usual', 'let-out', 'wind-in'] as const) {
        expect(stepsOf(kind, school).map(s => s.id)).toEqual((BRAKE_STEPS[kind] ?? []).map(s => s.id))
        for (const [i, s] of stepsOf(kind, school).entries()) expect(s.caution).toBe(BRAKE_STEPS[kind]![i]!.caution)
      }
    expect(how('linear-pull', 'let-out')).toBe(how('linear-pull', 'usual'))
    expect(how('dual-pivot', 'wind-in')).toBe(how('dual-pivot', 'usual'))
    expect(BRAKE_KINDS.filter(hasPadGapSchool)).toEqual(['linear-pull', 'dual-pivot'])
  })
})

describe('centring by the rim, and by turning until it is even', () => {
  test('a rim pushed to the left is pushed by the right pad: the same move as when that one stands nearer', () => {
    expect([nearerOfPush('left'), nearerOfPush('right'), nearerOfPush(null)]).toEqual(['right', 'left', 'even'])
    const moveFor = (nearer: ReturnType<typeof nearerOfPush>) => centringMove('linear-pull', [{ kind: 'seen', nearer }])
    expect(moveFor(nearerOfPush('left'))).toMatchObject({ do: 'turn', turn: { side: 'right' } })
    expect(moveFor(nearerOfPush(null))).toEqual({ do: 'done' })
  })
  test('"came even here" is the turn and that it is even', () => {
    const log = cameEven({ side: 'left', sixteenths: 6 })
    expect(log).toEqual([
      { kind: 'turned', side: 'left', sixteenths: 6 },
      { kind: 'seen', nearer: 'even' },
    ])
    expect(centringMove('linear-pull', [{ kind: 'seen', nearer: 'left' }, ...log])).toEqual({ do: 'done' })
  })
})
