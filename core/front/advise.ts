import { positiveList } from '../quantity/check'
import { believeFront, followFront, type FrontBelief } from './belief'
import type { FrontCause } from './causes'
import { checksOf } from './checks'
import type { FrontAdvice, FrontWishes, Spread } from './contract'
import { decide } from './decide'
import type { FrontSight } from './events'
import { cageOffMm, frontFaults, frontGeometry, frontIsRight, frontWindow, shiftChances, type Span } from './response'
import type { FrontSetup } from './setup'
import { barrelWindow, type Read } from './turns'

/**
 * What is wrong with a front derailleur, how sure that is, and the one best next move.
 * @param setup parts, sprocket gaps in mm (smallest first), width over the chain's plates in mm
 * @throws RangeError naming what makes no sense
 */
export function adviseFront(
  setup: FrontSetup,
  log: readonly FrontSight[],
  options: FrontWishes & { seed?: number } = {},
): FrontAdvice {
  positiveList('pitchMm', [...setup.pitchMm])
  return considerFront(believeFront(frontGeometry(setup), log, options.seed), log, options)
}

/** As `adviseFront`, pausing after each entry. */
export async function adviseFrontInSteps(
  setup: FrontSetup,
  log: readonly FrontSight[],
  pause: () => Promise<void>,
  wishes: FrontWishes = {},
): Promise<FrontAdvice> {
  const following = followFront(frontGeometry(setup), log)
  for (;;) {
    const next = following.next()
    if (next.done) return considerFront(next.value, log, wishes)
    await pause()
  }
}

/** The advice of a belief. */
function considerFront(belief: FrontBelief, log: readonly FrontSight[], wishes: FrontWishes): FrontAdvice {
  const { geometry: g, guesses, weights } = belief
  const reads = guesses.map((guess, i): Read => ({
    guess,
    window: frontWindow(g, guess),
    faults: frontFaults(g, guess),
    weight: weights[i],
  }))
  // weights add up to one but for the last digits
  const chance = (is: (r: Read) => boolean) =>
    Math.min(
      1,
      reads.reduce((s, r) => s + (is(r) ? r.weight : 0), 0),
    )
  const spread = (of: (r: Read) => number): Spread => {
    const mean = reads.reduce((s, r) => s + r.weight * of(r), 0)
    return { mean, sd: Math.sqrt(reads.reduce((s, r) => s + r.weight * (of(r) - mean) ** 2, 0)) }
  }
  const right = chance(r => frontIsRight(g, r.guess, r.window))
  const outside = (x: number, { from, to }: Span) => x < from || x > to
  const causes: Record<FrontCause, number> = {
    tension: chance(r => r.window.slack.from <= r.window.slack.to && outside(r.guess.slackMm, r.window.slack)),
    L: chance(r => outside(r.guess.stopLMm, r.window.L)),
    H: chance(r => outside(r.guess.stopHMm, r.window.H)),
    height: chance(r => r.faults.height),
    angle: chance(r => r.faults.angle),
    friction: chance(r => r.faults.friction),
    pull: chance(r => r.faults.pull),
  }
  const thrown = {
    inboard: reads.reduce((s, r) => s + r.weight * shiftChances(g, r.guess, 1, 0)['falls-inboard'], 0),
    outboard: reads.reduce(
      (s, r) => s + r.weight * shiftChances(g, r.guess, g.rings - 2, g.rings - 1)['falls-outboard'],
      0,
    ),
  }
  const checks = checksOf(g, log, reads, thrown, wishes)
  const first = checks.find(c => !c.last)
  const nextCheck = first ? { move: first.move, tells: first.tells } : null
  const { move, after, because = null } = decide({ belief, log, reads, right, causes, checks, wishes })
  return {
    move,
    right,
    after,
    because,
    causes,
    nextCheck,
    thrown,
    clicks: Array.from({ length: g.rings }, (_, ring) => ({
      ring,
      outward: spread(r => cageOffMm(g, r.guess, ring, true)),
      inward: spread(r => cageOffMm(g, r.guess, ring, false)),
    })),
    stops: { L: spread(r => r.guess.stopLMm), H: spread(r => r.guess.stopHMm) },
    backlashMm: spread(r => r.guess.backlashMm),
    heightMm: spread(r => r.guess.heightMm),
    angleDeg: spread(r => r.guess.angleDeg),
    barrelTurns: barrelWindow(reads),
  }
}
