import FFT from 'fft.js'
import { describe, expect, test } from 'vitest'
import { randomFrom } from '../quantity/random'
import { leverSound, loudness, RATE_HZ, rubLevel, runningSound, shiftSound, type Running, type Stereo } from './chain'
import { CHAIN_PITCH_MM } from '../quantity/chainPitch'
import { chainSpeedMmPerSecond, linksPerSecond, sprocketTurnsPerSecond } from './rates'

const RUN: Running = {
  cadenceRpm: 70,
  ringTeeth: 50,
  sprocketTeeth: 17,
  z: 0,
  sharpness: 1,
  end: null,
  worn: false,
  gapMm: null,
}

/**
 * Power of a sound by a general FFT library, summed over frames of 4096 samples: frequency of a bin is k · 44100 /
 * 4096.
 */
function spectrumOf({ left, right }: Pick<Stereo, 'left' | 'right'>, size = 4096): Float64Array {
  const fft = new FFT(size)
  const power = new Float64Array(size / 2)
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
  const frame = new Array<number>(size).fill(0)
  const out = fft.createComplexArray() as number[]
  for (let start = 0; start + size <= left.length; start += size) {
    for (let i = 0; i < size; i++) frame[i] = window[i]! * (left[start + i]! + right[start + i]!)
    fft.realTransform(out, frame)
    for (let k = 0; k < power.length; k++) power[k]! += out[2 * k]! ** 2 + out[2 * k + 1]! ** 2
  }
  return power
}
const between = (power: Float64Array, fromHz: number, toHz: number): number =>
  power.reduce((s, p, k) => {
    const hz = (k * RATE_HZ) / (2 * power.length)
    return hz >= fromHz && hz < toHz ? s + p : s
  }, 0)

/** Loudest rate of beats, Hz, of a sound's envelope, by the same library. */
function beat({ left, right }: Stereo, fromHz: number, toHz: number): number {
  const [step, size] = [64, 4096]
  const envelope = Array.from({ length: size }, (_, i) => {
    let s = 0
    for (let k = 0; k < step; k++)
      s += Math.abs(left[(i * step + k) % left.length]! + right[(i * step + k) % left.length]!)
    return s
  })
  const mean = envelope.reduce((a, b) => a + b) / size
  const fft = new FFT(size)
  const out = fft.createComplexArray() as number[]
  fft.realTransform(
    out,
    envelope.map(x => x - mean),
  )
  const hzOf = (k: number) => (k * RATE_HZ) / step / size
  let best = 0
  for (let k = 1; k < size / 2; k++) {
    if (hzOf(k) < fromHz || hzOf(k) > toHz) continue
    if (Math.hypot(out[2 * k]!, out[2 * k + 1]!) > Math.hypot(out[2 * best]!, out[2 * best + 1]!) || !best) best = k
  }
  return hzOf(best)
}

describe('rates', () => {
  test('a chain of half an inch (ISO 9633) at 70 rpm on 50 teeth: 58 links a second (docs/model.md, section 7), 0.74 m/s', () => {
    expect(CHAIN_PITCH_MM).toBe(12.7)
    expect(linksPerSecond(RUN)).toBeCloseTo(58.3, 1)
    expect(chainSpeedMmPerSecond(RUN)).toBeCloseTo((70 / 60) * 50 * 12.7, 6)
    // gear ratio 50:17 is as many wheel turns a crank turn
    expect(sprocketTurnsPerSecond(RUN)).toBeCloseTo((70 / 60) * (50 / 17), 9)
  })
  test.each([
    [70, 50],
    [90, 34],
    [55, 42],
  ])('the beat heard at %i rpm on %i teeth is that of the links', (cadenceRpm, ringTeeth) => {
    const run = { ...RUN, cadenceRpm, ringTeeth }
    const hz = linksPerSecond(run)
    expect(Math.abs(beat(runningSound(run, 5, 6), 0.7 * hz, 1.3 * hz) - hz)).toBeLessThan(0.25)
  })
})

describe('what is heard', () => {
  test('a loop of whole sprocket turns, without a seam and without end', () => {
    const { left, rate } = runningSound({ ...RUN, z: 0.3 }, 1, 3)
    const turns = (left.length / rate) * sprocketTurnsPerSecond(RUN)
    expect(Math.abs(turns - Math.round(turns))).toBeLessThan(1e-3)
    // what rings at the end rings on at the start
    expect(Math.abs(left[0]! - left.at(-1)!)).toBeLessThan(0.1)
    expect(left.every(x => Number.isFinite(x) && Math.abs(x) < 4)).toBe(true)
  })
  test('a rub grows with how far the pulley stands past the threshold, and lies in 2 to 6 kHz', () => {
    const loud = [0, 0.18, 0.24, 0.3, 0.36].map(z => between(spectrumOf(runningSound({ ...RUN, z }, 9)), 2000, 6000))
    loud.slice(1).forEach((l, i) => expect(l).toBeGreaterThan(1.15 * loud[i]!))
    expect(loudness(runningSound({ ...RUN, z: 0.4 }, 9))).toBeGreaterThan(1.2 * loudness(runningSound(RUN, 9)))
    const power = spectrumOf(runningSound({ ...RUN, z: 0.4 }, 9))
    expect(between(power, 2000, 6000)).toBeGreaterThan(5 * between(power, 9000, 20_000))
  })
  test('the side is heard: a rub on the larger, inboard, is on the left of the picture from behind', () => {
    const energy = (x: Float32Array) => x.reduce((s, v) => s + v * v, 0)
    const inboard = runningSound({ ...RUN, z: 0.35 }, 3)
    const outboard = runningSound({ ...RUN, z: -0.35 }, 3)
    expect(energy(inboard.left)).toBeGreaterThan(1.5 * energy(inboard.right))
    expect(energy(outboard.right)).toBeGreaterThan(1.5 * energy(outboard.left))
  })
  test('the ends have no neighbour on one side', () => {
    expect(rubLevel({ z: 0.25, sharpness: 1, end: null })).toBeGreaterThan(0)
    expect(rubLevel({ z: 0.25, sharpness: 1, end: 'largest' })).toBe(0)
    expect(rubLevel({ z: -0.35, sharpness: 1, end: 'smallest' })).toBe(0)
  })
  test('rub, clean and skip are told apart by a plain classifier in 95 of 100 and more, on seeds of their own', () => {
    // share of its power in the rub's band, and how much the loudest moment below 500 Hz stands out of the usual one
    const features = (s: Stereo): [number, number] => {
      const power = spectrumOf(s)
      const share = between(power, 2600, 6000) / between(power, 100, 8000)
      const low: number[] = []
      for (let at = 0; at + 2048 <= s.left.length; at += 2048)
        low.push(
          between(
            spectrumOf({ left: s.left.subarray(at, at + 2048), right: s.right.subarray(at, at + 2048) }, 2048),
            80,
            500,
          ),
        )
      low.sort((a, b) => a - b)
      return [share, Math.log(low.at(-1)! / low[Math.floor(low.length / 2)]!)]
    }
    const random = randomFrom(2026, 17)
    const made = (kind: 'clean' | 'rub' | 'skip', seed: number) => {
      const run = {
        ...RUN,
        cadenceRpm: 50 + 45 * random.next(),
        ringTeeth: [34, 42, 50][random.below(3)]!,
        sprocketTeeth: 11 + random.below(18),
        sharpness: 0.85 + 0.3 * random.next(),
      }
      const rubs = (random.next() < 0.5 ? -1 : 1) * (0.19 + 0.2 * random.next()) * run.sharpness
      const clean = 0.1 * (2 * random.next() - 1) * run.sharpness
      return features(runningSound({ ...run, z: kind === 'rub' ? rubs : clean, worn: kind === 'skip' }, seed, 2))
    }
    const kinds = ['clean', 'rub', 'skip'] as const
    const classify = ([share, jump]: [number, number]) => (jump > 3 ? 'skip' : share > 0.2 ? 'rub' : 'clean')
    let right = 0
    for (const kind of kinds) for (let i = 0; i < 40; i++) if (classify(made(kind, 5000 + i)) === kind) right++
    expect(right / 120).toBeGreaterThanOrEqual(0.95)
  })
  test('of a shift: a late one clatters on, a jump lands twice, one that does not come lands not at all', () => {
    const turning = { ...RUN, inward: true }
    const loudAt = (s: Stereo, from: number, to: number) =>
      loudness({
        ...s,
        left: s.left.subarray(from * RATE_HZ, to * RATE_HZ),
        right: s.right.subarray(from * RATE_HZ, to * RATE_HZ),
      })
    const [clean, slow, jumps, none] = (['clean', 'slow', 'jumps', 'none'] as const).map(h => shiftSound(h, turning, 4))
    expect(loudAt(slow!, 0.5, 1.1)).toBeGreaterThan(1.5 * loudAt(clean!, 0.3, 0.45))
    expect(loudness(jumps!)).toBeGreaterThan(loudness(none!))
    expect(loudAt(clean!, 0.11, 0.16)).toBeGreaterThan(3 * loudAt(none!, 0.11, 0.16))
    expect(shiftSound('slow', turning, 4).left).toEqual(slow!.left)
    expect(shiftSound('slow', turning, 5).left).not.toEqual(slow!.left)
  })
  test('the lever clicks at once, short, and softer than a landing', () => {
    const click = leverSound(1)
    const loudest = (s: Stereo, to: number) => Math.max(...s.left.subarray(0, to).map(Math.abs))
    expect(click.left.length / RATE_HZ).toBeCloseTo(0.05, 3)
    // most of it in its first 10 ms, and silent at the end
    expect(loudest(click, RATE_HZ / 200)).toBe(loudest(click, click.left.length))
    expect(Math.max(...click.left.subarray(-RATE_HZ / 100).map(Math.abs))).toBeLessThan(loudest(click, RATE_HZ) / 100)
    const landed = shiftSound('clean', { ...RUN, inward: true }, 1)
    expect(loudest(click, RATE_HZ)).toBeLessThan(loudest(landed, landed.left.length))
    expect(loudness(click)).toBeGreaterThan(0.01)
  })
  test('a small gap rattles low, once a turn of the sprocket', () => {
    const power = (gapMm: number | null) => between(spectrumOf(runningSound({ ...RUN, gapMm }, 2)), 150, 700)
    expect(power(1)).toBeGreaterThan(3 * power(null))
    expect(power(1)).toBeGreaterThan(power(3))
  })
})
