import type { Learnt } from '../advice/learnt'
import { NOTHING_LEARNT } from '../advice/learnt'
import { CAUSES, type Cause } from '../response/causes'
import { STOP_SCREW } from '../response/parameters'
import type { Habit } from './habit'

/**
 * On how many visits each cause is found on the usual population of the bench, by the same count of cures that a shop's
 * records are made of: `npm run compare -- learning` measures them again. `model`
 */
export const USUALLY_FOUND: Record<Cause, number> = {
  tension: 0.8,
  friction: 0.19,
  hanger: 0.155,
  mismatch: 0.07,
  stops: 0.69,
  wear: 0.085,
}
/** Fewer jobs than this teach nothing. */
export const LEAST_JOBS = 5
/** The usual counts as so many of the shop's jobs, and those as so many of jobs like this one. `model` */
const USUAL_COUNTS = 12
/** How far a shop's usual stop screw may lie from the usual one, and one bike's from its shop's, mm a turn. `model` */
const STOP_OF_SHOP_SD = 0.12
const STOP_OF_BIKE_SD = 0.12
/** A cable older than this is no new one, days: about a year's riding. `practice` */
const OLD_CABLE_DAYS = 365

/** What the advice starts from at a bike. */
export type BikeHere = Pick<Habit, 'frame' | 'cableDays' | 'back'>

/** A share seen `times` in `of`, shrunk towards what is usual (mean of a beta, the textbook's conjugate update). */
const shrunk = (usual: number, times: number, of: number): number =>
  (USUAL_COUNTS * usual + times) / (USUAL_COUNTS + of)
const oddsOf = (share: number): number => share / (1 - share)

const shareOf = (jobs: readonly Habit[], cause: Cause, usual: number): number =>
  shrunk(usual, jobs.filter(j => j.found.includes(cause)).length, jobs.length)

/** The share among jobs like this one, drawn towards the others' and those towards the usual: no job counts twice. */
function shareAmong(jobs: readonly Habit[], like: (job: Habit) => boolean, cause: Cause, usual: number): number {
  const others = jobs.filter(j => !like(j))
  return shareOf(jobs.filter(like), cause, shareOf(others, cause, usual))
}

type Age = 'new' | 'old' | 'unknown'
const ageOf = (days: number | null): Age => (days === null ? 'unknown' : days > OLD_CABLE_DAYS ? 'old' : 'new')

/**
 * Travel of this shop's stop screws, mm a turn: each told one weighed by its own spread and the bikes' (textbook's
 * normal update).
 */
function stopHere(told: readonly { mean: number; sd: number }[]): number | null {
  if (told.length < LEAST_JOBS) return null
  let [sum, precision] = [STOP_SCREW.mmPerTurn / STOP_OF_SHOP_SD ** 2, 1 / STOP_OF_SHOP_SD ** 2]
  for (const { mean, sd } of told) {
    const weight = 1 / (sd ** 2 + STOP_OF_BIKE_SD ** 2)
    sum += weight * mean
    precision += weight
  }
  return sum / precision
}

/** A cause that is nearly always turned at is no habit, and a stop is seen by hand on every bike. */
const LEARNT_CAUSES = CAUSES.filter(c => c !== 'tension' && c !== 'stops')

/**
 * What a shop's closed jobs say of a bike: each cause's share among those that came back, or did not, as this one; of
 * friction among those led like it and with a cable as old. Each is drawn towards the others' and those towards the
 * usual, and told as odds against the usual ones.
 */
export function learntFor(jobs: readonly Habit[], bike: BikeHere): Learnt {
  if (jobs.length < LEAST_JOBS) return { ...NOTHING_LEARNT, jobs: jobs.length }
  const odds: Learnt['odds'] = {}
  for (const cause of LEARNT_CAUSES) {
    const share = shareAmong(jobs, likeIn(cause, bike), cause, USUALLY_FOUND[cause])
    odds[cause] = oddsOf(share) / oddsOf(USUALLY_FOUND[cause])
  }
  const usual: Learnt['usual'] = {}
  const stop = stopHere(jobs.flatMap(j => j.stop ?? []))
  if (stop !== null) usual.mmPerTurnH = usual.mmPerTurnL = stop
  return { jobs: jobs.length, odds, usual }
}

/**
 * On which share of all its bikes a shop finds each cause that is learnt, drawn towards the usual; nothing of too few
 * jobs.
 */
export function sharesHere(jobs: readonly Habit[]): { cause: Cause; here: number; usually: number }[] {
  if (jobs.length < LEAST_JOBS) return []
  return LEARNT_CAUSES.map(cause => {
    const usually = USUALLY_FOUND[cause]
    return { cause, here: shareOf(jobs, cause, usually), usually }
  })
}

/**
 * Which jobs are like this bike where a cause is concerned: for friction how its cable is led and how old it is, as far
 * as known.
 */
function likeIn(cause: Cause, { frame, cableDays, back }: BikeHere): (job: Habit) => boolean {
  if (cause !== 'friction') return j => j.back === back
  const age = ageOf(cableDays)
  return j => (frame === null || j.frame === frame) && (age === 'unknown' || ageOf(j.cableDays) === age)
}
