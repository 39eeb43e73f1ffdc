import { M5_PITCH_MM } from '../standards/tables/threads'
import { NEEDED_WINDOW_TURNS, NO_WINDOW_TURNS } from '../standards/model'
import { positive, positiveList } from '../quantity/check'
import { sayTurns, toEighth } from '../quantity/turns'
import { NEW_CABLE } from '../response/parameters'
import type { Bike } from '../response/pulley'
import { geometryOf, type Geometry } from '../response/setup'
import { cableWindowMm } from '../response/window'
import { errorsAfterOffset, matchDrivetrain, type Match } from '../standards/match'

/**
 * A trio by its numbers: pull of each click, ratio along the travel or one for all, gaps of the sprockets, mm, smallest
 * first.
 */
export type Trio = { pullMm: readonly number[]; ratio: number | readonly number[]; pitchMm: readonly number[] }

export const VERDICTS = ['works', 'care', 'will-not-index'] as const
export type Verdict = (typeof VERDICTS)[number]
export const VERDICT_WORDS: Record<Verdict, string> = {
  works: 'works',
  care: 'works with care',
  'will-not-index': 'will not index',
}

export type Fit = Match & {
  verdict: Verdict
  /**
   * Width of the span of barrel settings in which every gear is clean both ways, turns; negative: short of one by so
   * much.
   */
  windowTurns: number
  /** Gears that bound the span: counted from 0, the smallest. */
  tightGears: number[]
  /** Ratio the sums went by: the mean along the travel. */
  ratio: number
  /** Gears both shifter and cassette have, and sprockets no click reaches. */
  gears: number
  unreached: number
  /** Errors between which each gear is clean both ways, mm; endless where a well-set stop holds it. */
  cleanMm: { from: number; to: number }[]
}

/**
 * Do three parts go together? By the response model: is there a span of barrel settings in which every gear is clean
 * from both sides, with a new cable and well-set stops, and how wide is it.
 * Where shifter and cassette differ in number, the gears both have are judged.
 * @param trio its numbers; a list of ratios has one for each click
 * @param barrelMm thread of the barrel, mm per turn
 * @throws RangeError naming the argument that is empty, of other length or not positive
 */
export function fitOf(trio: Trio, barrelMm = M5_PITCH_MM): Fit {
  positive('barrelMm', barrelMm)
  const { pullMm, ratio, pitchMm } = sharedNumbers(trio)
  const { g, bike, from, to } = windowOf(pullMm, ratio, pitchMm)
  const room = (NEEDED_WINDOW_TURNS / 2) * barrelMm
  const middle = (from + to) / 2
  const windowTurns = (to - from) / barrelMm
  const verdict = verdictOf(windowTurns, trio)
  const tightGears =
    verdict === 'works'
      ? []
      : g.placeMm
          .map((_, k) => k)
          .filter(k => {
            const own = cableWindowMm(g, bike, USUAL_HEARING, true, k, k + 1)
            return middle - own.from < room - 1e-9 || own.to - middle < room - 1e-9
          })
  return {
    ...matchDrivetrain({ pullMm, pullRatio: ratio, pitchMm }),
    verdict,
    windowTurns,
    tightGears,
    ratio,
    gears: g.n,
    unreached: leftOut(trio),
    cleanMm: cleanBands(trio),
  }
}

/** Between which errors each gear of a trio is clean from both sides, mm; the drawing's band. */
export function cleanBands(trio: Trio): { from: number; to: number }[] {
  const { pullMm, ratio, pitchMm } = sharedNumbers(trio)
  const { g, bike } = windowOf(pullMm, ratio, pitchMm)
  return g.placeMm.map((_, k) => cleanBand(g, bike, k))
}

/** `fitOf` without naming gears or the ratio needed: for a whole matrix. */
export function quickFit(
  trio: Trio,
  barrelMm = M5_PITCH_MM,
): Pick<Fit, 'verdict' | 'windowTurns' | 'worstMm' | 'gears'> {
  const { pullMm, ratio, pitchMm } = sharedNumbers(trio)
  const { g, from, to } = windowOf(pullMm, ratio, pitchMm)
  const windowTurns = (to - from) / barrelMm
  return {
    verdict: verdictOf(windowTurns, trio),
    windowTurns,
    worstMm: errorsAfterOffset(g.cableMm, g.placeMm, ratio).worstMm,
    gears: g.n,
  }
}

/**
 * A lever with fewer clicks than the cassette has gaps leaves sprockets out: with care at best, however wide the
 * window.
 */
const verdictOf = (windowTurns: number, { pullMm, pitchMm }: Trio): Verdict => {
  if (windowTurns < NO_WINDOW_TURNS) return 'will-not-index'
  return windowTurns < NEEDED_WINDOW_TURNS || leftOut({ pullMm, pitchMm }) > 0 ? 'care' : 'works'
}
/** Sprockets no click reaches. */
export const leftOut = ({ pullMm, pitchMm }: Pick<Trio, 'pullMm' | 'pitchMm'>): number =>
  Math.max(0, pitchMm.length - pullMm.length)

const USUAL_HEARING = { sharpness: 1, asymmetryPitch: 0 } as const

/**
 * Window of a bike with these numbers and nothing wrong: new cable, straight hanger (the teeth do not count), stops
 * well set.
 */
function windowOf(pullMm: number[], ratio: number, pitchMm: number[]) {
  const g = geometryOf({
    teeth: new Array<number>(pitchMm.length + 1).fill(20),
    pitchMm,
    pullMm,
    pullRatio: ratio,
    barrelPitchMm: M5_PITCH_MM,
    barrelTurnsOut: 0,
    barrelTurnsRange: 1,
  })
  const lag = NEW_CABLE.backlashMm
  const bike: Bike = {
    cableMm: 0,
    ratio,
    backlashInMm: lag * NEW_CABLE.inwardShare,
    backlashOutMm: lag * (1 - NEW_CABLE.inwardShare),
    camberTan: 0,
    bowMm: 0,
    stopHMm: 0,
    stopLMm: 0,
  }
  return { g, bike, ...cableWindowMm(g, bike, USUAL_HEARING, true) }
}

/** Between which errors a gear is clean from both sides, mm; an end is held by its stop on the outer side. */
function cleanBand(g: Geometry, bike: Bike, k: number): { from: number; to: number } {
  const own = cableWindowMm(g, bike, USUAL_HEARING, true, k, k + 1)
  const error = (cableMm: number) => bike.ratio * (g.cableMm[k] + cableMm) - g.placeMm[k]
  return { from: error(own.from), to: error(own.to) }
}

/** The gears both have, the uneven ratio folded into the pulls so that one number is left. */
export function sharedNumbers({ pullMm, ratio, pitchMm }: Trio): {
  pullMm: number[]
  ratio: number
  pitchMm: number[]
} {
  positiveList('pullMm', [...pullMm])
  positiveList('pitchMm', [...pitchMm])
  const gaps = Math.min(pullMm.length, pitchMm.length)
  if (typeof ratio === 'number') return { pullMm: pullMm.slice(0, gaps), ratio, pitchMm: pitchMm.slice(0, gaps) }
  positiveList('ratio', [...ratio])
  if (ratio.length < gaps) throw new RangeError(`ratio has ${ratio.length} values for ${gaps} clicks`)
  const used = ratio.slice(0, gaps)
  const mean = used.reduce((s, r) => s + r, 0) / gaps
  return { pullMm: used.map((r, k) => (pullMm[k] * r) / mean), ratio: mean, pitchMm: pitchMm.slice(0, gaps) }
}

/**
 * A fit in words, with the reason.
 * @param gearName how a gear counted from 0, the smallest, is called: its teeth, or its place
 */
export function sayFit(fit: Fit, gearName: (k: number) => string): string {
  const window = fit.windowTurns >= 1 / 8 ? `${sayTurns(toEighth(fit.windowTurns))} turn` : 'no turn'
  const worst = fit.errorMm.reduce((a, e, i) => (Math.abs(e) > Math.abs(fit.errorMm[a]) + 1e-9 ? i : a), 0)
  const off = `${fit.worstMm.toFixed(2)} mm off at the ${gearName(worst)} after the best offset`
  const tight = list(fit.tightGears.map(gearName))
  const needs = `It needs a pull ratio of ${fit.ratioNeeded.toFixed(2)}, this is ${fit.ratio.toFixed(2)}.`
  const short = fit.unreached
    ? ` No click reaches the largest${fit.unreached > 1 ? ` ${fit.unreached}` : ''}: L holds the chain off.`
    : ''
  switch (fit.verdict) {
    case 'works':
      return `They go together: every gear is clean over ${window} of the barrel${fit.worstMm < 0.02 ? '' : `, at most ${fit.worstMm.toFixed(2)} mm off`}.`
    case 'care':
      if (fit.windowTurns >= NEEDED_WINDOW_TURNS) return `Works on the ${fit.gears} smallest.${short}`
      return `Works with care in the ${tight}: every gear is clean over only ${window} of the barrel; ${off}. ${needs}${short}`
    case 'will-not-index':
      return `Will not index: ${fit.windowTurns <= 0 ? 'no setting of the barrel has every gear clean' : 'less than 1/8 turn of the barrel has every gear clean'}, ${off}. ${needs}${short}`
  }
}

const list = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
