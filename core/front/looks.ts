import type { FrontMoveTo, ThrownTo } from './contract'
import { END_GAP_MM } from './endGaps'
import type { FrontSet, FrontSight } from './events'

/** What each step costs, in units of a shift looked at. `model` */
const FRONT_COST = { turn: 1, shift: 1, gap: 2, position: 2, hand: 2, undone: 4, done: 0 } as const
const FRONT_SET_COST: Record<FrontSet, number> = { clamp: 3, position: 4, cable: 10, lever: 15, stops: 4 }
/** A shift's way back is one of its own: it costs when it is made. */
export const frontCost = (m: FrontMoveTo): number => (m.do === 'set' ? FRONT_SET_COST[m.what] : FRONT_COST[m.do])

/** What was last read of the cage's height, null where it was set since; null as a whole where nobody looked or set. */
export function lastPlace(log: readonly FrontSight[]): { heightMm: number | null } | null {
  return log.reduce<{ heightMm: number | null } | null>((at, e) => {
    if (e.kind === 'frontPosition') return { heightMm: e.heightMm ?? at?.heightMm ?? null }
    return e.kind === 'frontSet' && e.what === 'position' ? { heightMm: null } : at
  }, null)
}

/** Was a stop's own place seen since it was last turned or moved? */
export function stopSeen(log: readonly FrontSight[], screw: 'L' | 'H'): boolean {
  const plate = screw === 'L' ? 'inner' : 'outer'
  for (let i = log.length - 1; i >= 0; i--) {
    const e = log[i]
    if (e.kind === 'frontGap' && e.plate === plate && e.byStop) return true
    if (e.kind === 'frontTurn' && e.screw === screw) return false
    if (e.kind === 'frontSet' && (e.what === 'position' || e.what === 'stops')) return false
  }
  return false
}

/** Did anything tell what the cable does since it was last clamped? A stop seen by itself does not. */
export function cableLookedAt(log: readonly FrontSight[]): boolean {
  const clamped = log.findLastIndex(e => e.kind === 'frontSet' || e.kind === 'frontUndone')
  return log
    .slice(clamped + 1)
    .some(e => e.kind === 'frontShift' || e.kind === 'frontRub' || (e.kind === 'frontGap' && !e.byStop))
}

/** So near to what is wanted a gap at a stop is neither wide nor narrow, mm; nobody reads finer. `practice` */
const NEAR_GAP_MM = 0.25
/**
 * What was read of a stop by itself stands: which ways its screw is not turned, further from the gap that is wanted
 * than it last read. In narrows a stop's gap, out widens it. Not where it was turned or moved since, told at a glance
 * only, or something but clean was seen on its ring since.
 * @param rings of the front
 */
export function stopShut(
  log: readonly FrontSight[],
  screw: 'L' | 'H',
  rings: number,
  wanted: { from: number; to: number } = { from: END_GAP_MM, to: END_GAP_MM },
): { in: boolean; out: boolean } {
  const open = { in: false, out: false }
  const plate = screw === 'L' ? 'inner' : 'outer'
  const ring = screw === 'L' ? 0 : rings - 1
  for (const e of [...log].reverse()) {
    if (e.kind === 'frontTurn' && e.screw === screw) return open
    if (e.kind === 'frontSet' && (e.what === 'position' || e.what === 'stops')) return open
    if (e.kind === 'frontShift' && e.to === ring && e.seen !== 'clean') return open
    if (e.kind === 'frontGap' && e.plate === plate && e.byStop)
      return e.byEye ? open : { in: e.gapMm < wanted.from - NEAR_GAP_MM, out: e.gapMm > wanted.to + NEAR_GAP_MM }
  }
  return open
}

/** The same look, in the log. */
function isSame(m: FrontMoveTo, e: FrontSight): boolean {
  switch (m.do) {
    case 'shift':
      return e.kind === 'frontShift' && e.from === m.from && e.to === m.to
    case 'gap':
      return e.kind === 'frontGap' && e.plate === m.plate && !e.byStop === !m.byStop
    case 'position':
      return e.kind === 'frontPosition'
    case 'undone':
      return e.kind === 'frontUndone'
    default:
      return false
  }
}
/** A chance that is asked for less strictly the more work was spent: `late` from `lateCost` on. */
export type Falling = { early: number; late: number; lateCost: number }
export const asFallen = ({ early, late, lateCost }: Falling, spent: number): number =>
  Math.max(late, early - (early - late) * (spent / lateCost))

/** Every shift is gone through once more from here, then it is done; falls with the work spent. `model` */
export const DONE: Falling = { early: 0.9, late: 0.84, lateCost: 45 }
/** No look is asked for a third time while nothing was turned or set. */
const MOST_LOOKS = 2
export function mayAsk(log: readonly FrontSight[], m: FrontMoveTo): boolean {
  let times = 0
  for (let i = log.length - 1; i >= 0; i--) {
    const e = log[i]
    if (e.kind === 'frontTurn' || e.kind === 'frontSet') return true
    if (isSame(m, e) && ++times >= MOST_LOOKS) return false
  }
  return true
}

export const setAlready = (log: readonly FrontSight[], what: FrontSet) =>
  log.some(e => e.kind === 'frontSet' && e.what === what)
export const costOfSight = (e: FrontSight): number => {
  switch (e.kind) {
    case 'frontTurn':
      return FRONT_COST.turn
    case 'frontShift':
      return FRONT_COST.shift
    case 'frontGap':
      return FRONT_COST.gap
    case 'frontPosition':
      return FRONT_COST.position
    case 'frontHand':
      return FRONT_COST.hand
    case 'frontUndone':
      return FRONT_COST.undone
    case 'frontRub':
      return FRONT_COST.shift
    case 'frontSet':
      return FRONT_SET_COST[e.what]
  }
}

/**
 * What was last seen of a pair since anything was turned or set: which plate rubs, null for neither; undefined where
 * nobody looked.
 */
export function rubSeen(
  log: readonly FrontSight[],
  ring: number,
  sprocket: number,
): 'inner' | 'outer' | null | undefined {
  for (let i = log.length - 1; i >= 0; i--) {
    const e = log[i]
    if (e.kind === 'frontTurn' || e.kind === 'frontSet') return undefined
    if (e.kind === 'frontRub' && e.ring === ring && e.sprocket === sprocket) return e.plate
  }
  return undefined
}

/**
 * Shifts from ring to ring that were not seen clean since anything was turned or set: nobody hands back a front that
 * was not shifted.
 */
export function shiftsToSee(log: readonly FrontSight[], rings: number): { from: number; to: number }[] {
  const since = log.slice(log.findLastIndex(e => e.kind === 'frontTurn' || e.kind === 'frontSet') + 1)
  const seen = ({ from, to }: { from: number; to: number }) =>
    since.some(e => e.kind === 'frontShift' && e.seen === 'clean' && e.from === from && e.to === to)
  return Array.from({ length: rings - 1 }, (_, r) => [
    { from: r, to: r + 1 },
    { from: r + 1, to: r },
  ])
    .flat()
    .filter(shift => !seen(shift))
}

/**
 * Over which ends the customer saw the chain thrown and the stop that guards it was not seen since: nobody shifts that
 * way yet.
 */
export const unguarded = (log: readonly FrontSight[], throws: readonly ThrownTo[] = []): ThrownTo[] =>
  throws.filter(to => !stopSeen(log, to === 'inboard' ? 'L' : 'H'))
