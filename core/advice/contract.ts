import type { Cause } from '../response/causes'
import type { Part, Screw } from '../rear/benchEvents'
import type { Placing } from '../rear/asSeen'

export type Move =
  | { do: 'shift'; to: number }
  | { do: 'turn'; screw: Screw; turns: number }
  | { do: 'sight'; at: 'H' | 'L' }
  | { do: 'offset'; click: number }
  | { do: 'edge'; click: number; way: 'out' | 'in' }
  | { do: 'hanger' }
  /**
   * Click by click from the lever's gear to `to`, and back again, every arrival listened to, until the first not clean.
   */
  | { do: 'pass'; to: number; back: boolean }
  | { do: 'reclamp'; barrelTurnsOut: number }
  | { do: 'replace'; part: Part; cause: Cause }
  | { do: 'done' }

/** In which order stops and index come; the largest sprocket stays shut in all of them until L was seen. */
export const ADVICE_ORDERS = ['stopsFirst', 'climbThenL', 'tensionFirst'] as const
export type AdviceOrder = (typeof ADVICE_ORDERS)[number]

/** How checks are listened to (schools of testing); what is inferred from an answer is the same in all. */
export const LISTENINGS = ['oneClick', 'twoClicks', 'findTheEdge', 'middleOfTheRub', 'firstFour'] as const
export type Listening = (typeof LISTENINGS)[number]

/** How the advice is to be given; everything has its usual value. */
export type AdviceOptions = {
  /** May a pass be advised? Default not. */
  passes?: boolean
  /** Default stops first. */
  order?: AdviceOrder
  /** Where this shop's school wants the stops, mm from their end sprockets' planes, + inboard. Default `PLACING`. */
  placing?: Placing
  /** Which checks this shop's school prefers; default one click, which prefers none. */
  listening?: Listening
  /** Where this shop's school starts the barrel at a clamp, turns out; default where most travel is left both ways. */
  startTurnsOut?: number
  /** What was advised and left, by `declineKey`: it counts as sure, and the next best is advised. Default nothing. */
  declined?: readonly string[]
}

/** The contract's narrow view of the advice. */
export type Advice = {
  move: Move
  why: string
  /** Chance that the bike is right as it stands. */
  right: number
  causes: Record<Cause, number>
  /** Cable offset, mm: + too tight, 0 the middle of the window (of the cured bike's, if there is none). */
  offsetMm: { mean: number; sd: number }
  /** Barrel turns out between which every gear is expected clean; null when there is no such window. */
  windowTurns: { from: number; to: number } | null
}
