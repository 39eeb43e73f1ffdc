import { degrees } from '../quantity/angle'
import type { Density } from '../quantity/normal'
import type { Random } from '../quantity/random'
import { MEASURE } from '../response/parameters'
import { logLikelihood, mostToCome, R, resolve, type State } from './likelihood'
import { densityOf, drawFrom, logDensity, U } from './prior'
import { farSquared, leanTowards, shapeOf } from '../inference/shape'

const SWEEPS = 4
const SWEEPS_WHEN_FEW = 6
/** Kinds of moves, as shares added up; the rest are redraws from the prior. */
const SHARES = { gauged: 0.025, trade: 0.05, evolve: 0.3, lean: 0.88, walk: 0.96 }

/** Systematic resampling, then moves that leave the belief as it is and set the copies apart. */
export function rejuvenate(s: State, weights: Float64Array, effective: number, random: Random): State {
  const particles = resampled(s.particles, weights, random)
  const target = new Float64Array(particles.length) // log prior + log likelihood
  const count = s.densities.length
  const { densities } = s
  const priors = particles.map(p => {
    const out = new Float64Array(count)
    for (let d = 0; d < count; d++) out[d] = logDensity(densities[d], p[d])
    return out
  })
  const r = new Float64Array(R.size * s.epochs.length)
  const gauged = gaugedIn(s)
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
  particles.forEach((p, i) => {
    target[i] = whole(p, -Infinity)
  })
  const spread = spreads(particles, count)
  const shape = shapeOf(particles, count)
  const scratch = new Float64Array(count)
  const far = particles.map(p => farSquared(shape, p, scratch))
  const trial = new Float64Array(count)
  const trialPrior = new Float64Array(count)
  const sweeps = effective < 0.15 ? SWEEPS_WHEN_FEW : SWEEPS
  for (let sweep = 0; sweep < sweeps + (justGauged ? GAUGED_SWEEPS : 0); sweep++) {
    for (let i = 0; i < particles.length; i++) {
      const x = particles[i]
      const prior = priors[i]
      let trialFar = NaN // known after leaning; other moves work it out when they are taken
      let change = 0 // of log prior, redraws left out: there the prior cancels
      // after a gauging every particle is first asked whether it lies under the reading
      const kind = justGauged && sweep < GAUGED_SWEEPS ? 0 : random.next()
      if (kind < SHARES.evolve || kind >= SHARES.lean) {
        trial.set(x)
        trialPrior.set(prior)
      }
      if (gauged && kind < SHARES.gauged) change = redrawGauged(gauged, trial, trialPrior, prior, random)
      else if (kind < SHARES.trade) change = trade(s, trial, trialPrior, prior, random)
      else if (kind < SHARES.evolve) {
        const a = particles[random.below(particles.length)]
        const b = particles[random.below(particles.length)]
        const some = random.next() < 0.3 ? 1 : 0.15 + 0.6 * random.next()
        let moving = 0
        for (let d = 0; d < count; d++)
          if (some === 1 || random.next() < some) {
            trial[d] = NaN
            moving++
          }
        const gamma =
          random.next() < 0.12 ? 1 : (2.38 / Math.sqrt(2 * Math.max(1, moving))) * (0.5 + 0.7 * random.next())
        for (let d = 0; d < count; d++) {
          if (trial[d] === trial[d]) continue
          trial[d] = x[d] + gamma * (a[d] - b[d]) + 0.01 * spread[d] * random.normal()
          trialPrior[d] = logDensity(densities[d], trial[d])
          change += trialPrior[d] - prior[d]
        }
      } else if (kind < SHARES.lean) {
        leanTowards(shape, x, trial, random.next() < 1 / 3 ? 0.5 : 1, scratch, random)
        for (let d = 0; d < count; d++) {
          trialPrior[d] = logDensity(densities[d], trial[d])
          change += trialPrior[d] - prior[d]
        }
        trialFar = farSquared(shape, trial, scratch)
        change += 0.5 * (trialFar - far[i])
      } else {
        const d = random.below(count)
        if (kind < SHARES.walk) {
          trial[d] = x[d] + spread[d] * random.normal()
          trialPrior[d] = logDensity(densities[d], trial[d])
          change = trialPrior[d] - prior[d]
        } else {
          trial[d] = drawFrom(densities[d], random)
          trialPrior[d] = logDensity(densities[d], trial[d])
        }
      }
      const floor = target[i] - change + Math.log(random.next() + 1e-300)
      if (!Number.isFinite(change)) continue
      const found = whole(trial, floor)
      if (found < floor) continue
      x.set(trial)
      prior.set(trialPrior)
      target[i] = found
      far[i] = trialFar === trialFar ? trialFar : farSquared(shape, x, scratch)
    }
  }
  return { ...s, particles, logWeights: new Float64Array(particles.length) }
}

/** The last gauging: which coordinate it is about, and its figure in radians. */
type Gauged = { at: number; density: Density; measured: number }
const GAUGED_SWEEPS = 3
const GAUGE_SD = MEASURE.hangerSdDeg / degrees(1)

function gaugedIn(s: State): Gauged | null {
  const last = s.observations.findLast(o => o.is === 'camber')
  if (!last || last.is !== 'camber') return null
  const at = s.epochs[last.epoch].at[U.camber]
  return { at, density: s.densities[at], measured: last.camberDeg / degrees(1) }
}

/**
 * A gauge is so narrow that hardly any particle lies under it: draws the camber from the reading or from the prior,
 * so that belief can cross between "bent so" and "the reading slipped".
 * @returns change of log prior, less that of the draw
 */
function redrawGauged(
  { at, density, measured }: Gauged,
  trial: Float64Array,
  trialPrior: Float64Array,
  prior: Float64Array,
  random: Random,
): number {
  const drawn = (x: number) =>
    Math.log((0.5 * Math.exp(-0.5 * ((x - measured) / GAUGE_SD) ** 2)) / GAUGE_SD + 0.5 * densityOf(density, x))
  const was = trial[at]
  trial[at] = random.next() < 0.5 ? measured + GAUGE_SD * random.normal() : drawFrom(density, random)
  trialPrior[at] = logDensity(density, trial[at])
  return trialPrior[at] - prior[at] + drawn(was) - drawn(trial[at])
}

/**
 * A bent hanger and a ratio that does not match look alike from few gears: draws another camber and lets the ratio
 * take back what it did at the largest sprocket, so that belief can cross between the two.
 * @returns change of log prior, less that of the redraw, whose own prior cancels
 */
function trade(s: State, trial: Float64Array, trialPrior: Float64Array, prior: Float64Array, random: Random): number {
  const { at } = s.epochs[random.below(s.epochs.length)]
  const camber = at[U.camber]
  const ratio = at[U.lnRatio]
  const g = s.geometry
  const last = g.n - 1
  const was = trial[camber]
  trial[camber] = drawFrom(s.densities[camber], random)
  const share =
    Math.exp(trial[ratio]) + ((Math.tan(was) - Math.tan(trial[camber])) * g.radiusMm[last]) / g.placeMm[last]
  if (share <= 0) return -Infinity
  if (random.next() < 0.7) trial[ratio] = Math.log(share)
  else trial[ratio] = drawFrom(s.densities[ratio], random)
  trialPrior[camber] = logDensity(s.densities[camber], trial[camber])
  trialPrior[ratio] = logDensity(s.densities[ratio], trial[ratio])
  return trial[ratio] === Math.log(share) ? trialPrior[ratio] - prior[ratio] : 0
}

function resampled(particles: Float64Array[], weights: Float64Array, random: Random): Float64Array[] {
  const n = particles.length
  const out: Float64Array[] = []
  let at = 0
  let reached = weights[0]
  const start = random.next()
  for (let i = 0; i < n; i++) {
    const want = (start + i) / n
    while (reached < want && at < n - 1) reached += weights[++at]
    out.push(particles[at].slice())
  }
  return out
}

function spreads(particles: Float64Array[], count: number): Float64Array {
  const out = new Float64Array(count)
  for (let d = 0; d < count; d++) {
    let sum = 0,
      squares = 0
    for (const p of particles) {
      sum += p[d]
      squares += p[d] * p[d]
    }
    const mean = sum / particles.length
    out[d] = Math.sqrt(Math.max(1e-12, squares / particles.length - mean * mean))
  }
  return out
}
