import { describe, expect, test } from 'vitest'
import { simulatedBench } from '../bench/bench'
import { AS_MODELLED } from '../bench/physics'
import { truthOf } from '../bench/truth'
import { B_SCREW } from '../rear/gap'
import { CAUSES } from '../response/causes'
import { QUIET_GAP_MM } from '../sound/chain'
import { geometryOf } from '../response/setup'
import { safeStopMm } from '../response/safe'
import { cableWindowMm } from '../response/window'
import { rearTruth, rearVerdict } from './aftermath'
import { askedRear } from './askedRear'
import { besideRear, chanceFrom } from './beside'
import { bikesOfTest, newRun, PracticeAsked, PracticeRun } from './asked'
import { LESSONS } from './lessons'
import { LEVELS, PRACTICE_BENCHES } from './levels'
import { practiseNext } from './next'
import { rearBike } from './rearBike'
import { rearHelp } from './rearHelp'
import { rearRunningSound, rearShiftSound, rearShown, SOUND_WORDS, soundWords } from './rearShown'
import { asSaid, rearStand, whyNot, type RearAct } from './rearStand'
import { earOf, faultsMet, type PracticeResult } from './results'
import { faultsOf, standFor } from './run'
import { seedOf } from './seed'
import { frontBike, frontStand } from './frontStand'
import { byAdvice, DONE, type Stand } from './stand'

const shift = (to: number): RearAct => ({ do: 'shift', to })
const DONE_REAR: RearAct = { do: 'done' }

/** Turns of the barrel that put a cable that is merely off into the middle of its window, in eighths. */
function turnsOf(bike: ReturnType<typeof rearBike>): number {
  const g = geometryOf(bike.setup)
  const { from, to } = cableWindowMm(g, bike.hidden, bike.hidden, true)
  return Math.round((8 * ((from + to) / 2 - bike.hidden.cableMm)) / g.threadMm) / 8
}
/** A bike with a cable that is off within its barrel’s travel. */
const TENSION = (() => {
  for (let number = 1; ; number++) {
    const bike = rearBike(number, 'one', ['tension'])
    const to = bike.setup.barrelTurnsOut + turnsOf(bike)
    if (to >= 0 && to <= bike.setup.barrelTurnsRange) return { number, bike }
  }
})()

describe('practice bikes of the rear', () => {
  test.each(LEVELS)('on level %s what was put wrong is all that is wrong, as the bench judges truth', level => {
    for (let number = 1; number <= 8; number++) {
      const { setup, hidden, faults } = rearBike(number, level)
      const { causes } = truthOf(geometryOf(setup), setup, hidden, AS_MODELLED)
      expect(CAUSES.filter(c => causes[c]).sort()).toEqual([...faults].sort())
      if (level === 'two') expect(faults).toHaveLength(2)
      if (level === 'one' || level === 'alike') expect(faults).toHaveLength(1)
    }
  })
  test('the same number is the same bike, another is another', () => {
    expect(rearBike(7, 'one')).toEqual(rearBike(7, 'one'))
    expect(rearBike(7, 'one').hidden).not.toEqual(rearBike(8, 'one').hidden)
  })
  test('answers are the published bench’s under the same seed', () => {
    const bike = rearBike(12, 'two')
    const bench = simulatedBench(bike.setup, bike.hidden, 12, { ...AS_MODELLED, wrongReports: 0 })
    const acts: RearAct[] = [
      shift(1),
      shift(2),
      { do: 'sight', at: 'L' },
      { do: 'turn', screw: 'barrel', turns: 0.125 },
      { do: 'hanger' },
      shift(3),
    ]
    const events = acts.map(a => bench.perform(a as never))
    expect(rearStand(bike, 12, acts).log).toEqual(events)
  })
  test('a run taken up again is the same run', () => {
    const acts = [shift(1), shift(2), { do: 'said', heard: 'clean' }, { do: 'sight', at: 'H' }] as const
    const once = rearShown(TENSION.bike, 5, acts)
    const kept = PracticeRun.parse(
      JSON.parse(JSON.stringify({ ...newRun({ bench: 'rear', level: 'one', bike: 5 }), acts })),
    )
    expect(rearShown(TENSION.bike, 5, kept.acts as RearAct[])).toEqual(once)
  })
})

describe('at the stand', () => {
  const { bike, number } = TENSION
  test('nobody reaches the largest before L was seen, and no barrel leaves its thread', () => {
    const last = bike.setup.teeth.length - 1
    expect(whyNot(rearStand(bike, 1, []), shift(last), bike.setup)).toContain('See L by hand first')
    expect(rearStand(bike, 1, [shift(last)]).log).toEqual([])
    expect(whyNot(rearStand(bike, 1, [{ do: 'sight', at: 'L' }]), shift(last), bike.setup)).toBeNull()
    expect(whyNot(rearStand(bike, 1, []), { do: 'turn', screw: 'barrel', turns: -8 }, bike.setup)).toContain(
      'all the way in',
    )
    expect(whyNot(rearStand(bike, 1, []), { do: 'said', heard: 'clean' }, bike.setup)).toContain('Shift first')
    expect(rearStand(bike, 1, [DONE_REAR, shift(1)]).log).toEqual([])
  })
  test('the pulley is dragged along within its friction: a turn out and back leaves it where friction holds it', () => {
    const at = (...acts: RearAct[]) => rearStand(bike, 1, [shift(1), shift(2), shift(3), ...acts]).pulleyMm
    const turn = (turns: number): RearAct => ({ do: 'turn', screw: 'barrel', turns })
    expect(at(turn(0.25))).toBeGreaterThan(at())
    const back = at(turn(0.25), turn(-0.25))
    expect(back).toBeGreaterThan(at() - 1e-9)
    expect(back - at()).toBeLessThan(bike.hidden.backlashInMm + bike.hidden.backlashOutMm + 1e-9)
  })
  test('what was said stands beside what it was, the latest word on a shift; the advice is asked with what was said', () => {
    const stand = rearStand(bike, 1, [shift(1), { do: 'said', heard: 'jumps' }, { do: 'said', heard: 'none' }])
    expect(stand.said).toEqual([{ at: 0, said: 'none', was: stand.log[0]!.kind === 'shift' ? stand.log[0].heard : '' }])
    expect(asSaid(stand)[0]).toMatchObject({ heard: 'none' })
    expect(stand.touches).toBe(1)
  })
  test('what is hidden is on the screen only when it is over', () => {
    const before = rearShown(bike, 1, [shift(1)])
    expect(before.end).toBeNull()
    expect(JSON.stringify(before)).not.toContain('mmPerTurn')
    expect(before.found.at(-1)!.is).toBeNull()
    const after = rearShown(bike, 1, [shift(1), DONE_REAR])
    expect(after.end!.truth.map(t => t.what)).toContain('Stop L')
    expect(rearTruth(bike).find(t => t.what === 'Hanger')!.figure).toBe('straight')
  })
  test('a shift is heard: a sound of its own and one that runs on; in words too', () => {
    const made = rearShiftSound(bike, 1, [shift(1)])
    const running = rearRunningSound(bike, 1, [shift(1)])
    expect(made!.left.length).toBeGreaterThan(0.4 * made!.rate)
    expect(running.left.length).toBeGreaterThan(2 * running.rate)
    expect(rearShiftSound(bike, 1, [shift(1), { do: 'sight', at: 'L' }])).toBeNull()
    expect(Object.values(SOUND_WORDS)).toContain(soundWords(bike, 1, [shift(1)]))
    expect(soundWords(bike, 1, [])).toBeNull()
  })
  test('a pulley too near rattles under the largest until the B screw gives it room; told, and no part of winning', () => {
    const number = Array.from({ length: 60 }, (_, i) => i + 1).find(n => rearBike(n, 'none', []).gapMm < QUIET_GAP_MM)!
    const near = rearBike(number, 'none', [])
    const onLargest: RearAct[] = [{ do: 'sight', at: 'L' }, shift(near.setup.teeth.length - 1)]
    const wider: RearAct = { do: 'turnB', turns: 3 }
    const low = (acts: RearAct[]): number => {
      // a plain average over each millisecond takes off all but the low rattle
      const { left, rate } = rearRunningSound(near, 1, acts)
      const n = Math.round(rate / 1000)
      let power = 0
      for (let i = n; i < left.length; i += n) power += (left.subarray(i - n, i).reduce((a, b) => a + b, 0) / n) ** 2
      return power / left.length
    }
    expect(low(onLargest)).toBeGreaterThan(1.5 * low([...onLargest, wider]))
    expect(soundWords(near, 1, onLargest)).toContain('rattle')
    expect(soundWords(near, 1, [...onLargest, wider])).not.toContain('rattle')
    expect(soundWords(near, 1, [...onLargest, shift(0)])).not.toContain('rattle')
    const measured = rearShown(near, 1, [{ do: 'gap' }, wider, { do: 'gap' }])
    expect(measured.found.map(f => f.is)).toEqual([
      `${(Math.round(2 * near.gapMm) / 2).toFixed(1)} mm`,
      null,
      `${(Math.round(2 * (near.gapMm + 3 * B_SCREW.mmPerTurn)) / 2).toFixed(1)} mm`,
    ])
    expect(measured.touches).toBe(3)
    const left = rearShown(near, 1, [DONE_REAR]).end!
    expect(left.because.join()).toContain('B in gives it room')
    expect(left.won).toBe(rearStand(near, 1, [DONE_REAR]).right)
    expect(rearShown(near, 1, [wider, DONE_REAR]).end!.because.join()).toContain('the B screw gave it room')
    expect(rearTruth(near).find(t => t.what === 'B gap, tip to tip')!.figure).toContain('it rattled')
    // few come so: one in five
    const many = Array.from({ length: 200 }, (_, i) => rearBike(i + 1, 'none', []).gapMm < QUIET_GAP_MM)
    expect(many.filter(Boolean).length).toBeGreaterThan(20)
    expect(many.filter(Boolean).length).toBeLessThan(60)
  })
  test('help comes in steps, the least first', () => {
    expect(rearHelp(bike, 1, [], 'check')).not.toMatch(/\d/)
    expect(rearHelp(bike, 1, [], 'odds')).toMatch(/tension \d+ %/)
    expect(rearHelp(bike, 1, [], 'move').length).toBeGreaterThan(5)
  })
  test('won by who turns the barrel as far as it is off, within fifteen touches', () => {
    const turns = turnsOf(bike)
    const acts: RearAct[] = [
      { do: 'sight', at: 'L' },
      { do: 'sight', at: 'H' },
      shift(1),
      { do: 'turn', screw: 'barrel', turns },
      DONE_REAR,
    ]
    const stand = rearStand(bike, number, acts)
    expect(stand.right).toBe(true)
    expect(stand.touches).toBeLessThanOrEqual(15)
    expect(rearVerdict(bike, stand, acts)).toEqual({ won: true, because: ['The cable was off: found and put right.'] })
  })
  test('lost with the right explanation: the barrel for a bent hanger, a part without need, said to be right and not', () => {
    const bent = rearBike(104, 'alike', ['hanger'])
    const turn: RearAct = { do: 'turn', screw: 'barrel', turns: 0.125 }
    const acts = [turn, turn, turn, DONE_REAR]
    const { won, because } = rearVerdict(bent, rearStand(bent, 104, acts), acts)
    expect(won).toBe(false)
    expect(because[0]).toBe('The barrel was turned 3 times; the hanger was bent.')
    const bought: RearAct[] = [{ do: 'replace', part: 'cassette' }, DONE_REAR]
    expect(rearVerdict(bike, rearStand(bike, 1, bought), bought).because).toContain('Renewed without need: cassette.')
    const idle = [DONE_REAR]
    expect(rearVerdict(bike, rearStand(bike, 1, idle), idle).because.at(-1)).toContain('the cable')
  })
  test('others on the same bike, and the luck of a position: the right bike is won from, one with a needless part is lost', () => {
    const beside = besideRear(bike, number)
    expect(beside.map(b => b.id)).toEqual(['Ocho', 'quarter steps', 'find the edge', 'middle of the rub'])
    expect(beside).toEqual(besideRear(bike, number))
    expect(beside[0]!.won).toBe(true)
    const fine: RearAct[] = [
      { do: 'sight', at: 'L' },
      { do: 'sight', at: 'H' },
      { do: 'turn', screw: 'barrel', turns: turnsOf(bike) },
    ]
    expect(chanceFrom(bike, number, fine, fine.length)).toBeGreaterThan(0.5)
    const bought: RearAct[] = [{ do: 'replace', part: 'cassette' }]
    expect(chanceFrom(bike, number, bought, 1)).toBe(0)
  }, 60_000)
})

describe.each(['brake', 'hub', 'front'] as const)('at the stand of a %s', bench => {
  test('the advice finds what a number hides more often than not, and the same acts are the same run', async () => {
    let won = 0
    for (let bike = 1; bike <= 3; bike++) {
      const asked = { bench, level: 'one', bike } as const
      const { acts, stand } = byAdvice((await standFor(asked))!)
      if (stand.won) won++
      expect((await standFor(asked))!(acts)).toEqual(stand)
      expect(await faultsOf(asked)).toHaveLength(1)
      expect(stand.over).toBe(true)
      // what is advised is one act of the stand, said as that act is
      for (let n = 0; n < acts.length; n++) {
        const { advised, choices } = (await standFor(asked))!(acts.slice(0, n))
        const choice = choices.find(c => c.id === advised.id)
        if (choice) expect(choice.words).toContain(advised.words)
      }
    }
    expect(won).toBeGreaterThanOrEqual(2)
  }, 60_000)
  test('said to be right unlooked at: lost, with what is still there; nonsense does nothing', async () => {
    const stand = (await standFor({ bench, level: 'one', bike: 3 }))!
    expect(stand(['look nothing', 'cure nothing', 'turn L 999', 'count 99']).touches).toBe(0)
    const lost = stand([DONE])
    expect(lost).toMatchObject({ over: true, won: false })
    expect(lost.because[0]!.length).toBeGreaterThan(20)
    expect(stand([]).found).toEqual([])
  })
  test('a right one needs nothing but the proof', async () => {
    const faults = await Promise.all([1, 2, 3, 4, 5, 6, 7, 8, 9].map(bike => faultsOf({ bench, level: 'none', bike })))
    const none = 1 + faults.findIndex(f => f.length === 0)
    const stand = (await standFor({ bench, level: 'none', bike: none }))!([DONE])
    if (bench !== 'front')
      expect(stand).toMatchObject({ won: true, because: ['Nothing was wrong, and nothing was renewed.'] })
    else expect(stand.over).toBe(true)
  })
})

/**
 * A front played well and plainly: position, both stops by their figures, a round of shifts, the barrel where these ask
 * for it, a cable where they ask for both ways at once. Common practice, no source.
 */
function plainly(standOf: (acts: readonly string[]) => Stand, rings: number): Stand {
  const acts: string[] = []
  const look = (id: string): string => {
    acts.push(id)
    return standOf(acts).found.at(-1)!.is
  }
  const mm = (id: string) => Number(/-?\d+\.\d/.exec(look(id).replace('−', '-'))![0])
  const turn = (screw: string, turns: number) => {
    const sixteenths = Math.max(-64, Math.min(64, 2 * Math.round(8 * turns)))
    if (sixteenths) acts.push(`turn ${screw} ${sixteenths}`)
  }
  const [height, angle] = look('position')
    .replace('−', '-')
    .match(/-?\d+\.\d/g)!
    .map(Number)
  if (height! < 0.6 || height! > 3.4 || Math.abs(angle!) > 2) acts.push('set position')
  const stop = (id: string, screw: string): number => {
    let at = mm(id)
    for (let i = 0; i < 2 && Math.abs(at - 1) > 0.6; i++) {
      const off = at - 1
      turn(screw, off)
      at = Math.abs(off) > 1 ? mm(id) : 1
    }
    return at
  }
  const [inner, outer] = [stop('stop inner', 'L'), stop('stop outer', 'H')]
  let last: 'out' | 'in' | null = null
  for (let round = 0; round < 5; round++) {
    let [up, down] = [true, true]
    for (let r = 0; r < rings - 1; r++) {
      up &&= /clean/i.test(look(`shift ${r} ${r + 1}`))
      down &&= /clean/i.test(look(`shift ${r + 1} ${r}`))
    }
    if (up && down) break
    if ((!up && !down) || (up && last === 'out') || (down && last === 'in')) {
      acts.push(acts.includes('set cable') ? 'set lever' : 'set cable')
      last = null
      continue
    }
    const short = up ? inner - mm('gap inner') : outer - mm('gap outer')
    turn('barrel', (up ? -1 : 1) * Math.max(0.5, short / 0.8))
    last = up ? 'in' : 'out'
  }
  return standOf([...acts, DONE])
}
test('a front that is played well takes 15 touches or fewer in most runs, and most of these are won', () => {
  const runs = Array.from({ length: 9 }, (_, i) => {
    const bike = frontBike(201 + i, 'one')
    return plainly(acts => frontStand(bike, 201 + i, acts), bike.setup.parts.rings.length)
  })
  const few = runs.filter(r => r.touches <= 15)
  expect(few.length).toBeGreaterThanOrEqual(6)
  expect(few.filter(r => r.won).length).toBeGreaterThanOrEqual(few.length / 2)
}, 60_000)

describe('lessons and tests', () => {
  test('each lesson’s bike has what it speaks of', async () => {
    for (const l of LESSONS) {
      const asked = { bench: l.bench, level: l.level, bike: l.bike, lesson: l.id }
      expect(PracticeAsked.safeParse(asked).success).toBe(true)
      const wanted = l.rear ?? [l.front ?? l.brake?.fault ?? l.hub]
      expect(await faultsOf(asked), l.id).toEqual(wanted)
    }
    const lFirst = LESSONS.find(l => l.id === 'l-first')!
    const bike = askedRear({ bench: 'rear', level: lFirst.level, bike: lFirst.bike, lesson: lFirst.id })
    expect(bike.hidden.stopLMm).toBeGreaterThan(safeStopMm(geometryOf(bike.setup), 'L').to)
  })
  test('a test is the same ten for everybody', () => {
    expect(bikesOfTest(42)).toEqual(bikesOfTest(42))
    expect(new Set(bikesOfTest(42).map(b => b.bike)).size).toBe(10)
    expect(new Set(bikesOfTest(42).map(b => b.bench))).toEqual(new Set(PRACTICE_BENCHES))
    for (const b of bikesOfTest(9_999)) expect(PracticeAsked.safeParse(b).success).toBe(true)
  })
  test.each([
    [{ bench: 'wheel', level: 'one', bike: 1 }, 'Which bench'],
    [{ bench: 'rear', level: 'hard', bike: 1 }, 'Which level'],
    [{ bench: 'rear', level: 'one', bike: 'x' }, 'whole number'],
    [{ bench: 'rear', level: 'one', bike: 0 }, 'numbered from 1'],
    [{ bench: 'rear', level: 'one', bike: 100_000 }, 'numbered from 1'],
    [{ bench: 'rear', level: 'one', bike: 1, lesson: 'none' }, 'no such lesson'],
  ])('an address that makes no sense is refused in words: %o', (asked, words) => {
    expect(PracticeAsked.safeParse(asked).error!.issues[0]!.message).toContain(words)
  })
  test('the seed of a bike is its number, whoever sets it', () => {
    expect(seedOf({ bike: 12 })).toBe(12)
  })
})

describe('progress', () => {
  const result = (over: Partial<PracticeResult>): PracticeResult => ({
    id: '00000000-0000-4000-8000-000000000001',
    at: '2026-11-20T10:00:00.000Z',
    bench: 'rear',
    level: 'one',
    bike: 1,
    lesson: null,
    test: null,
    faults: ['hanger'],
    won: false,
    touches: 20,
    helps: 0,
    said: [],
    ...over,
  })
  test('an ear by kind of sound, with what it is taken for', () => {
    const said = [
      { said: 'clean', was: 'rubs-in' },
      { said: 'clean', was: 'rubs-in' },
      { said: 'slow', was: 'rubs-in' },
      { said: 'rubs-in', was: 'rubs-in' },
      { said: 'clean', was: 'clean' },
    ] as const
    expect(earOf([result({ said: [...said] })])).toEqual([
      { was: 'clean', there: 1, named: 1, takenFor: null },
      { was: 'rubs-in', there: 4, named: 1, takenFor: 'clean' },
    ])
  })
  test('faults met, the least found first', () => {
    const met = faultsMet([
      result({}),
      result({ faults: ['tension'], won: true }),
      result({ faults: ['hanger'], won: true }),
    ])
    expect(met.map(m => [m.fault, m.found, m.met])).toEqual([
      ['hanger', 1, 2],
      ['tension', 1, 1],
    ])
  })
  test('next comes what was missed, not what was found yesterday', async () => {
    const now = new Date('2026-11-21T10:00:00.000Z')
    const missed = ['hanger', 'hanger', 'hanger'].map(() => result({}))
    const found = ['tension', 'friction', 'stops', 'wear', 'mismatch'].flatMap(f =>
      [1, 2, 3].map(() => result({ faults: [f], won: true })),
    )
    const asked = await practiseNext([...missed, ...found], 'rear', now)
    expect(await faultsOf(asked)).toContain('hanger')
    expect(await practiseNext([...missed, ...found], 'rear', now)).toEqual(asked)
    expect((await practiseNext([], 'rear', now)).level).toBe('one')
  }, 60_000)
})
