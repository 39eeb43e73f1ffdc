import FFT from 'fft.js'
import { describe, expect, test } from 'vitest'
import { advise } from '../advice/advise'
import { otherSound, type Chain } from '../bench/otherSounds'
import { coastingSound } from '../bench/coastingSounds'
import { soundOf } from '../bench/notAWheel'
import { scoreCoasting, scoreEdges, scoreHearing, scoreShifts } from '../bench/hearingScore'
import { randomFrom } from '../quantity/random'
import { setupOfStandard } from '../response/testBikes'
import { runningSound } from '../sound/chain'
import { linksPerSecond } from '../sound/rates'
import { envelopeOf } from './bands'
import { shareAgain } from './beat'
import { COAST_S, coastOf } from './coasting'
import { listenTo } from './listen'
import { rubOddsOf } from './rubOdds'
import { pairIn } from './knocking'
import { shiftsIn } from './shifting'
import { NOT_COASTED_WORDS, sayBeside, sayOdds } from './words'
import { LedgerEvent } from '../ledger/events'
import { edgesOf, entriesOf, type HeardAt } from './wound'

const chain: Chain = { cadenceRpm: 70, ringTeeth: 50, sprocketTeeth: 17, rub: 0 }
const quiet = { snrDb: 20, seconds: 8 }
const heardOf = (of: Chain, seed = 3, workshop = quiet) => {
  const told = listenTo(otherSound(of, workshop, seed), of)
  if (told.is === 'nothing') throw new Error(told.why)
  return told
}

describe('bands', () => {
  // a tone's power by a general FFT library: all of it in its own band
  test('a tone rises in its band and in no other, as its spectrum says', () => {
    const rateHz = 22_050
    const tone = Float32Array.from({ length: 16_384 }, (_, i) => Math.sin((2 * Math.PI * 1400 * i) / rateHz))
    const fft = new FFT(tone.length)
    const out = fft.createComplexArray()
    fft.realTransform(out, [...tone])
    const power = (from: number, to: number) => {
      let sum = 0
      for (let k = Math.round((from * tone.length) / rateHz); k < (to * tone.length) / rateHz; k++)
        sum += out[2 * k]! ** 2 + out[2 * k + 1]! ** 2
      return sum
    }
    expect(power(900, 2200) / power(2600, 6500)).toBeGreaterThan(1000)
    const mean = (of: Float32Array) => of.slice(100).reduce((s, v) => s + v, 0) / (of.length - 100)
    const link = mean(envelopeOf({ samples: tone, rateHz }, 'link').level)
    expect(link).toBeCloseTo(Math.SQRT1_2, 1)
    expect(mean(envelopeOf({ samples: tone, rateHz }, 'rub').level)).toBeLessThan(link / 8)
  })
})

describe('the beat', () => {
  test('is cadence by ring teeth: 70 rpm on 50 teeth, 58 links a second', () => {
    const told = heardOf(chain)
    expect(told.beat.linksHz).toBeCloseTo(linksPerSecond(chain), 0)
    expect(Math.abs(told.cadenceRpm - 70)).toBeLessThan(1.4)
  })
  test('of Practice’s own sounds as well', () => {
    const run = {
      cadenceRpm: 80,
      ringTeeth: 42,
      sprocketTeeth: 17,
      z: 0.1,
      sharpness: 1,
      end: null,
      worn: false,
      gapMm: null,
    }
    const { left, right, rate } = runningSound(run, 5, 6)
    const told = listenTo({ samples: left.map((v, i) => v + right[i]!), rateHz: rate }, run)
    expect(told).toMatchObject({ is: 'heard' })
    if (told.is === 'heard') expect(Math.abs(told.cadenceRpm / 80 - 1)).toBeLessThan(0.02)
  })
  test('what comes once a period is told from what does not', () => {
    const level = Float32Array.from({ length: 6000 }, (_, i) => (i % 50 < 10 ? 1 : 0) + 0.3 * Math.sin(i * i))
    expect(shareAgain({ level, rateHz: 1000 }, 0.05)).toBeGreaterThan(0.7)
    expect(shareAgain({ level, rateHz: 1000 }, 0.0437)).toBeLessThan(0.1)
  })
})

describe('a rub', () => {
  test('is told from clean, and is louder the further past', () => {
    const at = [0, 1, 2, 3].map(rub => heardOf({ ...chain, rub }))
    expect(at[0]!.rubOdds).toBeLessThan(0.5)
    expect(at[2]!.rubOdds).toBeGreaterThan(2)
    for (let i = 1; i < 4; i++) expect(at[i]!.rubDb).toBeGreaterThan(at[i - 1]!.rubDb)
  })
  test('odds grow with the hiss and stop where no sound is proof', () => {
    const odds = [-60, -30, -16, -6, 20].map(rubOddsOf)
    for (let i = 1; i < odds.length; i++) expect(odds[i]!).toBeGreaterThanOrEqual(odds[i - 1]!)
    expect(odds[0]).toBe(1 / 30)
    expect(odds.at(-1)).toBe(30)
  })
  test('what turns once in a wheel, or in the cranks, is not the gears', () => {
    expect(heardOf(chain).notTheGears).toBeNull()
    expect(heardOf({ ...chain, once: 'wheel' }).notTheGears).toBe('wheel')
    expect(heardOf({ ...chain, once: 'crank' }).notTheGears).toBe('crank')
  })
  test('knocks are counted', () => {
    expect(heardOf({ ...chain, skips: 2 }).knocks).toBeGreaterThan(0)
    expect(heardOf(chain).knocks).toBe(0)
  })
})

describe('what is no chain', () => {
  test('too short, muted, and too loud a room are said', () => {
    const rateHz = 22_050
    expect(listenTo({ samples: new Float32Array(rateHz), rateHz }, chain)).toEqual({ is: 'nothing', why: 'short' })
    expect(listenTo({ samples: new Float32Array(6 * rateHz), rateHz }, chain)).toEqual({ is: 'nothing', why: 'quiet' })
    const drowned = otherSound(chain, { snrDb: -22, seconds: 6 }, 4)
    expect(listenTo(drowned, chain)).toEqual({ is: 'nothing', why: 'loud' })
  })
})

describe('wind and listen', () => {
  const heard = (low: number, high: number, lag = 0): HeardAt[] => {
    const at = (eighths: number, way: 'out' | 'in') => {
      const place = way === 'in' ? eighths + lag : eighths
      return { eighths, way, rubDb: place < low || place > high ? -5 : -31 }
    }
    return [
      ...Array.from({ length: 7 }, (_, i) => at(i, 'out')),
      ...Array.from({ length: 14 }, (_, i) => at(5 - i, 'in')),
    ]
  }
  test('both rubs are found, each from the way that was wound towards it, and the quiet between', () => {
    const { in: low, out: high, quiet: between } = edgesOf(heard(-3.5, 2.5, 2))
    expect(low!.eighths).toBeCloseTo(-5.5, 0)
    expect(high!.eighths).toBeCloseTo(2.5, 0)
    expect(between!.to - between!.from).toBeGreaterThan(7)
    expect(low!.sd).toBeLessThan(1)
  })
  test('a side that was never reached has no edge', () => {
    expect(edgesOf(heard(-3.5, 20))).toMatchObject({ out: null, quiet: null })
    expect(edgesOf(heard(-20, 20).slice(0, 2))).toEqual({ in: null, out: null, quiet: null })
  })
  const edge = (eighths: number) => ({ eighths, sd: 0.2 })
  test('noted, they are two windings and the barrel where it stands', () => {
    expect(entriesOf({ in: edge(-4), out: edge(2.5), quiet: null }, 3, 1)).toEqual([
      { kind: 'edge', click: 3, way: 'out', sixteenths: 5, found: true },
      { kind: 'edge', click: 3, way: 'in', sixteenths: -13, found: true },
      { kind: 'turn', screw: 'barrel', sixteenths: 10 },
    ])
    for (const e of entriesOf({ in: edge(-4), out: edge(2.5), quiet: null }, 3, 1)) LedgerEvent.parse(e)
  })
  test('one that rubbed from the start, or lies too far from the other, is left out; the barrel is where it is', () => {
    expect(entriesOf({ in: null, out: edge(-1), quiet: null }, 3, -2)).toEqual([
      { kind: 'turn', screw: 'barrel', sixteenths: -4 },
    ])
    expect(entriesOf({ in: edge(-12), out: edge(8), quiet: null }, 3, 8).map(e => e.kind)).toEqual(['edge'])
  })
})

describe('shifts', () => {
  test('one that clatters on came late, and is said; one that lies at once did not', () => {
    const [late, prompt] = [heardOf({ ...chain, shiftTakesS: 1.5 }), heardOf({ ...chain, shiftTakesS: 0.3 })]
    expect(late.shifts.map(s => s.late)).toEqual([true])
    expect(Math.abs(late.shifts[0]!.lastsS - 1.5)).toBeLessThan(0.5)
    expect(sayBeside(late)).toMatch(/clattered on for 1\.\d s: it came late/)
    expect(prompt.shifts.every(s => !s.late)).toBe(true)
    expect(sayBeside(prompt)).toBeNull()
  })
  test('a rub, a knock and silence are none', () => {
    expect(heardOf({ ...chain, rub: 2 }).shifts).toEqual([])
    expect(heardOf({ ...chain, skips: 1 }).shifts).toEqual([])
    expect(shiftsIn({ level: new Float32Array(3000), rateHz: 1000 })).toEqual([])
  })
})

describe('knocks', () => {
  const rateHz = 1000
  const room = (strokes: readonly number[]) => {
    const level = Float32Array.from({ length: 3000 }, (_, i) => 0.01 + 0.002 * Math.sin(i * i))
    for (const s of strokes) for (let i = 0; i < 40; i++) level[Math.round(s * rateHz) + i]! += Math.exp(-i / 12)
    return { level, rateHz }
  }
  test('two alone are a sign, when the second fell', () => {
    expect(pairIn(room([1, 1.3]))).toBeCloseTo(1.3, 1)
  })
  test('one, three, an echo, a long noise, and a pair that may still go on are none', () => {
    for (const strokes of [[1], [1, 1.3, 1.6], [1, 1.05], [0.4, 1.6], [2.5, 2.8]])
      expect(pairIn(room(strokes))).toBeNull()
    const long = room([])
    for (let i = 900; i < 1500; i++) long.level[i] = 1
    expect(pairIn(long)).toBeNull()
  })
  test('a chain that shifts and rubs beside the tablet is none', () => {
    for (let seed = 0; seed < 6; seed++)
      expect(pairIn(envelopeOf(otherSound({ ...chain, rub: 2 }, quiet, seed), 'rattle'))).toBeNull()
  })
})

describe('the figures that are published, on fewer sounds', () => {
  test('10 dB of workshop: rub from clean, the cadence, the edges', () => {
    const score = scoreHearing(24, 70_000)
    expect(score.right).toBeGreaterThan(0.85)
    expect(score.cadenceWithin2).toBeGreaterThan(0.95)
    const edges = scoreEdges(3, 71_000)
    expect(edges.withinEighth).toBeGreaterThan(0.6)
    const shifts = scoreShifts(24, 72_000)
    expect(shifts.lateRight).toBeGreaterThan(0.7)
    expect(shifts.falseOnes).toBe(0)
  }, 120_000)
})

describe('as evidence beside what is said', () => {
  const setup = setupOfStandard('r17-10')
  const seen = [
    { kind: 'sight', at: 'L', offsetMm: 0 },
    { kind: 'sight', at: 'H', offsetMm: 0 },
    { kind: 'shift', from: 0, to: 1, heard: 'clean' },
  ] as const
  const right = (rubOdds: number | null) =>
    advise(setup, [...seen, ...(rubOdds === null ? [] : [{ kind: 'sounded', to: 1, rubOdds } as const])]).right
  test('a sound like a rub makes right less likely, one like clean more, and neither settles it', () => {
    const [none, rub, clean] = [right(null), right(20), right(1 / 20)]
    expect(rub).toBeLessThan(none)
    expect(clean).toBeGreaterThan(none - 0.02)
    expect(rub).toBeGreaterThan(0)
  })
  test('noted again as things stand it is the same sound; once something moved it counts anew', () => {
    const once = right(20)
    const heard = { kind: 'sounded', to: 1, rubOdds: 20 } as const
    expect(advise(setup, [...seen, heard, heard, heard]).right).toBe(once)
    const again = { kind: 'shift', from: 1, to: 1, heard: 'clean' } as const
    expect(advise(setup, [...seen, heard, again, heard]).right).toBeLessThan(
      advise(setup, [...seen, heard, again]).right,
    )
  })
  test('odds of 1 say nothing; nonsense is refused by name', () => {
    expect(Math.abs(right(1) - right(null))).toBeLessThan(0.03)
    expect(() => right(0)).toThrow(/rubOdds/)
  })
})

describe('a hub’s highest gear by its tick', () => {
  const free = { is: 'free', turnsPerS: 2, ticksATurn: 15, stopsInS: 30 } as const
  test('is how many ticks a second, and how soon it would stand', () => {
    const told = coastOf(coastingSound(free, { snrDb: 15, seconds: COAST_S }, 1))
    expect(told).toMatchObject({ is: 'heard', tickOdds: expect.toSatisfy((o: number) => o > 3) as number })
    // turns a second times notches
    if (told.is === 'heard') expect(Math.abs(told.ticksHz / 30 - 1)).toBeLessThan(0.03)
    if (told.is === 'heard') expect(Math.abs(told.stopsInS / 30 - 1)).toBeLessThan(0.25)
  })
  test('is told from a gear that brakes it; what ticks no more, or now and then, is no tick', () => {
    const { free, braked, silent, catches, ...others } = scoreCoasting(4, 41_000)
    expect(free.free).toBeGreaterThanOrEqual(3)
    expect(braked.braked).toBeGreaterThanOrEqual(3)
    expect(free.braked + braked.free + silent.free + catches.free).toBeLessThanOrEqual(1)
    expect(silent.nothing).toBeGreaterThanOrEqual(3)
    // beeps, a machine, a pedalled chain, music, speech
    for (const [what, told] of Object.entries(others)) expect(told.nothing, what).toBeGreaterThanOrEqual(3)
  })
  test('what ticks and does not slow down is no wheel that was let go, and said so', () => {
    const steady = soundOf('a machine', { snrDb: 15, seconds: COAST_S }, 1)
    expect(coastOf(steady)).toEqual({ is: 'nothing', why: 'steady' })
    expect(NOT_COASTED_WORDS.steady).toContain('let go')
  })
  test('nothing is made of a moment, of a covered microphone, of noise alone', () => {
    const rateHz = 22_050
    const still = new Float32Array(COAST_S * rateHz)
    expect(coastOf({ samples: still.subarray(0, rateHz), rateHz })).toEqual({ is: 'nothing', why: 'short' })
    expect(coastOf({ samples: still, rateHz })).toEqual({ is: 'nothing', why: 'quiet' })
    const random = randomFrom(7, 1)
    const noise = still.map(() => 0.1 * random.normal())
    expect(coastOf({ samples: noise, rateHz })).toEqual({ is: 'nothing', why: 'even' })
  })
  test('odds are said either way, and not where they say next to nothing', () => {
    expect([8, 1 / 15, 1.2, 1].map(o => sayOdds(o, 'it', 'another'))).toEqual([
      '8 to 1 for it',
      '15 to 1 for another',
      null,
      null,
    ])
  })
})
