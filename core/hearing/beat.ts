import FFT from 'fft.js'
import type { Envelope } from './bands'

/** What turns while somebody pedals: the links a second, and how plainly they are heard, 0 to 1. */
export type Beat = { linksHz: number; plain: number }

/** Chains run by people at a stand pass so many links a second: 35 rpm on 22 teeth to 115 on 53. */
const LINKS_HZ = { from: 12, to: 102 } as const

/**
 * The chain's beat: the rate at which the links' click comes again, with its overtones. A crank turn brings a ring's
 * teeth of links, so the beat is found where its harmonics add up; an overtone alone is no beat.
 */
export function beatOf({ level, rateHz }: Envelope): Beat | null {
  const power = powerOf(level)
  if (!power) return null
  const perBin = rateHz / (2 * power.length)
  const ground = middle(power.subarray(Math.round(LINKS_HZ.from / perBin)))
  const at = (hz: number) => {
    const k = Math.round(hz / perBin)
    let most = 0
    for (let i = k - 1; i <= k + 1; i++) most = Math.max(most, power[i] ?? 0)
    return most / ground
  }
  let best: { hz: number; score: number } | null = null
  for (let hz = LINKS_HZ.from; hz <= LINKS_HZ.to; hz += perBin / 2) {
    // a beat's own harmonics, and not those of half of it
    const score =
      Math.log1p(at(hz)) +
      0.8 * Math.log1p(at(2 * hz)) +
      0.6 * Math.log1p(at(3 * hz)) -
      0.7 * Math.log1p(at(hz / 2)) -
      0.5 * Math.log1p(at(1.5 * hz))
    if (!best || score > best.score) best = { hz, score }
  }
  if (!best) return null
  return { linksHz: refined(power, perBin, best.hz), plain: 1 - Math.exp(-Math.max(0, best.score - 2) / 4) }
}

/** The beat between bins, by the middle of its third harmonic's peak, or of the beat's own where that is lost. */
function refined(power: Float64Array, perBin: number, hz: number): number {
  const ground = middle(power)
  for (const times of [3, 2, 1]) {
    const k = Math.round((times * hz) / perBin)
    let top = k
    for (let i = k - 2; i <= k + 2; i++) if ((power[i] ?? 0) > (power[top] ?? 0)) top = i
    if ((power[top] ?? 0) < 8 * ground) continue
    const [a, b, c] = [power[top - 1] ?? 0, power[top]!, power[top + 1] ?? 0]
    return ((top + (a - c) / (2 * (a - 2 * b + c) || 1)) * perBin) / times
  }
  return hz
}

/** Power by frequency, from 0 to half the rate: a Hann window, zeros to the next power of two. Null for too little. */
function powerOf(level: Float32Array): Float64Array | null {
  if (level.length < 1500) return null
  const size = 2 ** Math.ceil(Math.log2(level.length))
  const mean = level.reduce((s, v) => s + v, 0) / level.length
  const input = new Float64Array(size)
  for (let i = 0; i < level.length; i++)
    input[i] = (level[i]! - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / level.length))
  const fft = new FFT(size)
  const out = fft.createComplexArray()
  fft.realTransform(out, input)
  const power = new Float64Array(size / 2)
  for (let k = 0; k < power.length; k++) power[k] = out[2 * k]! ** 2 + out[2 * k + 1]! ** 2
  return power
}

const middle = (of: Float64Array): number => Float64Array.from(of).sort()[Math.floor(of.length / 2)]! || 1e-12

/**
 * How much of an envelope's rise and fall comes again with a period: 0 none, 1 all. The envelope is laid over itself
 * period by period; what is left of its spread in the mean is what comes again, less what chance leaves there.
 */
export function shareAgain({ level, rateHz }: Envelope, periodS: number): number {
  const slots = Math.max(4, Math.min(64, Math.round(periodS * rateHz)))
  const sums = new Float64Array(slots)
  const counts = new Float64Array(slots)
  let [sum, squares] = [0, 0]
  for (let i = 0; i < level.length; i++) {
    const phase = (i / rateHz / periodS) % 1
    const k = Math.min(slots - 1, Math.floor(phase * slots))
    sums[k]! += level[i]!
    counts[k]! += 1
    sum += level[i]!
    squares += level[i]! ** 2
  }
  const n = level.length
  const mean = sum / n
  const spread = squares / n - mean * mean
  if (spread <= 0) return 0
  let between = 0
  for (let k = 0; k < slots; k++) if (counts[k]) between += (counts[k]! / n) * (sums[k]! / counts[k]! - mean) ** 2
  return Math.max(0, (between / spread - slots / n) / (1 - slots / n))
}
