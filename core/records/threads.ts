import type { ShopValue } from '../standards/shopValues'
import { M5_PITCH_MM } from '../standards/tables/threads'
import { FEWEST_BIKES, sayBikes, type Seen } from './question'

/** Pitches that small screws are cut to, mm a turn, coarse and fine. `std` ISO 261, recalled */
const PITCHES_MM = [0.5, 0.7, 0.75, 0.8, 1, 1.25] as const
/** A caliper over four turns is at most so far off, mm a turn. `model` */
const OFF_BY_MM = 0.03

/**
 * How far a turn of the barrel goes on derailleurs of one standard, as this shop's closed jobs measured it, mm: the
 * screw's pitch that lies nearest to their middle, for no thread lies between two. Nothing of fewer than five bikes,
 * nor while not three of four of them say that it is another than the usual.
 */
export function threadHere(seen: Seen | undefined): number | null {
  if (!seen || seen.bikes < FEWEST_BIKES) return null
  const pitch = PITCHES_MM.reduce((best, p) => (Math.abs(p - seen.median) < Math.abs(best - seen.median) ? p : best))
  if (Math.abs(pitch - seen.median) > OFF_BY_MM) return null
  const border = (pitch + M5_PITCH_MM) / 2
  const agreed = pitch > M5_PITCH_MM ? seen.quarter > border : seen.threeQuarters < border
  return pitch === M5_PITCH_MM || agreed ? pitch : null
}

/**
 * What closed jobs measured of barrels, as the shop's own figures: they count like one that somebody noted, until
 * somebody notes another.
 * @param seen by standard, as far as anything was measured
 */
export const threadsLearnt = (all: readonly { standard: string; seen: Seen; at: string }[]): ShopValue[] =>
  all.flatMap(({ standard: entry, seen, at }): ShopValue[] => {
    const value = threadHere(seen)
    const note = `measured on ${sayBikes(seen.bikes)}`
    return value === null ? [] : [{ kind: 'derailleur', entry, figure: 'turnMm', value, note, at, by: 'the records' }]
  })
