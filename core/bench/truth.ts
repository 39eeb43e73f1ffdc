import { FAULT_WINDOW_TURNS, NEEDED_WINDOW_TURNS } from '../standards/model'
import type { Part } from '../rear/benchEvents'
import type { Cause } from '../response/causes'
import { blames, CURABLE, type Curable } from '../advice/blames'
import { NEW_CABLE } from '../response/parameters'
import { safeStopMm, stopIsSafe } from '../response/safe'
import type { Geometry, RearSetup } from '../response/setup'
import { outcomeChances, uncleanGear, type HiddenBike } from './bench'
import type { Physics } from './physics'

/** What is truly wrong with a simulated bike, by the definitions of model, section 3. For scores and tests only. */
type Truth = { causes: Record<Cause, boolean>; windowTurns: number }

const STEP_TURNS = 1 / 64
const REACH_TURNS = 8

/**
 * Width of the window in turns with both stops well set and nothing worn, by walking the barrel over it; and its
 * middle.
 */
function walkWindow(
  g: Geometry,
  bike: HiddenBike,
  threadMm: number,
  physics: Physics,
): { width: number; from: number; to: number } {
  const middle = (stop: 'H' | 'L') => {
    const { from, to } = safeStopMm(g, stop)
    return (from + to) / 2
  }
  const set: HiddenBike = { ...bike, stopHMm: middle('H'), stopLMm: middle('L'), worn: new Set() }
  let best = { width: 0, from: 0, to: 0 }
  let start: number | null = null
  let last = 0
  for (let t = -REACH_TURNS; t <= REACH_TURNS; t += STEP_TURNS) {
    // the gear that was not clean a step before is mostly still not: it is looked at first
    const unclean = uncleanGear(g, { ...set, cableMm: bike.cableMm + t * threadMm }, physics, last)
    const clean = unclean === null
    last = unclean ?? last
    if (clean && start === null) start = t
    if (!clean && start !== null) {
      if (t - start > best.width) best = { width: t - start, from: start, to: t - STEP_TURNS }
      start = null
    }
  }
  return best
}

function cured(g: Geometry, bike: HiddenBike, what: readonly Curable[]): HiddenBike {
  const half = NEW_CABLE.backlashMm / 2
  return {
    ...bike,
    ...(what.includes('friction')
      ? { backlashInMm: Math.min(half, bike.backlashInMm), backlashOutMm: Math.min(half, bike.backlashOutMm) }
      : {}),
    ...(what.includes('hanger') ? { camberTan: 0 } : {}),
    ...(what.includes('mismatch') ? { ratio: g.fittedRatio } : {}),
  }
}

/** Causes blamed when a window narrower than `narrow` turns counts as narrow. */
function blamed(g: Geometry, bike: HiddenBike, physics: Physics, narrow: number): Record<Curable, boolean> {
  const width = (what: readonly Curable[]) => walkWindow(g, cured(g, bike, what), g.threadMm, physics).width
  const now = width([])
  const out = { friction: false, hanger: false, mismatch: false }
  if (now >= narrow) return out
  const all = width(CURABLE)
  for (const cause of CURABLE)
    out[cause] = blames(now, width([cause]), width(CURABLE.filter(c => c !== cause)), all, narrow)
  return out
}

/** Every cause that truly is one, as the bike stands. */
export function truthOf(g: Geometry, setup: RearSetup, bike: HiddenBike, physics: Physics): Truth {
  const now = walkWindow(g, bike, g.threadMm, physics)
  const reference = now.width > 0 ? now : walkWindow(g, cured(g, bike, CURABLE), g.threadMm, physics)
  const faults = blamed(g, bike, physics, FAULT_WINDOW_TURNS)
  const spoils = (to: number, inward: boolean) => {
    const free = { ...bike, stopHMm: -99, stopLMm: 999, worn: new Set<number>() }
    return (
      outcomeChances(g, { ...bike, worn: new Set() }, to, inward, false, physics).clean < 0.7 &&
      outcomeChances(g, free, to, inward, false, physics).clean >= 0.7
    )
  }
  return {
    windowTurns: now.width,
    causes: {
      ...faults,
      tension: reference.from > 0 || reference.to < 0,
      stops:
        !stopIsSafe(g, 'H', bike.stopHMm) ||
        !stopIsSafe(g, 'L', bike.stopLMm) ||
        spoils(0, false) ||
        spoils(g.n - 1, true),
      wear: bike.worn.size > 0,
    },
  }
}

/** Was a part replaced that the test with 3/8 turn does not blame, on the bike as it was? */
export function needless(g: Geometry, setup: RearSetup, before: HiddenBike, part: Part, physics: Physics): boolean {
  const needed = blamed(g, before, physics, NEEDED_WINDOW_TURNS)
  switch (part) {
    case 'cable':
      return !needed.friction
    case 'hanger':
      return !needed.hanger
    case 'cassette':
      return before.worn.size === 0 && !needed.mismatch
    case 'shifter':
    case 'derailleur':
      return !needed.mismatch
  }
}
