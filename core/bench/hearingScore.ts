import { envelopeOf, thinned, type Recording } from '../hearing/bands'
import { COAST_S, coastOf } from '../hearing/coasting'
import { listenTo, MOST_S } from '../hearing/listen'
import { shiftsIn } from '../hearing/shifting'
import { edgesOf, type HeardAt } from '../hearing/wound'
import { randomFrom } from '../quantity/random'
import { COASTINGS, coastingSound, someCoast, type Coasting } from './coastingSounds'
import { NOT_A_WHEEL, soundOf, type NotAWheel } from './notAWheel'
import { otherSound, type Chain } from './otherSounds'

/*
 * How well the microphone hears, on made sounds of another synthesiser than Practice's, in a workshop 10 dB below.
 */

export const WORKSHOP = { snrDb: 10, seconds: MOST_S } as const
const RINGS = [34, 39, 42, 46, 50] as const

function someChain(seed: number, rub: number): Chain {
  const random = randomFrom(seed, 902)
  return {
    cadenceRpm: 50 + 45 * random.next(),
    ringTeeth: RINGS[random.below(RINGS.length)]!,
    sprocketTeeth: 11 + random.below(24),
    rub,
  }
}

export type HearingScore = {
  sounds: number
  heard: number
  /** Rub from clean told right, of those that were heard. */
  right: number
  /** Share within 2 % of the cadence, and the largest error, %. */
  cadenceWithin2: number
  cadenceWorstPercent: number
}

/** Half of the sounds are clean; the others rub from just heard to loud. */
export function scoreHearing(sounds: number, first: number, workshop = WORKSHOP): HearingScore {
  let [heard, right, within, worst] = [0, 0, 0, 0]
  for (let i = 0; i < sounds; i++) {
    const random = randomFrom(first + i, 903)
    const rub = i % 2 === 0 ? 0 : 0.6 + 2.4 * random.next()
    const chain = someChain(first + i, rub)
    const told = listenTo(otherSound(chain, workshop, first + i), chain)
    if (told.is === 'nothing') continue
    heard++
    if (told.rubOdds > 1 === rub > 0) right++
    const off = 100 * Math.abs(told.cadenceRpm / chain.cadenceRpm - 1)
    if (off <= 2) within++
    worst = Math.max(worst, off)
  }
  return { sounds, heard, right: right / heard, cadenceWithin2: within / heard, cadenceWorstPercent: worst }
}

export type ShiftScore = { sounds: number; heard: number; lateRight: number; falseOf: number; falseOnes: number }

/** A third of the sounds hold a prompt shift, a third a late one, a third none but now and then a knock. */
export function scoreShifts(sounds: number, first: number, workshop = WORKSHOP): ShiftScore {
  let [shifts, heard, right, none, falseOnes] = [0, 0, 0, 0, 0]
  for (let i = 0; i < sounds; i++) {
    const random = randomFrom(first + i, 905)
    const chain = someChain(first + i, random.next() < 0.5 ? 0 : 1.5 * random.next())
    const takesS = [0.18 + 0.22 * random.next(), 0.95 + 1.1 * random.next(), undefined][i % 3]
    const skips = takesS === undefined ? random.below(2) : 0
    const sound = otherSound({ ...chain, skips, shiftTakesS: takesS }, workshop, first + i)
    const told = shiftsIn(envelopeOf(thinned(sound), 'link'))
    if (takesS === undefined) {
      none++
      if (told.length) falseOnes++
      continue
    }
    shifts++
    if (told.length !== 1) continue
    heard++
    if (told[0]!.late === i % 3 > 0) right++
  }
  return { sounds, heard: heard / shifts, lateRight: right / shifts, falseOf: none, falseOnes }
}

export type EdgeScore = { windings: number; edges: number; missed: number; withinEighth: number; rmsEighths: number }

/** The barrel wound out past the rub and in past the other, a few seconds listened to at each eighth. */
export function scoreEdges(windings: number, first: number): EdgeScore {
  let [edges, missed, within, squares] = [0, 0, 0, 0]
  for (let i = 0; i < windings; i++) {
    const random = randomFrom(first + i, 904)
    const low = -2 - 3 * random.next()
    const high = 2 + 3 * random.next()
    // backlash: so much of winding in moves nothing
    const lag = 1.5 * random.next()
    const perEighth = 0.9 + 0.8 * random.next()
    const chain = someChain(first + i, 0)
    const heardAt = (eighths: number, way: 'out' | 'in'): HeardAt[] => {
      const place = way === 'in' ? eighths + lag : eighths
      // from just before the edge it begins to scrape
      const rub = Math.min(3, Math.max(0, 0.3 + perEighth * Math.max(low - place, place - high)))
      const sound = otherSound({ ...chain, rub }, { snrDb: 10, seconds: 4 }, 100 * (first + i) + 3 * eighths)
      const told = listenTo(sound, chain)
      return told.is === 'heard' ? [{ eighths, way, rubDb: told.rubDb }] : []
    }
    const heard = [
      ...Array.from({ length: 7 }, (_, k) => heardAt(k, 'out')),
      ...Array.from({ length: 15 }, (_, k) => heardAt(6 - k, 'in')),
    ].flat()
    const wound = edgesOf(heard)
    for (const [edge, truth] of [
      [wound.in, low - lag],
      [wound.out, high],
    ] as const) {
      edges++
      if (!edge) missed++
      else {
        const off = edge.eighths - truth
        if (Math.abs(off) <= 1) within++
        squares += off * off
      }
    }
  }
  const found = edges - missed
  return { windings, edges, missed, withinEighth: within / found, rmsEighths: Math.sqrt(squares / found) }
}

/** What was made of a coasting wheel, or of what is none: runs free, braked, neither, or nothing. */
export type CoastScore = Record<
  Coasting | NotAWheel,
  { free: number; neither: number; braked: number; nothing: number }
>

/** So many wheels of each kind let go, and so many other sounds of each kind, listened to once each. */
export function scoreCoasting(each: number, first: number, snrDb: number = WORKSHOP.snrDb): CoastScore {
  const workshop = { snrDb, seconds: COAST_S }
  const scored = (sound: (seed: number) => Recording) => {
    const told = { free: 0, neither: 0, braked: 0, nothing: 0 }
    for (let seed = first; seed < first + each; seed++) {
      const heard = coastOf(sound(seed))
      if (heard.is === 'nothing') told.nothing++
      else told[heard.tickOdds > 1 ? 'free' : heard.tickOdds < 1 ? 'braked' : 'neither']++
    }
    return told
  }
  return Object.fromEntries([
    ...COASTINGS.map(is => [is, scored(seed => coastingSound(someCoast(is, seed), workshop, seed))] as const),
    ...NOT_A_WHEEL.map(is => [is, scored(seed => soundOf(is, workshop, seed))] as const),
  ]) as CoastScore
}
