import type { Envelope } from './bands'
import { beatScore, groundOf, powerOf, sizeFor } from './spectrum'

/** What turns while somebody pedals: the links a second, and how plainly they are heard, 0 to 1. */
export type Beat = { linksHz: number; plain: number }

/** Chains run by people at a stand pass so many links a second: 35 rpm on 22 teeth to 115 on 53. */
const LINKS_HZ = { from: 12, to: 102 } as const

/** Less than this is no recording, of an envelope's samples. */
const LEAST_SAMPLES = 1500

/**
 * The chain's beat: the rate at which the links' click comes again, with its overtones. A crank turn brings a ring's
 * teeth of links, so the beat is found where its harmonics add up; an overtone alone is no beat.
 */
export function beatOf({ level, rateHz }: Envelope): Beat | null {
  if (level.length < LEAST_SAMPLES) return null
  const power = powerOf(level, sizeFor(level.length))
  const perBin = rateHz / (2 * power.length)
  const ground = groundOf(power.subarray(Math.round(LINKS_HZ.from / perBin)))
  const at = (hz: number) => {
    const k = Math.round(hz / perBin)
    let most = 0
    for (let i = k - 1; i <= k + 1; i++) most = Math.max(most, power[i] ?? 0)
    return Math.log1p(most / ground)
  }
  let best: { hz: number; score: number } | null = null
  for (let hz = LINKS_HZ.from; hz <= LINKS_HZ.to; hz += perBin / 2) {
    const score = beatScore(at, hz)
    if (!best || score > best.score) best = { hz, score }
  }
  if (!best) return null
  return { linksHz: refined(power, perBin, best.hz), plain: 1 - Math.exp(-Math.max(0, best.score - 2) / 4) }
}

/** The beat between bins, by the middle of its third harmonic's peak, or of the beat's own where that is lost. */
function refined(power: Float64Array, perBin: number, hz: number): number {
  const ground = groundOf(power)
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
