import type { Cause } from '../response/causes'
import type { Part, Screw } from '../rear/benchEvents'

export type Move =
  | { do: 'shift'; to: number }
  | { do: 'turn'; screw: Screw; turns: number }
  | { do: 'sight'; at: 'H' | 'L' }
  | { do: 'offset'; click: number }
  | { do: 'edge'; click: number; way: 'out' | 'in' }
  | { do: 'hanger' }
  | { do: 'reclamp'; barrelTurnsOut: number }
  | { do: 'replace'; part: Part; cause: Cause }
  | { do: 'done' }

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
