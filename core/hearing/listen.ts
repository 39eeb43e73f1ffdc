import { beatOf, shareAgain, type Beat } from './beat'
import { rubOddsOf } from './rubOdds'
import { envelopeOf, thinned, type Envelope, type Recording } from './bands'
import { shiftsIn, type ShiftHeard } from './shifting'

/*
 * What a microphone makes of a chain at the stand while somebody pedals: how fast, and what of its noise comes once a
 * link, once a turn of the wheel, once a turn of the cranks; whether it rubs.
 */

export type Turning = { ringTeeth: number; sprocketTeeth: number }
export type Listened = {
  is: 'heard'
  cadenceRpm: number
  beat: Beat
  /** How loud the hiss is between the links' clicks, beside the clicks, dB. */
  rubDb: number
  /** How many times as likely this sound is from a chain that rubs as from one that runs clean. */
  rubOdds: number
  /** What of the hiss comes again once a link, once a wheel, once a crank turn, 0 to 1. */
  comes: { link: number; wheel: number; crank: number }
  /** What turns once in a wheel or a crank is not the gears. */
  notTheGears: 'wheel' | 'crank' | null
  knocks: number
  /** Shifts while it listened, and which of them came late. */
  shifts: readonly ShiftHeard[]
}
export type NotHeard = { is: 'nothing'; why: 'short' | 'quiet' | 'loud' }

/** Less than this is not listened to, and not more than the last of this, s. */
export const LEAST_S = 3
export const MOST_S = 8
/** Quieter than this the microphone is muted or covered: root mean square of full scale. */
export const MUTED = 1e-5
/** Below this the links are lost in the room's noise. `model` */
const LEAST_PLAIN = 0.75

export function listenTo(heard: Recording, turning: Turning): Listened | NotHeard {
  const recording = thinned(heard)
  const { samples, rateHz } = recording
  if (samples.length < LEAST_S * rateHz) return { is: 'nothing', why: 'short' }
  const loud = Math.sqrt(samples.reduce((s, v) => s + v * v, 0) / samples.length)
  if (loud < MUTED) return { is: 'nothing', why: 'quiet' }
  const link = envelopeOf(recording, 'link')
  const rub = envelopeOf(recording, 'rub')
  const beat = beatOf(link) ?? beatOf(rub)
  if (!beat || beat.plain < LEAST_PLAIN) return { is: 'nothing', why: 'loud' }
  const cadenceRpm = (60 * beat.linksHz) / turning.ringTeeth
  const period = 1 / beat.linksHz
  const comes = {
    link: shareAgain(rub, period),
    wheel: shareAgain(rub, turning.sprocketTeeth * period),
    crank: shareAgain(rub, turning.ringTeeth * period),
  }
  const rubDb = hissBetween(rub, link, period)
  return {
    is: 'heard',
    cadenceRpm,
    beat,
    rubDb,
    rubOdds: rubOddsOf(rubDb),
    comes,
    notTheGears: notTheGears(comes),
    knocks: knocksIn(envelopeOf(recording, 'knock')),
    shifts: shiftsIn(link),
  }
}

const SLOTS = 16
/** A band laid over itself link by link: its power by where in the link. */
function folded({ level, rateHz }: Envelope, periodS: number): number[] {
  const sums = new Float64Array(SLOTS)
  const counts = new Float64Array(SLOTS)
  level.forEach((v, i) => {
    const k = Math.floor(((i / rateHz / periodS) % 1) * SLOTS)
    sums[k]! += v * v
    counts[k]! += 1
  })
  return [...sums].map((s, k) => s / Math.max(1, counts[k]!))
}

/**
 * How loud the hiss is between the links' clicks, beside the click itself, dB. A clean link hisses too, but only as it
 * lands; a rub goes on. What is there all the time is the room, and is taken off.
 */
function hissBetween(rub: Envelope, link: Envelope, periodS: number): number {
  const [hiss, click] = [folded(rub, periodS), folded(link, periodS)]
  const usual = [...click].sort((a, b) => a - b)[SLOTS / 2]!
  const between = hiss.filter((_, k) => click[k]! <= usual).sort((a, b) => a - b)
  const quiet = [...hiss].sort((a, b) => a - b)
  const rise = between.slice(-3).reduce((s, v) => s + v, 0) / 3 - (quiet[0]! + quiet[1]!) / 2
  const strike = Math.max(...click) - Math.min(...click)
  return 10 * Math.log10(Math.max(1e-4 * strike, rise) / Math.max(1e-16, strike))
}

function notTheGears({ link, wheel, crank }: Listened['comes']): Listened['notTheGears'] {
  // a wheel's turn holds whole links, so what comes once a link comes once a wheel as well
  const [w, c] = [wheel - link, crank - link]
  const most = Math.max(w, c)
  return most < 0.12 ? null : w > c ? 'wheel' : 'crank'
}

/** Hard knocks: moments far louder than the rest of their band, not within a quarter of a second of each other. */
export function knocksIn({ level, rateHz }: Envelope): number {
  const sorted = Float32Array.from(level).sort()
  const usual = sorted[Math.floor(sorted.length / 2)]! || 1e-9
  const tall = sorted[Math.floor(0.97 * sorted.length)]!
  const least = Math.max(8 * usual, 2.2 * tall)
  let count = 0
  let until = -1
  for (let i = 0; i < level.length; i++)
    if (level[i]! > least && i > until) {
      count++
      until = i + rateHz / 4
    }
  return count
}
