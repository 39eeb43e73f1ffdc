import type { FrontOrder } from '../procedure/frontOrders'
import type { FrontCause } from './causes'
import type { FrontSet } from './events'
import type { FrontScrew } from './moves'

export type FrontMoveTo =
  | { do: 'turn'; screw: FrontScrew; sixteenths: number }
  /**
   * `sprocket` is where the chain lies behind, by its place; `back`: when that was clean, at once back again; `times`:
   * so often there and back in one go, as long as it stays clean.
   */
  | { do: 'shift'; from: number; to: number; sprocket: number; back?: true; times?: number }
  /** `byStop`: with the cable out of account, slack for the inner plate, drawn by hand for the outer. */
  | { do: 'gap'; plate: 'inner' | 'outer'; byStop?: true }
  | { do: 'position' }
  | { do: 'undone' }
  | { do: 'set'; what: FrontSet }
  | { do: 'done' }
export type FrontCheck = Extract<FrontMoveTo, { do: 'shift' | 'gap' | 'position' | 'undone' }>

/** Over which end of the front a chain is thrown. */
export type ThrownTo = 'inboard' | 'outboard'

/**
 * How the work is to go: the order it follows, what the cage's plates are to leave at the stops, what the customer saw
 * thrown.
 */
export type FrontWishes = {
  order?: FrontOrder
  endGapMm?: { from: number; to: number }
  throws?: readonly ThrownTo[]
}

/** `last round`: every shift once more before "done". `way alone`: a screw's way is sure, not how far it goes. */
export type FrontBecause = 'last round' | 'way alone'

/** The whole answer. Chances 0 to 1; places in mm from the ideals, + outboard. */
export type FrontAdvice = {
  move: FrontMoveTo
  right: number
  /** Chance of right once the move is done as said; null for a check. */
  after: number | null
  /** Why this move, where it is not that it gains or tells most. */
  because: FrontBecause | null
  causes: Record<FrontCause, number>
  /** The check that tells most for its cost, and what it tells apart, nats. */
  nextCheck: { move: FrontCheck; tells: number } | null
  /** Where the cage stands on each ring's click, reached outward and inward. */
  clicks: { ring: number; outward: Spread; inward: Spread }[]
  stops: { L: Spread; H: Spread }
  backlashMm: Spread
  heightMm: Spread
  angleDeg: Spread
  /** Turns of barrel from here between which it would most likely be right; null when hardly anywhere. */
  barrelTurns: { from: number; to: number } | null
  /** Chance that a shift to this ring throws the chain, as things stand. */
  thrown: { inboard: number; outboard: number }
}
export type Spread = { mean: number; sd: number }
