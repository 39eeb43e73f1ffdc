import type { Random } from '../quantity/random'

/**
 * Two poles and two zeros: a band let through. Source: Bristow-Johnson’s published cookbook of biquad filters, constant
 * peak.
 */
function bandPass(samples: Float32Array, rate: number, fromHz: number, toHz: number): Float32Array {
  const middle = Math.sqrt(fromHz * toHz)
  const w = (2 * Math.PI * middle) / rate
  const alpha = (Math.sin(w) * (toHz - fromHz)) / (2 * middle)
  const [b0, a0, a1, a2] = [alpha, 1 + alpha, -2 * Math.cos(w), 1 - alpha]
  const out = new Float32Array(samples.length)
  let [x1, x2, y1, y2] = [0, 0, 0, 0]
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]!
    const y = (b0 * (x - x2) - a1 * y1 - a2 * y2) / a0
    ;[x2, x1, y2, y1] = [x1, x, y1, y]
    out[i] = y
  }
  return out
}

/** What a short noise is like: its band, how long it rings, and how loud its peak is. */
export type BurstKind = { fromHz: number; toHz: number; ringsMs: number; loud: number }

/**
 * A short noise in a band that dies away: a click, a rub of one link, a knock. Its loudness is its root mean square
 * over 5 ms.
 */
export function burstOf({ fromHz, toHz, ringsMs, loud }: BurstKind, rate: number, random: Random): Float32Array {
  const n = Math.max(8, Math.round((4 * ringsMs * rate) / 1000))
  const noise = new Float32Array(n)
  const tau = (ringsMs * rate) / 1000
  for (let i = 0; i < n; i++) noise[i] = random.normal() * Math.exp(-i / tau)
  const out = bandPass(bandPass(noise, rate, fromHz, toHz), rate, fromHz, toHz)
  const first = out.subarray(0, Math.min(n, Math.round(rate / 200)))
  const is = Math.sqrt(first.reduce((s, x) => s + x * x, 0) / first.length) || 1
  for (let i = 0; i < n; i++) out[i]! *= loud / is
  return out
}

/** Adds a burst at a sample, wrapped round the end where the sound is to be looped. */
export function addBurst(to: Float32Array, burst: Float32Array, at: number, gain: number, loop: boolean): void {
  const start = Math.round(at)
  for (let i = 0; i < burst.length; i++) {
    let k = start + i
    if (k >= to.length) {
      if (!loop) return
      k %= to.length
    }
    to[k]! += gain * burst[i]!
  }
}
