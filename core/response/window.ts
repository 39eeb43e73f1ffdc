import { arrivalChances } from './heard'
import { HEARING, RIGHT_CHANCE } from './parameters'
import type { Bike } from './pulley'
import type { Geometry } from './setup'

/** How far from a rub threshold an arrival is still clean often enough, pitches: the logistic's quantile at "right". */
const RIGHT_INSIDE_PITCH = HEARING.width * Math.log(RIGHT_CHANCE / (1 - RIGHT_CHANCE))

/** Hearing of one bike: how sharp its thresholds are and how they lie to one side. */
export type Hearing = { sharpness: number; asymmetryPitch: number }

/**
 * The errors, in pitches, between which an arrival is clean with at least the chance that "right" asks.
 * Closed form from the nearer threshold; with both thresholds near (a very sharp bike) the small overlap is left out.
 */
export function cleanErrors(g: Geometry, sprocket: number, hearing: Hearing): { from: number; to: number } {
  const low = sprocket === 0 ? HEARING.smallestRough : HEARING.rub
  const high = sprocket === g.n - 1 ? HEARING.largestRough : HEARING.rub
  return {
    from: -low * hearing.sharpness + RIGHT_INSIDE_PITCH + hearing.asymmetryPitch,
    to: high * hearing.sharpness - RIGHT_INSIDE_PITCH + hearing.asymmetryPitch,
  }
}

/** From which sides a sprocket is shifted into: the ends from one only. */
export const arrivalsAt = (g: Geometry, sprocket: number): readonly boolean[] =>
  sprocket === 0 ? [false] : sprocket === g.n - 1 ? [true] : [true, false]

/**
 * The span of cable offset, mm, in which every gear is clean from both sides; `from` above `to` means there is none,
 * by so much. With `stopsSet` both stops are taken as well set (model, section 3). `first` and `end` leave gears out.
 */
export function cableWindowMm(
  g: Geometry,
  bike: Bike,
  hearing: Hearing,
  stopsSet: boolean,
  first = 0,
  end = g.n,
): { from: number; to: number } {
  let from = -Infinity
  let to = Infinity
  for (let k = first; k < end; k++) {
    const clean = cleanErrors(g, k, hearing)
    const least = g.placeMm[k] + g.pitchMm[k] * clean.from
    const most = g.placeMm[k] + g.pitchMm[k] * clean.to
    const rest = bike.bowMm * g.bow[k] + bike.camberTan * g.radiusMm[k]
    for (const inward of arrivalsAt(g, k)) {
      const lag = inward ? -bike.backlashInMm : bike.backlashOutMm
      const offset = (place: number) => (place - lag - rest) / bike.ratio - g.cableMm[k]
      if (stopsSet) {
        // a well-set stop holds an end gear where the cable would carry it past
        if (k !== 0) from = Math.max(from, offset(least))
        if (k !== g.n - 1) to = Math.min(to, offset(most))
        continue
      }
      if (bike.stopLMm < least || bike.stopHMm > most) return { from: Infinity, to: -Infinity }
      if (bike.stopHMm < least) from = Math.max(from, offset(least))
      if (bike.stopLMm > most) to = Math.min(to, offset(most))
    }
  }
  return { from, to }
}

/** Is an arrival clean often enough, by the full chances? Slow judge for the closed form above. */
export function arrivesClean(g: Geometry, sprocket: number, inward: boolean, z: number, hearing: Hearing): boolean {
  const end = sprocket === 0 ? 'smallest' : sprocket === g.n - 1 ? 'largest' : null
  return (
    arrivalChances(z - hearing.asymmetryPitch, { end, inward, alreadyThere: false }, hearing.sharpness).clean >=
    RIGHT_CHANCE
  )
}
