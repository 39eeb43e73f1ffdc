import type { Envelope } from './bands'

/*
 * Two knocks on the stand, or two claps: a hand that needs no hand.
 */

/** Two strokes so far apart are a sign, s; nearer is one with its echo, farther two that have nothing to do with it. */
const APART_S = { from: 0.12, to: 0.6 } as const
/** And quiet on both sides of them, s: a shift clatters on. */
const ALONE_S = 0.45
/** A stroke stands out so many times of what is usual, and is over so soon, s. */
const STANDS_OUT = 9
const OVER_S = 0.09

/** When strokes fall, s from the start: sudden, far louder than usual, and soon over. */
export function strokesIn({ level, rateHz }: Envelope): number[] {
  const sorted = Float32Array.from(level).sort()
  const usual = Math.max(1e-6, sorted[Math.floor(0.6 * sorted.length)]!)
  const strokes: number[] = []
  for (let i = 1; i < level.length; i++) {
    if (level[i]! < STANDS_OUT * usual) continue
    let end = i
    let quiet = 0
    while (end < level.length && quiet < 0.02 * rateHz) {
      quiet = level[end]! < (STANDS_OUT / 3) * usual ? quiet + 1 : 0
      end++
    }
    if (end - i - quiet <= OVER_S * rateHz) strokes.push(i / rateHz)
    i = end
  }
  return strokes
}

/** Is there a pair of knocks, alone, that ended before the last moments of what was heard? When, s; null for none. */
export function pairIn(envelope: Envelope): number | null {
  const strokes = strokesIn(envelope)
  const whole = envelope.level.length / envelope.rateHz
  for (let i = 0; i + 1 < strokes.length; i++) {
    const [a, b] = [strokes[i]!, strokes[i + 1]!]
    if (b - a < APART_S.from || b - a > APART_S.to) continue
    if (i > 0 && a - strokes[i - 1]! < ALONE_S) continue
    if ((strokes[i + 2] ?? Infinity) - b < ALONE_S || whole - b < ALONE_S) continue
    return b
  }
  return null
}
