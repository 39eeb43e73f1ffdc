import { normalBelow } from '../quantity/normal'
import { SNUG_SD_MM, type FrontGuess } from './belief'
import type { FrontFault } from './causes'
import type { FrontWishes } from './contract'
import { END_GAP_MM } from './endGaps'
import type { FrontScrew } from './moves'
import type { FrontGeometry, FrontWindow, Span } from './response'

/** Turned at most at once; a stop further out is turned again. */
export const MAX_SIXTEENTHS: Record<FrontScrew, number> = { barrel: 32, H: 40, L: 40 }
/** So far out a screw is still thought of. */
const REACH_SIXTEENTHS: Record<FrontScrew, number> = { barrel: 32, H: 72, L: 72 }

/** A guess with what follows from it. */
export type Read = { guess: FrontGuess; window: FrontWindow; faults: Record<FrontFault, boolean>; weight: number }

/** How a screw turned by so much leaves a guess. */
export function turnedGuess(b: FrontGuess, screw: FrontScrew, sixteenths: number): FrontGuess {
  const turns = sixteenths / 16
  if (screw === 'barrel') return { ...b, slackMm: b.slackMm + b.perBarrel * turns }
  return screw === 'L' ? { ...b, stopLMm: b.stopLMm + b.perL * turns } : { ...b, stopHMm: b.stopHMm - b.perH * turns }
}
const placeOf: Record<FrontScrew, (r: Read) => { at: number; per: number; span: Span }> = {
  barrel: r => ({ at: r.guess.slackMm, per: r.guess.perBarrel, span: r.window.slack }),
  L: r => ({ at: r.guess.stopLMm, per: r.guess.perL, span: r.window.L }),
  H: r => ({ at: r.guess.stopHMm, per: -r.guess.perH, span: r.window.H }),
}

export type Turn = { screw: FrontScrew; sixteenths: number; now: number; best: number }

/**
 * The eighth at which a screw most likely stands right, all else left out of account; a stop by the school of its gap
 * where that is as good.
 */
export function bestTurn(reads: readonly Read[], screw: FrontScrew, { endGapMm: wanted }: FrontWishes): Turn {
  const most = REACH_SIXTEENTHS[screw] / 2
  const sums = new Float64Array(2 * most + 1)
  for (const r of reads) {
    const { at, per, span } = placeOf[screw](r)
    if (span.from > span.to) continue
    const [a, b] = [((span.from - at) / per) * 8, ((span.to - at) / per) * 8]
    const from = Math.max(-most, Math.ceil(Math.min(a, b)))
    const to = Math.min(most, Math.floor(Math.max(a, b)))
    for (let e = from; e <= to; e++) sums[e + most] += r.weight
  }
  // among as good ones the middle, so that a little more or less does not matter
  const best = Math.max(...sums)
  const good = [...sums.keys()].filter(i => sums[i] >= best - (wanted && screw !== 'barrel' ? AS_GOOD_BY_SCHOOL : 0.01))
  const middle =
    wanted && screw !== 'barrel'
      ? eighthsTo(reads, screw, wanted) + most
      : good.reduce((s, i) => s + i, 0) / good.length
  const at = good.reduce((x, i) => (Math.abs(i - middle) < Math.abs(x - middle) ? i : x), good[0])
  const whole = 2 * (at - most)
  const cap = MAX_SIXTEENTHS[screw]
  return { screw, sixteenths: Math.max(-cap, Math.min(cap, whole)), now: sums[most], best: sums[at] }
}

/** Chance that a screw is to go at least half as far as a turn takes it, the same way, where some setting is right. */
export function wayChance(reads: readonly Read[], { screw, sixteenths }: Turn): number {
  let all = 0
  let same = 0
  for (const r of reads) {
    const { at, per, span } = placeOf[screw](r)
    if (span.from > span.to) continue
    all += r.weight
    if (((((span.from + span.to) / 2 - at) / per) * 16) / sixteenths >= 0.5) same += r.weight
  }
  return all > 0 ? same / all : 0
}

/** So much of the chance a school may cost. */
const AS_GOOD_BY_SCHOOL = 0.08
/** Eighths of a stop's screw from here to the middle of the gap a school wants, as a mean. */
function eighthsTo(reads: readonly Read[], screw: 'L' | 'H', wanted: { from: number; to: number }): number {
  // a wider gap is a stop further past its ideal: L inboard, H outboard
  const past = (wanted.from + wanted.to) / 2 - END_GAP_MM
  return reads.reduce((s, r) => {
    const { at, per } = placeOf[screw](r)
    return s + r.weight * ((((screw === 'L' ? -past : past) - at) / per) * 8)
  }, 0)
}

/**
 * Chance that the cable, drawn anew, would stand right: snug with the cage on its inner stop, or on the big ring for a
 * rotating cage.
 */
export const chanceClamped = (g: FrontGeometry, reads: readonly Read[]): number =>
  reads.reduce((s, { guess, window: { slack }, weight }) => {
    const at = g.parts.cage === 'rotating' ? 0 : guess.stopLMm
    return (
      s +
      (slack.from > slack.to
        ? 0
        : weight * (normalBelow((slack.to - at) / SNUG_SD_MM) - normalBelow((slack.from - at) / SNUG_SD_MM)))
    )
  }, 0)

export function barrelWindow(reads: readonly Read[]): { from: number; to: number } | null {
  const most = MAX_SIXTEENTHS.barrel
  const good = Array.from({ length: 2 * most + 1 }, (_, i) => i - most).filter(
    x =>
      reads.reduce((s, r) => {
        const { at, per, span } = placeOf.barrel(r)
        const place = at + per * (x / 16)
        return s + (place >= span.from && place <= span.to ? r.weight : 0)
      }, 0) >= 0.5,
  )
  return good.length ? { from: good[0] / 16, to: good.at(-1)! / 16 } : null
}
