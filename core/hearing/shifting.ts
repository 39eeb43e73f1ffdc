import type { Envelope } from './bands'

/** A shift that was heard: when its clatter began, s from the start, and how long it went on. */
export type ShiftHeard = { atS: number; lastsS: number; late: boolean }

/** Loudness is taken over several links at once, s: the beat itself is no clatter. */
const OVER_S = 0.06
/** Clatter stands out so many times of what is usual. `model` */
const STANDS_OUT = 1.5
/** A pause as short as this is within one shift; what is over as soon as this is a knock, s. `model` */
const PAUSE_S = 0.35
const KNOCK_S = 0.14
/** A shift that clatters on for longer than this came late, s. `practice` */
export const LATE_S = 0.6

/**
 * Shifts in a recording: the chain clatters, unevenly, from the lever's click until it lies on the next sprocket.
 * @param links the links' band
 */
export function shiftsIn({ level, rateHz }: Envelope): ShiftHeard[] {
  const loud = smoothed(level, Math.round(OVER_S * rateHz))
  const usual = Float32Array.from(loud).sort()[loud.length >> 1]! || 1e-9
  const heard: { from: number; to: number }[] = []
  for (let i = 0; i < loud.length; i++) {
    if (loud[i]! < STANDS_OUT * usual) continue
    const last = heard.at(-1)
    if (last && i - last.to <= PAUSE_S * rateHz) last.to = i
    else heard.push({ from: i, to: i })
  }
  return heard
    .map(({ from, to }) => ({ atS: from / rateHz, lastsS: (to - from) / rateHz }))
    .filter(s => s.lastsS > KNOCK_S)
    .map(s => ({ ...s, late: s.lastsS > LATE_S }))
}

/** The root mean square over a window about each moment. */
function smoothed(level: Float32Array, window: number): Float32Array {
  const out = new Float32Array(level.length)
  let sum = 0
  for (let i = 0; i < level.length + (window >> 1); i++) {
    if (i < level.length) sum += level[i]! ** 2
    if (i >= window) sum -= level[i - window]! ** 2
    const at = i - (window >> 1)
    if (at >= 0) out[at] = Math.sqrt(Math.max(0, sum) / Math.min(window, i + 1, level.length))
  }
  return out
}
