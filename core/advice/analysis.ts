import { FAULT_WINDOW_TURNS, NEEDED_WINDOW_TURNS, NO_WINDOW_TURNS } from '../standards/model'
import type { Cause } from '../response/causes'
import { NEW_CABLE } from '../response/parameters'
import { cleanErrors } from '../response/window'
import { safeStopMm } from '../response/safe'
import type { Geometry } from '../response/setup'
import { blames, CURABLE, type Curable } from './blames'
import type { Belief, Posterior } from './posterior'
import { wearFrom, type Wear } from './wear'

/** What one particle means for the mechanic. Turns are of the barrel, + out from fully in. */
export type Reading = {
  weight: number
  belief: Belief
  /** Setting between which every gear is clean on the bike as it is. `to < from`: none. */
  window: { from: number; to: number }
  /** The same with both stops well set and nothing worn. */
  span: { from: number; to: number }
  stopsSafe: boolean
  stopSpoils: boolean
  /** Blamed by the test with 1/4 turn (at fault) and with 3/8 turn (worth a part). */
  atFault: Record<Curable, boolean>
  needed: Record<Curable, boolean>
  /** Middle of the window, or of the cured bike's, in turns out. */
  middle: number
  outside: boolean
}

/** `good`: safe, and not in the way of its end gear. `bestTurns` (+ in) is the turn that makes that likeliest. */
export type StopJudgement = {
  safe: number
  good: number
  bestTurns: number
  bestGood: number
  offsetMm: { mean: number; sd: number }
}

export type Analysis = {
  readings: Reading[]
  wear: Wear
  /** Chance that the bike is right as it stands, and at each eighth of barrel in reach. */
  right: number
  eighths: { turns: number; right: number }[]
  causes: Record<Cause, number>
  needed: Record<Curable, number>
  /** Chance that some setting would be right: stops safe or not, barrel in reach or not. */
  windowExists: number
  /** Share of the windows that the barrel cannot reach. */
  outOfReach: number
  stops: Record<'H' | 'L', StopJudgement>
  offsetMm: { mean: number; sd: number }
  windowTurns: { from: number; to: number } | null
}

export function analyse(posterior: Posterior, cassetteRenewed: boolean): Analysis {
  const { geometry: g, setup, trace, weights } = posterior
  const wear = wearFrom(posterior.skips, posterior.wornRate, cassetteRenewed)
  const readings: Reading[] = []
  for (let i = 0; i < weights.length; i++)
    if (weights[i] > 1e-7) readings.push(read(g, posterior.belief(i), weights[i], g.threadMm, trace.barrelTurns))
  const sum = (f: (r: Reading) => number | boolean) => readings.reduce((s, r) => s + r.weight * Number(f(r)), 0)
  // weights add up to one but for the last digits
  const chance = (f: (r: Reading) => boolean) => Math.min(1, sum(f))
  const sound = 1 - wear.any
  const eighths = chancePerEighth(readings, setup.barrelTurnsRange, trace.barrelTurns, sound)
  const now = eighths.find(e => e.turns === trace.barrelTurns)!
  const existing = sum(r => wide(r.span))
  const reachable = sum(r => wide(r.span) && r.span.to >= 0 && r.span.from <= setup.barrelTurnsRange)
  const mean = sum(r => (trace.barrelTurns - r.middle) * setup.barrelPitchMm)
  return {
    readings,
    wear,
    right: now.right,
    eighths,
    causes: {
      tension: chance(r => r.outside),
      friction: chance(r => r.atFault.friction),
      hanger: chance(r => r.atFault.hanger),
      mismatch: chance(r => r.atFault.mismatch),
      stops: chance(r => !r.stopsSafe || r.stopSpoils),
      wear: wear.any,
    },
    needed: {
      friction: chance(r => r.needed.friction),
      hanger: chance(r => r.needed.hanger),
      mismatch: chance(r => r.needed.mismatch),
    },
    windowExists: existing,
    outOfReach: existing > 0 ? 1 - reachable / existing : 0,
    stops: { H: judgeStop(g, readings, 'H'), L: judgeStop(g, readings, 'L') },
    offsetMm: {
      mean,
      sd: Math.sqrt(
        Math.max(
          0,
          sum(r => ((trace.barrelTurns - r.middle) * setup.barrelPitchMm - mean) ** 2),
        ),
      ),
    },
    windowTurns: wear.any > 0.5 ? null : expectedWindow(readings, setup.barrelTurnsRange),
  }
}

const width = (w: { from: number; to: number }): number => Math.max(0, w.to - w.from)
const wide = (w: { from: number; to: number }): boolean => w.to - w.from >= NO_WINDOW_TURNS

/** Scratch of clean limits by sprocket, filled once a particle: lower and upper place, mm. */
const least = new Float64Array(64)
const most = new Float64Array(64)

function read(g: Geometry, belief: Belief, weight: number, threadMm: number, barrelTurns: number): Reading {
  for (let k = 0; k < g.n; k++) {
    const clean = cleanErrors(g, k, belief)
    least[k] = g.placeMm[k] + g.pitchMm[k] * clean.from
    most[k] = g.placeMm[k] + g.pitchMm[k] * clean.to
  }
  const turnsAt = (cableMm: number) => barrelTurns + (cableMm - belief.cableMm) / threadMm
  const turnsOf = (w: { from: number; to: number }) =>
    threadMm > 0 ? { from: turnsAt(w.from), to: turnsAt(w.to) } : { from: turnsAt(w.to), to: turnsAt(w.from) }
  const b = belief
  const newIn = NEW_CABLE.backlashMm * NEW_CABLE.inwardShare
  const newOut = NEW_CABLE.backlashMm - newIn
  // a cure never makes worse: a run freer than a new one stays as it is
  const freeIn = Math.min(b.backlashInMm, newIn)
  const freeOut = Math.min(b.backlashOutMm, newOut)
  const true_ = b.ratio
  const span = (friction: boolean, hanger: boolean, mismatch: boolean) =>
    turnsOf(
      spanMm(
        g,
        mismatch ? g.fittedRatio : true_,
        friction ? freeIn : b.backlashInMm,
        friction ? freeOut : b.backlashOutMm,
        hanger ? 0 : b.camberTan,
        b.bowMm,
      ),
    )
  const now = span(false, false, false)
  const nowWidth = width(now)
  const cured = span(true, true, true)
  const curedWidth = width(cured)
  const atFault = { friction: false, hanger: false, mismatch: false }
  const needed = { friction: false, hanger: false, mismatch: false }
  if (nowWidth < NEEDED_WINDOW_TURNS) {
    CURABLE.forEach((cause, i) => {
      const alone = width(span(i === 0, i === 1, i === 2))
      const others = width(span(i !== 0, i !== 1, i !== 2))
      atFault[cause] = blames(nowWidth, alone, others, curedWidth, FAULT_WINDOW_TURNS)
      needed[cause] = blames(nowWidth, alone, others, curedWidth, NEEDED_WINDOW_TURNS)
    })
  }
  const safeH = safeStopMm(g, 'H')
  const safeL = safeStopMm(g, 'L')
  const last = g.n - 1
  const reference = nowWidth > 0 ? now : cured
  return {
    weight,
    belief,
    span: now,
    window: turnsOf(heldWindowMm(g, b)),
    stopsSafe: b.stopHMm >= safeH.from && b.stopHMm <= safeH.to && b.stopLMm >= safeL.from && b.stopLMm <= safeL.to,
    stopSpoils: b.stopHMm > most[0] || b.stopLMm < least[last],
    atFault,
    needed,
    middle: (reference.from + reference.to) / 2,
    outside: barrelTurns < reference.from || barrelTurns > reference.to,
  }
}

/** Cable offsets with every gear clean and both stops well set, mm. The fast twin of `cableWindowMm`. */
function spanMm(
  g: Geometry,
  ratio: number,
  hIn: number,
  hOut: number,
  camber: number,
  bow: number,
): { from: number; to: number } {
  let from = -Infinity
  let to = Infinity
  const last = g.n - 1
  for (let k = 0; k < g.n; k++) {
    const rest = bow * g.bow[k] + camber * g.radiusMm[k]
    const c = g.cableMm[k]
    // arriving inward the pulley stands short, arriving outward beyond: the tighter of the two limits counts
    const low = (least[k] + (k === 0 ? -hOut : hIn) - rest) / ratio - c
    const high = (most[k] - (k === last ? -hIn : hOut) - rest) / ratio - c
    if (k !== 0 && low > from) from = low
    if (k !== last && high < to) to = high
  }
  return { from, to }
}

/** The same with the stops where they are. */
function heldWindowMm(g: Geometry, b: Belief): { from: number; to: number } {
  let { from, to } = spanMm(g, b.ratio, b.backlashInMm, b.backlashOutMm, b.camberTan, b.bowMm)
  const last = g.n - 1
  if (b.stopHMm > most[0] || b.stopLMm < least[last]) return { from: Infinity, to: -Infinity }
  if (b.stopHMm < least[0]) from = Math.max(from, (least[0] - b.backlashOutMm) / b.ratio)
  if (b.stopLMm > most[last])
    to = Math.min(to, (most[last] + b.backlashInMm - b.camberTan * g.radiusMm[last]) / b.ratio - g.cableMm[last])
  // a stop may also hold a gear next to the end
  if (last > 1 && (b.stopHMm > most[1] || b.stopLMm < least[last - 1])) return { from: Infinity, to: -Infinity }
  return { from, to }
}

/**
 * Chance to be right at each eighth from where the barrel is, within its travel: a difference array over the windows.
 */
function chancePerEighth(
  readings: Reading[],
  range: number,
  barrelTurns: number,
  sound: number,
): { turns: number; right: number }[] {
  const first = -Math.floor(barrelTurns * 8 + 1e-6)
  const last = Math.floor((range - barrelTurns) * 8 + 1e-6)
  const count = last - first + 1
  const change = new Float64Array(count + 1)
  for (const r of readings) {
    if (!r.stopsSafe) continue
    const from = Math.max(0, Math.ceil((r.window.from - barrelTurns) * 8 - 1e-9) - first)
    const to = Math.min(count - 1, Math.floor((r.window.to - barrelTurns) * 8 + 1e-9) - first)
    if (!(from <= to)) continue
    change[from] += r.weight
    change[to + 1] -= r.weight
  }
  const out: { turns: number; right: number }[] = []
  let sum = 0
  for (let i = 0; i < count; i++) {
    sum += change[i]
    const steps = first + i
    out.push({
      turns: steps === 0 ? barrelTurns : barrelTurns + steps / 8,
      right: Math.max(0, Math.min(1, sum)) * sound,
    })
  }
  return out
}

/** The eighth with the best chance; of equals the nearest to where the barrel is, on a plateau its middle. */
export function bestEighth(analysis: Analysis, barrelTurns: number): { turns: number; right: number } {
  const most = Math.max(...analysis.eighths.map(e => e.right))
  const good = analysis.eighths.filter(e => e.right >= most - 1e-6)
  return good.reduce((a, b) => (Math.abs(b.turns - barrelTurns) < Math.abs(a.turns - barrelTurns) ? b : a))
}

function judgeStop(g: Geometry, readings: Reading[], stop: 'H' | 'L'): StopJudgement {
  const safe = safeStopMm(g, stop)
  const sprocket = stop === 'H' ? 0 : g.n - 1
  const end = g.placeMm[sprocket]
  // where each particle's stop stands, what a turn does there, and between which places it is safe and out of the way
  const places = readings.map(({ weight, belief }) => {
    const clean = cleanErrors(g, sprocket, belief)
    return stop === 'H'
      ? {
          weight,
          at: belief.stopHMm,
          per: belief.mmPerTurnH,
          from: safe.from,
          to: Math.min(safe.to, end + g.pitchMm[sprocket] * clean.to),
        }
      : {
          weight,
          at: belief.stopLMm,
          per: -belief.mmPerTurnL,
          from: Math.max(safe.from, end + g.pitchMm[sprocket] * clean.from),
          to: safe.to,
        }
  })
  const goodAfter = (turns: number) => {
    let sum = 0
    for (const p of places) {
      const place = p.at + turns * p.per
      if (place >= p.from && place <= p.to) sum += p.weight
    }
    return sum
  }
  const good = goodAfter(0)
  let bestTurns = 0
  let bestGood = good
  if (good < 0.98)
    for (let eighth = 1; eighth <= 24; eighth++)
      for (const turns of [eighth / 8, -eighth / 8]) {
        const found = goodAfter(turns)
        if (found > bestGood + 1e-3) {
          bestGood = found
          bestTurns = turns
        }
      }
  const mean = places.reduce((s, p) => s + p.weight * (p.at - end), 0)
  const variance = places.reduce((s, p) => s + p.weight * (p.at - end - mean) ** 2, 0)
  const safeNow = places.reduce((s, p) => (p.at >= safe.from && p.at <= safe.to ? s + p.weight : s), 0)
  return { safe: safeNow, good, bestTurns, bestGood, offsetMm: { mean, sd: Math.sqrt(variance) } }
}

/** Limits of the window as expected: medians over the particles that have one, if most do. */
function expectedWindow(readings: Reading[], range: number): { from: number; to: number } | null {
  const having = readings.filter(r => width(r.window) > 0)
  const weight = having.reduce((s, r) => s + r.weight, 0)
  if (weight < 0.5) return null
  const from = Math.max(
    0,
    weightedQuantile(
      having.map(r => [r.window.from, r.weight]),
      0.5,
    ),
  )
  const to = Math.min(
    range,
    weightedQuantile(
      having.map(r => [r.window.to, r.weight]),
      0.5,
    ),
  )
  return to - from >= NO_WINDOW_TURNS ? { from, to } : null
}

/** Quantile of weighted values. */
export const weightedQuantile = (pairs: [value: number, weight: number][], share: number): number =>
  weightedQuantiles(pairs, [share])[0]

/** Several quantiles of weighted values at one sorting; `shares` ascending. */
export function weightedQuantiles(
  pairs: readonly [value: number, weight: number][],
  shares: readonly number[],
): number[] {
  const sorted = [...pairs].sort((a, b) => a[0] - b[0])
  const all = sorted.reduce((s, p) => s + p[1], 0)
  const out: number[] = []
  let sum = 0
  for (const [value, weight] of sorted) {
    sum += weight
    while (out.length < shares.length && sum >= shares[out.length] * all) out.push(value)
  }
  while (out.length < shares.length) out.push(sorted.at(-1)![0])
  return out
}
