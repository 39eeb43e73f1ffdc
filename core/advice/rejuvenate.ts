import { degrees } from '../quantity/angle'
import type { Density } from '../quantity/normal'
import type { Random } from '../quantity/random'
import { MEASURE } from '../response/parameters'
import { evolve, lean, moveAll, redraw, walk, type Move, type Prior } from '../inference/moves'
import { logLikelihood, mostToCome, R, resolve, type State } from './likelihood'
import { densityOf, drawFrom, logDensity, U } from './prior'

const SWEEPS = 4
const SWEEPS_WHEN_FEW = 6
const FEW = 0.15
/** Kinds of moves, as shares added up; the rest are redraws from the prior. */
const SHARES = { gauged: 0.025, trade: 0.05, evolve: 0.3, lean: 0.88, walk: 0.96 }

/** Moves copies of particles apart, the belief left as it is: each replays the whole log. */
export function rejuvenate(
  s: State,
  particles: Float64Array[],
  logChances: Float64Array,
  effective: number,
  random: Random,
): void {
  const r = new Float64Array(R.size * s.epochs.length)
  const redrawn = redrawGauged(s)
  const traded = trade(s)
  const justGauged = s.observations.at(-1)?.is === 'camber'
  // the newest speaks first: the particles agree least about it, so a bad trial is soon given up
  const observations = [...s.observations].reverse()
  const toCome = mostToCome(observations)
  const whole = (x: Float64Array, floor: number): number => {
    if (toCome[0] < floor) return -Infinity
    resolve(s, x, r)
    let sum = 0
    for (let i = 0; i < observations.length; i++) {
      sum += logLikelihood(s, observations[i], r)
      if (sum + toCome[i + 1] < floor) return -Infinity
    }
    return sum
  }
  const pick = (sweep: number): Move => {
    // after a gauging every particle is first asked whether it lies under the reading
    const kind = justGauged && sweep < GAUGED_SWEEPS ? 0 : random.next()
    if (redrawn && kind < SHARES.gauged) return redrawn
    if (kind < SHARES.trade) return traded
    if (kind < SHARES.evolve) return evolve
    if (kind < SHARES.lean) return lean
    return kind < SHARES.walk ? walk : redraw
  }
  const sweeps = (effective < FEW ? SWEEPS_WHEN_FEW : SWEEPS) + (justGauged ? GAUGED_SWEEPS : 0)
  moveAll(particles, logChances, priorOf(s), whole, sweeps, pick, random)
}

const priorOf = ({ densities }: State): Prior => ({
  dims: densities.length,
  draw: (d, random) => drawFrom(densities[d]!, random),
  logDensity: (d, x) => logDensity(densities[d]!, x),
})

const GAUGED_SWEEPS = 3
const GAUGE_SD = MEASURE.hangerSdDeg / degrees(1)

/**
 * A gauge is so narrow that hardly any particle lies under it: draws the camber from the last reading or from the
 * prior, so that belief can cross between "bent so" and "the reading slipped". Null where nothing was gauged.
 */
function redrawGauged(s: State): Move | null {
  const last = s.observations.findLast(o => o.is === 'camber')
  if (!last || last.is !== 'camber') return null
  const at = s.epochs[last.epoch].at[U.camber]
  const density: Density = s.densities[at]
  const measured = last.camberDeg / degrees(1)
  const drawn = (x: number) =>
    Math.log((0.5 * Math.exp(-0.5 * ((x - measured) / GAUGE_SD) ** 2)) / GAUGE_SD + 0.5 * densityOf(density, x))
  return ({ from, fromPrior, to, toPrior, random }) => {
    to.set(from)
    toPrior.set(fromPrior)
    to[at] = random.next() < 0.5 ? measured + GAUGE_SD * random.normal() : drawFrom(density, random)
    toPrior[at] = logDensity(density, to[at])
    return toPrior[at] - fromPrior[at] + drawn(from[at]) - drawn(to[at])
  }
}

/**
 * A bent hanger and a ratio that does not match look alike from few gears: draws another camber and lets the ratio
 * take back what it did at the largest sprocket, so that belief can cross between the two.
 */
function trade(s: State): Move {
  const g = s.geometry
  const last = g.n - 1
  return ({ from, fromPrior, to, toPrior, random }) => {
    const { at } = s.epochs[random.below(s.epochs.length)]
    const camber = at[U.camber]
    const ratio = at[U.lnRatio]
    to.set(from)
    toPrior.set(fromPrior)
    to[camber] = drawFrom(s.densities[camber], random)
    const share =
      Math.exp(to[ratio]) + ((Math.tan(from[camber]) - Math.tan(to[camber])) * g.radiusMm[last]) / g.placeMm[last]
    if (share <= 0) return -Infinity
    const carried = random.next() < 0.7
    to[ratio] = carried ? Math.log(share) : drawFrom(s.densities[ratio], random)
    toPrior[camber] = logDensity(s.densities[camber], to[camber])
    toPrior[ratio] = logDensity(s.densities[ratio], to[ratio])
    // a redraw's own prior cancels
    return carried ? toPrior[ratio] - fromPrior[ratio] : 0
  }
}
