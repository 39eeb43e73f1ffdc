import { jointOf, mutualInformation } from '../inference/information'
import { systematic } from '../inference/sampling'
import { normalBelow } from '../quantity/normal'
import { angleSdDeg, endGapMm, FRONT_MEASURE, reported, type FrontGuess } from './belief'
import { FRONT_FAULTS } from './causes'
import type { FrontCheck, FrontWishes, ThrownTo } from './contract'
import type { FrontSight } from './events'
import { frontCost, mayAsk, unguarded } from './looks'
import { FRONT_OUTCOMES } from './moves'
import { dropsUndone, shiftChances, type FrontGeometry, type Span } from './response'
import type { Read } from './turns'

/**
 * No shift whose predicted chance of a thrown chain passes this is asked to learn from; none that passes the second is
 * asked at all. The last round before "done" may go as far as that: a front is not handed back unshifted. `model`: at
 * one in a hundred for all, ten of 200 simulated fronts lost their chain, at this none.
 */
const THROWN_LIMIT = { learning: 0.003, last: 0.01 } as const
/** `last`: to be asked in the last round alone. */
export type Check = { move: FrontCheck; tells: number; rate: number; last: boolean }
const SAMPLE = 250

/** Every check that is safe enough, the one that tells most for its cost first. */
export function checksOf(
  g: FrontGeometry,
  log: readonly FrontSight[],
  reads: readonly Read[],
  thrown: Record<ThrownTo, number>,
  { throws }: FrontWishes,
): Check[] {
  const sample = sampled(reads)
  const kinds = sample.map(kindOf)
  const weights = new Float64Array(sample.length).fill(1 / sample.length)
  const out: Check[] = []
  const open = unguarded(log, throws)
  const passes = (to: ThrownTo, limit: number) => thrown[to] > limit || open.includes(to)
  const add = (move: FrontCheck, chances: (b: FrontGuess) => ArrayLike<number>, last = false) => {
    if (!mayAsk(log, move)) return
    const shows = sample.map(r => chances(r.guess))
    const tells = mutualInformation(jointOf(weights, kinds, shows))
    out.push({ move, tells, rate: tells / frontCost(move), last })
  }
  for (let ring = 0; ring + 1 < g.rings; ring++)
    for (const [from, to] of [
      [ring, ring + 1],
      [ring + 1, ring],
    ]) {
      const over = to === 0 ? 'inboard' : to === g.rings - 1 ? 'outboard' : null
      if (over && passes(over, THROWN_LIMIT.last)) continue
      add(
        { do: 'shift', from, to, sprocket: g.judgedOn(to) },
        b => {
          const c = shiftChances(g, b, from, to)
          return FRONT_OUTCOMES.map(s => reported(c, s))
        },
        over !== null && passes(over, THROWN_LIMIT.learning),
      )
    }
  for (const plate of ['inner', 'outer'] as const) {
    add({ do: 'gap', plate, byStop: true }, b => inBins(GAP_BINS, endGapMm(g, b, plate, true), FRONT_MEASURE.gapMm))
    if (plate === 'outer' && passes('outboard', THROWN_LIMIT.learning)) continue
    add({ do: 'gap', plate }, b => inBins(GAP_BINS, endGapMm(g, b, plate), FRONT_MEASURE.gapMm))
  }
  const sd = angleSdDeg(g)
  add({ do: 'position' }, b =>
    cross(inBins(HEIGHT_BINS, b.heightMm, FRONT_MEASURE.heightMm), inBins(ANGLE_BINS, b.angleDeg, sd)),
  )
  add({ do: 'undone' }, b => {
    const d = dropsUndone(g, b)
    return [d, 1 - d]
  })
  return out.sort((a, b) => b.rate - a.rate)
}

const bins = (from: number, to: number, step: number): number[] =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step)
/** A plate that presses reads 0, however hard. */
const GAP_BINS = bins(0, 5, 0.5)
const HEIGHT_BINS = bins(0, 5, 1)
const ANGLE_BINS = bins(-2.5, 2.5, 1)

/** Chances that a measured figure falls between the edges, and beyond them; never quite 0. */
function inBins(edges: readonly number[], mean: number, sd: number): Float64Array {
  const out = new Float64Array(edges.length + 1)
  let before = 0
  for (let i = 0; i < edges.length; i++) {
    const below = normalBelow((edges[i] - mean) / sd)
    out[i] = below - before + 1e-4
    before = below
  }
  out[edges.length] = 1 - before + 1e-4
  return out
}

/** Both together, independent of each other. */
function cross(a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(a.length * b.length)
  for (let i = 0; i < a.length; i++) for (let j = 0; j < b.length; j++) out[i * b.length + j] = a[i] * b[j]
  return out
}

/** A manageable number of guesses, systematically by weight, alike in weight then. */
function sampled(reads: readonly Read[]): Read[] {
  const times = systematic(
    reads.map(r => r.weight),
    SAMPLE,
    0.5,
  )
  return reads.flatMap((r, i) => new Array<Read>(times[i]!).fill(r))
}

/** The answer a guess stands for: each screw too far in, right or too far out, or one of the faults. */
function kindOf(r: Read): number {
  const fault = FRONT_FAULTS.findIndex(f => r.faults[f])
  if (fault >= 0) return 27 + fault
  const third = (x: number, { from, to }: Span) => (x < from ? 0 : x > to ? 2 : 1)
  return (
    third(r.guess.slackMm, r.window.slack) +
    3 * third(r.guess.stopLMm, r.window.L) +
    9 * third(r.guess.stopHMm, r.window.H)
  )
}
