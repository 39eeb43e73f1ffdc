import { envelopeOf, thinned, type Envelope, type Recording } from './bands'
import { LEAST_S, MUTED } from './listen'
import { beatScore, groundOf, powerOf, sizeFor } from './spectrum'

/*
 * A hub gear heard while its wheel coasts, cranks held: in the highest gear it ticks evenly and slows down as slowly as
 * its bearings let it (`HUB_CHECK_NAMES`). Any other gear drags, or does not tick. How fast the ticks slow down is how
 * much it drags.
 */

export type Coasted = {
  is: 'heard'
  /** Ticks a second as listening began. */
  ticksHz: number
  /** After how long the wheel would stand still if it went on so, s. */
  stopsInS: number
  /** How many times as likely this sound is from the highest gear as from any other. */
  tickOdds: number
}
/** `even`: nothing that ticks evenly; `steady`: it does not slow down, so it is no wheel that was let go. */
export type NotCoasted = { is: 'nothing'; why: 'short' | 'quiet' | 'even' | 'steady' }

/** So long is listened from the moment the wheel is let go, s. */
export const COAST_S = 5
/** Pawls at a hub spun by hand: half a turn a second over 12 notches, to three over 30. */
const TICKS_HZ = { from: 8, to: 90, step: 0.5 } as const
/** What is found at the slow end of them is a beep, or a song: a wheel that slow is not let go but left. */
const LEAST_HZ = 11
/** A wheel that would run on for longer than about a minute does not slow down: a machine, or somebody who pedals. */
const LEAST_SLOWS = 0.015
/** A wheel that loses more than all of its speed a second stands still before anything is heard. */
const SLOWS = { to: 1, step: 0.01 } as const
const WINDOW_S = 0.5
const HOP_S = 0.125
/** Slower than this part of its first speed, ticks are too far apart to be heard as even. */
const TOO_SLOW = 0.25
/** A track over fewer windows than these is chance. */
const LEAST_WINDOWS = 6
/** Less plain than this nothing ticks evenly, from made sounds (docs/senses.md). `model` */
const LEAST_PLAIN = 0.62

/** A wheel that would stand within this is braked; one that runs on longer runs free, s. Between, neither. `model` */
const STOPS_S = { braked: 5.5, free: 8 } as const
/**
 * Odds of the highest gear by what was heard. `model`, from made sounds (docs/senses.md): some hubs tick and run free
 * in another gear too, so an even tick alone is no proof.
 */
const ODDS = { free: 8, between: 1, braked: 1 / 15 } as const

const oddsOf = (stopsInS: number): number =>
  stopsInS >= STOPS_S.free ? ODDS.free : stopsInS <= STOPS_S.braked ? ODDS.braked : ODDS.between

/** The wheel as it coasts, of what was heard since it was let go. */
export function coastOf(heard: Recording): Coasted | NotCoasted {
  const recording = thinned(heard)
  const { samples, rateHz } = recording
  if (samples.length < LEAST_S * rateHz) return { is: 'nothing', why: 'short' }
  if (Math.sqrt(samples.reduce((s, v) => s + v * v, 0) / samples.length) < MUTED) return { is: 'nothing', why: 'quiet' }
  const track = (['link', 'rub'] as const)
    .map(band => trackOf(envelopeOf(recording, band)))
    .reduce((a, b) => (b.plain > a.plain ? b : a))
  if (track.plain < LEAST_PLAIN || track.hz < LEAST_HZ) return { is: 'nothing', why: 'even' }
  if (track.slows < LEAST_SLOWS) return { is: 'nothing', why: 'steady' }
  const stopsInS = 1 / track.slows
  return { is: 'heard', ticksHz: track.hz, stopsInS, tickOdds: oddsOf(stopsInS) }
}

type Track = { hz: number; slows: number; plain: number }

/** A wheel's speed beside its first: steady braking, or braking that eases off with speed. */
const SHAPES = [(x: number) => Math.max(0, 1 - x), (x: number) => Math.exp(-x)] as const

/**
 * The rate of ticks that falls off evenly and is heard all along: power at it and its overtones is added along every
 * such track through the windows' spectra, and the plainest is it.
 */
function trackOf({ level, rateHz }: Envelope): Track {
  const spectra = spectraOf(level, rateHz)
  let best: Track & { score: number } = { hz: 0, slows: 0, plain: 0, score: -Infinity }
  for (const shape of SHAPES)
    for (let slows = 0; slows <= SLOWS.to; slows += SLOWS.step) {
      const speeds = spectra.map(({ atS }) => shape(slows * atS))
      for (let hz = TICKS_HZ.from; hz <= TICKS_HZ.to; hz += TICKS_HZ.step) {
        let [sum, windows] = [0, 0]
        for (const [w, { at }] of spectra.entries()) {
          if (speeds[w]! < TOO_SLOW) break
          const here = hz * speeds[w]!
          if (here < TICKS_HZ.from * 0.75) break
          sum += beatScore(at, here)
          windows++
        }
        if (windows < LEAST_WINDOWS) continue
        // a short track is plain by chance more easily than a long one
        const score = (sum / windows) * Math.sqrt(windows / (windows + LEAST_WINDOWS))
        if (score > best.score) best = { hz, slows, plain: 0, score }
      }
    }
  return { ...best, plain: 1 - Math.exp(-Math.max(0, best.score) / 4) }
}

/** The power of an envelope, window by window, as the logarithm of how far it stands out of its ground. */
function spectraOf(level: Float32Array, rateHz: number): { atS: number; at: (hz: number) => number }[] {
  const long = Math.round(WINDOW_S * rateHz)
  // zeros behind, so that rates between two bins are not lost
  const size = sizeFor(2 * long)
  const perBin = rateHz / size
  const out: { atS: number; at: (hz: number) => number }[] = []
  for (let from = 0; from + long <= level.length; from += Math.round(HOP_S * rateHz)) {
    const power = powerOf(level.subarray(from, from + long), size)
    const ground = groundOf(power)
    const stands = power.map(p => Math.log1p(p / ground))
    out.push({ atS: (from + long / 2) / rateHz, at: hz => stands[Math.round(hz / perBin)] ?? 0 })
  }
  return out
}
